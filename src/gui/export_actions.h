#pragma once

#include <QString>

#include "core/harness/write_over.h"

class QWidget;

namespace bold::gui {

class Session;

/// Asks where, and writes the bench as what the file's name and the chosen kind say.
void chooseAndExport(Session& session, QWidget* window);

/// @param what as render/bench_export.h names it; empty: what such a file usually holds
/// @return what stands in the way, in words; empty: it is written
QString exportTo(const Session& session, const QString& path, const QString& what, harness::Overwrite overwrite = harness::Overwrite::Ask);

}  // namespace bold::gui
