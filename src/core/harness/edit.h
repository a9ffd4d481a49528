#pragma once

#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/harness/harness.h"

namespace bold::harness {

/// Puts a value in the place of the one with the same id, or at `at` (the end when unset).
template <class T>
struct Put {
  T value;
  std::optional<std::size_t> at;
};

/// Takes out the one with this id; silently nothing when there is none.
template <class T>
struct Drop {
  std::string id;
};

struct SetTitle {
  std::string title;
};
struct SetAmbient {
  std::optional<Celsius> ambient;
};
/// The numbering that pins are shown in; empty: as printed.
struct SetNames {
  std::string names;
};

/// The document's own text, where what stood beside its lists is taken away.
struct SetSource {
  Raw raw;
};
/// Takes away an entry that could not be read; nothing when it is gone already.
struct DropUnread {
  Section section;
  std::size_t index;
};
struct PutUnread {
  Unread entry;
};
/// Takes away the document's copy of a part, so that the library's counts.
struct DropCopy {
  std::string id;
};
struct PutCopy {
  PartCopy copy;
  std::size_t at;
};

using AnyChange =
    std::variant<Put<Device>, Drop<Device>, Put<Connection>, Drop<Connection>, Put<Goal>, Drop<Goal>, Put<Assignment>, Drop<Assignment>,
                 Put<ProgramFacts>, Drop<ProgramFacts>, Put<SourceRead>, Drop<SourceRead>, Put<Mark>, Drop<Mark>, Put<Round>, Drop<Round>,
                 SetTitle, SetAmbient, SetNames, SetSource, DropUnread, PutUnread, DropCopy, PutCopy>;

/// One of them. How one of any kind is copied, moved and destroyed stands in edit.cpp, once: inline it is compiled anew in every unit that
/// has a list of changes, in seconds each.
struct Change : AnyChange {
  using AnyChange::AnyChange;
  Change(const Change&);
  Change(Change&&) noexcept;
  Change& operator=(const Change&);
  Change& operator=(Change&&) noexcept;
  ~Change();
};

/// The only road by which a document changes.
struct Edit {
  std::string title;  ///< "Add a wire s1.GND to uno.GND"
  std::vector<Change> changes;
};

/// Applies in order and returns the edit that takes it all back, to the byte.
Edit apply(Harness& harness, const Edit& edit);

}  // namespace bold::harness
