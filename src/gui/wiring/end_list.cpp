#include "gui/wiring/end_list.h"

#include <QKeyEvent>
#include <QLineEdit>

#include "core/harness/end_choices.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"

namespace bold::gui {
namespace {
constexpr std::size_t kMostOffered = 60;
constexpr int kRowsSeen = 7;
}  // namespace

EndList::EndList(Session& session, QLineEdit* line, QWidget* parent) : QListWidget(parent), m_session(session), m_line(line) {
  setObjectName("endChoices");
  setAccessibleName(tr("Terminals that fit"));
  setFocusPolicy(Qt::NoFocus);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setTextElideMode(Qt::ElideRight);
  hide();
  m_line->installEventFilter(this);
  connect(m_line, &QLineEdit::textEdited, this, &EndList::refresh);
  connect(this, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) { take(row(item)); });
}

void EndList::refresh() {
  const auto choices = endChoices(m_session.document.harness(), m_session.document.library(), m_line->text().toStdString(), kMostOffered);
  clear();
  for (const auto& c : choices) {
    auto* item = new QListWidgetItem(qs(c.shown) + "  ·  " + qs(c.remark), this);
    item->setData(Qt::UserRole, qs(c.insert));
    if (!c.free || !c.fits) item->setForeground(gui::palette().inkSoft);
  }
  setCurrentRow(-1);
  // What is there as a whole needs no offer.
  const bool whole = choices.size() == 1 && m_line->text().section(' ', -1).compare(qs(choices[0].insert), Qt::CaseInsensitive) == 0;
  setVisible(!choices.empty() && !whole && m_line->hasFocus());
  if (isHidden()) return;
  const int rows = std::min<int>(kRowsSeen, count());
  const auto at = m_line->mapTo(parentWidget(), QPoint(0, m_line->height() + 2));
  setGeometry(at.x(), at.y(), m_line->width(), rows * std::max(25, sizeHintForRow(0)) + 6);
  raise();
}

void EndList::take(int row) {
  const auto* chosen = item(std::max(0, row));
  if (!chosen) return;
  const auto text = m_line->text();
  const auto before = text.left(text.lastIndexOf(' ') + 1);
  const bool first = before.trimmed().isEmpty();
  m_line->setText(before + chosen->data(Qt::UserRole).toString() + (first ? " " : ""));
  hide();
}

bool EndList::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::FocusOut) hide();
  if (event->type() != QEvent::KeyPress || isHidden()) return QListWidget::eventFilter(watched, event);
  const int key = static_cast<QKeyEvent*>(event)->key();
  if (key == Qt::Key_Down || key == Qt::Key_Up) {
    setCurrentRow(std::clamp(currentRow() + (key == Qt::Key_Down ? 1 : -1), 0, count() - 1));
  } else if (key == Qt::Key_Tab) {
    take(currentRow());
  } else if ((key == Qt::Key_Return || key == Qt::Key_Enter) && currentRow() >= 0) {
    take(currentRow());
  } else if (key == Qt::Key_Escape) {
    hide();
  } else {
    return QListWidget::eventFilter(watched, event);
  }
  return true;
}

}  // namespace bold::gui
