#include "gui/steps.h"

#include <QCoreApplication>
#include <algorithm>

#include "core/parts/roles.h"
#include "gui/panels/bench_panel.h"
#include "gui/panels/currents_panel.h"
#include "gui/panels/findings_panel.h"
#include "gui/panels/plural.h"
#include "gui/program/program_panel.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/stages/stages_panel.h"
#include "gui/wiring/wiring_panel.h"

namespace bold::gui {
namespace {

QString told(const char* text) {
  return QCoreApplication::translate("bold::gui::StepRail", text);
}

template <class Panel>
QWidget* make(Session& session, QWidget* parent) {
  return new Panel(session, parent);
}

QString benchStands(const Session& s, bool narrow) {
  if (s.document.harness().devices.empty()) return told("nothing yet");
  int motors = 0;
  int loads = 0;
  int boards = 0;
  for (const auto& d : s.document.harness().devices) {
    const auto part = s.document.library().find(d.part);
    if (!part) continue;
    boards += parts::isController(*part);
    (parts::isStill(*part) ? loads : motors) += parts::isMotor(*part);
  }
  auto m = plural(motors, told("motor"), told("motors"));
  if (loads > 0) m = (motors > 0 ? m + " · " : QString()) + plural(loads, told("load"), told("loads"));
  return narrow || loads > 0 ? m : m + " · " + plural(boards, told("board"), told("boards"));
}

// Motors that no wire reaches yet.
QString stagesStand(const Session& s, bool narrow) {
  const auto& h = s.document.harness();
  int motors = 0;
  int open = 0;
  for (const auto& d : h.devices) {
    const auto part = s.document.library().find(d.part);
    if (!part || !parts::isMotor(*part)) continue;
    ++motors;
    open += std::ranges::none_of(h.connections, [&](const auto& c) { return c.a.device == d.id || c.b.device == d.id; });
  }
  if (motors == 0) return told("no motor yet");
  return open == 0 ? (narrow ? told("all have") : told("every motor has one")) : told("%1 open").arg(open);
}

QString wiringStands(const Session& s, bool narrow) {
  const auto wires = std::ranges::count(s.document.harness().connections, harness::ConnectionKind::Wire, &harness::Connection::kind);
  const int open = s.document.harness().openChanges();
  if (open == 0) return told("%1 wires").arg(wires);
  return narrow ? told("%1 to do").arg(open) : told("%1 wires, %2 to do").arg(wires).arg(open);
}

QString limitsStand(const Session& s, bool narrow) {
  if (s.concealment.hidden()) return told("hidden");
  const auto& a = s.analyser.analysis();
  const int stops = a.causes(checks::Severity::Stop);
  const int cautions = a.causes(checks::Severity::Caution);
  if (stops + cautions > 0)
    return narrow ? told("%1 open").arg(stops + cautions)
                  : plural(stops, told("stop"), told("stops")) + ", " + plural(cautions, told("caution"), told("cautions"));
  if (!a.leftOut.empty()) return told("%1 left out").arg(a.leftOut.size());
  return narrow ? told("none open") : told("nothing open");
}

QString currentsStand(const Session& s, bool) {
  const auto* shown = s.shownPoint();
  return shown ? qs(shown->command().id) : told("nothing to solve");
}

QString programStands(const Session& s, bool narrow) {
  const auto& sources = s.document.harness().sources;
  if (sources.empty()) return told("not read");
  if (s.concealment.hidden()) return told("hidden");
  int said = 0, open = 0;
  for (const auto& f : s.analyser.analysis().findings)
    if (f.check.starts_with("program-") && f.severity <= checks::Severity::Caution) ++(f.check == "program-open-effect" ? open : said);
  if (said > 0) return narrow ? told("%1 open").arg(said) : plural(said, told("disagreement"), told("disagreements"));
  if (open > 0) return narrow ? told("%1 open").arg(open) : told("%1 not told").arg(open);
  return narrow ? told("agrees") : told("agrees with the wires");
}

}  // namespace

const std::vector<StepRow>& steps() {
  static const std::vector<StepRow> rows{
      {Step::Bench, "bench", QT_TRANSLATE_NOOP("bold::gui::StepRail", "&Bench"), make<BenchPanel>, benchStands},
      {Step::Stages, "stages", QT_TRANSLATE_NOOP("bold::gui::StepRail", "Sta&ges"), make<StagesPanel>, stagesStand},
      {Step::Wiring, "wiring", QT_TRANSLATE_NOOP("bold::gui::StepRail", "&Wiring"), make<WiringPanel>, wiringStands},
      {Step::Limits, "limits", QT_TRANSLATE_NOOP("bold::gui::StepRail", "&Limits"), make<FindingsPanel>, limitsStand},
      {Step::Currents, "currents", QT_TRANSLATE_NOOP("bold::gui::StepRail", "&Currents"), make<CurrentsPanel>, currentsStand},
      {Step::Program, "program", QT_TRANSLATE_NOOP("bold::gui::StepRail", "Pr&ogram"), make<ProgramPanel>, programStands, 560},
  };
  return rows;
}

QString StepRow::title() const {
  return told(name).remove('&');
}

QString StepRow::key() const {
  return stepKey(static_cast<int>(step));
}

QString stepKey(int index) {
  constexpr int kDigits = 10;
  return index < kDigits ? QString("Ctrl+%1").arg((index + 1) % kDigits) : QString("Alt+%1").arg(index - kDigits + 1);
}

const StepRow* stepById(const QString& id) {
  const auto it = std::ranges::find_if(steps(), [&](const StepRow& s) { return id == s.id; });
  return it == steps().end() ? nullptr : &*it;
}

QString stepIds() {
  QStringList ids;
  for (const auto& s : steps()) ids << s.id;
  const auto last = ids.takeLast();
  return ids.join(", ") + " or " + last;
}

}  // namespace bold::gui
