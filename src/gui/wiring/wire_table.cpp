#include "gui/wiring/wire_table.h"

#include <QHeaderView>
#include <QShortcut>
#include <algorithm>

#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/subject_menu.h"

namespace bold::gui {

WireTable::WireTable(Session& session, QWidget* parent) : QTableView(parent), m_session(session) {
  m_rows = new ConnectionModel(this);
  setModel(m_rows);
  setObjectName("wireTable");
  setAccessibleName(tr("Connections"));
  verticalHeader()->hide();
  verticalHeader()->setDefaultSectionSize(26);
  verticalHeader()->setSectionResizeMode(QHeaderView::Fixed);  // thousands of rows, all as high
  setSelectionBehavior(QAbstractItemView::SelectRows);
  setSelectionMode(QAbstractItemView::ExtendedSelection);
  setEditTriggers(QAbstractItemView::NoEditTriggers);
  setShowGrid(false);
  setTabKeyNavigation(false);
  setIconSize({30, 14});
  horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);
  horizontalHeader()->setSectionResizeMode(ConnectionModel::From, QHeaderView::Stretch);
  horizontalHeader()->setSectionResizeMode(ConnectionModel::To, QHeaderView::Stretch);
  for (const auto& [column, wide] :
       {std::pair{ConnectionModel::Which, 48}, {ConnectionModel::Gauge, 44}, {ConnectionModel::Looked, 66}, {ConnectionModel::Made, 84}})
    setColumnWidth(column, wide);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);  // what is cut short stands in the tip
  setWordWrap(false);
  setTextElideMode(Qt::ElideMiddle);  // a terminal is at the end of its name
  setContextMenuPolicy(Qt::CustomContextMenu);
  connect(this, &QWidget::customContextMenuRequested, this, [this](const QPoint& at) {
    if (const auto id = m_rows->idOf(indexAt(at)); !id.isEmpty()) {
      m_session.selection.select(id);
      showSubjectMenu(m_session, m_session.selection.subject(), viewport()->mapToGlobal(at), this);
    }
  });
  connect(selectionModel(), &QItemSelectionModel::selectionChanged, this, [this] {
    if (m_filling || !selectionModel()->hasSelection()) return;
    if (const auto id = m_rows->idOf(currentIndex()); !id.isEmpty()) m_session.selection.select(id);
  });
  for (const auto key : {Qt::Key_Return, Qt::Key_Enter}) {
    auto* next = new QShortcut(QKeySequence(key), this, nullptr, nullptr, Qt::WidgetShortcut);
    connect(next, &QShortcut::activated, this, &WireTable::next);
  }
}

void WireTable::show(std::vector<WireRow> rows) {
  m_filling = true;
  m_rows->show(std::move(rows));
  m_filling = false;
}

void WireTable::pick(const QString& id) {
  const int row = m_rows->rowOf(id);
  m_filling = true;
  if (row < 0)
    clearSelection();
  else if (currentIndex().row() != row || !selectionModel()->isRowSelected(row, {}))
    selectRow(row);
  m_filling = false;
}

std::vector<std::string> WireTable::picked() const {
  std::vector<std::string> out;
  const auto& rows = m_rows->rows();
  for (int i = 0; i < static_cast<int>(rows.size()); ++i)
    if (rows[i].title.empty() && selectionModel()->isRowSelected(i, {})) out.push_back(rows[i].wire.id);
  return out;
}

void WireTable::stepOn(bool open) {
  const auto& rows = m_rows->rows();
  const int n = static_cast<int>(rows.size());
  const int from = m_rows->rowOf(m_session.selection.subject());
  for (int k = 1; k <= n; ++k) {
    const int at = (std::max(from, -1) + k) % n;
    if (!rows[at].title.empty() || (open && rows[at].wire.complete())) continue;
    m_session.selection.select(qs(rows[at].wire.id));
    return;
  }
}

}  // namespace bold::gui
