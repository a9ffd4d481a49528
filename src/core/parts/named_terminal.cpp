#include "core/parts/named_terminal.h"

#include <algorithm>
#include <array>
#include <cctype>

#include "core/base/lower.h"

namespace bold::parts {
namespace {

constexpr std::array kMotorSupply{"vm", "vmot", "vmm", "vs", "vbat"};
constexpr std::array kLogicSupply{"vcc", "vdd", "vio", "vlogic"};

}  // namespace

std::vector<std::string> terminalsNamed(const Part& part, std::string_view text) {
  const auto word = lower(text);
  std::vector<std::string> out;
  const auto collect = [&](auto means) {
    for (const auto& t : part.terminals)
      if (means(t)) out.push_back(t.id);
    return !out.empty();
  };
  if (word.empty()) return out;
  for (const auto& t : part.terminals)
    if (lower(t.id) == word) return {t.id};
  if (collect([&](const Terminal& t) { return lower(t.label) == word; })) return out;
  if (collect([&](const Terminal& t) {
        return std::ranges::any_of(t.aliases, [&](const auto& a) { return lower(a) == word; }) ||
               (t.pin && (lower(t.pin->code) == word || lower(t.pin->chip) == word));
      }))
    return out;
  const auto supply = [&](SupplyFor purpose) {
    return collect([&](const Terminal& t) { return t.supply && t.supply->purpose == purpose; });
  };
  if (std::ranges::count(kMotorSupply, word) > 0) supply(SupplyFor::Motor);
  if (std::ranges::count(kLogicSupply, word) > 0) supply(SupplyFor::Logic);
  return out;
}

std::string terminalNamed(const Part& part, std::string_view word) {
  const auto all = terminalsNamed(part, word);
  if (all.empty()) return {};
  const bool grounds = std::ranges::all_of(all, [&](const auto& id) { return part.find(id)->ground; });
  return all.size() == 1 || grounds ? all.front() : std::string();
}

}  // namespace bold::parts
