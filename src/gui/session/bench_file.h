#pragma once

#include <QFileSystemWatcher>
#include <QObject>
#include <QStringList>
#include <QTimer>
#include <memory>

#include "core/harness/document_file.h"
#include "gui/session/keeper.h"

namespace bold::gui {

class Document;

/// The file of the open bench: opening and saving it, what others do to it, and what is kept of its changes for a recovery.
class BenchFile : public QObject {
  Q_OBJECT
 public:
  /// @param document, disk outlive it
  /// @param stateFolder where changes are kept for a recovery and open files are marked; empty: neither is done
  BenchFile(Document& document, FileSystem& disk, std::string stateFolder, QObject* parent = nullptr);

  FileSystem& disk() { return m_disk; }
  QString path() const { return QString::fromStdString(m_file.path); }  ///< empty: never saved

  /// Replaces the document; nothing is asked. @return whether it could be read; why not, and what it lacks, comes by `problems`
  bool open(const QString& path);
  void startEmpty();
  /// A bench that comes with the program; it has no file until it is saved.
  void openDemo(const QString& name);
  /// @return empty when saved, else what went wrong; `ask` tells that overwriting has to be asked for
  QString save(const QString& path, harness::Overwrite overwrite, bool& ask);
  /// Links to a file and its other names, as far as there are any.
  FileState stateOf(const QString& path) { return m_disk.state(path.toStdString()); }
  /// Keeps a part of one's own and reads the library anew. @return empty when kept, else what went wrong
  QString keepOwnPart(const QString& text);

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

 Q_SIGNALS:
  void problems(const QStringList& sentences);
  /// Another window has this file open too.
  void openElsewhere();
  /// Somebody else wrote the open file, or took it away.
  void changedOnDisk(bool gone);
  /// Changes cannot be kept for a recovery.
  void notKept(const QString& sentence);

 private:
  void take(harness::Harness harness, harness::OpenFile file, const std::string& path, std::vector<Problem> list = {});
  void claim();
  void lookAtFile();

  Document& m_document;
  FileSystem& m_disk;
  harness::OpenFile m_file;
  const std::string m_stateFolder;
  std::shared_ptr<FileLock> m_claim;  // on the open file
  QFileSystemWatcher m_watcher;
  QTimer m_settled;
  std::string m_toldDigest;  // of the bytes on disk that changedOnDisk was last said of
  Keeper m_keeper;           // last: it ends first
};

}  // namespace bold::gui
