#include "gui/wiring/connection_model.h"

#include <QFont>
#include <QIcon>
#include <QPainter>
#include <algorithm>
#include <array>

#include "core/harness/connection_table.h"
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

namespace {

// Three cells, filled as it was made, pulled at and seen; crossed out where something else was found.
QIcon lookedAt(const wiring::ListedWire& w) {
  constexpr int kSharp = 2;  // drawn finer than it is shown, for any scale
  QPixmap pix(30 * kSharp, 14 * kSharp);
  pix.setDevicePixelRatio(kSharp);
  pix.fill(Qt::transparent);
  QPainter p(&pix);
  p.setRenderHint(QPainter::Antialiasing);
  const auto& c = palette();
  const std::array on{w.fitted, w.tugged, w.seen};
  for (int k = 0; k < 3; ++k) {
    p.setPen(QPen(w.wrong ? c.stop : c.inkSoft, 1));
    p.setBrush(on[k] ? c.good : c.panel);
    p.drawRoundedRect(QRectF(1.5 + 9.5 * k, 2.5, 8, 9), 2, 2);
  }
  if (w.wrong) {
    p.setPen(QPen(c.stop, 2));
    p.drawLine(QPointF(9, 1.5), QPointF(21, 12.5));
    p.drawLine(QPointF(9, 12.5), QPointF(21, 1.5));
  }
  return QIcon(pix);
}

}  // namespace

// Rows that stay are told apart by their ids: what an edit adds or takes away is one run between those before and behind it.
void ConnectionModel::show(std::vector<WireRow> rows) {
  const auto same = [](const auto& a, const auto& b) { return a.id() == b.id(); };
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
  const auto wanted = id.toStdString();
  const auto it = std::ranges::find_if(m_rows, [&](const WireRow& r) { return r.title.empty() && r.wire.id == wanted; });
  return it == m_rows.end() ? -1 : static_cast<int>(it - m_rows.begin());
}

QString ConnectionModel::idOf(const QModelIndex& index) const {
  return index.isValid() && m_rows[index.row()].title.empty() ? qs(m_rows[index.row()].wire.id) : QString();
}

Qt::ItemFlags ConnectionModel::flags(const QModelIndex& index) const {
  if (index.isValid() && !m_rows[index.row()].title.empty()) return Qt::ItemIsEnabled;
  return QAbstractTableModel::flags(index);
}

QVariant ConnectionModel::data(const QModelIndex& index, int role) const {
  if (!index.isValid()) return {};
  const auto& row = m_rows[index.row()];
  if (!row.title.empty()) {
    if (role == Qt::FontRole) {
      QFont strong;
      strong.setWeight(QFont::DemiBold);
      return strong;
    }
    return role == Qt::DisplayRole && index.column() == From ? QVariant(qs(row.title)) : QVariant();
  }
  const auto& w = row.wire;
  const bool wire = w.kind == harness::ConnectionKind::Wire;
  const auto kind = qs(word(w.kind));
  const auto standing = qs(wiring::standing(w));
  if (index.column() == Which) {
    if (role == Qt::DisplayRole) return wire ? QString() : kind;
    if (role == Qt::DecorationRole && wire) return wireSwatch(qs(w.colour));
    if (role == Qt::AccessibleTextRole) return wire ? qs(w.colour) + " " + kind : kind;
    if (role == Qt::ToolTipRole) return plainTip(kind + " " + qs(w.id));
    return {};
  }
  if (index.column() == Looked) {
    if (role == Qt::DecorationRole) return lookedAt(w);
    if (role == Qt::AccessibleTextRole) return standing.isEmpty() ? tr("not looked at") : standing;
    if (role == Qt::ToolTipRole) return plainTip(standing.isEmpty() ? tr("not looked at") : standing);
    return {};
  }
  if (role == Qt::ToolTipRole && index.column() == Gauge) return plainTip(qs(w.size));
  if (role != Qt::DisplayRole && role != Qt::ToolTipRole) return {};
  const auto text = index.column() == From    ? qs(w.names[0])
                    : index.column() == To    ? qs(w.names[1])
                    : index.column() == Gauge ? qs(w.gauge)
                                              : qs(word(w.state));
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
    case Looked:
      return tr("Looked");
    case Made:
      return tr("State");
    default:
      return {};
  }
}

}  // namespace bold::gui
