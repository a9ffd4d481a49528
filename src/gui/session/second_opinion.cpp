#include "gui/session/second_opinion.h"

#include "gui/session/document.h"

namespace bold::gui {

SecondOpinion::SecondOpinion(const Document& document, QObject* parent) : QObject(parent), m_document(document) {}

void SecondOpinion::drop() {
  m_work.stop();
}

void SecondOpinion::ask(harness::Harness bench) {
  ask(std::move(bench), m_document.library());
}

void SecondOpinion::ask(harness::Harness bench, parts::Library library) {
  m_work.begin([this, bench = std::move(bench), library = std::move(library)](const auto& run) {
    Options options;
    options.explain = false;
    options.cancelled = [&] { return run.cancelled(); };
    auto analysis = analyse(bench, library, options);
    if (!run.cancelled() && analysis.solved) run.hand([this, analysis = std::move(analysis)] { Q_EMIT answered(analysis); });
  });
}

}  // namespace bold::gui
