#pragma once

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <string>
#include <vector>

#include "core/base/reader.h"
#include "core/base/shown_text.h"
#include "core/harness/entry_json.h"
#include "core/harness/kinds.h"

/// What all readers of entries do alike. For .cpp files of readers only.
namespace bold::harness {

inline constexpr const char* kNotUsed = "It was not used.";

// What people write beside a thing for themselves. Any other unknown key may be a mistyped one.
inline bool remark(const std::string& key) {
  static constexpr std::array kRemarks{"note", "notes", "comment", "comments", "remark", "description"};
  return std::ranges::count(kRemarks, key) > 0 || key.starts_with('_') || key.starts_with("x-") || key == "$schema";
}

inline void nameUnknown(const ObjectReader& r) {
  for (const auto& key : r.unknown())
    if (!remark(key))
      r.problems().push_back({fmt::format("\"{}\" is nothing that this version knows here.", shownText(key)),
                              r.file() + "#" + r.pointer() + "/" + pointerKey(key), kNotUsed});
}

template <class Q>
std::optional<Q> quantity(ObjectReader& r, const std::string& key, const Kind& kind) {
  if (!r.has(key)) return std::nullopt;
  const auto* json = r.get(key);
  if (!json->is_string()) {
    r.report(key, "is not a quantity with its unit, as text", "It was taken as not given.");
    return std::nullopt;
  }
  const auto q = parseKind(json->get<std::string>(), kind);
  if (q) return Q{q->value};
  r.report(key, "cannot be used: " + q.error().what, "It was taken as not given.");
  return std::nullopt;
}

// Longer than anybody calls a thing, or a file's path may be.
inline bool tooLong(ObjectReader& r, const std::string& key, std::string& text, std::size_t most) {
  if (text.size() <= most) return false;
  r.report(key, fmt::format("is longer than {} bytes", most), "It was taken as not given.");
  text.clear();
  return true;
}

inline bool blank(std::string_view text) {
  return text.find_first_not_of(" \t") == std::string_view::npos;
}

// A name that something hangs on, where it stands: one that says nothing may be a slip.
inline std::string reference(ObjectReader& r, const std::string& key) {
  auto out = r.text(key);
  if (tooLong(r, key, out, kLongestPath)) return {};
  if (const auto* v = r.get(key); !v || !v->is_string() || !blank(out)) return out;
  r.report(key, "is empty", "It was taken as not given.");
  return {};
}

// Text for people: blanks alone are none.
inline std::string words(ObjectReader& r, const std::string& key) {
  auto out = r.text(key);
  return tooLong(r, key, out, kLongestText) || blank(out) ? std::string() : out;
}

// One of a few words; the first of them when it is none. `kept` says what was done then; empty: the first was taken.
inline std::size_t oneOf(ObjectReader& r, const std::string& key, const std::vector<std::string>& words, std::string kept = {}) {
  if (!r.has(key)) return 0;
  const auto said = r.text(key, "");
  const auto it = std::ranges::find(words, said);
  if (it != words.end()) return static_cast<std::size_t>(it - words.begin());
  if (!r.get(key)->is_string()) return 0;  // said already
  std::string all;
  for (std::size_t i = 0; i < words.size(); ++i) all += (i == 0 ? "\"" : i + 1 == words.size() ? " or \"" : ", \"") + words[i] + "\"";
  r.report(key, fmt::format("is \"{}\": it can be {}", said, all),
           kept.empty() ? "It was taken as " + words.front() + "." : std::move(kept));
  return 0;
}

inline std::string required(ObjectReader& r, const std::string& key) {
  if (!r.has(key)) r.report(key, "is missing", kNotUsed);
  auto out = r.text(key);
  if (tooLong(r, key, out, kLongestPath)) return {};
  if (const auto* v = r.get(key); v && v->is_string() && blank(out)) {
    r.report(key, "is empty");
    out.clear();
  }
  return out;
}

// What something looked like then: letters and digits, as the program writes it.
inline std::string digestIn(ObjectReader& r) {
  auto out = required(r, "digest");
  if (out.empty() || (isId(out) && out.size() <= kLongestText)) return out;
  r.report("digest", "is no digest");
  return {};
}

// What has no id cannot be spoken of; `kept` says what becomes of it.
inline bool takeId(ObjectReader& r, std::string& id, const char* kept) {
  id = required(r, "id");
  if (isId(id)) return true;
  r.report("id", "is not made of letters, digits, - and _", kept);
  return false;
}

// Problems say what was done in their place; a thing that cannot be used at all says so first.
template <class T>
ReadEntry<T> leftOut(std::vector<Problem> problems, const char* what) {
  if (problems.front().kept.empty() || problems.front().kept == kNotUsed) problems.front().kept = fmt::format("The {} was left out.", what);
  return {std::nullopt, std::move(problems)};
}

template <class T>
ReadEntry<T> done(T value, std::vector<Problem> problems) {
  for (auto& p : problems)
    if (p.kept.empty()) p.kept = kNotUsed;
  return {std::move(value), std::move(problems)};
}

}  // namespace bold::harness
