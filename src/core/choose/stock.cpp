#include "core/choose/stock.h"

#include <fmt/core.h>

#include <algorithm>
#include <charconv>

#include "core/base/csv.h"

namespace bold::choose {
namespace {

constexpr int kMost = 1'000'000;

std::optional<int> count(const std::string& text) {
  int out = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), out);
  if (error != std::errc() || end != text.data() + text.size() || out < 0 || out > kMost) return std::nullopt;
  return out;
}

}  // namespace

ReadStock readStock(std::string_view csv, const parts::Library& library) {
  ReadStock out;
  for (const auto& [number, all, line] : readCsv(csv)) {
    const auto n = all.size() > 1 ? count(all[1]) : std::nullopt;
    const auto where = fmt::format("line {}", number);
    if (!n && number == 1 && all.size() > 1) continue;  // its heading
    if (all[0].empty()) {
      out.problems.push_back({"It names no part.", where, {}});
      out.unread.emplace_back(line);
    } else if (!n) {
      out.problems.push_back(
          {fmt::format("\"{}\" is no count of \"{}\": a whole number from 0 on is.", all.size() > 1 ? all[1] : "", all[0]), where, {}});
      out.unread.emplace_back(line);
    } else {
      if (!library.find(all[0]))
        out.problems.push_back({fmt::format("No library knows a part \"{}\".", all[0]), where, "The line was kept."});
      out.stock[all[0]] = std::min(out.stock[all[0]] + *n, kMost);
    }
  }
  return out;
}

std::string writeStock(const Stock& stock, const std::vector<std::string>& unread) {
  auto out = csvLine({"part", "count"});
  for (const auto& [part, n] : stock) out += csvLine({part, std::to_string(n)});
  for (const auto& line : unread) out += line + '\n';
  return out;
}

std::vector<std::pair<std::string, int>> addedParts(const Candidate& c) {
  std::vector<std::pair<std::string, int>> out;
  for (const auto& change : c.edit.changes) {
    const auto* d = std::get_if<harness::Put<harness::Device>>(&change);
    if (!d || d->value.state != harness::State::Planned) continue;
    const auto it = std::ranges::find(out, d->value.part, &std::pair<std::string, int>::first);
    if (it == out.end())
      out.emplace_back(d->value.part, 1);
    else
      ++it->second;
  }
  return out;
}

std::vector<std::pair<std::string, int>> toBuy(const Candidate& c, const Stock& stock, int benches) {
  auto out = addedParts(c);
  for (auto& [part, n] : out) {
    const auto it = stock.find(part);
    n = std::max(n * benches - (it == stock.end() ? 0 : it->second), 0);
  }
  std::erase_if(out, [](const auto& p) { return p.second == 0; });
  return out;
}

bool inStock(const Candidate& c, const Stock& stock, int benches) {
  if (c.stage == c.device) return true;
  const auto it = stock.find(c.stage);
  return it != stock.end() && it->second >= benches;
}

}  // namespace bold::choose
