#pragma once

#include <QString>
#include <QStringList>

class QWidget;

namespace bold::gui {

/// What somebody is typing is work, though the bench does not know of it yet. Every field says what becomes of it.
enum class FieldKind {
  Value,   ///< of the bench: taken when the field is left, and no longer modified then
  Entry,   ///< waits for Enter or a button
  Search,  ///< only looks for something
};

/// To be called where a field is made.
/// @param words what is typed there, for sentences: "the length of a wire"
void declareField(QWidget* field, FieldKind kind, const QString& words = {});

/// A dialog or panel holds something that is in no file yet; empty words: not any more.
void holdWork(QWidget* widget, const QString& words);

/// A table says that it did not take what was typed into a cell, and why.
void refuseCell(QWidget* table, const QString& sentence);

/// Hands over every value that is being typed in a window and its dialogs, cells too, as if it had been left.
/// @return a sentence for each that could not be taken; it stays where it was typed
QStringList takeUp(QWidget& window);

/// What is typed and waits to be entered, and work that dialogs hold, in words.
QStringList waitingIn(const QWidget& window);

/// Asks whether what waits in a window or dialog is given up; where nothing waits nobody is asked.
bool mayGiveUp(QWidget& window);

}  // namespace bold::gui
