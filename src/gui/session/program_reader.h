#pragma once

#include <QFileSystemWatcher>
#include <QObject>
#include <QStringList>
#include <QTimer>
#include <atomic>
#include <memory>
#include <optional>

#include "core/program/read_program.h"

namespace bold::gui {

class BenchFile;
class Document;

/// The program of the open bench: reads its sources in the background, watches them, and reads them again when somebody saves one.
class ProgramReader : public QObject {
  Q_OBJECT
 public:
  /// @param document, file outlive it
  ProgramReader(Document& document, BenchFile& file, QObject* parent = nullptr);
  ~ProgramReader() override;

  /// Reads these for a controller; when that is done the document takes it, as one edit.
  /// @param sources paths of files; what they include is found by itself
  void read(const std::string& controller, const QStringList& sources);
  /// The same sources of every program of the document once more.
  void readAgain();
  bool reading() const { return m_reading; }

  /// The text of a source of the document as it stands on the disk now; nullptr: it cannot be read.
  const program::SourceText* text(const std::string& file);

 Q_SIGNALS:
  /// Begun, done, or a source changed.
  void changed();
  void problems(const QStringList& sentences);

 private:
  Document& m_document;
  BenchFile& m_file;
  QFileSystemWatcher m_watcher;
  QTimer m_settled;
  std::shared_ptr<std::atomic<quint64>> m_latest;  // shared with the worker
  quint64 m_run = 0;
  bool m_reading = false;
  std::map<std::string, std::optional<program::SourceText>> m_texts;

  std::string pathOf(const std::string& file) const;
  std::string documentFolder() const;
  void watch();
  void settled();
  void take(quint64 run, const std::string& controller, Result<program::ReadProgram> read, const std::string& folder);
};

}  // namespace bold::gui
