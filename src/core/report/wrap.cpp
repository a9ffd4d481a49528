#include "core/report/wrap.h"

#include "core/base/shown_text.h"

namespace bold::report {
namespace {
int columns(std::string_view s) {
  int n = 0;
  for (const char c : s) n += (static_cast<unsigned char>(c) & 0xC0U) != 0x80U;
  return n;
}
}  // namespace

std::string wrap(std::string_view first, std::string_view words, int width) {
  const auto shown = shownText(words);
  std::string_view text = shown;
  const int indent = columns(first);
  std::string out(first);
  int at = indent;
  bool fresh = true;
  while (!text.empty()) {
    auto end = text.find(' ');
    const auto word = text.substr(0, end);
    const int n = columns(word);
    if (!fresh && at + 1 + n > width) {
      out += '\n';
      out.append(static_cast<std::size_t>(indent), ' ');
      at = indent;
      fresh = true;
    }
    if (!fresh) {
      out += ' ';
      ++at;
    }
    out += word;
    at += n;
    fresh = false;
    text.remove_prefix(end == std::string_view::npos ? text.size() : end + 1);
  }
  return out + "\n";
}

}  // namespace bold::report
