#pragma once

#include <QTableView>
#include <string>
#include <vector>

#include "gui/wiring/connection_model.h"

namespace bold::gui {

class Session;

/// The list of connections: what is picked in it is picked everywhere, several at once for what is done to several.
class WireTable : public QTableView {
  Q_OBJECT
 public:
  explicit WireTable(Session& session, QWidget* parent = nullptr);
  void show(std::vector<WireRow> rows);
  using QTableView::show;
  /// Marks the row of this connection, where it is not among those that are marked; none: no row.
  void pick(const QString& id);
  /// Those that are picked, in their order.
  std::vector<std::string> picked() const;
  /// Picks the next connection, from the last on the first.
  /// @param open only one that is not complete
  void stepOn(bool open);

 Q_SIGNALS:
  void next();  ///< Enter

 private:
  Session& m_session;
  ConnectionModel* m_rows;
  bool m_filling = false;
};

}  // namespace bold::gui
