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
class EndsView;
class FileActions;
class FindDialog;
class FindingsPanel;
class NoticeBar;
class PictureView;
class Session;
class StartCard;
class StagesPanel;
class StepRail;
class VerdictBar;
class WiringPanel;

/// Wires the panels together; every decision is elsewhere.
class MainWindow : public QMainWindow {
  Q_OBJECT
 public:
  explicit MainWindow(Session& session);
  void openFile(const QString& path);
  /// Offers what killed windows left behind; asked for once, at start.
  void offerRecovery();
  StepRail& rail() { return *m_rail; }
  /// Shows the stages for a motor (device).
  void showStages(const std::string& motor);

 protected:
  void closeEvent(QCloseEvent* event) override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  Session& m_session;
  NoticeBar* m_notices;
  FileActions* m_files;
  StepRail* m_rail;
  VerdictBar* m_verdict;
  QLabel *m_title, *m_where, *m_status;
  PictureView* m_picture;
  EndsView* m_joining;  ///< over the picture while a wire is drawn
  QStackedWidget* m_side;
  QWidget* m_body;
  FindingsPanel* m_findings;
  WiringPanel* m_wiring;
  BenchPanel* m_bench;
  CurrentsPanel* m_currents;
  StagesPanel* m_stages;
  StartCard* m_start;
  FindDialog* m_find;
  QString m_usually;  ///< what the status line says while nothing else does
  QToolButton* m_sheet;
  bool m_narrow = false;

  void connectPanels();
  void buildMenus();
  void buildFileMenu();
  void buildEditMenu();
  void buildViewMenu();
  void buildNumberings(QMenu& menu);
  QWidget* buildTop();
  void arrange();
  void paintStatus();
  void setTheme(const QString& name);
  void refreshTitle();
  void showStep();
  void showGhost();
  void showPage(const QString& check);
  void about();
  void importPart();
  void importPartFrom(const QString& path);
  void goTo(const QString& subject, const QString& field);
  void deletePicked();
  void stateAsWired();
  void chooseStage();
  void showSums();
  /// The motor that is picked, else the first that hangs on nothing, else the first; empty: there is none.
  std::string motorInHand() const;
};

}  // namespace bold::gui
