#include "gui/session/session.h"

#include <sys/resource.h>

#include <QMetaObject>
#include <QPointer>
#include <QThreadPool>
#include <algorithm>

#include "core/base/embedded.h"
#include "core/checks/planned.h"
#include "core/harness/differences.h"
#include "core/parts/own_parts.h"
#include "gui/session/edit_command.h"

namespace bold::gui {
namespace {
constexpr int kFileSettles = 300;     // ms
constexpr int kStaleAfter = 200;      // ms: what is judged sooner never looks out of date
constexpr int kBehindTheWindow = 10;  // nice: where both want the machine, the window has it

QStringList sentences(const std::vector<Problem>& problems) {
  QStringList out;
  for (const auto& p : problems) out << QString::fromStdString(text(p));
  return out;
}
}  // namespace

Session::Session(parts::Library library, FileSystem& disk, std::string stateFolder, QObject* parent)
    : QObject(parent),
      m_base(std::move(library)),
      m_library(m_base),
      m_disk(disk),
      m_stateFolder(std::move(stateFolder)),
      m_latest(std::make_shared<std::atomic<quint64>>(0)),
      m_keeper(disk, m_stateFolder.empty() ? std::string() : m_stateFolder + "/recovery", [this] {
        return Keeper::Document{m_harness, m_library, m_file};
      }) {
  connect(&m_keeper, &Keeper::failed, this, &Session::notKept);
  connect(&m_undo, &QUndoStack::cleanChanged, this, [this](bool clean) {
    if (clean) m_keeper.forget();
  });
  // Editors write in several steps: look once they are done.
  m_fileTimer.setSingleShot(true);
  m_fileTimer.setInterval(kFileSettles);
  connect(&m_watcher, &QFileSystemWatcher::fileChanged, &m_fileTimer, qOverload<>(&QTimer::start));
  connect(&m_fileTimer, &QTimer::timeout, this, &Session::lookAtFile);
  m_staleTimer.setSingleShot(true);
  m_staleTimer.setInterval(kStaleAfter);
  connect(&m_staleTimer, &QTimer::timeout, this, [this] {
    m_fresh = false;
    Q_EMIT verdictStale();
  });
  m_undo.setUndoLimit(0);
  replaced();
}

Session::~Session() {
  m_undo.disconnect(this);  // an undo stack that is emptied at its end calls itself clean: that saves nothing
  *m_latest = ~quint64{0};  // whatever is still running gives up
  QThreadPool::globalInstance()->waitForDone();
}

bool Session::open(const QString& path) {
  auto loaded = harness::load(m_disk, path.toStdString());
  if (!loaded) {
    Q_EMIT problems({QString::fromStdString(text(loaded.error()))});
    return false;
  }
  m_harness = std::move(loaded->harness);
  m_file = std::move(loaded->file);
  auto list = loaded->problems;
  m_library = harness::withDocumentParts(m_base, m_harness, m_file.path, list);
  replaced();
  claim();
  if (!list.empty()) Q_EMIT problems(sentences(list));
  return true;
}

// Marks the open file as this window's, and watches it.
void Session::claim() {
  m_claim.reset();
  m_toldDigest.clear();
  if (!m_watcher.files().isEmpty()) m_watcher.removePaths(m_watcher.files());
  if (m_file.path.empty()) return;
  m_watcher.addPath(path());
  bool elsewhere = false;
  m_claim = harness::claim(m_disk, m_stateFolder, m_file.path, elsewhere);
  if (elsewhere) Q_EMIT openElsewhere();
}

void Session::lookAtFile() {
  if (m_file.path.empty()) return;
  // A file that was replaced is another file to the watcher.
  if (!m_watcher.files().contains(path())) m_watcher.addPath(path());
  const auto now = harness::digestOnDisk(m_disk, m_file.path);
  if (now == m_file.digest || now == m_toldDigest) return;
  m_toldDigest = now;
  Q_EMIT changedOnDisk(now == harness::kNoFile);
}

std::vector<std::shared_ptr<const harness::Left>> Session::leftBehind() {
  std::vector<Problem> list;
  std::vector<std::shared_ptr<const harness::Left>> out;
  if (m_stateFolder.empty()) return out;
  m_disk.tidy(m_stateFolder + "/open");
  for (auto& left : harness::leftBehind(m_disk, m_stateFolder + "/recovery", list))
    out.push_back(std::make_shared<const harness::Left>(std::move(left)));
  if (!list.empty()) Q_EMIT problems(sentences(list));
  return out;
}

QStringList Session::differencesOf(const harness::Left& left) {
  harness::Harness before;
  if (!left.file.path.empty())
    if (auto loaded = harness::load(m_disk, left.file.path)) before = std::move(loaded->harness);
  QStringList out;
  for (const auto& d : harness::differences(before, left.harness)) out << QString::fromStdString(d);
  return out;
}

void Session::recover(std::shared_ptr<const harness::Left> left) {
  m_harness = left->harness;
  m_file = left->file;
  auto list = left->problems;
  m_library = harness::withDocumentParts(m_base, m_harness, m_file.path.empty() ? left->path : m_file.path, list);
  replaced();
  m_undo.resetClean();
  m_keeper.takeOver(std::move(left));
  m_keeper.changed();
  claim();
  m_fileTimer.start();  // it may have been changed since
  if (!list.empty()) Q_EMIT problems(sentences(list));
}

void Session::discard(const harness::Left& left) {
  if (const auto gone = harness::discard(m_disk, left); !gone) Q_EMIT problems(sentences({gone.error()}));
}

void Session::startEmpty() {
  m_harness = {};
  m_file = {};
  m_library = m_base;
  replaced();
  claim();
}

void Session::openDemo(const QString& name) {
  for (const auto& f : embedded::demos()) {
    if (f.path != name.toStdString()) continue;
    auto reading = harness::readHarness(f.text, std::string(f.path));
    if (!reading) return;  // the tests read every demo
    m_harness = std::move(reading->harness);
    m_file = {};
    m_library = m_base;
    replaced();
    claim();
  }
}

QString Session::save(const QString& path, harness::Overwrite overwrite, bool& ask) {
  ask = false;
  auto saved = harness::save(m_disk, m_harness, m_library, m_file, path.toStdString(), overwrite);
  if (!saved) {
    ask = saved.error().kept == harness::kAsk;
    return QString::fromStdString(text(saved.error()));
  }
  const bool elsewhere = saved->path != m_file.path;
  m_file = std::move(*saved);
  m_undo.setClean();
  m_keeper.forget();
  if (elsewhere) claim();
  return {};
}

QString Session::keepOwnPart(const QString& text) {
  const auto saved = parts::saveOwn(m_disk, parts::ownFolder(), text.toStdString());
  if (!saved) return QString::fromStdString(bold::text(saved.error()));
  std::vector<Problem> list;
  m_base = parts::Library::shipped();
  parts::addOwn(m_base, m_disk, list);
  m_library = harness::withDocumentParts(m_base, m_harness, m_file.path, list);
  ++m_revision;
  Q_EMIT documentChanged();
  check();
  return {};
}

void Session::replaced() {
  m_undo.clear();
  m_undo.setClean();
  m_keeper.forget();
  m_selection.clear();
  m_picked.clear();
  m_shownCommand.clear();
  m_shownCorner = bench::Corner::Full;
  ++m_revision;
  m_analysis = {};
  m_fresh = false;
  Q_EMIT documentReplaced();
  Q_EMIT documentChanged();
  check();
}

void Session::apply(const harness::Edit& edit) {
  if (edit.changes.empty() || readOnly()) return;
  m_undo.push(new EditCommand(*this, edit));
}

harness::Edit Session::applyNow(const harness::Edit& edit) {
  const auto copies = m_harness.parts.size();
  auto inverse = harness::apply(m_harness, edit);
  if (m_harness.parts.size() != copies) {  // a copy less or more: another part may count
    std::vector<Problem> said;             // when the file was opened
    m_library = harness::withDocumentParts(m_base, m_harness, m_file.path, said);
  }
  ++m_revision;
  m_keeper.changed();
  Q_EMIT documentChanged();
  check();
  return inverse;
}

void Session::check() {
  const auto revision = m_revision;
  *m_latest = revision;
  if (!m_staleTimer.isActive()) m_staleTimer.start();
  const QPointer<Session> self(this);
  QThreadPool::globalInstance()->start(
      [self, revision, latest = m_latest, harness = m_harness, library = m_library, previous = m_analysis]() mutable {
        ::setpriority(PRIO_PROCESS, 0, kBehindTheWindow);  // of this thread, on Linux, and of those it begins
        // First what is wrong, then what follows from what: the second pass costs an analysis for each repair.
        for (const bool explain : {false, true}) {
          Options options;
          options.explain = explain;
          options.cancelled = [&] { return latest->load() != revision; };
          auto analysis = analyse(harness, library, options, &previous);
          if (explain) judgePlanned(analysis, harness, library, options, &previous);
          previous = analysis;
          if (latest->load() != revision || !analysis.solved) return;
          QMetaObject::invokeMethod(
              self.data(),
              [self, revision, analysis = std::move(analysis)]() mutable {
                if (self) self->finished(revision, std::move(analysis));
              },
              Qt::QueuedConnection);
        }
      });
}

void Session::finished(quint64 revision, Analysis analysis) {
  if (revision != m_revision) return;
  carryOver(analysis, m_analysis);
  m_analysis = std::move(analysis);
  m_analysedRevision = revision;
  m_staleTimer.stop();
  m_fresh = true;
  Q_EMIT analysisChanged();
}

void Session::select(const QString& subject) {
  if (m_selection == subject) return;
  m_selection = subject;
  Q_EMIT selectionChanged();
}

void Session::pick(const QString& identity) {
  if (m_picked == identity) return;
  m_picked = identity;
  Q_EMIT pickedChanged();
}

void Session::jump(const checks::Field& field) {
  const auto subject = QString::fromStdString(field.subject);
  pick({});
  select(subject);
  Q_EMIT fieldWanted(subject, QString::fromStdString(field.name));
}

void Session::showCommand(const QString& command, bench::Corner corner) {
  if (m_shownCommand == command && m_shownCorner == corner) return;
  m_shownCommand = command;
  m_shownCorner = corner;
  Q_EMIT commandShown();
}

const bench::OperatingPoint* Session::shownPoint() const {
  if (!m_analysis.solved) return nullptr;
  const auto& points = m_analysis.solved->points;
  // The very point; else the same command at another supply state; else the first at which a motor is asked to run.
  const auto pick = [&](const auto& fits) -> const bench::OperatingPoint* {
    const auto it = std::ranges::find_if(points, [&](const auto& point) { return fits(*point); });
    return it == points.end() ? nullptr : it->get();
  };
  const auto id = m_shownCommand.toStdString();
  if (const auto* p = pick([&](const auto& o) { return o.command().id == id && o.corner() == m_shownCorner; })) return p;
  if (const auto* p = pick([&](const auto& o) { return o.command().id == id; })) return p;
  if (const auto* p = pick([](const auto& o) { return o.command().motor >= 0 && o.command().moment == bench::Moment::Running; })) return p;
  return points.empty() ? nullptr : points.front().get();
}

}  // namespace bold::gui
