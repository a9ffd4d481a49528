#pragma once

#include <QString>
#include <QStringList>

#include "gui/session/stage_search.h"

namespace bold::gui {

class Session;

/// A candidate in words, the same for list, details and screen readers.
QString nameOf(const Session& session, const choose::Candidate& candidate);  ///< "Bridge module L298N, two channels joined"
/// What its part says of itself: "two bridges, 1 A each, 2.5 to 13.5 V".
QString summaryOf(const Session& session, const choose::Candidate& candidate);
/// "out: its supply stands 11.8 V"; empty where nothing is against it.
QString whyOf(const StageSearch::Row& row);
/// "Fits with a gentle start"; empty where no change is known.
QString changeOf(const StageSearch::Row& row);
/// What has to be fitted besides: "capacitor 100 µF, 2 resistors"; "nothing".
QString addsOf(const Session& session, const choose::Candidate& candidate);
/// Parts and counts, a line each.
QStringList partLines(const Session& session, const std::vector<std::pair<std::string, int>>& parts);
/// All of it in a sentence.
QString spokenOf(const Session& session, const StageSearch::Row& row);

/// Of a part that drives motors, in the order of the filter.
enum class StageKind { Transistor, Bridge, Stepper, Other };
QString word(StageKind kind);
StageKind kindOf(const Session& session, const choose::Candidate& candidate);

}  // namespace bold::gui
