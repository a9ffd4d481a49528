#include "gui/panels/verdict_bar.h"

#include <QAccessible>
#include <QPainter>
#include <cmath>

#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

VerdictBar::VerdictBar(Session& session, QWidget* parent) : QAbstractButton(parent), m_session(session) {
  setObjectName("verdict");
  setCursor(Qt::PointingHandCursor);
  connect(&m_session.analyser, &Analyser::changed, this, &VerdictBar::refresh);
  connect(&m_session.analyser, &Analyser::stale, this, &VerdictBar::refresh);
  connect(&m_session.concealment, &Concealment::changed, this, &VerdictBar::refresh);
  connect(this, &QAbstractButton::clicked, this, [this] {
    if (m_session.concealment.hidden()) {
      Q_EMIT firstMatter({});
      return;
    }
    for (const auto& f : m_session.analyser.analysis().findings)
      if (f.severity != checks::Severity::Note) {
        Q_EMIT firstMatter(QString::fromStdString(f.identity()));
        return;
      }
  });
  refresh();
}

void VerdictBar::refresh() {
  const auto& a = m_session.analyser.analysis();
  const bool hidden = m_session.concealment.hidden();
  const bool fresh = m_session.analyser.fresh() || hidden;
  m_head = hidden ? tr("Look it over yourself first") : fresh ? QString::fromUtf8(headline(a.verdict).data()) : tr("Not judged");
  m_detail = hidden  ? tr("what is found is hidden until you have named the faults")
             : fresh ? QString::fromStdString(summary(a))
                     : tr("working it out");
  setAccessibleName(m_head + ": " + m_detail);
  // That it is being worked out is only seen: what is spoken is what came out, where that changed.
  if (fresh && m_head != m_spoken) {
    m_spoken = m_head;
    QAccessibleEvent announce(this, QAccessible::Alert);  // spoken wherever the focus is
    QAccessible::updateAccessibility(&announce);
    Q_EMIT announced(accessibleName());
  }
  setToolTip(plainTip(tr("%1.\nPress to go to the first open matter.").arg(m_detail)));
  update();
}

void VerdictBar::paintEvent(QPaintEvent*) {
  const auto& c = gui::palette();
  const auto verdict =
      m_session.analyser.fresh() && !m_session.concealment.hidden() ? m_session.analyser.analysis().verdict : Verdict::NotJudged;
  const bool stop = verdict == Verdict::DoNotSwitchOn;
  const bool clear = verdict == Verdict::Clear;
  const QColor strong = stop ? c.stop : clear ? c.good : c.caution;
  const QColor soft = stop ? c.stopSoft : clear ? c.goodSoft : c.cautionSoft;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(hasFocus() ? QPen(c.accent, 2) : QPen(soft, 1));
  p.setBrush(soft);
  p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 8, 8);
  const QPointF at(28, height() / 2.0);
  p.setPen(Qt::NoPen);
  p.setBrush(strong);
  QPolygonF shape;
  if (stop) {
    for (int i = 0; i < 8; ++i) {
      const double angle = (22.5 + 45 * i) * M_PI / 180;
      shape << at + QPointF(std::cos(angle), std::sin(angle)) * 13;
    }
    p.drawPolygon(shape);
    p.setBrush(c.stopInk);
    p.drawRoundedRect(QRectF(at.x() - 7, at.y() - 2.2, 14, 4.4), 1, 1);
  } else if (clear) {
    p.drawEllipse(at, 13, 13);
    p.setPen(QPen(c.goodInk, 2.8, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.setBrush(Qt::NoBrush);
    QPolygonF tick;
    tick << at + QPointF(-6, 0) << at + QPointF(-1.5, 5) << at + QPointF(6.5, -5);
    p.drawPolyline(tick);
  } else if (verdict == Verdict::LookAgain) {
    shape << at + QPointF(0, -13) << at + QPointF(14, 11) << at + QPointF(-14, 11);
    p.drawPolygon(shape);
    p.setBrush(c.cautionInk);
    p.drawRoundedRect(QRectF(at.x() - 1.6, at.y() - 5, 3.2, 8), 1, 1);
    p.drawEllipse(at + QPointF(0, 6.6), 1.9, 1.9);
  } else {
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(strong, 2.6, Qt::DashLine));
    p.drawEllipse(at, 12, 12);
  }
  p.setPen(strong);
  QFont f = font();
  f.setPixelSize(16);
  f.setWeight(QFont::DemiBold);
  p.setFont(f);
  const double x = 52;
  p.drawText(QRectF(x, 6, width() - x - 8, 22), Qt::AlignLeft | Qt::AlignVCenter, m_head);
  f.setPixelSize(12);
  f.setWeight(QFont::Normal);
  p.setFont(f);
  p.drawText(QRectF(x, 27, width() - x - 8, 18), Qt::AlignLeft | Qt::AlignVCenter,
             QFontMetricsF(f).elidedText(m_detail, Qt::ElideRight, width() - x - 10));
}

}  // namespace bold::gui
