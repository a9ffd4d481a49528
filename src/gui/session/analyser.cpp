#include "gui/session/analyser.h"

#include <sys/resource.h>

#include <QMetaObject>
#include <QPointer>
#include <QThreadPool>

#include "core/checks/planned.h"
#include "gui/session/document.h"

namespace bold::gui {
namespace {
constexpr int kStaleAfter = 200;  // ms: what is judged sooner never looks out of date
}  // namespace

Analyser::Analyser(const Document& document, QObject* parent)
    : QObject(parent), m_document(document), m_latest(std::make_shared<std::atomic<quint64>>(0)) {
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

Analyser::~Analyser() {
  *m_latest = ~quint64{0};  // whatever is still running gives up
  QThreadPool::globalInstance()->waitForDone();
}

void Analyser::begin() {
  const auto revision = ++m_revision;
  *m_latest = revision;
  if (!m_staleTimer.isActive()) m_staleTimer.start();
  const QPointer<Analyser> self(this);
  QThreadPool::globalInstance()->start(
      [self, revision, latest = m_latest, harness = m_document.harness(), library = m_document.library(), previous = m_analysis]() mutable {
        ::setpriority(PRIO_PROCESS, 0, kBehindTheWindow);  // of this thread, on Linux, and of those it begins
        // First what is wrong, then what follows from what: the second pass costs an analysis for each repair.
        // Where nothing was changed that is judged (a mark on a wire), the last judgement stands.
        const bool known = previous.explained && previous.judged.from.harness == judgedPart(harness);
        for (const bool explain : {false, true}) {
          if (known && !explain) continue;
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
