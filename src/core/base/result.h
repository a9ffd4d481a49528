#pragma once

#include <string>
#include <tl/expected.hpp>
#include <utility>

#include "core/base/shown_text.h"

namespace bold {

/// Something the world or the input got wrong, in words a person can act on.
struct Problem {
  std::string what;   ///< one clear sentence
  std::string where;  ///< file, and JSON pointer or line, as far as known
  std::string kept;   ///< what was kept in spite of it; empty when nothing was at stake
  bool operator==(const Problem&) const = default;
};

/// where + what + kept as one line of text that may be shown.
inline std::string text(const Problem& p) {
  std::string s = p.where.empty() ? p.what : p.where + ": " + p.what;
  if (!p.kept.empty()) s += " " + p.kept;
  return shownText(s);
}

template <class T>
using Result = tl::expected<T, Problem>;

inline tl::unexpected<Problem> fail(Problem p) {
  return tl::unexpected<Problem>(std::move(p));
}
inline tl::unexpected<Problem> fail(std::string what) {
  return fail(Problem{std::move(what), {}, {}});
}

}  // namespace bold
