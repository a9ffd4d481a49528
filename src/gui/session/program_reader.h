#pragma once

#include <QFileSystemWatcher>
#include <QObject>
#include <QStringList>
#include <QTimer>
#include <optional>

#include "core/harness/source_standing.h"
#include "core/program/read_program.h"
#include "gui/session/latest_work.h"

namespace bold::gui {

class BenchFile;
class Document;

/// The program of the open bench: reads its sources in the background, watches them, and reads them again when somebody saves one.
class ProgramReader : public QObject {
  Q_OBJECT
 public:
  /// @param document, file outlive it
  ProgramReader(Document& document, BenchFile& file, QObject* parent = nullptr);

  /// Reads these for a controller; when that is done the document takes it, as one edit.
  /// @param sources paths of files; what they include is found by itself
  void read(const std::string& controller, const QStringList& sources);
  /// The same sources of every program of the document once more, as far as they may be opened.
  void readAgain();
  /// A person asked for the sources of a controller's program that lie outside the bench's folder.
  void openElsewhere(const std::string& controller);
  bool reading() const { return m_reading; }

  /// Where a source of the document lies, links followed.
  QString whereItLies(const std::string& file) const;
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
  bool m_reading = false;
  harness::AskedFor m_askedFor;  // for as long as this bench is open
  std::map<std::string, std::optional<program::SourceText>> m_texts;
  LatestWork m_work;

  struct Wanted {
    std::string controller, board;
    std::vector<std::string> files;
  };

  std::string pathOf(const std::string& file) const;
  std::string documentFolder() const;
  void watch();
  void settled();
  void read(std::vector<Wanted> wanted);
  void take(const std::string& controller, Result<program::ReadProgram> read, const std::string& folder);
};

}  // namespace bold::gui
