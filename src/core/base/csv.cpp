#include "core/base/csv.h"

#include <algorithm>

namespace bold {
namespace {

char separatorOf(std::string_view text) {
  const auto line = text.substr(0, text.find('\n'));
  const std::string_view all = ",;\t";
  return *std::ranges::max_element(all, {}, [&](char c) { return std::ranges::count(line, c); });
}

// "=1+1", "'=1+1", "-x": with as many apostrophes in front as it has.
bool formula(std::string_view field) {
  const auto at = field.find_first_not_of('\'');
  return at != std::string_view::npos && std::string_view("=+-@").find(field[at]) != std::string_view::npos;
}

void trim(std::string& field) {
  const auto first = field.find_first_not_of(" \r\n\t");
  field = first == std::string::npos ? std::string() : field.substr(first, field.find_last_not_of(" \r\n\t") - first + 1);
}

}  // namespace

std::vector<CsvLine> readCsv(std::string_view text) {
  if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
  const char separator = separatorOf(text);
  std::vector<CsvLine> out;
  CsvLine line{1, {""}, {}};
  bool quoted = false;
  const auto lastQuote = text.rfind('"');  // behind it no quoted field is ever closed
  int number = 1;
  const auto end = [&] {
    for (auto& f : line.fields) {
      trim(f);
      if (f.starts_with('\'') && formula(f)) f.erase(0, 1);
    }
    if (!line.text.empty() && line.text.back() == '\r') line.text.pop_back();
    const bool empty = std::ranges::all_of(line.fields, [](const auto& f) { return f.empty(); });
    if (!empty) out.push_back(std::move(line));
    line = {number, {""}, {}};
  };
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (c == '\n') ++number;
    if (c == '\n' && (!quoted || lastQuote < i)) {
      quoted = false;
      end();
      continue;
    }
    line.text += c;
    if (c == '"' && quoted && i + 1 < text.size() && text[i + 1] == '"') {
      line.fields.back() += c;
      line.text += text[++i];
    } else if (c == '"') {
      quoted = !quoted;
    } else if (c == separator && !quoted) {
      line.fields.emplace_back();
    } else {
      line.fields.back() += c;
    }
  }
  end();
  return out;
}

std::string csvLine(const std::vector<std::string>& fields) {
  std::string out;
  for (std::size_t k = 0; k < fields.size(); ++k) {
    const auto& field = fields[k];
    const bool runs = formula(field);
    if (k > 0) out += ',';
    if (runs || field.find_first_of(",;\t\"\r\n") != std::string::npos) {
      out += runs ? "\"'" : "\"";
      for (const char c : field) out += c == '"' ? std::string("\"\"") : std::string(1, c);
      out += '"';
    } else {
      out += field;
    }
  }
  return out + "\n";
}

}  // namespace bold
