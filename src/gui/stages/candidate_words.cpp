#include "gui/stages/candidate_words.h"

#include <QCoreApplication>

#include "core/checks/margin_words.h"
#include "core/choose/stock.h"
#include "core/harness/names.h"
#include "gui/panels/plural.h"
#include "gui/qs.h"
#include "gui/session/session.h"

namespace bold::gui {
namespace {

QString told(const char* text) {
  return QCoreApplication::translate("bold::gui::StagesPanel", text);
}

std::shared_ptr<const parts::Part> partOf(const Session& s, const choose::Candidate& c) {
  const auto* device = s.document.harness().device(c.stage);
  return s.document.library().find(device ? device->part : c.stage);
}

}  // namespace

QString nameOf(const Session& s, const choose::Candidate& c) {
  const auto& h = s.document.harness();
  const auto part = partOf(s, c);
  const auto* device = h.device(c.stage);
  QString name = device ? (c.present ? told("%1, as it is now") : told("%1, on the bench")).arg(qs(harness::shownName(h, *device)))
                        : qs(part ? part->name : c.stage);
  if (c.parallel) name += told(", two channels joined");
  return name;
}

QString summaryOf(const Session& s, const choose::Candidate& c) {
  const auto part = partOf(s, c);
  return part ? qs(part->summary) : QString();
}

QString whyOf(const StageSearch::Row& row) {
  const auto& c = row.candidate;
  if (!c.excluded.empty()) return qs(c.excluded);
  if (!c.unjudged.empty()) return qs(c.unjudged);
  if (c.against.empty()) return {};
  const auto& first = c.against.front();
  const auto more = static_cast<int>(c.against.size()) - 1;
  return qs(first.headline) + (more > 0 ? told(" and %1").arg(plural(more, told("more matter"), told("more matters"))) : QString());
}

QString changeOf(const StageSearch::Row& row) {
  if (!row.change) return {};
  return (row.candidate.verdict == Verdict::DoNotSwitchOn ? told("Fits %1") : told("Clear %1")).arg(qs(row.change->text));
}

QStringList partLines(const Session& s, const std::vector<std::pair<std::string, int>>& parts) {
  QStringList out;
  for (const auto& [id, n] : parts) {
    const auto part = s.document.library().find(id);
    out << told("%1 × %2").arg(n).arg(qs(part ? part->name : id));
  }
  return out;
}

QString addsOf(const Session& s, const choose::Candidate& c) {
  QMap<QString, int> kinds;
  bool own = s.document.harness().device(c.stage) == nullptr;
  for (const auto& [id, n] : choose::addedParts(c)) {
    if (std::exchange(own, false)) continue;  // the stage itself
    const auto part = s.document.library().find(id);
    kinds[qs(part ? part->kind : id)] += n;
  }
  if (kinds.isEmpty()) return told("nothing");
  QStringList out;
  for (auto it = kinds.begin(); it != kinds.end(); ++it) out << (it.value() == 1 ? it.key() : told("%1 %2s").arg(it.value()).arg(it.key()));
  return out.join(", ");
}

QString spokenOf(const Session& s, const StageSearch::Row& row) {
  const auto& c = row.candidate;
  QStringList out{nameOf(s, c)};
  if (!c.excluded.empty()) return out.front() + ": " + whyOf(row);
  out << qs(std::string(choose::standing(c)));
  if (!c.against.empty()) out << whyOf(row);
  if (row.change) out << changeOf(row);
  for (const auto& m : choose::marginRows())
    if (const auto it = c.margins.find(std::string(m.id)); it != c.margins.end())
      out << told("%1 %2").arg(qs(std::string(m.label)).toLower(), qs(checks::percentUsed(it->second)));
  out << plural(c.pins, told("pin"), told("pins"));
  out << told("fitted besides: %1").arg(addsOf(s, c));
  return out.join("; ");
}

QString word(StageKind kind) {
  switch (kind) {
    case StageKind::Transistor:
      return told("Transistors");
    case StageKind::Bridge:
      return told("Bridges");
    case StageKind::Stepper:
      return told("Step/dir");
    case StageKind::Other:
      return told("Arrays, others");
  }
  return {};
}

// By what it is made of, not by what its file calls it.
StageKind kindOf(const Session& s, const choose::Candidate& c) {
  const auto part = partOf(s, c);
  if (!part || part->channels.empty()) return StageKind::Other;
  for (const auto& e : part->elements)
    if (std::holds_alternative<parts::Chopper>(e.body)) return StageKind::Stepper;
  const auto& channel = part->channels.front();
  if (!channel.lowSide && channel.out.size() >= 2) return StageKind::Bridge;
  return channel.lowSide && part->channels.size() == 1 && channel.out.size() == 1 ? StageKind::Transistor : StageKind::Other;
}

}  // namespace bold::gui
