#pragma once

#include <QObject>
#include <QString>

#include "core/harness/write_over.h"
#include "gui/session/latest_work.h"

class QWidget;

namespace bold::gui {

class Session;

/// Writes the bench as what is handed on: pictures, a sheet, lists, pin constants. Made behind the window; what was asked for last wins.
class Exporter : public QObject {
  Q_OBJECT
 public:
  Exporter(Session& session, QWidget& window);

  /// Asks where, and writes the bench as what the file's name and the chosen kind say.
  void choose();
  /// @param what as render/bench_export.h names it; empty: what such a file usually holds
  void begin(const QString& path, const QString& what, harness::Overwrite overwrite = harness::Overwrite::Ask);

 Q_SIGNALS:
  /// What is going on, for a line of status.
  void said(const QString& sentence);
  /// It is written (empty), or why not.
  void done(const QString& why);

 private:
  Session& m_session;
  QWidget& m_window;
  LatestWork m_work;
};

}  // namespace bold::gui
