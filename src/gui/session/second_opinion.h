#pragma once

#include <QObject>
#include <atomic>
#include <memory>

#include "core/checks/analysis.h"

namespace bold::gui {

class Document;

/// Judges another bench than the document in the background: as somebody found it, as somebody read it. What was asked last wins.
class SecondOpinion : public QObject {
  Q_OBJECT
 public:
  /// @param document whose library counts; outlives it
  explicit SecondOpinion(const Document& document, QObject* parent = nullptr);
  ~SecondOpinion() override;

  void ask(harness::Harness bench);
  /// With another library: that of a bench that carries parts of its own.
  void ask(harness::Harness bench, parts::Library library);
  /// What was asked before is not answered any more.
  void drop();

 Q_SIGNALS:
  void answered(const bold::Analysis& analysis);

 private:
  const Document& m_document;
  std::shared_ptr<std::atomic<quint64>> m_latest;  // shared with the worker, which may outlive a question
};

}  // namespace bold::gui
