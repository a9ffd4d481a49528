#pragma once

#include <QAbstractTableModel>

#include "core/wiring/wire_list.h"

class QIcon;

namespace bold::gui {

/// A line of the list: a connection, or the title of those below it.
struct WireRow {
  wiring::ListedWire wire;  ///< of a title without an id
  std::string title;
  std::string id() const { return title.empty() ? wire.id : "\x1f" + title; }  ///< of no connection where it is a title
  bool operator==(const WireRow&) const = default;
};

/// The connections of a bench for a list. A row keeps its selection while others come and go.
class ConnectionModel : public QAbstractTableModel {
  Q_OBJECT
 public:
  enum Column { Which, From, To, Gauge, Looked, Made, Columns };
  using QAbstractTableModel::QAbstractTableModel;

  void show(std::vector<WireRow> rows);
  /// @return -1 when there is no such connection
  int rowOf(const QString& id) const;
  /// Empty: there is no connection in this line.
  QString idOf(const QModelIndex& index) const;
  const std::vector<WireRow>& rows() const { return m_rows; }

  int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : static_cast<int>(m_rows.size()); }
  int columnCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : Columns; }
  QVariant data(const QModelIndex& index, int role) const override;
  QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
  Qt::ItemFlags flags(const QModelIndex& index) const override;

 private:
  std::vector<WireRow> m_rows;
};

/// A wire in its colours.
QIcon wireSwatch(const QString& code);

}  // namespace bold::gui
