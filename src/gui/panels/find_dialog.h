#pragma once

#include <QDialog>

class QLineEdit;
class QListWidget;

namespace bold::gui {

class Session;

/// Finds devices, terminals, wires and findings of this bench by what they are called, picks the one that is chosen and steps aside.
class FindDialog : public QDialog {
  Q_OBJECT
 public:
  explicit FindDialog(Session& session, QWidget* parent = nullptr);
  /// For another search: what was typed is marked.
  void begin();

 Q_SIGNALS:
  void wireFound();     ///< a connection was picked
  void findingFound();  ///< a finding was picked
  void placeFound();    ///< a device or terminal was picked

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  Session& m_session;
  QLineEdit* m_text;
  QListWidget* m_hits;

  void search();
  void go(int row);
};

}  // namespace bold::gui
