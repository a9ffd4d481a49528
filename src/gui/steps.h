#pragma once

#include <QString>
#include <vector>

class QWidget;

namespace bold::gui {

class Session;

/// A step of the work. What is known of each is its row in steps.cpp, and nowhere else: rail, keys, menu, options, completion, pictures and
/// tests all come from there.
enum class Step { Bench, Stages, Wiring, Limits, Currents, Program };

struct StepRow {
  Step step;
  const char* id;    ///< as an option names it: "bench"
  const char* name;  ///< for people, with the mark of its key: "&Bench"
  /// Its panel, beside the picture.
  QWidget* (*panel)(Session& session, QWidget* parent);
  /// One line that says where it stands.
  /// @param narrow in half the width
  QString (*standing)(const Session& session, bool narrow);
  int side = 400;  ///< px that its panel takes beside the picture, where there is room

  QString title() const;  ///< translated, without the mark
  QString key() const;    ///< stepKey of its place
};

/// All of them, in order.
const std::vector<StepRow>& steps();
/// "Ctrl+1" to "Ctrl+9", "Ctrl+0" for the tenth, "Alt+1" and on for those after it.
/// @param index from 0 to 18
QString stepKey(int index);
/// nullptr where no step has this id.
const StepRow* stepById(const QString& id);
/// "bench, stages, wiring, limits, currents or program"
QString stepIds();

}  // namespace bold::gui
