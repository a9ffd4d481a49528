#include "gui/session/program_reader.h"

#include <QFileInfo>
#include <algorithm>

#include "core/wiring/program_edit.h"
#include "gui/session/bench_file.h"
#include "gui/session/document.h"

namespace bold::gui {
namespace {
constexpr int kSourceSettles = 150;  // ms: editors write in several steps
}

ProgramReader::ProgramReader(Document& document, BenchFile& file, QObject* parent) : QObject(parent), m_document(document), m_file(file) {
  m_settled.setSingleShot(true);
  m_settled.setInterval(kSourceSettles);
  connect(&m_watcher, &QFileSystemWatcher::fileChanged, &m_settled, qOverload<>(&QTimer::start));
  connect(&m_settled, &QTimer::timeout, this, &ProgramReader::settled);
  connect(&m_document, &Document::replaced, this, [this] {
    m_work.stop();  // what is being read is of another bench
    m_reading = false;
    m_texts.clear();
    m_askedFor.clear();
  });
  connect(&m_document, &Document::changed, this, &ProgramReader::watch);
  // An edit taken back may bring up what was read of an older source.
  connect(&m_document, &Document::edited, this, [this] {
    if (!m_document.harness().sources.empty()) m_settled.start();
  });
}

std::string ProgramReader::pathOf(const std::string& file) const {
  return harness::sourcePath(m_file.path().toStdString(), file);
}

QString ProgramReader::whereItLies(const std::string& file) const {
  return QString::fromStdString(m_file.disk().canonical(pathOf(file)));
}

std::string ProgramReader::documentFolder() const {
  return m_file.path().isEmpty() ? std::string() : QFileInfo(m_file.path()).absolutePath().toStdString();
}

const program::SourceText* ProgramReader::text(const std::string& file) {
  auto [it, fresh] = m_texts.try_emplace(file);
  if (fresh && harness::mayOpen(m_file.disk(), m_file.path().toStdString(), file, m_askedFor) && m_file.disk().state(pathOf(file)).regular)
    if (const auto bytes = m_file.disk().read(pathOf(file))) it->second = program::readSource(file, *bytes);
  return it->second ? &*it->second : nullptr;
}

void ProgramReader::watch() {
  QStringList wanted;
  for (const auto& s : m_document.harness().sources)
    for (const auto& f : s.files)
      if (f.standing != harness::Standing::Elsewhere) wanted << QString::fromStdString(pathOf(f.file));
  for (const auto& path : m_watcher.files())
    if (!wanted.contains(path)) m_watcher.removePath(path);
  for (const auto& path : wanted)
    if (!m_watcher.files().contains(path) && QFileInfo::exists(path)) m_watcher.addPath(path);
}

// Somebody saved a source, or an older reading came back: what differs is read again.
void ProgramReader::settled() {
  m_texts.clear();
  watch();
  m_document.lookAtSources(m_file.disk(), m_file.path().toStdString(), m_askedFor);
  const auto& sources = m_document.harness().sources;
  const bool changed = std::ranges::any_of(sources, [](const auto& s) {
    return std::ranges::any_of(s.files, [](const auto& f) { return f.standing == harness::Standing::Changed; });
  });
  if (changed && !m_document.undoStack().canRedo())  // what was taken back on purpose stays so
    readAgain();
  Q_EMIT this->changed();
}

void ProgramReader::readAgain() {
  std::vector<Wanted> all;
  for (const auto& s : m_document.harness().sources) {
    // Half of a program says something else than the whole.
    if (std::ranges::count(s.files, harness::Standing::Elsewhere, &harness::SourceFile::standing) > 0) continue;
    const auto* device = m_document.harness().device(s.controller);
    Wanted w{s.controller, device ? device->part : std::string(), {}};
    for (const auto& f : s.files)
      if (f.standing != harness::Standing::Missing) w.files.push_back(pathOf(f.file));
    if (device && !w.files.empty()) all.push_back(std::move(w));
  }
  if (!all.empty()) read(std::move(all));
}

void ProgramReader::openElsewhere(const std::string& controller) {
  for (const auto& s : m_document.harness().sources)
    for (const auto& f : s.files)
      if (s.controller == controller && f.standing == harness::Standing::Elsewhere)
        m_askedFor.insert(m_file.disk().canonical(pathOf(f.file)));
  settled();
}

void ProgramReader::read(const std::string& controller, const QStringList& sources) {
  const auto* device = m_document.harness().device(controller);
  if (!device) return;
  Wanted w{controller, device->part, {}};
  for (const auto& s : sources) w.files.push_back(s.toStdString());
  read({std::move(w)});
}

void ProgramReader::read(std::vector<Wanted> wanted) {
  if (m_document.readOnly()) return;
  m_reading = true;
  m_work.begin([this, wanted = std::move(wanted), disk = &m_file.disk()](const auto& run) {
    for (const auto& w : wanted) {
      const auto read = std::make_shared<Result<program::ReadProgram>>(
          program::readProgram(*disk, w.files, w.board, program::shippedCalls(), [&] { return run.cancelled(); }));
      run.hand([this, w, read, folder = program::commonFolder(*disk, w.files)] { take(w.controller, std::move(*read), folder); });
    }
    run.hand([this] {
      m_reading = false;
      Q_EMIT changed();
    });
  });
  Q_EMIT changed();
}

void ProgramReader::take(const std::string& controller, Result<program::ReadProgram> read, const std::string& folder) {
  m_texts.clear();
  if (!read) {
    Q_EMIT problems({QString::fromStdString(bold::text(read.error()))});
    Q_EMIT changed();
    return;
  }
  for (const auto& f : read->sources.files) m_askedFor.insert(m_file.disk().canonical(folder + "/" + f.file));
  QStringList said;
  for (const auto& p : read->problems) said << QString::fromStdString(bold::text(p));
  if (!said.isEmpty()) Q_EMIT problems(said);
  const auto own = documentFolder();
  const auto prefix = own.empty() ? folder + "/" : wiring::prefixTo(m_file.disk().canonical(own), folder);
  m_document.apply(wiring::programEdit(m_document.harness(), m_document.library(), *read, controller, prefix));
  Q_EMIT changed();
}

}  // namespace bold::gui
