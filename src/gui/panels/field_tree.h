#pragma once

#include <QWidget>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/base/result.h"
#include "core/parts/part_schema.h"

class QComboBox;
class QPushButton;
class QTreeWidget;
class QTreeWidgetItem;

namespace bold::gui {

/// Every field of a part file as a tree, made from the published schema: values are edited in place, fields and list items are
/// added from what the schema allows, moved and removed. What is wrong is marked where it is.
class FieldTree : public QWidget {
  Q_OBJECT
 public:
  explicit FieldTree(QWidget* parent = nullptr);
  void setPart(const Json& part);
  const Json& part() const { return m_part; }
  /// Marks the fields that problems speak of.
  void mark(const std::vector<Problem>& problems);
  /// Opens the tree down to a field.
  void go(const parts::Path& path);

 Q_SIGNALS:
  void edited();

 private:
  Json m_part;
  QTreeWidget* m_tree;
  QComboBox* m_what;
  QPushButton *m_add, *m_remove, *m_up, *m_down;
  bool m_filling = false;

  void fill(const parts::Path& current);
  void put(QTreeWidgetItem* under, const QString& label, const Json& value, const parts::Path& path);
  void valueTyped(QTreeWidgetItem* item, int column);
  void offer();
  void add();
  void remove();
  void move(int by);
  parts::Path currentPath() const;
  void changed(const parts::Path& current);
};

}  // namespace bold::gui
