#include "core/program/source_text.h"

#include <fmt/core.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "core/base/json.h"

namespace bold::program {
namespace {

void append(std::string& out, std::uint32_t c) {
  if (c < 0x80)
    out += static_cast<char>(c);
  else if (c < 0x800) {
    out += static_cast<char>(0xC0 | c >> 6);
    out += static_cast<char>(0x80 | (c & 0x3F));
  } else if (c < 0x10000) {
    out += static_cast<char>(0xE0 | c >> 12);
    out += static_cast<char>(0x80 | (c >> 6 & 0x3F));
    out += static_cast<char>(0x80 | (c & 0x3F));
  } else {
    out += static_cast<char>(0xF0 | c >> 18);
    out += static_cast<char>(0x80 | (c >> 12 & 0x3F));
    out += static_cast<char>(0x80 | (c >> 6 & 0x3F));
    out += static_cast<char>(0x80 | (c & 0x3F));
  }
}

unsigned byteAt(const std::string& s, std::size_t at) {
  return static_cast<unsigned char>(s[at]);
}

// How many bytes a whole UTF-8 character takes here; 0: none begins here.
std::size_t utf8Length(const std::string& s, std::size_t at) {
  const unsigned c = byteAt(s, at);
  const std::size_t n = c < 0x80 ? 1 : c >= 0xC2 && c < 0xE0 ? 2 : c >= 0xE0 && c < 0xF0 ? 3 : c >= 0xF0 && c < 0xF5 ? 4 : 0;
  if (n == 0 || at + n > s.size()) return 0;
  for (std::size_t k = 1; k < n; ++k)
    if ((byteAt(s, at + k) & 0xC0) != 0x80) return 0;
  if (n == 3) {  // neither longer than needed nor half of a pair
    const unsigned second = byteAt(s, at + 1);
    if ((c == 0xE0 && second < 0xA0) || (c == 0xED && second >= 0xA0)) return 0;
  }
  if (n == 4) {
    const unsigned second = byteAt(s, at + 1);
    if ((c == 0xF0 && second < 0x90) || (c == 0xF4 && second >= 0x90)) return 0;
  }
  return n;
}

bool allUtf8(const std::string& s) {
  for (std::size_t at = 0; at < s.size();) {
    const auto n = utf8Length(s, at);
    if (n == 0) return false;
    at += n;
  }
  return true;
}

std::string fromUtf16(const std::string& bytes, std::size_t from, bool bigEnd) {
  std::string out;
  const auto unit = [&](std::size_t at) {
    return bigEnd ? byteAt(bytes, at) << 8 | byteAt(bytes, at + 1) : byteAt(bytes, at + 1) << 8 | byteAt(bytes, at);
  };
  for (std::size_t at = from; at + 1 < bytes.size(); at += 2) {
    std::uint32_t c = unit(at);
    if (c >= 0xD800 && c < 0xDC00 && at + 3 < bytes.size()) {
      const std::uint32_t low = unit(at + 2);
      if (low >= 0xDC00 && low < 0xE000) {
        c = 0x10000 + ((c - 0xD800) << 10) + (low - 0xDC00);
        at += 2;
      }
    }
    append(out, c >= 0xD800 && c < 0xE000 ? 0xFFFD : c);
  }
  return out;
}

// Half of the bytes of plain text in UTF-16 are zero: on which side tells its order. 0: it is none.
char utf16Order(const std::string& s) {
  std::size_t even = 0, odd = 0;
  const auto n = std::min<std::size_t>(s.size(), 2000);
  for (std::size_t k = 0; k < n; ++k)
    if (s[k] == 0) ++(k % 2 == 0 ? even : odd);
  if (even > n / 3 && odd == 0) return 'b';
  return odd > n / 3 && even == 0 ? 'l' : 0;
}

std::string decoded(const std::string& bytes, std::vector<std::string>& remarks) {
  if (bytes.starts_with("\xFF\xFE")) return fromUtf16(bytes, 2, false);
  if (bytes.starts_with("\xFE\xFF")) return fromUtf16(bytes, 2, true);
  if (const char order = utf16Order(bytes)) return fromUtf16(bytes, 0, order == 'b');
  auto plain = bytes.starts_with("\xEF\xBB\xBF") ? bytes.substr(3) : bytes;
  if (allUtf8(plain)) return plain;
  remarks.emplace_back("it is no UTF-8: its letters were taken as Latin-1");
  std::string out;
  for (const char c : plain) append(out, static_cast<unsigned char>(c));
  return out;
}

}  // namespace

int SourceText::line(std::uint32_t at) const {
  return static_cast<int>(std::ranges::upper_bound(lines, at) - lines.begin());
}

int SourceText::column(std::uint32_t at) const {
  const auto from = lines[static_cast<std::size_t>(std::max(line(at), 1)) - 1];
  int out = 1;
  for (auto k = from; k < at && k < text.size(); ++k) out += (byteAt(text, k) & 0xC0) != 0x80;
  return out;
}

std::string SourceText::lineText(int number) const {
  if (number < 1 || number > static_cast<int>(lines.size())) return {};
  const auto from = lines[static_cast<std::size_t>(number) - 1];
  return text.substr(from, text.find('\n', from) - from);
}

bool isText(const std::string& bytes) {
  constexpr std::size_t kLooked = 64'000;
  constexpr double kMostStray = 0.05;  // share of characters that no editor writes
  if (bytes.starts_with("\xFF\xFE") || bytes.starts_with("\xFE\xFF") || utf16Order(bytes)) return true;
  const auto n = std::min(bytes.size(), kLooked);
  const auto stray = std::count_if(bytes.begin(), bytes.begin() + static_cast<long>(n), [](char c) {
    const auto u = static_cast<unsigned char>(c);
    return (u < ' ' && u != '\t' && u != '\n' && u != '\r' && u != '\f') || u == 0x7F;
  });
  return static_cast<double>(stray) <= kMostStray * static_cast<double>(n);
}

SourceText readSource(std::string file, const std::string& bytes) {
  SourceText out;
  out.file = std::move(file);
  out.digest = digest(Json(bytes));
  const auto most = bytes.size() > kMostSource ? bytes.rfind('\n', kMostSource) : std::string::npos;  // not through a letter
  auto raw = decoded(bytes.size() > kMostSource ? bytes.substr(0, std::min(most, kMostSource)) : bytes, out.remarks);
  out.cut = bytes.size() > kMostSource;
  if (out.cut) out.remarks.push_back(fmt::format("it is longer than {} million bytes: the rest was not read", kMostSource / 1'000'000));
  int zeros = 0;
  for (std::size_t k = 0; k < raw.size(); ++k) {
    if (raw[k] == '\r') {
      if (k + 1 < raw.size() && raw[k + 1] == '\n') continue;
      out.text += '\n';
    } else if (raw[k] == '\0') {
      ++zeros;
      out.text += ' ';
    } else
      out.text += raw[k];
  }
  if (zeros > 0) out.remarks.push_back(fmt::format("{} zero bytes in it were taken as blanks", zeros));
  out.lines.push_back(0);
  for (std::uint32_t k = 0; k < out.text.size(); ++k)
    if (out.text[k] == '\n') out.lines.push_back(k + 1);
  return out;
}

}  // namespace bold::program
