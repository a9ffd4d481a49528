#include "core/harness/colour_codes.h"

#include <algorithm>

#include "core/base/lower.h"

namespace bold::harness {
namespace {

const ColourCode* coded(std::string_view code) {
  const auto* it = std::ranges::find(kColourCodes, code, &ColourCode::code);
  return it == kColourCodes.end() ? nullptr : it;
}

// "green", "GN", as people write them; "gray" is grey.
const ColourCode* one(std::string_view word) {
  if (word == "gray") word = "grey";
  const auto* it = std::ranges::find_if(kColourCodes, [&](const ColourCode& c) { return c.name == word || lower(c.code) == word; });
  return it == kColourCodes.end() ? nullptr : it;
}

}  // namespace

bool isColour(std::string_view text) {
  return (text.size() == 2 || text.size() == 4) && coded(text.substr(0, 2)) && (text.size() == 2 || coded(text.substr(2)));
}

std::optional<std::string> colourTyped(std::string_view text) {
  const auto typed = lower(text);
  if (const auto* c = one(typed)) return std::string(c->code);
  if (typed.size() == 4)
    if (const auto* a = one(std::string_view(typed).substr(0, 2)), *b = one(std::string_view(typed).substr(2)); a && b)
      return std::string(a->code) + std::string(b->code);
  for (const std::string_view between : {" and ", "-", "/", " "}) {
    const auto at = typed.find(between);
    if (at == std::string::npos) continue;
    const auto* a = one(std::string_view(typed).substr(0, at));
    const auto* b = one(std::string_view(typed).substr(at + between.size()));
    if (a && b) return std::string(a->code) + std::string(b->code);
  }
  return std::nullopt;
}

std::string colourName(std::string_view code) {
  const auto* a = coded(code.substr(0, 2));
  const auto* b = code.size() == 4 ? coded(code.substr(2)) : nullptr;
  if (!a) return std::string(code);
  return std::string(a->name) + (b ? " and " + std::string(b->name) : std::string());
}

std::string_view shownColour(std::string_view code, int which) {
  if (which == 1 && code.size() < 4) return {};
  const auto* c = code.size() >= 2 ? coded(code.substr(which == 1 ? 2 : 0, 2)) : nullptr;
  return c ? c->shown : std::string_view("#8a9296");
}

}  // namespace bold::harness
