#pragma once

#include <QWidget>

class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;
class QScrollArea;

namespace bold::gui {

class Session;

/// What is on the bench: a search box that adds parts, the devices, and the picked device's figures and settings.
class BenchPanel : public QWidget {
  Q_OBJECT
 public:
  explicit BenchPanel(Session& session, QWidget* parent = nullptr);
  void focusSearch();
  /// Gives a field of the picked device the focus, by its name (checks::Field); false when there is none.
  bool focusField(const QString& name);
  void removeSelected();

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  Session& m_session;
  QLineEdit* m_search;
  QListWidget *m_hits, *m_devices;
  QScrollArea* m_details;
  bool m_filling = false;

  void showHits();
  void addHit(int row);
  void refresh();
  void showPicked();
  void showDetails();
  void putDetails(QWidget* next);
};

}  // namespace bold::gui
