#include "gui/session/stage_search.h"

#include <QElapsedTimer>
#include <algorithm>

#include "gui/session/document.h"

namespace bold::gui {
namespace {
constexpr int kHandOver = 40;  // ms: a list that moves more often cannot be read
}

StageSearch::StageSearch(const Document& document, QObject* parent) : QObject(parent), m_document(document) {}

void StageSearch::stop() {
  m_work.stop();
}

void StageSearch::begin(const std::string& motor, const std::string& supply, std::optional<JudgedBench> judged) {
  m_rows.clear();
  m_motor = motor;
  m_all = 0;
  m_done = false;
  m_work.begin(
      [this, h = m_document.harness(), library = m_document.library(), motor, supply, judged = std::move(judged)](const auto& run) {
        Options options;
        options.cancelled = [&] { return run.cancelled(); };
        const auto before = choose::beforeStages(h, library, motor, options, judged);
        if (!before) return;
        const auto offers = choose::stagesFor(h, library, motor);
        const int all = static_cast<int>(offers.size());
        std::vector<choose::Candidate> tried, fresh;
        QElapsedTimer since;
        since.start();
        for (const auto& offer : offers) {
          auto one = choose::candidate(h, library, motor, offer, supply, options, *before);
          if (!one || run.cancelled()) return;
          fresh.push_back(std::move(*one));
          if (&offer != &offers.back() && since.elapsed() < kHandOver) continue;
          since.restart();
          tried.insert(tried.end(), fresh.begin(), fresh.end());
          run.hand([this, all, found = std::exchange(fresh, {})] { take(found, all); });
        }
        std::ranges::sort(tried, choose::better);
        for (const auto& c : tried) {
          auto change = choose::smallestChange(h, library, motor, c, options, *before);
          if (run.cancelled()) return;
          if (!c.excluded.empty() || c.against.empty()) continue;
          run.hand([this, c, change = std::move(change)] { takeChange(c, change); });
        }
        run.hand([this] {
          m_done = true;
          Q_EMIT changed();
        });
      });
}

void StageSearch::take(std::vector<choose::Candidate> candidates, int all) {
  m_all = all;
  for (auto& c : candidates) {
    const auto at = std::ranges::upper_bound(m_rows, c, choose::better, &Row::candidate);
    const bool known = !c.excluded.empty() || c.against.empty();
    m_rows.insert(at, Row{std::move(c), known});
  }
  Q_EMIT changed();
}

void StageSearch::takeChange(const choose::Candidate& of, std::optional<choose::SmallestChange> change) {
  const auto it =
      std::ranges::find_if(m_rows, [&](const Row& r) { return r.candidate.stage == of.stage && r.candidate.parallel == of.parallel; });
  if (it == m_rows.end()) return;
  it->changeKnown = true;
  it->change = std::move(change);
  Q_EMIT changed();
}

}  // namespace bold::gui
