#include "core/parts/shipped_parts.h"

#include <algorithm>
#include <nlohmann/json.hpp>

#include "core/base/embedded.h"
#include "core/parts/read_part.h"

namespace bold::parts {
namespace {

std::string_view stem(std::string_view path) {
  path.remove_prefix(path.rfind('/') + 1);
  return path.substr(0, path.rfind('.'));
}

}  // namespace

ShippedParts::ShippedParts() {
  for (const auto& f : embedded::parts()) {
    auto slot = std::make_unique<Slot>();
    slot->text = f.text;
    m_slots.emplace(stem(f.path), std::move(slot));
  }
}

std::shared_ptr<const ShippedParts> ShippedParts::all() {
  static const auto parts = std::make_shared<const ShippedParts>();
  return parts;
}

const LibraryEntry* ShippedParts::find(std::string_view id) const {
  const auto it = m_slots.find(id);
  if (it == m_slots.end()) return nullptr;
  auto& slot = *it->second;
  std::call_once(slot.once, [&] {
    std::vector<Problem> problems;  // the tests hold that shipped files have none
    auto json = parseJson(slot.text, std::string(id), problems);
    if (!json) return;
    auto part = readPart(*json, std::string(id), problems);
    if (!part) return;
    slot.entry = {std::make_shared<const Part>(std::move(*part)), std::make_shared<const Json>(std::move(*json))};
  });
  return slot.entry.part ? &slot.entry : nullptr;
}

std::vector<std::string_view> ShippedParts::ids() const {
  std::vector<std::string_view> out;
  for (const auto& [id, slot] : m_slots) out.push_back(id);
  std::ranges::sort(out);
  return out;
}

}  // namespace bold::parts
