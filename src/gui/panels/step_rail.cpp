#include "gui/panels/step_rail.h"

#include <QAbstractButton>
#include <QButtonGroup>
#include <QPainter>
#include <QVBoxLayout>
#include <cmath>

#include "core/parts/roles.h"
#include "gui/panels/plural.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"

namespace bold::gui {
namespace {

// A step: its name, and one line that says where it stands.
class StepButton : public QAbstractButton {
 public:
  explicit StepButton(const QString& name, QWidget* parent) : QAbstractButton(parent) {
    setText(name);
    setCheckable(true);
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::StrongFocus);
  }
  void say(const QString& line) {
    m_line = line;
    setAccessibleName(text() + ", " + line);
    update();
  }
  QSize sizeHint() const override { return {132, 58}; }

 protected:
  void paintEvent(QPaintEvent*) override {
    const auto& c = gui::palette();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (isChecked()) {
      p.setPen(Qt::NoPen);
      p.setBrush(c.accentSoft);
      p.drawRoundedRect(QRectF(rect()).adjusted(4, 2, -4, -2), 7, 7);
    }
    if (hasFocus()) {
      p.setPen(QPen(c.accent, 2));
      p.setBrush(Qt::NoBrush);
      p.drawRoundedRect(QRectF(rect()).adjusted(5, 3, -5, -3), 7, 7);
    }
    p.setPen(isChecked() ? c.accent : c.ink);
    QFont f = font();
    f.setPixelSize(14);
    f.setWeight(isChecked() ? QFont::DemiBold : QFont::Normal);
    p.setFont(f);
    const double x = 14;
    p.drawText(QRectF(x, 9, width() - x - 6, 20), Qt::AlignVCenter | Qt::AlignLeft, text());
    p.setPen(c.inkSoft);
    f.setPixelSize(11);
    f.setWeight(QFont::Normal);
    p.setFont(f);
    p.drawText(QRectF(x, 30, width() - x - 6, 18), Qt::AlignVCenter | Qt::AlignLeft,
               QFontMetricsF(f).elidedText(m_line, Qt::ElideRight, width() - x - 8));
  }

 private:
  QString m_line;
};

}  // namespace

StepRail::StepRail(Session& session, QWidget* parent) : QWidget(parent), m_session(session), m_buttons(new QButtonGroup(this)) {
  setObjectName("steps");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(4, 10, 4, 10);
  column->setSpacing(4);
  const QStringList names{tr("Bench"), tr("Wiring"), tr("Limits"), tr("Currents")};
  for (int i = 0; i < names.size(); ++i) {
    auto* b = new StepButton(names[i], this);
    b->setObjectName("step" + QString::number(i));
    b->setToolTip(tr("%1 (Ctrl+%2)").arg(names[i]).arg(i + 1));
    m_buttons->addButton(b, i);
    column->addWidget(b);
  }
  column->addStretch();
  setFixedWidth(140);
  connect(m_buttons, &QButtonGroup::idClicked, this, [this](int id) { setStep(static_cast<Step>(id)); });
  connect(&m_session, &Session::documentChanged, this, &StepRail::refresh);
  connect(&m_session, &Session::analysisChanged, this, &StepRail::refresh);
  connect(&m_session, &Session::commandShown, this, &StepRail::refresh);
  m_buttons->button(static_cast<int>(m_step))->setChecked(true);
  refresh();
}

void StepRail::setNarrow(bool narrow) {
  setFixedWidth(narrow ? 92 : 140);
  if (narrow == m_narrow) return;
  m_narrow = narrow;
  refresh();
}

void StepRail::setStep(Step step) {
  m_buttons->button(static_cast<int>(step))->setChecked(true);
  if (step == m_step) return;
  m_step = step;
  Q_EMIT stepChanged(step);
}

void StepRail::refresh() {
  const auto& h = m_session.harness();
  const auto say = [&](Step s, const QString& line) { static_cast<StepButton*>(m_buttons->button(static_cast<int>(s)))->say(line); };
  int motors = 0;
  int boards = 0;
  for (const auto& d : h.devices) {
    const auto part = m_session.library().find(d.part);
    if (!part) continue;
    boards += parts::isController(*part);
    motors += parts::isMotor(*part);
  }
  say(Step::Bench, h.devices.empty() ? tr("nothing yet")
                   : m_narrow        ? plural(motors, tr("motor"), tr("motors"))
                                     : plural(motors, tr("motor"), tr("motors")) + " · " + plural(boards, tr("board"), tr("boards")));
  int wires = 0;
  for (const auto& c : h.connections) wires += c.kind == harness::ConnectionKind::Wire;
  const int open = h.openChanges();
  const auto toDo = m_narrow ? tr("%1 to do").arg(open) : tr("%1 wires, %2 to do").arg(wires).arg(open);
  say(Step::Wiring, open > 0 ? toDo : tr("%1 wires").arg(wires));
  const auto& a = m_session.analysis();
  const int stops = a.causes(checks::Severity::Stop);
  const int cautions = a.causes(checks::Severity::Caution);
  const int leftOut = static_cast<int>(a.leftOut.size());
  say(Step::Limits, stops + cautions == 0 && leftOut > 0 ? tr("%1 left out").arg(leftOut)
                    : stops + cautions == 0              ? (m_narrow ? tr("none open") : tr("nothing open"))
                    : m_narrow                           ? tr("%1 open").arg(stops + cautions)
                               : plural(stops, tr("stop"), tr("stops")) + ", " + plural(cautions, tr("caution"), tr("cautions")));
  const auto* shown = m_session.shownPoint();
  say(Step::Currents, shown ? QString::fromStdString(shown->command().id) : tr("nothing to solve"));
}

}  // namespace bold::gui
