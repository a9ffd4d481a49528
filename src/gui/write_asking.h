#pragma once

#include <QString>

#include "core/harness/write_over.h"

class QWidget;

namespace bold::gui {

/// Whether a path that a person chose may be written to: asks where something stands in the way.
bool mayWriteTo(QWidget* window, FileSystem& disk, const QString& path, harness::Overwrite overwrite);

/// Writes an export there, asking first where something stands in the way. What went wrong is told.
/// @return whether it was written
bool writeAsking(QWidget* window, const QString& path, const std::string& bytes, harness::Overwrite overwrite);

}  // namespace bold::gui
