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

// A line that could not be read as it is kept: one that stands in quotes as a whole comes out of them.
std::string keptLine(const CsvLine& line) {
  if (line.fields.size() == 1) return line.fields[0];
  const auto first = line.text.find_first_not_of(" \r\n\t");
  return line.text.substr(first, line.text.find_last_not_of(" \r\n\t") - first + 1);
}

// Whether a kept line, written as it is, is read as that line again: in another file it stood among other separators and quotes.
bool readsAsItself(const std::string& line) {
  const auto all = readCsv("part,count\n" + line + "\n");
  if (all.size() != 2 || keptLine(all[1]) != line) return false;
  const auto& fields = all[1].fields;
  return fields[0].empty() || fields.size() < 2 || !count(fields[1]);
}

}  // namespace

ReadStock readStock(std::string_view csv, const parts::Library& library) {
  ReadStock out;
  for (const auto& line : readCsv(csv)) {
    const auto& [number, all, text] = line;
    const auto n = all.size() > 1 ? count(all[1]) : std::nullopt;
    const auto where = fmt::format("line {}", number);
    if (!n && number == 1 && all.size() > 1) continue;  // its heading
    if (all[0].empty()) {
      out.problems.push_back({"It names no part.", where, {}});
      out.unread.push_back(keptLine(line));
    } else if (!n) {
      out.problems.push_back(
          {fmt::format("\"{}\" is no count of \"{}\": a whole number from 0 on is.", all.size() > 1 ? all[1] : "", all[0]), where, {}});
      out.unread.push_back(keptLine(line));
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
  for (const auto& line : unread) out += readsAsItself(line) ? line + '\n' : csvLine({line});
  return out;
}

std::vector<std::pair<std::string, int>> addedParts(const Candidate& c) {
  std::vector<std::pair<std::string, int>> out;
  for (const auto& change : c.edit.changes) {
    const auto* d = change.as<harness::Put<harness::Device>>();
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
