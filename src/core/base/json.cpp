#include "core/base/json.h"

#include <fmt/core.h>

#include <algorithm>
#include <memory>
#include <nlohmann/json.hpp>
#include <unordered_set>

namespace bold {
namespace {

constexpr int kDeepest = 200;  // deeper than any bench; keeps recursion bounded
constexpr std::size_t kLineWidth = 110;
constexpr std::size_t kFewMembers = 12;

// Builds the value while watching for what the library itself would pass over in silence: duplicate keys.
class Builder : public nlohmann::json_sax<Json> {
 public:
  Builder(std::string where, std::vector<Problem>& problems) : m_where(std::move(where)), m_problems(problems) {}

  Json root;
  std::string error;
  std::size_t errorAt = 0;
  std::size_t repeated = 0;

  bool null() override { return put(nullptr); }
  bool boolean(bool v) override { return put(v); }
  bool number_integer(number_integer_t v) override { return put(v); }
  bool number_unsigned(number_unsigned_t v) override { return put(v); }
  bool number_float(number_float_t v, const string_t&) override { return put(v); }
  bool string(string_t& v) override { return put(std::move(v)); }
  bool binary(binary_t&) override { return false; }
  bool start_object(std::size_t) override { return open(Json::object()); }
  bool end_object() override { return close(); }
  bool start_array(std::size_t) override { return open(Json::array()); }
  bool end_array() override { return close(); }
  bool key(string_t& k) override {
    auto& top = m_stack.back();
    top.key = k;
    top.dropped = repeats(top, k);
    if (top.dropped && ++repeated <= kMostRepeatsNamed)
      m_problems.push_back(
          {fmt::format("The key \"{}\" appears twice in one object.", shownText(k)), m_where + pointer(), "The first value was kept."});
    return true;
  }
  bool parse_error(std::size_t position, const std::string&, const nlohmann::detail::exception& e) override {
    if (error.empty()) error = e.what();
    errorAt = position;
    return false;
  }

 private:
  struct Level {
    Json value;
    std::string key;
    std::unique_ptr<std::unordered_set<std::string>> seen;  // of an object with many members
    bool dropped = false;
  };
  std::string m_where;
  std::vector<Problem>& m_problems;
  std::vector<Level> m_stack;

  std::string pointer() const {
    std::string p = "#";
    for (const auto& l : m_stack) p += "/" + (l.value.is_array() ? std::to_string(l.value.size()) : pointerKey(l.key));
    return p;
  }
  // Whether the object has this key already. Most objects have a few members: looking through them is faster than a set.
  static bool repeats(Level& level, const std::string& key) {
    const auto& members = *level.value.get_ptr<Json::object_t*>();
    if (members.size() < kFewMembers) return std::ranges::any_of(members, [&](const auto& m) { return m.first == key; });
    if (!level.seen) {
      level.seen = std::make_unique<std::unordered_set<std::string>>();
      for (const auto& m : members) level.seen->insert(m.first);
    }
    return !level.seen->insert(key).second;
  }
  template <class T>
  bool put(T&& v) {
    if (m_stack.empty()) {
      root = std::forward<T>(v);
    } else if (auto& top = m_stack.back(); top.value.is_array()) {
      top.value.push_back(std::forward<T>(v));
    } else if (!top.dropped) {
      // The key is known to be new: emplace would look through all the others once more.
      using Members = Json::object_t::Container;
      static_cast<Members&>(*top.value.template get_ptr<Json::object_t*>()).emplace_back(top.key, std::forward<T>(v));
    }
    return true;
  }
  bool open(Json v) {
    if (m_stack.size() >= kDeepest) {
      error = fmt::format("it is nested deeper than {} levels", kDeepest);
      return false;
    }
    m_stack.push_back({std::move(v), {}, nullptr, false});
    return true;
  }
  bool close() {
    Json v = std::move(m_stack.back().value);
    m_stack.pop_back();
    return put(std::move(v));
  }
};

std::string lineAndColumn(std::string_view text, std::size_t position) {
  std::size_t line = 1;
  std::size_t column = 1;
  for (std::size_t i = 0; i + 1 < position && i < text.size(); ++i) {
    ++column;
    if (text[i] == '\n') {
      ++line;
      column = 1;
    }
  }
  return fmt::format("line {}, column {}", line, column);
}

// One line of JSON, with the spaces people expect.
void addSpaced(const std::string& flat, std::string& out) {
  bool inString = false;
  for (std::size_t i = 0; i < flat.size(); ++i) {
    out += flat[i];
    if (flat[i] == '"') inString = !inString;
    if (flat[i] == '\\' && i + 1 < flat.size()) {
      out += flat[++i];
      continue;
    }
    if (!inString && (flat[i] == ',' || flat[i] == ':')) out += ' ';
  }
}

std::string flatText(const Json& v) {
  return v.dump(-1, ' ', false, Json::error_handler_t::replace);
}

void write(const Json& v, std::size_t indent, std::string& out) {
  const std::string flat = flatText(v);
  const bool leaf = !v.is_structured() || v.empty();
  if (leaf || flat.size() + indent <= kLineWidth) {
    if (leaf)
      out += flat;
    else
      addSpaced(flat, out);
    return;
  }
  const std::string pad(indent + 2, ' ');
  out += v.is_object() ? "{\n" : "[\n";
  bool first = true;
  for (auto it = v.begin(); it != v.end(); ++it) {
    if (!first) out += ",\n";
    first = false;
    out += pad;
    if (v.is_object()) out += Json(it.key()).dump(-1, ' ', false, Json::error_handler_t::replace) + ": ";
    write(*it, indent + 2, out);
  }
  out += "\n" + std::string(indent, ' ') + (v.is_object() ? "}" : "]");
}

}  // namespace

Result<Json> parseJson(std::string_view text, const std::string& where, std::vector<Problem>& problems) {
  if (text.size() > kLargestText) return fail({"The file is larger than 16 MiB.", where, {}});
  if (text.find_first_not_of(" \t\r\n") == std::string_view::npos) return fail({"The file is empty.", where, {}});
  Builder builder(where, problems);
  const bool whole = Json::sax_parse(text.begin(), text.end(), &builder);
  if (builder.repeated > kMostRepeatsNamed)
    problems.push_back({fmt::format("{} more keys appear twice in one object.", builder.repeated - kMostRepeatsNamed), where + "#",
                        "The first value of each was kept."});
  if (whole) return std::move(builder.root);
  if (builder.errorAt == 0) return fail({fmt::format("The file cannot be read: {}.", builder.error), where, {}});
  const bool cut = builder.errorAt >= text.size();
  return fail({fmt::format("The file is not whole JSON: {} at {}.", cut ? "it ends too early" : "it stops making sense",
                           lineAndColumn(text, builder.errorAt)),
               where,
               {}});
}

std::string jsonText(const Json& value) {
  std::string out;
  write(value, 0, out);
  out += '\n';
  return out;
}

std::string nestedText(const Json& value, std::size_t indent) {
  std::string out;
  write(value, indent, out);
  return out;
}

std::string lineText(const Json& value) {
  std::string out;
  addSpaced(flatText(value), out);
  return out;
}

std::string pointerKey(std::string_view key) {
  std::string out;
  for (const char c : key) out += c == '~' ? "~0" : c == '/' ? "~1" : std::string(1, c);
  return out;
}

std::string digest(const Json& value) {
  std::uint64_t h = 14695981039346656037ULL;
  for (const char c : value.dump(-1, ' ', false, Json::error_handler_t::replace)) {
    h ^= static_cast<unsigned char>(c);
    h *= 1099511628211ULL;
  }
  return fmt::format("{:016x}", h);
}

Json parsedJson(std::string_view text) {
  return Json::parse(text);
}

}  // namespace bold
