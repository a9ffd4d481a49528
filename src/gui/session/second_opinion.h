#pragma once

#include <QObject>

#include "core/checks/analysis.h"
#include "gui/session/latest_work.h"

namespace bold::gui {

class Document;

/// Judges another bench than the document in the background: as somebody found it, as somebody read it. What was asked last wins.
class SecondOpinion : public QObject {
  Q_OBJECT
 public:
  /// @param document whose library counts; outlives it
  explicit SecondOpinion(const Document& document, QObject* parent = nullptr);

  void ask(harness::Harness bench);
  /// With another library: that of a bench that carries parts of its own.
  void ask(harness::Harness bench, parts::Library library);
  /// What was asked before is not answered any more.
  void drop();

 Q_SIGNALS:
  void answered(const bold::Analysis& analysis);

 private:
  const Document& m_document;
  LatestWork m_work;
};

}  // namespace bold::gui
