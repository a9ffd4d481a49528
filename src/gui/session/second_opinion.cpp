#include "gui/session/second_opinion.h"

#include <sys/resource.h>

#include <QMetaObject>
#include <QPointer>
#include <QThreadPool>

#include "gui/session/analyser.h"
#include "gui/session/document.h"

namespace bold::gui {

SecondOpinion::SecondOpinion(const Document& document, QObject* parent)
    : QObject(parent), m_document(document), m_latest(std::make_shared<std::atomic<quint64>>(0)) {}

SecondOpinion::~SecondOpinion() {
  drop();
}

void SecondOpinion::drop() {
  ++*m_latest;
}

void SecondOpinion::ask(harness::Harness bench) {
  ask(std::move(bench), m_document.library());
}

void SecondOpinion::ask(harness::Harness bench, parts::Library library) {
  const auto question = ++*m_latest;
  const QPointer<SecondOpinion> self(this);
  QThreadPool::globalInstance()->start([self, question, latest = m_latest, bench = std::move(bench), library = std::move(library)] {
    ::setpriority(PRIO_PROCESS, 0, kBehindTheWindow);
    Options options;
    options.explain = false;
    options.cancelled = [&] { return latest->load() != question; };
    auto analysis = analyse(bench, library, options);
    if (latest->load() != question || !analysis.solved) return;
    QMetaObject::invokeMethod(
        self.data(),
        [self, question, latest, analysis = std::move(analysis)] {
          if (self && latest->load() == question) Q_EMIT self->answered(analysis);
        },
        Qt::QueuedConnection);
  });
}

}  // namespace bold::gui
