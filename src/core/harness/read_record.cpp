#include "core/harness/entry_reader.h"

namespace bold::harness {
namespace {

constexpr int kMostShuffles = 1'000'000'000;
constexpr int kMostCounted = 1000;

// "2026-11-30T10:12", as the program writes it; with seconds, or the day alone.
std::string moment(ObjectReader& r, const std::string& key) {
  auto out = r.text(key);
  if (const auto* v = r.get(key); !v || !v->is_string()) return out;
  static constexpr std::string_view kForm = "dddd-dd-ddTdd:dd:dd";
  const bool whole = out.size() == 10 || out.size() == 16 || out.size() == kForm.size();
  for (std::size_t k = 0; whole && k < out.size(); ++k) {
    const bool digit = out[k] >= '0' && out[k] <= '9';
    if (kForm[k] == 'd' ? digit : out[k] == kForm[k]) continue;
    r.report(key, "is no time such as 2026-11-30T10:12", "It was taken as not given.");
    return {};
  }
  if (!whole) r.report(key, "is no time such as 2026-11-30T10:12", "It was taken as not given.");
  return whole ? out : std::string();
}

// Two ends or one; nothing where they are no addresses, which is said.
std::optional<std::vector<Address>> addresses(ObjectReader& r, const std::string& key, std::size_t count) {
  std::vector<Address> out;
  for (const auto& text : r.texts(key)) {
    const auto a = parseAddress(text);
    if (!a) {
      r.report(key, "cannot be used: " + a.error().what);
      return std::nullopt;
    }
    out.push_back(*a);
  }
  if (out.size() == count) return out;
  r.report(key, fmt::format("needs exactly {} terminals", count));
  return std::nullopt;
}

std::optional<Answer> answer(const Json& json, const std::string& at, std::vector<Problem>& problems) {
  ObjectReader r(json, "", at, problems);
  Answer a;
  a.wire = required(r, "wire");
  a.fromB = r.flag("fromSecond");
  a.digest = digestIn(r);
  a.said = words(r, "said");
  a.at = moment(r, "at");
  if (r.has("means")) {
    const auto means = parseAddress(r.text("means"));
    if (means)
      a.means = *means;
    else
      r.report("means", "cannot be used: " + means.error().what);
  }
  nameUnknown(r);
  return a.wire.empty() || a.digest.empty() ? std::nullopt : std::optional(std::move(a));
}

}  // namespace

ReadEntry<Mark> readMark(const Json& json, const std::string& at) {
  std::vector<Problem> problems;
  ObjectReader r(json, "", at, problems);
  Mark m;
  if (!json.is_object() || !takeId(r, m.id, "The mark was left out.")) return leftOut<Mark>(std::move(problems), "mark");
  m.wire = required(r, "wire");
  m.digest = digestIn(r);
  static constexpr std::array kMarks{Marked::Fitted, Marked::Tugged, Marked::Seen, Marked::Wrong};
  if (!r.has("mark")) r.report("mark", "is missing", kNotUsed);
  m.what = kMarks[oneOf(r, "mark", {"fitted", "tugged", "seen", "wrong"})];
  if (!problems.empty()) {  // as a whole: a mark of something else says what nobody saw
    problems.front().kept.clear();
    return leftOut<Mark>(std::move(problems), "mark");
  }
  m.by = words(r, "by");
  m.at = moment(r, "at");
  m.remark = words(r, "remark");
  if (r.has("found"))
    if (const auto ends = addresses(r, "found", 2)) m.found = {(*ends)[0], (*ends)[1]};
  nameUnknown(r);
  return done(std::move(m), std::move(problems));
}

ReadEntry<Round> readRound(const Json& json, const std::string& at) {
  std::vector<Problem> problems;
  ObjectReader r(json, "", at, problems);
  Round round;
  if (!json.is_object() || !takeId(r, round.id, "The round was left out.")) return leftOut<Round>(std::move(problems), "round");
  round.reader = words(r, "reader");
  round.at = moment(r, "at");
  if (const double n = r.number("shuffle"); n >= 0 && n <= kMostShuffles && n == static_cast<int>(n))
    round.shuffle = static_cast<int>(n);
  else
    r.report("shuffle", "is no number of an order", kNotUsed);
  r.each("answers", [&](const Json& one, const std::string& where) {
    if (auto a = answer(one, where, problems)) round.answers.push_back(std::move(*a));
  });
  if (const auto* counts = r.get("counts")) {
    if (!counts->is_object()) r.report("counts", "is not an object of counts", "It was left out.");
    for (const auto& [device, n] : counts->items())
      if (counts->is_object() && n.is_number_integer() && n >= 0 && n <= kMostCounted)
        round.counts[device] = n.get<int>();
      else if (counts->is_object())
        r.report("counts/" + pointerKey(device), fmt::format("is not a whole number from 0 to {}", kMostCounted), "It was left out.");
  }
  nameUnknown(r);
  return done(std::move(round), std::move(problems));
}

}  // namespace bold::harness
