#pragma once

#include <QObject>

namespace bold::gui {

/// Letters that a name, an answer or a remark may have: all of them are read again from a file (harness::kLongestText).
inline constexpr int kMostLetters = 250;

/// How every field of the program behaves, installed once on the application:
/// the wheel changes only what has the focus, else it scrolls what is around it; undo and redo are the bench's where a field holds
/// nothing new, and Delete where it holds nothing; Ctrl and a letter is a command of the program, but for copy, paste and the like.
class FieldManners : public QObject {
 public:
  explicit FieldManners(QObject* parent) : QObject(parent) {}

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
};

}  // namespace bold::gui
