#include "gui/panels/connection_model.h"

#include <QIcon>
#include <QPainter>
#include <algorithm>

#include "core/harness/names.h"
#include "gui/qs.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

QIcon wireSwatch(const QString& code) {
  QPixmap pix(28, 14);
  pix.fill(Qt::transparent);
  QPainter p(&pix);
  p.setRenderHint(QPainter::Antialiasing);
  QColor stripe;
  p.setPen(QPen(palette().casing, 1));
  p.setBrush(wireColour(code, &stripe));
  p.drawRoundedRect(QRectF(1, 2, 26, 10), 3, 3);
  if (stripe.isValid()) p.fillRect(QRectF(9, 3, 9, 8), stripe);
  return QIcon(pix);
}

// Rows that stay are told apart by their ids: what an edit adds or takes away is one run between those before and behind it.
void ConnectionModel::show(std::vector<harness::ConnectionRow> rows) {
  const auto same = [](const auto& a, const auto& b) { return a.id == b.id; };
  const auto shorter = static_cast<std::ptrdiff_t>(std::min(m_rows.size(), rows.size()));
  const auto before = std::mismatch(m_rows.begin(), m_rows.begin() + shorter, rows.begin(), same).first - m_rows.begin();
  const auto behind = std::mismatch(m_rows.rbegin(), m_rows.rbegin() + (shorter - before), rows.rbegin(), same).first - m_rows.rbegin();
  const auto first = static_cast<int>(before);
  if (const auto gone = static_cast<int>(std::ssize(m_rows) - before - behind); gone > 0) {
    beginRemoveRows({}, first, first + gone - 1);
    m_rows.erase(m_rows.begin() + before, m_rows.end() - behind);
    endRemoveRows();
  }
  if (const auto come = static_cast<int>(std::ssize(rows) - before - behind); come > 0) {
    beginInsertRows({}, first, first + come - 1);
    m_rows.insert(m_rows.begin() + before, rows.begin() + before, rows.end() - behind);
    endInsertRows();
  }
  for (int i = 0; i < rowCount(); ++i) {
    if (m_rows[i] == rows[i]) continue;
    m_rows[i] = std::move(rows[i]);
    Q_EMIT dataChanged(index(i, 0), index(i, Columns - 1));
  }
}

int ConnectionModel::rowOf(const QString& id) const {
  const auto it = std::ranges::find(m_rows, id.toStdString(), &harness::ConnectionRow::id);
  return it == m_rows.end() ? -1 : static_cast<int>(it - m_rows.begin());
}

QString ConnectionModel::idOf(const QModelIndex& index) const {
  return index.isValid() ? qs(m_rows[index.row()].id) : QString();
}

QVariant ConnectionModel::data(const QModelIndex& index, int role) const {
  if (!index.isValid()) return {};
  const auto& row = m_rows[index.row()];
  const bool wire = row.kind == harness::ConnectionKind::Wire;
  const auto kind = qs(word(row.kind));
  if (index.column() == Which) {
    if (role == Qt::DisplayRole) return wire ? QString() : kind;
    if (role == Qt::DecorationRole && wire) return wireSwatch(qs(row.colour));
    if (role == Qt::AccessibleTextRole) return wire ? qs(row.colour) + " " + kind : kind;
    if (role == Qt::ToolTipRole) return plainTip(kind + " " + qs(row.id));
    return {};
  }
  if (role == Qt::ToolTipRole && index.column() == Gauge) return plainTip(qs(row.size));
  if (role != Qt::DisplayRole && role != Qt::ToolTipRole) return {};
  const auto text = index.column() == From    ? qs(row.from)
                    : index.column() == To    ? qs(row.to)
                    : index.column() == Gauge ? qs(row.gauge)
                                              : qs(word(row.state));
  return role == Qt::ToolTipRole ? plainTip(text) : text;
}

QVariant ConnectionModel::headerData(int section, Qt::Orientation orientation, int role) const {
  if (orientation != Qt::Horizontal || role != Qt::DisplayRole) return {};
  switch (section) {
    case From:
      return tr("From");
    case To:
      return tr("To");
    case Gauge:
      return tr("AWG");
    case Made:
      return tr("State");
    default:
      return {};
  }
}

}  // namespace bold::gui
