#pragma once

#include <functional>
#include <nlohmann/json.hpp>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/json.h"

namespace bold {

/// Reads one JSON object field by field, noting every problem with its JSON pointer and every field nobody asked for.
/// For .cpp files of readers only: it pulls in the whole JSON library.
class ObjectReader {
 public:
  ObjectReader(const Json& value, std::string file, std::string pointer, std::vector<Problem>& problems);

  const std::string& file() const { return m_file; }
  const std::string& pointer() const { return m_pointer; }
  std::vector<Problem>& problems() const { return m_problems; }
  bool has(const std::string& key) const;

  /// The value, or nullptr; the key counts as known from now on.
  const Json* get(const std::string& key);
  /// What is of another kind than was asked for is reported, and the fallback taken.
  std::string text(const std::string& key, std::string fallback = {});
  std::string requiredText(const std::string& key);
  /// Which of these words it is. Another one is reported, and the fallback taken.
  std::size_t oneOf(const std::string& key, std::span<const std::string_view> words, std::size_t fallback);
  bool flag(const std::string& key, bool fallback = false);
  double number(const std::string& key, double fallback = 0);
  std::vector<std::string> texts(const std::string& key);
  /// Calls f(element, pointer) for each member of a list.
  void each(const std::string& key, const std::function<void(const Json&, const std::string&)>& f);
  void report(const std::string& key, const std::string& what, const std::string& kept = {}) const;
  /// Keys that nobody asked for.
  std::vector<std::string> unknown() const;

 private:
  const Json& m_json;
  std::string m_file, m_pointer;
  std::vector<Problem>& m_problems;
  std::vector<std::string> m_known;  // asked for, now and then twice
};

}  // namespace bold
