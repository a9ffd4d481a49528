#include "gui/panels/finding_card.h"

#include <QKeyEvent>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include "gui/panels/limit_bar.h"
#include "gui/picture/picture.h"
#include "gui/qs.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {
constexpr int kMostFollowing = 8;  // lines; the findings themselves are all in the picture

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

FindingCard::FindingCard(QWidget* parent) : QFrame(parent), m_column(new QVBoxLayout(this)) {
  setObjectName("finding");
  setFocusPolicy(Qt::StrongFocus);
  setCursor(Qt::PointingHandCursor);
  m_column->setContentsMargins(44, 10, 14, 10);
  m_column->setSpacing(3);
}

void FindingCard::show(const Shown& shown) {
  const auto& f = shown.finding;
  m_identity = qs(f.identity());
  m_number = f.number;
  m_severity = f.severity;
  QStringList content{qs(f.headline),
                      qs(f.text),
                      qs(f.formula),
                      f.spots.empty() ? QString() : QString("%1:%2").arg(qs(f.spots.front().file)).arg(f.spots.front().line),
                      qs(word(f.severity)),
                      qs(word(f.harm)),
                      f.repair ? qs(f.repair->text) : QString(),
                      QString::number(f.mendedAfter),
                      QString::number(shown.readOnly),
                      QString::number(shown.oncePlanned),
                      QString::number(gui::palette().dark)};
  for (const auto& w : f.ways) content << qs(w.text) << qs(w.field.subject) << qs(w.field.name);
  for (const auto& s : f.sources) content << qs(s);
  if (f.bar) content << qs(displayText(f.bar->value)) << qs(displayText(f.bar->limit)) << qs(f.bar->limitName);
  content << shown.explained;
  if (const auto all = content.join(QChar(1)); all != m_content) {
    m_content = all;
    build(shown);
  }
  update();
}

void FindingCard::build(const Shown& shown) {
  const auto& c = gui::palette();
  const auto& f = shown.finding;
  for (auto* old : {m_always, m_more})
    if (old) {
      m_column->removeWidget(old);
      old->hide();  // a button that was pressed is still on the stack
      old->deleteLater();
    }
  m_repair = nullptr;
  QString kind = qs(word(f.severity));
  if (f.severity == checks::Severity::Stop) kind = qs(word(f.harm));
  if (shown.oncePlanned) kind = tr("once what is planned is made: %1").arg(kind);
  setAccessibleName(qs(f.headline) + ", " + kind);
  setAccessibleDescription(qs(f.text));
  m_always = new QWidget(this);
  auto* always = new QVBoxLayout(m_always);
  always->setContentsMargins(0, 0, 0, 0);
  always->setSpacing(3);
  always->addWidget(label(qs(f.headline), 14, c.ink, true, m_always));
  QString line = kind;
  if (!shown.explained.isEmpty()) line += tr(" · explains %1 more").arg(shown.explained.size());
  if (f.mendedAfter > 0)
    line += tr(" · mended once %1 made").arg(f.mendedAfter == 1 ? tr("1 change is") : tr("%1 changes are").arg(f.mendedAfter));
  const QColor colour = f.severity == checks::Severity::Stop ? c.stop : f.severity == checks::Severity::Caution ? c.caution : c.inkSoft;
  always->addWidget(label(line, 12, colour, false, m_always));
  if (f.bar) always->addWidget(new LimitBar(*f.bar, f.severity, m_always));
  m_column->addWidget(m_always);

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
  if (!f.spots.empty()) {
    QStringList places;
    for (const auto& s : f.spots) places << tr("%1, line %2").arg(qs(s.file)).arg(s.line);
    more->addWidget(label(tr("In the program: %1").arg(places.join("; ")), 12, c.inkSoft, false, m_more));
  }
  if (auto* box = whatToDo(shown)) more->addWidget(box);
  // What follows from it comes after what to do about it, however much that is.
  QStringList follows = shown.explained;
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
  why->setObjectName("aboutCheck");
  why->setFlat(true);
  connect(why, &QPushButton::clicked, this, [this, check = qs(f.check)] { Q_EMIT explain(check); });
  more->addWidget(why, 0, Qt::AlignLeft);
  m_column->addWidget(m_more);
  m_more->setVisible(m_picked);
}

// The repair that can be put on the plan, and the ways that are a person's choice: each in a line, with the field that it ends in.
QWidget* FindingCard::whatToDo(const Shown& shown) {
  const auto& f = shown.finding;
  const bool repair = f.repair && f.mendedAfter == 0;
  if (!repair && (f.ways.empty() || f.mendedAfter > 0)) return nullptr;
  const auto& c = gui::palette();
  auto* box = new QFrame(m_more);
  box->setObjectName("repairBox");
  box->setStyleSheet(QString("#repairBox{border:1px solid %1;border-radius:6px}").arg(c.accent.name()));
  auto* inside = new QVBoxLayout(box);
  inside->setContentsMargins(10, 7, 10, 9);
  inside->addWidget(label(tr("What to do"), 12, c.accent, true, box));
  if (repair) {
    inside->addWidget(label(qs(f.repair->text), 13, c.ink, false, box));
    m_repair = new QPushButton(tr("Put it on the plan"), box);
    m_repair->setObjectName("repair");
    m_repair->setProperty("primary", true);
    m_repair->setEnabled(!shown.readOnly);
    m_repair->setToolTip(tr("Ctrl+Enter. It counts as done when you mark it so."));
    connect(m_repair, &QPushButton::clicked, this, [this] { Q_EMIT this->repair(m_identity); });
    inside->addWidget(m_repair, 0, Qt::AlignLeft);
  }
  for (const auto& w : f.ways) {
    auto* line = label(qs(w.text), 13, c.ink, false, box);
    line->setObjectName("way");
    inside->addWidget(line);
    if (w.field.subject.empty()) continue;
    auto* go = new QPushButton(tr("Go there"), box);
    go->setObjectName("wayGo");
    go->setAccessibleDescription(qs(w.text));
    connect(go, &QPushButton::clicked, this, [this, field = w.field] { Q_EMIT jump(field); });
    inside->addWidget(go, 0, Qt::AlignLeft);
  }
  return box;
}

void FindingCard::setPicked(bool picked) {
  m_picked = picked;
  if (m_more) m_more->setVisible(picked);
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
