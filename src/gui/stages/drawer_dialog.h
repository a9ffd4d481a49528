#pragma once

#include <QDialog>

class QLabel;
class QLineEdit;
class QTableWidget;

namespace bold::gui {

class Drawer;
class Session;

/// How many of each part lie in the drawer: typed, or from a CSV file.
class DrawerDialog : public QDialog {
  Q_OBJECT
 public:
  DrawerDialog(Session& session, Drawer& drawer, QWidget* parent);

 private:
  Session& m_session;
  Drawer& m_drawer;
  QLineEdit* m_filter;
  QTableWidget* m_table;
  QLabel* m_said;
  bool m_filling = false;

  void fill();
  void counted(int row);
  void importFrom();
  void exportTo();
};

}  // namespace bold::gui
