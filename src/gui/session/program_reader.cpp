#include "gui/session/program_reader.h"

#include <sys/resource.h>

#include <QFileInfo>
#include <QMetaObject>
#include <QPointer>
#include <QThreadPool>
#include <algorithm>

#include "core/harness/source_standing.h"
#include "core/wiring/program_edit.h"
#include "gui/session/analyser.h"
#include "gui/session/bench_file.h"
#include "gui/session/document.h"

namespace bold::gui {
namespace {
constexpr int kSourceSettles = 150;  // ms: editors write in several steps
}

ProgramReader::ProgramReader(Document& document, BenchFile& file, QObject* parent)
    : QObject(parent), m_document(document), m_file(file), m_latest(std::make_shared<std::atomic<quint64>>(0)) {
  m_settled.setSingleShot(true);
  m_settled.setInterval(kSourceSettles);
  connect(&m_watcher, &QFileSystemWatcher::fileChanged, &m_settled, qOverload<>(&QTimer::start));
  connect(&m_settled, &QTimer::timeout, this, &ProgramReader::settled);
  connect(&m_document, &Document::replaced, this, [this] {
    *m_latest = ++m_run;  // what is being read is of another bench
    m_reading = false;
    m_texts.clear();
  });
  connect(&m_document, &Document::changed, this, &ProgramReader::watch);
  // An edit taken back may bring up what was read of an older source.
  connect(&m_document, &Document::edited, this, [this] {
    if (!m_document.harness().sources.empty()) m_settled.start();
  });
}

ProgramReader::~ProgramReader() {
  *m_latest = ++m_run;
  QThreadPool::globalInstance()->waitForDone();
}

std::string ProgramReader::pathOf(const std::string& file) const {
  return harness::sourcePath(m_file.path().toStdString(), file);
}

std::string ProgramReader::documentFolder() const {
  return m_file.path().isEmpty() ? std::string() : QFileInfo(m_file.path()).absolutePath().toStdString();
}

const program::SourceText* ProgramReader::text(const std::string& file) {
  auto [it, fresh] = m_texts.try_emplace(file);
  if (fresh && m_file.disk().state(pathOf(file)).regular)
    if (const auto bytes = m_file.disk().read(pathOf(file))) it->second = program::readSource(file, *bytes);
  return it->second ? &*it->second : nullptr;
}

void ProgramReader::watch() {
  QStringList wanted;
  for (const auto& s : m_document.harness().sources)
    for (const auto& f : s.files) wanted << QString::fromStdString(pathOf(f.file));
  for (const auto& path : m_watcher.files())
    if (!wanted.contains(path)) m_watcher.removePath(path);
  for (const auto& path : wanted)
    if (!m_watcher.files().contains(path) && QFileInfo::exists(path)) m_watcher.addPath(path);
}

// Somebody saved a source, or an older reading came back: what differs is read again.
void ProgramReader::settled() {
  m_texts.clear();
  watch();
  m_document.lookAtSources(m_file.disk(), m_file.path().toStdString());
  const auto& sources = m_document.harness().sources;
  const bool changed = std::ranges::any_of(sources, [](const auto& s) {
    return std::ranges::any_of(s.files, [](const auto& f) { return f.standing == harness::Standing::Changed; });
  });
  if (changed && !m_document.undoStack().canRedo())  // what was taken back on purpose stays so
    readAgain();
  Q_EMIT this->changed();
}

void ProgramReader::readAgain() {
  for (const auto& s : m_document.harness().sources) {
    QStringList files;
    for (const auto& f : s.files)
      if (f.standing != harness::Standing::Missing) files << QString::fromStdString(pathOf(f.file));
    if (!files.isEmpty()) read(s.controller, files);
  }
}

void ProgramReader::read(const std::string& controller, const QStringList& sources) {
  const auto* device = m_document.harness().device(controller);
  if (!device || m_document.readOnly()) return;
  *m_latest = ++m_run;
  m_reading = true;
  std::vector<std::string> files;
  for (const auto& s : sources) files.push_back(s.toStdString());
  const QPointer<ProgramReader> self(this);
  QThreadPool::globalInstance()->start(
      [self, run = m_run, latest = m_latest, files, controller, board = device->part, disk = &m_file.disk()] {
        ::setpriority(PRIO_PROCESS, 0, kBehindTheWindow);  // of this thread, on Linux
        if (latest->load() != run) return;
        auto read = std::make_shared<Result<program::ReadProgram>>(program::readProgram(*disk, files, board, program::shippedCalls()));
        const auto folder = program::commonFolder(*disk, files);
        QMetaObject::invokeMethod(
            self.data(),
            [self, run, controller, read, folder] {
              if (self) self->take(run, controller, std::move(*read), folder);
            },
            Qt::QueuedConnection);
      });
  Q_EMIT changed();
}

void ProgramReader::take(quint64 run, const std::string& controller, Result<program::ReadProgram> read, const std::string& folder) {
  if (run != m_run) return;
  m_reading = false;
  m_texts.clear();
  if (!read) {
    Q_EMIT problems({QString::fromStdString(bold::text(read.error()))});
    Q_EMIT changed();
    return;
  }
  QStringList said;
  for (const auto& p : read->problems) said << QString::fromStdString(bold::text(p));
  if (!said.isEmpty()) Q_EMIT problems(said);
  const auto own = documentFolder();
  const auto prefix = own.empty() ? folder + "/" : wiring::prefixTo(m_file.disk().canonical(own), folder);
  m_document.apply(wiring::programEdit(m_document.harness(), m_document.library(), *read, controller, prefix));
  Q_EMIT changed();
}

}  // namespace bold::gui
