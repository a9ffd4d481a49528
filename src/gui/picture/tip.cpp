#include "gui/picture/tip.h"

#include <QStringList>

#include "core/bench/shown_voltage.h"
#include "core/harness/names.h"
#include "gui/qs.h"
#include "gui/session/session.h"

namespace bold::gui {
namespace {

// "PWM pin 9", "motor supply, 4.5 V .. 36 V", "input"
QString functionOf(const parts::Terminal& t) {
  QStringList out;
  if (t.pin) {
    auto pin = t.pin->pwm.empty() ? QObject::tr("pin %1").arg(qs(t.pin->code)) : QObject::tr("PWM pin %1").arg(qs(t.pin->code));
    if (!t.pin->output) pin = QObject::tr("input-only pin %1").arg(qs(t.pin->code));
    out << pin;
    if (!t.pin->reserved.empty()) out << QObject::tr("leave it alone: %1").arg(qs(t.pin->reserved));
    if (!t.pin->serial.empty()) out << qs(t.pin->serial);
  }
  if (t.supply) {
    const auto what = t.supply->purpose == parts::SupplyFor::Motor   ? QObject::tr("motor supply")
                      : t.supply->purpose == parts::SupplyFor::Logic ? QObject::tr("logic supply")
                                                                     : QObject::tr("supply of the board");
    out << (t.supply->recommended.known() ? what + ", " + qs(displayText(t.supply->recommended)) : what);
  }
  if (t.output) out << QObject::tr("output");
  if (t.ground) out << QObject::tr("ground");
  if (t.input && !t.pin) out << QObject::tr("input");
  return out.join(", ");
}

QStringList hanging(const Session& s, const Address& end) {
  QStringList out;
  for (const auto& c : s.document.harness().connections)
    if (c.a == end || c.b == end)
      out << QObject::tr("%1 to %2").arg(qs(c.id), qs(shownEnd(s.document.harness(), s.document.library(), c.a == end ? c.b : c.a)));
  return out;
}

QString ofPlace(const Session& s, const Address& end) {
  const auto* d = s.document.harness().device(end.device);
  const auto part = d ? s.document.library().find(d->part) : nullptr;
  const auto* t = part ? part->find(end.terminal) : nullptr;
  QStringList lines{qs(shownEnd(s.document.harness(), s.document.library(), end))};
  if (t) {
    if (const auto what = functionOf(*t); !what.isEmpty()) lines << what;
    const auto* point = s.analyser.current() ? s.shownPoint() : nullptr;
    const auto at = point && point->solved() ? s.analyser.analysis().solved->bench.terminal(end) : -1;
    if (const auto v = at >= 0 ? bench::shownVoltage(*s.analyser.analysis().solved, *point, at) : std::nullopt)
      lines << QObject::tr("%1 with %2").arg(qs(displayText(*v)), qs(point->command().title));
  } else if (part) {
    lines << QObject::tr("connector: drag from it to what it is plugged into");
  }
  const auto wires = hanging(s, end);
  lines << (wires.isEmpty() ? QObject::tr("nothing is connected here") : wires.join("\n"));
  return lines.join("\n");
}

}  // namespace

QString tipFor(const Session& s, const QString& subject) {
  const auto id = subject.toStdString();
  const auto& h = s.document.harness();
  if (const auto* c = h.connection(id)) return QObject::tr("%1: %2").arg(subject, qs(shownEnds(h, s.document.library(), *c)));
  if (const auto* d = h.device(id)) {
    const auto part = s.document.library().find(d->part);
    return qs(shownName(h, *d)) + "\n" +
           (part ? qs(part->name) + "\n" + qs(part->summary) : QObject::tr("unknown part %1").arg(qs(d->part)));
  }
  if (const auto end = parseAddress(id)) return ofPlace(s, *end);
  return {};
}

}  // namespace bold::gui
