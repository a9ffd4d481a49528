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
class Exporter;
class FileActions;
class FindDialog;
class FindingsPanel;
class NoticeBar;
class PictureView;
class ProgramPanel;
class ReadBackView;
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
  /// Says in a dialog and in the loom what sets the open bench apart from this one.
  void compareWithFile(const QString& path);
  /// Offers what killed windows left behind; asked for once, at start.
  void offerRecovery();
  StepRail& rail() { return *m_rail; }
  /// Shows the stages for a motor (device).
  void showStages(const std::string& motor);
  /// The wires one by one, to be marked.
  void lookOver();
  /// A second person says where each wire goes.
  void readBack();
  /// The same, a round begun at once, in the order of this number.
  void readBack(const QString& reader, int shuffle);

 protected:
  void closeEvent(QCloseEvent* event) override;
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dropEvent(QDropEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  Session& m_session;
  NoticeBar* m_notices;
  FileActions* m_files;
  Exporter* m_exporter;
  StepRail* m_rail;
  VerdictBar* m_verdict;
  QLabel *m_title, *m_where, *m_status;
  PictureView* m_picture;
  EndsView* m_joining;  ///< over the picture while a wire is drawn
  QStackedWidget* m_side;
  QWidget *m_body, *m_top;
  ReadBackView* m_readBack;  ///< in the place of everything, while it is open
  FindingsPanel* m_findings;
  WiringPanel* m_wiring;
  BenchPanel* m_bench;
  CurrentsPanel* m_currents;
  StagesPanel* m_stages;
  ProgramPanel* m_program;
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
  /// Nothing but the read-back; while it asks, nothing that could tell an answer either.
  void showOnlyReadBack(bool only);
  /// Whether what is found may leave the window; says why not.
  bool mayTell();
  void compareWith();
  void exchangePicked();
  void duplicatePicked();
  /// The device that is picked, or that what is picked is on; empty: none.
  std::string deviceInHand() const;
  void showPage(const QString& check);
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
