#pragma once

#include <algorithm>

#include "core/base/number.h"
#include "core/program/condition_value.h"
#include "core/program/lower.h"

namespace bold::program {

/// What both lowerings do alike. For lower_c.cpp and lower_python.cpp only.
class Lowering {
 protected:
  using Kind = Code::Kind;

  Lowering(std::string_view text, std::vector<Unread>& unread) : m_text(text), m_unread(unread) {}
  ~Lowering() = default;

  /// Where a node is used, and where it is spelled: two places for what came out of a macro.
  virtual Place used(TSNode n) const = 0;
  virtual Place spelled(TSNode n) const = 0;

  std::string_view text(TSNode n) const { return textOf(n, m_text); }
  Code make(Kind kind, TSNode n) const {
    Code out;
    out.kind = kind;
    if (!none(n)) out.place = used(n);
    return out;
  }
  Code name(TSNode n, std::string word) const {
    auto out = make(Kind::Name, n);
    out.text = std::move(word);
    return out;
  }
  Code constant(TSNode n, double value) const {
    auto out = make(Kind::Number, n);
    out.number = value;
    out.whole = true;
    out.digits = out.place;
    return out;
  }
  Code unread(TSNode n, const char* why) {
    auto out = make(Kind::Unread, n);
    out.text = why;
    m_unread.push_back({out.place, why});
    return out;
  }
  Code number(TSNode n) const {
    std::string word(text(n));
    auto out = make(Kind::Number, n);
    out.digits = spelled(n);
    if (const auto v = wholeNumber(word)) {
      out.number = static_cast<double>(*v);
      out.whole = true;
      if (word.size() > 1 && word[0] == '0') out.text = "0";
      out.text += word.substr(std::min(word.find_last_not_of("uUlLzZ") + 1, word.size()));
    } else {
      std::erase_if(word, [](char c) { return c == '\'' || c == '_'; });
      out.number = realAtStart(word).value_or(0);
    }
    return out;
  }

 private:
  std::string_view m_text;
  std::vector<Unread>& m_unread;
};

// A std::string, since the compiler takes the length of a literal wrong where it is copied in a loop.
inline const std::string kNotAsItStands = "it could not be read as it stands";

inline bool among(std::string_view what, std::initializer_list<std::string_view> words) {
  return std::ranges::find(words, what) != words.end();
}

}  // namespace bold::program
