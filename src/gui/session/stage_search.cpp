#include "gui/session/stage_search.h"

#include <sys/resource.h>

#include <QElapsedTimer>
#include <QMetaObject>
#include <QPointer>
#include <QThreadPool>
#include <algorithm>

#include "gui/session/analyser.h"
#include "gui/session/document.h"

namespace bold::gui {
namespace {
constexpr int kHandOver = 40;  // ms: a list that moves more often cannot be read
}

StageSearch::StageSearch(const Document& document, QObject* parent)
    : QObject(parent), m_document(document), m_latest(std::make_shared<std::atomic<quint64>>(0)) {}

StageSearch::~StageSearch() {
  stop();
  QThreadPool::globalInstance()->waitForDone();
}

void StageSearch::stop() {
  *m_latest = ++m_run;
}

void StageSearch::begin(const std::string& motor, const std::string& supply, std::optional<JudgedBench> judged) {
  stop();
  m_rows.clear();
  m_motor = motor;
  m_all = 0;
  m_done = false;
  const QPointer<StageSearch> self(this);
  QThreadPool::globalInstance()->start([self, run = m_run, latest = m_latest, h = m_document.harness(), library = m_document.library(),
                                        motor, supply, judged = std::move(judged)]() {
    ::setpriority(PRIO_PROCESS, 0, kBehindTheWindow);  // of this thread, on Linux, and of those it begins
    Options options;
    options.cancelled = [&] { return latest->load() != run; };
    const auto hand = [&](auto what) { QMetaObject::invokeMethod(self.data(), std::move(what), Qt::QueuedConnection); };
    const auto before = choose::beforeStages(h, library, motor, options, judged);
    if (!before) return;
    const auto offers = choose::stagesFor(h, library, motor);
    const int all = static_cast<int>(offers.size());
    std::vector<choose::Candidate> tried, fresh;
    QElapsedTimer since;
    since.start();
    for (const auto& offer : offers) {
      auto one = choose::candidate(h, library, motor, offer, supply, options, *before);
      if (!one || options.cancelled()) return;
      fresh.push_back(std::move(*one));
      if (&offer != &offers.back() && since.elapsed() < kHandOver) continue;
      since.restart();
      tried.insert(tried.end(), fresh.begin(), fresh.end());
      hand([self, run, all, found = std::exchange(fresh, {})]() mutable {
        if (self) self->take(run, std::move(found), all);
      });
    }
    std::ranges::sort(tried, choose::better);
    for (const auto& c : tried) {
      auto change = choose::smallestChange(h, library, motor, c, options, *before);
      if (options.cancelled()) return;
      if (!c.excluded.empty() || c.against.empty()) continue;
      hand([self, run, c, change = std::move(change)]() mutable {
        if (self) self->takeChange(run, c, std::move(change));
      });
    }
    hand([self, run] {
      if (!self || run != self->m_run) return;
      self->m_done = true;
      Q_EMIT self->changed();
    });
  });
}

void StageSearch::take(quint64 run, std::vector<choose::Candidate> candidates, int all) {
  if (run != m_run) return;
  m_all = all;
  for (auto& c : candidates) {
    const auto at = std::ranges::upper_bound(m_rows, c, choose::better, &Row::candidate);
    const bool known = !c.excluded.empty() || c.against.empty();
    m_rows.insert(at, Row{std::move(c), known});
  }
  Q_EMIT changed();
}

void StageSearch::takeChange(quint64 run, const choose::Candidate& of, std::optional<choose::SmallestChange> change) {
  if (run != m_run) return;
  const auto it =
      std::ranges::find_if(m_rows, [&](const Row& r) { return r.candidate.stage == of.stage && r.candidate.parallel == of.parallel; });
  if (it == m_rows.end()) return;
  it->changeKnown = true;
  it->change = std::move(change);
  Q_EMIT changed();
}

}  // namespace bold::gui
