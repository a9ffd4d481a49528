#pragma once

#include <QObject>
#include <QThreadPool>
#include <QTimer>
#include <memory>

#include "core/harness/recovery.h"

namespace bold::gui {

/// Keeps a changed document for a recovery, in a thread of its own: begun within half a second of every change, or as soon as
/// a slow disk has done with the document before it.
class Keeper : public QObject {
  Q_OBJECT
 public:
  /// What is to be kept at the moment it is asked for.
  struct Document {
    harness::Harness harness;
    parts::Library library;
    harness::OpenFile file;
  };

  /// @param disk outlives the keeper; its calls come one at a time, but not from the window's thread
  Keeper(FileSystem& disk, std::string folder, std::function<Document()> document, QObject* parent = nullptr);
  ~Keeper() override;

  void changed();
  /// The document was saved, or given up on purpose.
  void forget();
  /// Waits until what was asked for has been done.
  void wait();
  /// Once this window's own file is written, takes away what it was recovered from.
  void takeOver(std::shared_ptr<const harness::Left> left);

 Q_SIGNALS:
  /// Once, at the first time that nothing can be kept.
  void failed(const QString& sentence);

 private:
  FileSystem& m_disk;
  const std::string m_folder;
  std::function<Document()> m_document;
  QTimer m_soon;
  QThreadPool m_thread;  // one thread: what is asked for later is done later
  struct Files;
  std::shared_ptr<Files> m_files;
  struct Waiting;
  std::shared_ptr<Waiting> m_waiting;  // the last document handed to the thread

  void keep();
};

}  // namespace bold::gui
