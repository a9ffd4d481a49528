#pragma once

#include <QAbstractTableModel>

#include "core/harness/connection_table.h"

class QIcon;

namespace bold::gui {

/// The connections of a bench for a list. A row keeps its selection while others come and go.
class ConnectionModel : public QAbstractTableModel {
  Q_OBJECT
 public:
  enum Column { Which, From, To, Gauge, Made, Columns };
  using QAbstractTableModel::QAbstractTableModel;

  void show(std::vector<harness::ConnectionRow> rows);
  /// @return -1 when there is no such connection
  int rowOf(const QString& id) const;
  QString idOf(const QModelIndex& index) const;

  int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : static_cast<int>(m_rows.size()); }
  int columnCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : Columns; }
  QVariant data(const QModelIndex& index, int role) const override;
  QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

 private:
  std::vector<harness::ConnectionRow> m_rows;
};

/// A wire in its colours.
QIcon wireSwatch(const QString& code);

}  // namespace bold::gui
