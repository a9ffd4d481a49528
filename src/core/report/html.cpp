#include <fmt/core.h>

#include "core/base/markup.h"
#include "core/report/plan_lines.h"
#include "core/report/report.h"

namespace bold::report {
namespace {

using checks::Finding;
using checks::Severity;

class HtmlWriter {
 public:
  HtmlWriter(const harness::Harness& h, const Analysis& a) : m_h(h), m_a(a) {}

  std::string write(const std::string& file) {
    m_out = fmt::format("<h1>{}</h1>\n<p>{}</p>\n", markupText(m_h.title.empty() ? file : m_h.title), markupText(file));
    m_out += fmt::format("<h2>{}</h2>\n<p>{}.</p>\n", headline(m_a.verdict), markupText(summary(m_a)));
    std::string judged = fmt::format("Judged: {} checks over {} solved commands, {}.", m_a.checks, m_a.commands, unknownWords(m_a));
    for (const auto& x : m_a.assumptions) judged += " Taken: " + x + ".";
    m_out += fmt::format("<p><small>{}</small></p>\n", markupText(judged));
    why();
    for (const auto& f : m_a.findings)
      if (f.explainedBy.empty()) one(f);
    planned();
    plan();
    return m_out;
  }

 private:
  const harness::Harness& m_h;
  const Analysis& m_a;
  std::string m_out;

  void why() {
    if (m_a.why.empty()) return;
    m_out += "<ul>\n";
    for (const auto& w : m_a.why) m_out += fmt::format("<li>{}</li>\n", markupText(w));
    m_out += "</ul>\n";
  }

  void one(const Finding& f) {
    std::string kind(word(f.severity));
    if (f.severity == Severity::Stop) kind += fmt::format(", {}", word(f.harm));
    m_out += fmt::format("<h3>{}{}</h3>\n<p><i>{}</i><br>{}", f.number > 0 ? fmt::format("{}. ", f.number) : std::string(),
                         markupText(f.headline), markupText(kind), markupText(f.text));
    if (!f.formula.empty()) m_out += fmt::format("<br><code>{}</code>", markupText(f.formula));
    for (const auto& s : f.spots) m_out += fmt::format("<br>{}", markupText(fmt::format("{}, line {}", s.file, s.line)));
    if (f.repair) m_out += fmt::format("<br>&#9744; <b>To do:</b> {}", markupText(f.repair->text));
    for (const auto& w : f.ways) m_out += fmt::format("<br>&#9744; {}", markupText(w.text));
    m_out += "</p>\n";
    std::string follows;
    for (const auto& e : m_a.findings)
      if (e.explainedBy == f.identity()) follows += fmt::format("<li>{}</li>", markupText(e.headline));
    if (!follows.empty()) m_out += fmt::format("<p>It also explains:</p><ul>{}</ul>\n", follows);
  }

  void planned() {
    if (!m_a.planned || m_a.planned->worse.empty()) return;
    m_out += fmt::format("<h2>Once everything planned is made: {}</h2>\n", markupText(std::string(headline(m_a.planned->verdict))));
    for (const auto& f : m_a.planned->worse) one(f);
  }

  void plan() {
    if (m_a.openChanges == 0) return;
    m_out += "<h2>To make on the bench</h2>\n<ul>\n";
    for (const auto& l : planLines(m_h)) m_out += fmt::format("<li>&#9744; {} {}</li>\n", l.verb, markupText(l.what));
    m_out += "</ul>\n";
  }
};

}  // namespace

std::string html(const std::string& file, const harness::Harness& harness, const Analysis& analysis) {
  return HtmlWriter(harness, analysis).write(file);
}

}  // namespace bold::report
