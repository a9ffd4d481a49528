#include "gui/panels/step_rail.h"

#include <QAbstractButton>
#include <QButtonGroup>
#include <QPainter>
#include <QVBoxLayout>
#include <cmath>

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
  for (const auto& row : steps()) {
    auto* b = new StepButton(row.title(), this);
    b->setObjectName(QString("step-") + row.id);
    b->setToolTip(tr("%1 (%2)").arg(row.title(), row.key()));
    m_buttons->addButton(b, static_cast<int>(row.step));
    column->addWidget(b);
  }
  column->addStretch();
  setFixedWidth(140);
  connect(m_buttons, &QButtonGroup::idClicked, this, [this](int id) { setStep(static_cast<Step>(id)); });
  connect(&m_session.document, &Document::changed, this, &StepRail::refresh);
  connect(&m_session.analyser, &Analyser::changed, this, &StepRail::refresh);
  connect(&m_session.selection, &Selection::commandShown, this, &StepRail::refresh);
  connect(&m_session.concealment, &Concealment::changed, this, &StepRail::refresh);
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
  for (const auto& row : steps())
    static_cast<StepButton*>(m_buttons->button(static_cast<int>(row.step)))->say(row.standing(m_session, m_narrow));
}

}  // namespace bold::gui
