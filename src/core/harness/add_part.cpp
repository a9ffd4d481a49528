#include "core/harness/add_part.h"

#include <fmt/core.h>

#include <map>

#include "core/harness/edit_maker.h"

namespace bold::harness {
namespace {

std::string stemOf(const parts::Part& p) {
  static const std::map<std::string, std::string> kStems{{"controller", "u"}, {"transistor", "q"}, {"diode", "d"},       {"resistor", "r"},
                                                         {"capacitor", "c"},  {"fuse", "f"},       {"battery", "v"},     {"adapter", "v"},
                                                         {"port", "v"},       {"block", "x"},      {"breadboard", "bb"}, {"bridge", "s"},
                                                         {"step/dir", "s"},   {"array", "s"}};
  const auto it = kStems.find(p.kind);
  return it == kStems.end() ? "m" : it->second;
}

}  // namespace

Result<Edit> addPart(const Harness& h, const parts::Library& library, const std::string& partId, std::string id, const std::string& name) {
  const auto part = library.find(partId);
  if (!part) return fail(fmt::format("The part \"{}\" is not in the library.", partId));
  if (h.device(id)) return fail(fmt::format("\"{}\" is on the bench already.", id));
  EditMaker maker(h);
  Device d;
  d.id = std::move(id);
  d.part = partId;
  d.name = name;
  const auto device = maker.device(std::move(d), stemOf(*part));
  for (const auto& [a, b] : part->fitted) maker.jumper({device, a}, {device, b});
  return maker.take(fmt::format("Add {}", part->name));
}

}  // namespace bold::harness
