#include <fmt/core.h>

#include <algorithm>

#include "core/report/plan_lines.h"
#include "core/report/report.h"
#include "core/report/wrap.h"

namespace bold::report {
namespace {

using checks::Finding;
using checks::Severity;

std::string_view colourOf(Severity s) {
  switch (s) {
    case Severity::Stop:
      return "\x1b[31m";
    case Severity::Caution:
      return "\x1b[33m";
    default:
      return "\x1b[2m";
  }
}

class TextWriter {
 public:
  TextWriter(const Analysis& a, const TextOptions& o) : m_a(a), m_o(o) {}

  std::string write(const std::string& file, const harness::Harness& h) {
    line("", h.title.empty() ? file : fmt::format("{} ({})", h.title, file));
    m_out += paint(verdictColour(), "", fmt::format("{}: {}", headline(m_a.verdict), summary(m_a)));
    line("", fmt::format("Judged: {} checks, {} commands solved, {}.", m_a.checks, m_a.commands, unknownWords(m_a)));
    for (const auto& x : m_a.assumptions) line("  taken: ", x + ".");
    const auto* label = m_a.verdict == Verdict::DoNotSwitchOn ? "  also: " : "  why: ";
    for (const auto& x : m_a.why) line(label, x + (x.ends_with('.') ? "" : "."));
    for (const auto& f : m_a.findings)
      if (f.explainedBy.empty()) one(f);
    planned();
    plan(h);
    if (m_o.margins) m_out += "\n" + margins(m_a, m_o.width);
    return m_out;
  }

  std::string only(std::string_view checks) {
    for (const auto& f : m_a.findings)  // what follows from another stands with it
      if (f.check.starts_with(checks) && (f.explainedBy.empty() || !checks.empty())) one(f);
    return m_out;
  }

 private:
  const Analysis& m_a;
  TextOptions m_o;
  std::string m_out;

  std::string_view verdictColour() const {
    return m_a.verdict == Verdict::Clear ? "\x1b[32m" : m_a.verdict == Verdict::DoNotSwitchOn ? "\x1b[31m" : "\x1b[33m";
  }
  std::string paint(std::string_view colour, std::string_view first, const std::string& s) const {
    const auto wrapped = wrap(first, s, m_o.width);
    return m_o.colour ? std::string(colour) + wrapped.substr(0, wrapped.size() - 1) + "\x1b[0m\n" : wrapped;
  }
  void line(std::string_view first, std::string_view s) { m_out += wrap(first, s, m_o.width); }

  void one(const Finding& f) {
    m_out += '\n';
    const auto mark = f.number > 0 ? fmt::format("{:>2} ", f.number) : std::string(" - ");
    std::string kind(word(f.severity));
    if (f.severity == Severity::Stop) kind += fmt::format(", {}", word(f.harm));
    m_out += paint(colourOf(f.severity), mark, fmt::format("{} [{}] {}", f.headline, kind, f.check));
    line("   ", f.text);
    if (!f.formula.empty()) line("   ", f.formula);
    for (const auto& s : f.spots) line("   source: ", fmt::format("{}:{}:{}", s.file, s.line, s.column));
    if (f.repair) line("   to do: ", f.repair->text);
    for (const auto& w : f.ways) line(f.repair ? "   or: " : "   way: ", w.text);
    if (f.mendedAfter > 0)
      line("   ", fmt::format("mended once {} planned change{} made", f.mendedAfter, f.mendedAfter == 1 ? " is" : "s are"));
    for (const auto& e : m_a.findings)
      if (e.explainedBy == f.identity()) line("   explains: ", fmt::format("{} [{}] {}", e.headline, word(e.severity), e.check));
  }

  void planned() {
    if (!m_a.planned) return;
    m_out += '\n';
    line("", fmt::format("Once everything planned is made: {}.", headline(m_a.planned->verdict)));
    for (const auto& f : m_a.planned->worse) one(f);
  }

  void plan(const harness::Harness& h) {
    if (m_a.openChanges == 0) return;
    m_out += '\n';
    line("", fmt::format("To make on the bench ({}):", m_a.openChanges));
    for (const auto& l : planLines(h)) line(fmt::format("   {} ", l.verb), l.what);
  }
};

}  // namespace

std::string text(const std::string& file, const harness::Harness& harness, const Analysis& analysis, const TextOptions& options) {
  return TextWriter(analysis, options).write(file, harness);
}

std::string findingsText(const Analysis& analysis, std::string_view checks, const TextOptions& options) {
  return TextWriter(analysis, options).only(checks);
}

std::string summaryLine(const std::string& file, const Analysis& a) {
  return fmt::format("{}: {}: {}\n", file, headline(a.verdict), summary(a));
}

}  // namespace bold::report
