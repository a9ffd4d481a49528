#include "gui/session/bench_file.h"

#include "core/base/embedded.h"
#include "core/harness/differences.h"
#include "core/parts/own_parts.h"
#include "gui/session/document.h"

namespace bold::gui {
namespace {
constexpr int kFileSettles = 300;  // ms

QStringList sentences(const std::vector<Problem>& problems) {
  QStringList out;
  for (const auto& p : problems) out << QString::fromStdString(text(p));
  return out;
}
}  // namespace

BenchFile::BenchFile(Document& document, FileSystem& disk, std::string stateFolder, QObject* parent)
    : QObject(parent),
      m_document(document),
      m_disk(disk),
      m_stateFolder(std::move(stateFolder)),
      m_keeper(disk, m_stateFolder.empty() ? std::string() : m_stateFolder + "/recovery", [this] {
        return Keeper::Document{m_document.harness(), m_document.library(), m_file};
      }) {
  connect(&m_keeper, &Keeper::failed, this, &BenchFile::notKept);
  connect(&m_document, &Document::replaced, &m_keeper, &Keeper::forget);
  connect(&m_document, &Document::edited, &m_keeper, &Keeper::changed);
  connect(&m_document.undoStack(), &QUndoStack::cleanChanged, this, [this](bool clean) {
    if (clean) m_keeper.forget();
  });
  // Editors write in several steps: look once they are done.
  m_settled.setSingleShot(true);
  m_settled.setInterval(kFileSettles);
  connect(&m_watcher, &QFileSystemWatcher::fileChanged, &m_settled, qOverload<>(&QTimer::start));
  connect(&m_settled, &QTimer::timeout, this, &BenchFile::lookAtFile);
}

// Another bench and its file; `path` names it in what is said of its parts.
void BenchFile::take(harness::Harness harness, harness::OpenFile file, const std::string& path, std::vector<Problem> list) {
  m_file = std::move(file);
  m_document.replace(std::move(harness), path, list);
  claim();
  if (!list.empty()) Q_EMIT problems(sentences(list));
}

bool BenchFile::open(const QString& path) {
  auto loaded = harness::load(m_disk, path.toStdString());
  if (!loaded) {
    Q_EMIT problems({QString::fromStdString(text(loaded.error()))});
    return false;
  }
  const auto opened = loaded->file.path;
  take(std::move(loaded->harness), std::move(loaded->file), opened, std::move(loaded->problems));
  return true;
}

void BenchFile::startEmpty() {
  take({}, {}, {});
}

void BenchFile::openDemo(const QString& name) {
  for (const auto& f : embedded::demos()) {
    if (f.path != name.toStdString()) continue;
    auto reading = harness::readHarness(f.text, std::string(f.path));
    if (reading) take(std::move(reading->harness), {}, {});  // the tests read every demo
  }
}

// Marks the open file as this window's, and watches it.
void BenchFile::claim() {
  m_claim.reset();
  m_toldDigest.clear();
  if (!m_watcher.files().isEmpty()) m_watcher.removePaths(m_watcher.files());
  if (m_file.path.empty()) return;
  m_watcher.addPath(path());
  bool elsewhere = false;
  m_claim = harness::claim(m_disk, m_stateFolder, m_file.path, elsewhere);
  if (elsewhere) Q_EMIT openElsewhere();
}

void BenchFile::lookAtFile() {
  if (m_file.path.empty()) return;
  // A file that was replaced is another file to the watcher.
  if (!m_watcher.files().contains(path())) m_watcher.addPath(path());
  const auto now = harness::digestOnDisk(m_disk, m_file.path);
  if (now == m_file.digest || now == m_toldDigest) return;
  m_toldDigest = now;
  Q_EMIT changedOnDisk(now == harness::kNoFile);
}

QString BenchFile::save(const QString& path, harness::Overwrite overwrite, bool& ask) {
  ask = false;
  auto saved = harness::save(m_disk, m_document.toSave(), m_document.library(), m_file, path.toStdString(), overwrite);
  if (!saved) {
    ask = saved.error().kept == harness::kAsk;
    return QString::fromStdString(text(saved.error()));
  }
  const bool elsewhere = saved->path != m_file.path;
  m_file = std::move(*saved);
  m_document.undoStack().setClean();
  m_keeper.forget();
  if (elsewhere) claim();
  return {};
}

QString BenchFile::keepOwnPart(const QString& text) {
  const auto saved = parts::saveOwn(m_disk, parts::ownFolder(), text.toStdString());
  if (!saved) return QString::fromStdString(bold::text(saved.error()));
  auto library = parts::Library::shipped();
  std::vector<Problem> said;  // when the program began
  parts::addOwn(library, m_disk, said);
  m_document.useLibrary(std::move(library));
  return {};
}

std::vector<std::shared_ptr<const harness::Left>> BenchFile::leftBehind() {
  std::vector<Problem> list;
  std::vector<std::shared_ptr<const harness::Left>> out;
  if (m_stateFolder.empty()) return out;
  m_disk.tidy(m_stateFolder + "/open");
  for (auto& left : harness::leftBehind(m_disk, m_stateFolder + "/recovery", list))
    out.push_back(std::make_shared<const harness::Left>(std::move(left)));
  if (!list.empty()) Q_EMIT problems(sentences(list));
  return out;
}

QStringList BenchFile::differencesOf(const harness::Left& left) {
  harness::Harness before;
  if (!left.file.path.empty())
    if (auto loaded = harness::load(m_disk, left.file.path)) before = std::move(loaded->harness);
  QStringList out;
  for (const auto& d : harness::differences(before, left.harness)) out << QString::fromStdString(d);
  return out;
}

void BenchFile::recover(std::shared_ptr<const harness::Left> left) {
  take(left->harness, left->file, left->file.path.empty() ? left->path : left->file.path, left->problems);
  m_document.undoStack().resetClean();
  m_keeper.takeOver(std::move(left));
  m_keeper.changed();
  m_settled.start();  // it may have been changed since
}

void BenchFile::discard(const harness::Left& left) {
  if (const auto gone = harness::discard(m_disk, left); !gone) Q_EMIT problems(sentences({gone.error()}));
}

}  // namespace bold::gui
