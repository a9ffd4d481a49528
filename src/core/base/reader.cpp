#include "core/base/reader.h"

#include <fmt/format.h>

#include <algorithm>

#include "core/base/shown_text.h"

namespace bold {

ObjectReader::ObjectReader(const Json& value, std::string file, std::string pointer, std::vector<Problem>& problems)
    : m_json(value), m_file(std::move(file)), m_pointer(std::move(pointer)), m_problems(problems) {
  if (!m_json.is_object()) report("", "is not an object");
}

bool ObjectReader::has(const std::string& key) const {
  return m_json.is_object() && m_json.contains(key);
}

const Json* ObjectReader::get(const std::string& key) {
  m_known.push_back(key);
  if (!m_json.is_object()) return nullptr;
  const auto it = m_json.find(key);
  return it == m_json.end() ? nullptr : &*it;
}

std::string ObjectReader::text(const std::string& key, std::string fallback) {
  const auto* v = get(key);
  if (!v) return fallback;
  if (v->is_string()) return shownText(v->get_ref<const std::string&>());
  report(key, "is not a text");
  return fallback;
}

std::string ObjectReader::requiredText(const std::string& key) {
  if (!has(key)) report("", "has no \"" + key + "\"");
  auto out = text(key);
  if (const auto* v = get(key); v && v->is_string() && out.empty()) report(key, "is empty");
  return out;
}

std::size_t ObjectReader::oneOf(const std::string& key, std::span<const std::string_view> words, std::size_t fallback) {
  const auto said = text(key, std::string(words[fallback]));
  const auto at = static_cast<std::size_t>(std::ranges::find(words, said) - words.begin());
  if (at < words.size()) return at;
  report(key, fmt::format("is not one of {}", fmt::join(words, ", ")));
  return fallback;
}

bool ObjectReader::flag(const std::string& key, bool fallback) {
  const auto* v = get(key);
  if (!v) return fallback;
  if (v->is_boolean()) return v->get<bool>();
  report(key, "is neither true nor false");
  return fallback;
}

double ObjectReader::number(const std::string& key, double fallback) {
  const auto* v = get(key);
  if (!v) return fallback;
  if (v->is_number()) return v->get<double>();
  report(key, "is not a number");
  return fallback;
}

std::vector<std::string> ObjectReader::texts(const std::string& key) {
  std::vector<std::string> out;
  const auto* v = get(key);
  if (!v) return out;
  if (!v->is_array()) {
    report(key, "is not a list of texts");
    return out;
  }
  for (const auto& e : *v) {
    if (e.is_string())
      out.push_back(shownText(e.get_ref<const std::string&>()));
    else
      report(key, "is not a list of texts");
  }
  return out;
}

void ObjectReader::each(const std::string& key, const std::function<void(const Json&, const std::string&)>& f) {
  const auto* v = get(key);
  if (!v) return;
  if (!v->is_array()) {
    report(key, "is not a list");
    return;
  }
  for (std::size_t i = 0; i < v->size(); ++i) f((*v)[i], m_pointer + "/" + key + "/" + std::to_string(i));
}

void ObjectReader::report(const std::string& key, const std::string& what, const std::string& kept) const {
  const std::string at = key.empty() ? m_pointer : m_pointer + "/" + key;
  m_problems.push_back({(key.empty() ? "This" : "\"" + shownText(key) + "\"") + " " + what + ".", m_file + "#" + at, kept});
}

std::vector<std::string> ObjectReader::unknown() const {
  std::vector<std::string> out;
  if (m_json.is_object())
    for (const auto& [k, v] : m_json.items())
      if (std::ranges::find(m_known, k) == m_known.end()) out.push_back(k);
  return out;
}

}  // namespace bold
