#pragma once

#include <QFileSystemWatcher>
#include <QObject>
#include <QString>
#include <QTimer>
#include <QUndoStack>
#include <atomic>
#include <memory>

#include "core/checks/analysis.h"
#include "core/harness/document_file.h"
#include "core/harness/edit.h"
#include "gui/session/keeper.h"

namespace bold::gui {

/// The one object that panels and picture share: document, undo stack, file, and the analysis in the background (the
/// latest document wins). Panels read the document and the last analysis, and ask for edits.
class Session : public QObject {
  Q_OBJECT
 public:
  /// @param library shipped and own parts; @param disk outlives the session
  /// @param stateFolder where changes are kept for a recovery and open files are marked
  Session(parts::Library library, FileSystem& disk, std::string stateFolder = harness::stateFolder(), QObject* parent = nullptr);
  ~Session() override;

  const harness::Harness& harness() const { return m_harness; }
  const parts::Library& library() const { return m_library; }  ///< with the parts that the document carries
  const Analysis& analysis() const { return m_analysis; }
  bool analysisCurrent() const { return m_analysedRevision == m_revision; }
  /// False from 200 ms after an edit that no analysis has caught up with.
  bool verdictFresh() const { return m_fresh; }
  QUndoStack& undoStack() { return m_undo; }
  QString path() const { return QString::fromStdString(m_file.path); }
  bool readOnly() const { return m_harness.newerFormat; }

  /// Replaces the document; nothing is asked. Problems of the file come by `problems`.
  bool open(const QString& path);
  void startEmpty();
  /// A bench that comes with the program; it has no file until it is saved.
  void openDemo(const QString& name);
  /// @return empty when saved, else what went wrong; `ask` tells that overwriting has to be asked for
  QString save(const QString& path, harness::Overwrite overwrite, bool& ask);
  /// Links to a file and its other names, as far as there are any.
  FileState stateOf(const QString& path) { return m_disk.state(path.toStdString()); }

  /// What windows that were killed left behind; what cannot be read of it comes by `problems`.
  std::vector<std::shared_ptr<const harness::Left>> leftBehind();
  /// What sets a document left behind apart from its file as it is now, in words.
  QStringList differencesOf(const harness::Left& left);
  /// Takes up what was left behind: as a changed, unsaved document.
  void recover(std::shared_ptr<const harness::Left> left);
  void discard(const harness::Left& left);
  /// The changes are not wanted any more: they are not kept for a recovery.
  void giveUp() { m_keeper.forget(); }
  /// Waits until the last changes are kept.
  void waitUntilKept() { m_keeper.wait(); }

  /// Keeps a part of one's own and reads the library anew. @return empty when kept, else what went wrong
  QString keepOwnPart(const QString& text);

  /// The only road from the window into the document.
  void apply(const harness::Edit& edit);

  /// A device id, terminal address or connection id; empty: nothing.
  const QString& selection() const { return m_selection; }
  void select(const QString& subject);
  /// Identity of the finding that is looked at; empty: none.
  const QString& picked() const { return m_picked; }
  void pick(const QString& identity);
  /// Goes to where something is stated: selects its subject, and asks for the field.
  void jump(const checks::Field& field);

  /// The operating point that is looked at: a command (empty: the first that makes a motor run) and a supply state. Only
  /// remembered; what an analysis holds of it is shownPoint().
  void showCommand(const QString& command, bench::Corner corner);
  bench::Corner shownCorner() const { return m_shownCorner; }
  /// Nothing when the last analysis has no commands. Lives as long as analysis().solved.
  const bench::OperatingPoint* shownPoint() const;

 Q_SIGNALS:
  void documentChanged();
  void documentReplaced();  ///< another file: views start over
  void analysisChanged();
  void verdictStale();
  void selectionChanged();
  void pickedChanged();
  void commandShown();
  void fieldWanted(const QString& subject, const QString& name);
  void problems(const QStringList& sentences);
  /// Another window has this file open too.
  void openElsewhere();
  /// Somebody else wrote the open file, or took it away.
  void changedOnDisk(bool gone);
  /// Changes cannot be kept for a recovery.
  void notKept(const QString& sentence);

 private:
  friend class EditCommand;
  harness::Edit applyNow(const harness::Edit& edit);  ///< returns the inverse; used by the undo command only
  void replaced();
  void claim();
  void lookAtFile();
  void check();
  void finished(quint64 revision, Analysis analysis);

  parts::Library m_base, m_library;
  FileSystem& m_disk;
  harness::Harness m_harness;
  harness::OpenFile m_file;
  const std::string m_stateFolder;
  std::shared_ptr<FileLock> m_claim;  // on the open file
  QFileSystemWatcher m_watcher;
  QTimer m_fileTimer;
  std::string m_toldDigest;  // of the bytes on disk that changedOnDisk was last said of
  QUndoStack m_undo;
  Analysis m_analysis;
  quint64 m_revision = 1, m_analysedRevision = 0;
  std::shared_ptr<std::atomic<quint64>> m_latest;  // shared with the worker, which may outlive an edit
  QTimer m_staleTimer;
  bool m_fresh = false;
  QString m_selection, m_picked, m_shownCommand;
  bench::Corner m_shownCorner = bench::Corner::Full;
  Keeper m_keeper;  // last: it ends first
};

}  // namespace bold::gui
