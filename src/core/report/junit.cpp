#include <fmt/core.h>

#include <algorithm>

#include "core/report/report.h"

namespace bold::report {
namespace {

// XML 1.0 has no way to hold control characters: they are spelt out.
std::string xmlText(std::string_view text) {
  std::string out;
  for (const char c : shownLines(text)) {
    switch (c) {
      case '&':
        out += "&amp;";
        break;
      case '<':
        out += "&lt;";
        break;
      case '>':
        out += "&gt;";
        break;
      case '"':
        out += "&quot;";
        break;
      case '\n':
        out += "&#10;";
        break;
      default:
        out += c;
    }
  }
  return out;
}

bool fails(const checks::Finding& f) {
  return f.severity == checks::Severity::Stop || f.severity == checks::Severity::NotJudged;
}

// One check is one case: it fails by its stops; cautions and notes go into its output.
std::string testCase(const checks::Check& check, const Analysis& a) {
  std::string inside;
  std::string told;
  for (const auto& f : a.findings) {
    if (f.check != check.id) continue;
    const auto line = f.text + " " + f.formula;
    if (fails(f))
      inside +=
          fmt::format("      <failure type=\"{}\" message=\"{}\">{}</failure>\n", word(f.severity), xmlText(f.headline), xmlText(line));
    else
      told += fmt::format("{}: {}\n", word(f.severity), line);
  }
  if (!told.empty()) inside += fmt::format("      <system-out>{}</system-out>\n", xmlText(told));
  const auto open = fmt::format("    <testcase classname=\"{}\" name=\"{}\"", check.family, check.id);
  return inside.empty() ? open + "/>\n" : open + ">\n" + inside + "    </testcase>\n";
}

}  // namespace

std::string junitBegin() {
  return "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<testsuites name=\"Bold Harness\">\n";
}

std::string junitEnd() {
  return "</testsuites>\n";
}

std::string junitSuite(const FileAnalysis& b) {
  std::string cases;
  int failures = 0;
  for (const auto& c : checks::registry()) {
    cases += testCase(c, *b.analysis);
    failures += std::ranges::any_of(b.analysis->findings, [&](const checks::Finding& f) { return f.check == c.id && fails(f); });
  }
  // The verdict itself: a bench can be Not judged without any finding.
  const bool notJudged = b.analysis->verdict == Verdict::NotJudged;
  failures += notJudged;
  cases += "    <testcase classname=\"verdict\" name=\"judged\"";
  std::string why;
  for (const auto& w : b.analysis->why) why += (why.empty() ? "" : "; ") + w;
  cases += notJudged ? fmt::format(">\n      <failure type=\"not judged\" message=\"{}\"/>\n    </testcase>\n",
                                   xmlText(why.empty() ? "not judged" : why))
                     : "/>\n";
  std::string told;
  for (const auto& w : b.analysis->why) told += xmlText(w) + ".\n";
  for (const auto& t : b.analysis->assumptions) told += xmlText("taken: " + t) + ".\n";
  if (!told.empty()) cases += "    <system-out>" + told + "</system-out>\n";
  return fmt::format(
      "  <testsuite name=\"{}\" tests=\"{}\" failures=\"{}\" errors=\"0\">\n    <properties><property name=\"verdict\" "
      "value=\"{}\"/></properties>\n{}  </testsuite>\n",
      xmlText(b.file), checks::registry().size() + 1, failures, headline(b.analysis->verdict), cases);
}

std::string junitUnreadable(const std::string& file, const Problem& why) {
  return fmt::format(
      "  <testsuite name=\"{}\" tests=\"1\" failures=\"0\" errors=\"1\">\n    <testcase classname=\"file\" name=\"readable\">\n      "
      "<error "
      "type=\"unreadable\" message=\"{}\"/>\n    </testcase>\n  </testsuite>\n",
      xmlText(file), xmlText(text(why)));
}

}  // namespace bold::report
