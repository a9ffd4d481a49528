#include "gui/panels/finding_card.h"

#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include "gui/panels/limit_bar.h"
#include "gui/picture/picture.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {
constexpr int kMostFollowing = 8;  // lines; the findings themselves are all in the picture

QString qs(const std::string& s) {
  return QString::fromStdString(s);
}
QString qs(std::string_view s) {
  return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size()));
}

QLabel* label(const QString& text, int pixels, const QColor& colour, bool bold, QWidget* parent) {
  auto* l = plainLabel(text, parent);
  l->setWordWrap(true);
  QFont f = l->font();
  f.setPixelSize(pixels);
  f.setWeight(bold ? QFont::DemiBold : QFont::Normal);
  l->setFont(f);
  auto p = l->palette();
  p.setColor(QPalette::WindowText, colour);
  l->setPalette(p);
  return l;
}

}  // namespace

FindingCard::FindingCard(const checks::Finding& f, const std::vector<const checks::Finding*>& explained, bool readOnly, bool oncePlanned,
                         QWidget* parent)
    : QFrame(parent), m_identity(qs(f.identity())), m_number(f.number), m_severity(f.severity) {
  const auto& c = gui::palette();
  setObjectName("finding");
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::PointingHandCursor);
  QString kind = qs(word(f.severity));
  if (f.severity == checks::Severity::Stop) kind = qs(word(f.harm));
  if (oncePlanned) kind = tr("once what is planned is made: %1").arg(kind);
  setAccessibleName(qs(f.headline) + ", " + kind);
  setAccessibleDescription(qs(f.text));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(44, 10, 14, 10);
  column->setSpacing(3);
  column->addWidget(label(qs(f.headline), 14, c.ink, true, this));
  QString line = kind;
  if (!explained.empty()) line += tr(" · explains %1 more").arg(explained.size());
  if (f.mendedAfter > 0)
    line += tr(" · mended once %1 made").arg(f.mendedAfter == 1 ? tr("1 change is") : tr("%1 changes are").arg(f.mendedAfter));
  const QColor colour = f.severity == checks::Severity::Stop ? c.stop : f.severity == checks::Severity::Caution ? c.caution : c.inkSoft;
  column->addWidget(label(line, 12, colour, false, this));
  if (f.bar) column->addWidget(new LimitBar(*f.bar, f.severity, this));

  m_more = new QWidget(this);
  auto* more = new QVBoxLayout(m_more);
  more->setContentsMargins(0, 6, 0, 0);
  more->setSpacing(7);
  more->addWidget(label(qs(f.text), 13, c.ink, false, m_more));
  if (!f.formula.empty()) {
    auto* formula = label(qs(f.formula), 12, c.ink, false, m_more);
    QFont mono("DejaVu Sans Mono");
    mono.setPixelSize(12);
    formula->setFont(mono);
    formula->setTextInteractionFlags(Qt::TextSelectableByMouse);
    more->addWidget(formula);
  }
  if (f.repair && f.mendedAfter == 0) {
    auto* box = new QFrame(m_more);
    box->setObjectName("repairBox");
    box->setStyleSheet(QString("#repairBox{border:1px solid %1;border-radius:6px}").arg(c.accent.name()));
    auto* inside = new QVBoxLayout(box);
    inside->setContentsMargins(10, 7, 10, 9);
    inside->addWidget(label(tr("What to do"), 12, c.accent, true, box));
    inside->addWidget(label(qs(f.repair->text), 13, c.ink, false, box));
    m_repair = new QPushButton(tr("Put it on the plan"), box);
    m_repair->setObjectName("repair");
    m_repair->setProperty("primary", true);
    m_repair->setEnabled(!readOnly);
    m_repair->setToolTip(tr("Ctrl+Enter. It counts as done when you mark it so."));
    connect(m_repair, &QPushButton::clicked, this, [this] { Q_EMIT repair(m_identity); });
    inside->addWidget(m_repair, 0, Qt::AlignLeft);
    more->addWidget(box);
  }
  // What follows from it comes after what to do about it, however much that is.
  QStringList follows;
  for (const auto* e : explained) follows << qs(e->headline);
  if (follows.size() > kMostFollowing) {
    const auto rest = follows.size() - kMostFollowing;
    follows = follows.mid(0, kMostFollowing) << tr("and %1 more").arg(rest);
  }
  if (!follows.isEmpty()) more->addWidget(label(tr("It also explains:\n%1").arg(follows.join("\n")), 12, c.inkSoft, false, m_more));
  if (!f.sources.empty()) {
    QStringList sources;
    for (const auto& s : f.sources) sources << qs(s);
    more->addWidget(label(tr("Figures: %1").arg(sources.join("; ")), 11, c.inkSoft, false, m_more));
  }
  auto* why = new QPushButton(tr("About this check"), m_more);
  why->setFlat(true);
  connect(why, &QPushButton::clicked, this, [this, check = qs(f.check)] { Q_EMIT explain(check); });
  more->addWidget(why, 0, Qt::AlignLeft);
  column->addWidget(m_more);
  m_more->hide();
}

void FindingCard::setPicked(bool picked) {
  m_picked = picked;
  m_more->setVisible(picked);
  update();
}

void FindingCard::mousePressEvent(QMouseEvent*) {
  Q_EMIT pressed(m_identity);
}

void FindingCard::keyPressEvent(QKeyEvent* e) {
  if (e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter || e->key() == Qt::Key_Space) {
    if (e->modifiers() & Qt::ControlModifier)
      Q_EMIT repair(m_identity);
    else
      Q_EMIT pressed(m_identity);
    return;
  }
  QFrame::keyPressEvent(e);
}

void FindingCard::paintEvent(QPaintEvent*) {
  const auto& c = gui::palette();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.setBrush(c.panel);
  p.setPen(QPen(hasFocus() ? c.accent : m_picked ? c.ink : c.line, hasFocus() || m_picked ? 1.8 : 1));
  p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 8, 8);
  paintBadge(p, QPointF(23, 22), m_number, m_severity, false);
}

}  // namespace bold::gui
