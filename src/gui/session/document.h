#pragma once

#include <QObject>
#include <QUndoStack>

#include "core/base/file_system.h"
#include "core/harness/edit.h"
#include "core/harness/source_standing.h"
#include "core/parts/library.h"

namespace bold::gui {

/// The bench that is open, the library that counts for it, and the undo stack: the only road from the window into the bench.
class Document : public QObject {
  Q_OBJECT
 public:
  /// @param library shipped and own parts
  explicit Document(parts::Library library, QObject* parent = nullptr);

  const harness::Harness& harness() const { return m_harness; }
  const parts::Library& library() const { return m_library; }  ///< with the parts that the bench carries
  /// To save it: a file also holds the parts of one's own that the bench uses, and they are added to it.
  harness::Harness& toSave() { return m_harness; }
  QUndoStack& undoStack() { return m_undo; }
  /// A file of a newer format is only looked at.
  bool readOnly() const { return m_harness.newerFormat; }

  /// Ignored when the edit changes nothing or the bench is read only.
  void apply(const harness::Edit& edit);
  /// Takes another bench; nothing is asked, nothing of it can be undone.
  /// @param path names its file in `problems` of the parts that it carries
  void replace(harness::Harness harness, const std::string& path, std::vector<Problem>& problems);
  /// Looks whether the program's sources still stand as they were read; no edit, so nothing to undo.
  void lookAtSources(FileSystem& disk, const std::string& path, const harness::AskedFor& askedFor);
  /// Other shipped and own parts; the bench stays.
  void useLibrary(parts::Library library);

 Q_SIGNALS:
  void replaced();  ///< another bench: views start over; `changed` follows
  void edited();    ///< by an edit, its undo or redo; `changed` follows
  void changed();   ///< whatever it was: bench or library; what people marked apart
  void marked();    ///< nothing but what people saw of the wires: instead of `changed`

 private:
  class Change;
  harness::Edit applyNow(const harness::Edit& edit);  ///< returns the inverse

  parts::Library m_base, m_library;
  harness::Harness m_harness;
  QUndoStack m_undo;
};

}  // namespace bold::gui
