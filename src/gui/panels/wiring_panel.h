#pragma once

#include <QWidget>
#include <functional>
#include <string>

#include "core/harness/edit.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QTableView;

namespace bold::gui {

class ConnectionModel;
class EndsView;
class Session;

/// The plain list of connections and terminals beside the picture: everything the picture can do, by keys.
class WiringPanel : public QWidget {
  Q_OBJECT
 public:
  explicit WiringPanel(Session& session, QWidget* parent = nullptr);
  void focusEntry();
  /// A wire or plug between two places, as it was drawn in the picture; what stands in the way comes by `refused`.
  void join(const QString& from, const QString& to);
  /// Gives a field of the picked connection the focus, by its name (checks::Field).
  bool focusField(const QString& name);
  void removeSelected();
  void markSelectedDone();

 Q_SIGNALS:
  void refused(const QString& sentence);

 private:
  Session& m_session;
  QLineEdit* m_entry;
  QLabel *m_said, *m_ends;
  EndsView* m_places;
  ConnectionModel* m_rows;
  QTableView* m_table;
  QComboBox *m_colour, *m_gauge;
  QLineEdit* m_length;
  QString m_lengthOf;  ///< the connection whose length is in the field
  QPushButton *m_remove, *m_done, *m_allDone;
  bool m_filling = false;

  void refresh();
  void showSelection();
  void addTyped();
  /// Lights the places of what is typed so far.
  void followTyped(const QString& text);
  void put(const harness::Edit& edit);
  void change(const std::string& what, const std::function<void(harness::Connection&)>& f);
  void takeLength();
  void say(const QString& sentence);
  void recolour(int index);
};

}  // namespace bold::gui
