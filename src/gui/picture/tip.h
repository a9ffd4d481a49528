#pragma once

#include <QString>

namespace bold::gui {

class Session;

/// What is said of a place in the picture when the pointer rests on it: of a terminal its function, its voltage at the command that is
/// shown, and what hangs there; of a connector what is plugged in; of a wire both ends; of a device its part.
QString tipFor(const Session& session, const QString& subject);

}  // namespace bold::gui
