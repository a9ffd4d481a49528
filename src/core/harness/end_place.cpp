#include "core/harness/end_place.h"

#include "core/harness/seen_part.h"
#include "core/places/words.h"

namespace bold::harness {
namespace {

std::string placed(const Harness& h, const parts::Library& library, const Address& end, bool full) {
  const auto* d = h.device(end.device);
  const auto part = d ? seenPart(library.find(d->part), *d, h) : nullptr;
  const auto* t = part ? part->find(end.terminal) : nullptr;
  if (!t) return {};
  return full ? places::fullPlace(*part, *t, d->lie) : places::placeWords(*part, *t, d->lie);
}

}  // namespace

std::string endPlace(const Harness& h, const parts::Library& library, const Address& end) {
  return placed(h, library, end, false);
}

std::string fullEndPlace(const Harness& h, const parts::Library& library, const Address& end) {
  return placed(h, library, end, true);
}

}  // namespace bold::harness
