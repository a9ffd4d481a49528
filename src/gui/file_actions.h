#pragma once

#include <QObject>

class QMenu;
class QWidget;

namespace bold::gui {

class NoticeBar;
class Session;

/// Everything that opens, saves and gives up files, with what has to be asked.
class FileActions : public QObject {
  Q_OBJECT
 public:
  FileActions(Session& session, NoticeBar& notices, QWidget& window);

  void open(const QString& path);
  void chooseAndOpen();
  bool save(bool as);
  /// Takes up what is being typed; where something cannot be taken that is told, and false: go back to it.
  bool takeUpTyped();
  /// Takes up what is being typed, asks about what waits to be entered and about unsaved changes; false: stay.
  bool mayDiscard();
  void fillRecent(QMenu& menu);
  /// Offers what killed windows left behind.
  void offerRecovery();

 Q_SIGNALS:
  void saved();

 private:
  Session& m_session;
  NoticeBar& m_notices;
  QWidget& m_window;

  QStringList m_saidLinks;

  void remember(const QString& path);
  void sayLinks(const QString& path);
  void showProblems(const QStringList& sentences);
  void changedOnDisk(bool gone);
};

}  // namespace bold::gui
