#include "gui/panels/left_out_card.h"

#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include "core/harness/left_out.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {
constexpr std::size_t kMostRows = 40;
// What, then what became of it, then where.
QString sentence(const Problem& p) {
  return qs(shownText(p.what + (p.kept.empty() ? "" : " " + p.kept))) + "\n" +
         LeftOutCard::tr("In the file: %1").arg(qs(shownText(p.where.substr(1))));
}
}  // namespace

LeftOutCard::LeftOutCard(Session& session, QWidget* parent) : QFrame(parent), m_session(session) {
  setObjectName("leftOut");
  m_column = new QVBoxLayout(this);
  m_column->setContentsMargins(12, 10, 12, 10);
  m_column->setSpacing(8);
  hide();
}

void LeftOutCard::refresh() {
  const auto& a = m_session.analyser.analysis();
  QStringList sentences;
  for (const auto& p : a.leftOut) sentences << sentence(p);
  for (const auto& f : a.fromFile)
    if (f.mine) sentences << qs(f.sentence);
  if (sentences == m_shown) return;
  m_shown = sentences;
  // A button that was pressed is still on the stack.
  for (auto* old : findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly)) {
    m_column->removeWidget(old);
    old->hide();
    old->deleteLater();
  }
  setVisible(!sentences.isEmpty());
  if (sentences.isEmpty()) return;
  auto* head = plainLabel(a.leftOut.empty() ? tr("Taken from this file") : tr("Left out: this could not be used"), this);
  QFont bold = head->font();
  bold.setWeight(QFont::DemiBold);
  head->setFont(bold);
  m_column->addWidget(head);
  for (std::size_t i = 0; i < std::min(a.leftOut.size(), kMostRows); ++i) {
    const auto& p = a.leftOut[i];
    const bool can = !m_session.document.readOnly() && harness::takeOut(m_session.document.harness(), p.where).has_value();
    row(sentence(p), "takeOut", can ? tr("Take it out of the file") : QString(), [this, where = p.where] {
      if (const auto edit = harness::takeOut(m_session.document.harness(), where)) m_session.document.apply(*edit);
    });
  }
  if (a.leftOut.size() > kMostRows) m_column->addWidget(plainLabel(tr("and %1 more").arg(a.leftOut.size() - kMostRows), this));
  for (const auto& f : a.fromFile)
    if (f.mine)
      row(qs(f.sentence) + ".", "useMine", m_session.document.readOnly() ? QString() : tr("Use mine"),
          [this, part = f.part] { m_session.document.apply(harness::useMine(part)); });
}

void LeftOutCard::paintEvent(QPaintEvent*) {
  const auto& c = gui::palette();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  p.setBrush(c.cautionSoft);
  p.setPen(QPen(c.caution, 1));
  p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 8, 8);
}

void LeftOutCard::row(const QString& sentence, const QString& name, const QString& button, const std::function<void()>& then) {
  auto* line = new QWidget(this);
  auto* across = new QVBoxLayout(line);
  across->setContentsMargins(0, 0, 0, 0);
  across->setSpacing(4);
  auto* label = plainLabel(sentence, line);
  label->setWordWrap(true);
  across->addWidget(label);
  if (!button.isEmpty()) {
    auto* press = new QPushButton(button, line);
    press->setObjectName(name);
    press->setAccessibleDescription(sentence);
    connect(press, &QPushButton::clicked, this, then);
    across->addWidget(press, 0, Qt::AlignLeft);
  }
  m_column->addWidget(line);
}

}  // namespace bold::gui
