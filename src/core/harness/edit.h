#pragma once

#include <concepts>
#include <memory>
#include <optional>
#include <string>
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

template <class T, class... Kinds>
concept OneOf = (std::same_as<T, Kinds> || ...);

template <class T>
concept ChangeKind =
    OneOf<T, Put<Device>, Drop<Device>, Put<Connection>, Drop<Connection>, Put<Goal>, Drop<Goal>, Put<Assignment>, Drop<Assignment>,
          Put<ProgramFacts>, Drop<ProgramFacts>, Put<SourceRead>, Drop<SourceRead>, Put<Mark>, Drop<Mark>, Put<Round>, Drop<Round>,
          SetTitle, SetAmbient, SetNames, SetSource, DropUnread, PutUnread, DropCopy, PutCopy>;

/// One of these (any_change.h). What it is stays out of sight: a variant of this many kinds in a header that everything includes is a tenth
/// of all compiling.
class Change {
 public:
  template <ChangeKind T>
  Change(T change);  // NOLINT(google-explicit-constructor): a list of changes is written as what they are
  Change(const Change& other);
  Change(Change&&) noexcept;
  Change& operator=(const Change& other);
  Change& operator=(Change&&) noexcept;
  ~Change();

  /// nullptr when it is of another kind.
  template <ChangeKind T>
  const T* as() const;
  template <ChangeKind T>
  T* as();

  const struct AnyChange& any() const { return *m_any; }

 private:
  std::unique_ptr<AnyChange> m_any;
};

/// The only road by which a document changes.
struct Edit {
  std::string title;  ///< "Add a wire s1.GND to uno.GND"
  std::vector<Change> changes;
};

/// Applies in order and returns the edit that takes it all back, to the byte.
Edit apply(Harness& harness, const Edit& edit);

}  // namespace bold::harness
