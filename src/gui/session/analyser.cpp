#include "gui/session/analyser.h"

#include "core/checks/planned.h"
#include "gui/session/document.h"

namespace bold::gui {
namespace {
constexpr int kStaleAfter = 200;  // ms: what is judged sooner never looks out of date
}  // namespace

Analyser::Analyser(const Document& document, QObject* parent) : QObject(parent), m_document(document) {
  m_staleTimer.setSingleShot(true);
  m_staleTimer.setInterval(kStaleAfter);
  connect(&m_staleTimer, &QTimer::timeout, this, [this] {
    m_fresh = false;
    Q_EMIT stale();
  });
  connect(&m_document, &Document::replaced, this, [this] {
    m_analysis = {};
    m_fresh = false;
  });
  connect(&m_document, &Document::changed, this, &Analyser::begin);
  connect(&m_document, &Document::marked, this, &Analyser::begin);
  begin();
}

void Analyser::begin() {
  const auto revision = ++m_revision;
  if (!m_staleTimer.isActive()) m_staleTimer.start();
  m_work.begin([this, revision, harness = m_document.harness(), library = m_document.library(), previous = m_analysis](const auto& run) {
    // First what is wrong, then what follows from what: the second pass costs an analysis for each repair.
    // Where nothing was changed that is judged (a mark on a wire), the last judgement stands.
    auto before = previous;
    const bool known = before.explained && before.judged.from.harness == judgedPart(harness);
    for (const bool explain : {false, true}) {
      if (known && !explain) continue;
      Options options;
      options.explain = explain;
      options.cancelled = [&] { return run.cancelled(); };
      auto analysis = analyse(harness, library, options, &before);
      if (explain) judgePlanned(analysis, harness, library, options, &before);
      before = analysis;
      if (run.cancelled() || !analysis.solved) return;
      run.hand([this, revision, analysis = std::move(analysis)] { finished(revision, analysis); });
    }
  });
}

void Analyser::finished(quint64 revision, Analysis analysis) {
  if (revision != m_revision) return;
  carryOver(analysis, m_analysis);
  // A mark on a wire changes nothing that is shown of a judgement, unless the wire was found elsewhere.
  const bool same = m_fresh && m_analysis.solved == analysis.solved && m_analysis.explained == analysis.explained &&
                    m_analysis.verdict == analysis.verdict && m_analysis.why == analysis.why;
  m_analysis = std::move(analysis);
  m_analysedRevision = revision;
  m_staleTimer.stop();
  m_fresh = true;
  if (!same) Q_EMIT changed();
}

}  // namespace bold::gui
