#include "core/program/keep_readable.h"

#include <algorithm>

#include "core/harness/harness.h"
#include "core/harness/kinds.h"

namespace bold::program {
namespace {

using namespace harness;

void keepPlausible(auto& q, const harness::Kind& kind) {
  if (q && !plausible(kind, q->value)) q.reset();
}

// At the end of a letter (UTF-8).
void cut(std::string& text) {
  if (text.size() <= kLongestText) return;
  static constexpr std::string_view kMore = "…";
  auto end = kLongestText - kMore.size();
  while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0U) == 0x80U) --end;
  text.resize(end);
  text += kMore;
}

}  // namespace

void keepReadable(SourceRead& source) {
  for (auto& u : source.pins) {
    keepPlausible(u.frequency, kPwmFrequency);
    keepPlausible(u.pulse, kPulseLength);
    keepPlausible(u.rate, kStepRate);
    constexpr double kLeastWritten = -1e6;  // as the document takes it
    if (u.written && *u.written < kLeastWritten) u.written.reset();
    if (u.duty && !(*u.duty >= 0 && *u.duty <= 1)) u.duty.reset();
    cut(u.name);
    for (auto& [name, spot] : u.also) cut(name);
  }
  std::erase_if(source.groups, [&](const PinGroup& g) {
    return std::ranges::any_of(g.words, [&](const std::string& w) { return std::ranges::count(source.pins, w, &PinUse::word) == 0; });
  });
  for (auto& g : source.groups) {
    keepPlausible(g.rate, kStepRate);
    cut(g.name);
  }
  for (auto& u : source.untold) cut(u.what);
}

}  // namespace bold::program
