#pragma once

#include <QObject>
#include <QTimer>

#include "core/checks/analysis.h"
#include "gui/session/latest_work.h"

namespace bold::gui {

class Document;

/// Analyses the document in the background whenever it changes: the latest document wins.
class Analyser : public QObject {
  Q_OBJECT
 public:
  /// @param document outlives it
  explicit Analyser(const Document& document, QObject* parent = nullptr);

  /// The last that was finished; empty after another bench was taken.
  const Analysis& analysis() const { return m_analysis; }
  /// Whether it is of the document as it is now.
  bool current() const { return m_analysedRevision == m_revision; }
  /// False from 200 ms after an edit that no analysis has caught up with.
  bool fresh() const { return m_fresh; }

 Q_SIGNALS:
  void changed();
  void stale();

 private:
  void begin();
  void finished(quint64 revision, Analysis analysis);

  const Document& m_document;
  Analysis m_analysis;
  quint64 m_revision = 0, m_analysedRevision = 0;
  QTimer m_staleTimer;
  bool m_fresh = false;
  LatestWork m_work;
};

}  // namespace bold::gui
