#pragma once

#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTableWidget;

namespace bold::gui {

class Session;

/// The plain list of connections and terminals beside the picture: everything the picture can do, by keys.
class WiringPanel : public QWidget {
  Q_OBJECT
 public:
  explicit WiringPanel(Session& session, QWidget* parent = nullptr);
  void focusEntry();
  void removeSelected();
  void markSelectedDone();

 private:
  Session& m_session;
  QLineEdit* m_entry;
  QLabel *m_said, *m_ends;
  QTableWidget* m_table;
  QComboBox* m_colour;
  QPushButton *m_remove, *m_done, *m_allDone;
  bool m_filling = false;

  void refresh();
  void showSelection();
  void addTyped();
  void recolour(int index);
};

}  // namespace bold::gui
