#pragma once

#include <QMainWindow>

class QLabel;
class QMenu;
class QSplitter;
class QStackedWidget;
class QToolButton;

namespace bold::gui {

class BenchPanel;
class CurrentsPanel;
class FindingsPanel;
class PictureView;
class Session;
class StartCard;
class StepRail;
class VerdictBar;
class WiringPanel;

/// Wires the panels together; every decision is elsewhere.
class MainWindow : public QMainWindow {
  Q_OBJECT
 public:
  explicit MainWindow(Session& session);
  void openFile(const QString& path);
  StepRail& rail() { return *m_rail; }

 protected:
  void closeEvent(QCloseEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  Session& m_session;
  StepRail* m_rail;
  VerdictBar* m_verdict;
  QLabel *m_title, *m_where, *m_status;
  PictureView* m_picture;
  QStackedWidget* m_side;
  QWidget* m_body;
  FindingsPanel* m_findings;
  WiringPanel* m_wiring;
  BenchPanel* m_bench;
  CurrentsPanel* m_currents;
  StartCard* m_start;
  QMenu* m_recent;
  QToolButton* m_sheet;
  bool m_narrow = false;

  void buildMenus();
  QWidget* buildTop();
  void arrange();
  void paintStatus();
  void setTheme(const QString& name);
  void refreshTitle();
  void showStep();
  bool mayDiscard();  ///< asks about unsaved changes
  bool save(bool as);
  void remember(const QString& path);
  void refreshRecent();
  void showProblems(const QStringList& sentences);
  void showPage(const QString& check);
  void about();
  void importPart();
  void lowSideSwitch();
};

}  // namespace bold::gui
