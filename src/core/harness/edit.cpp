#include "core/harness/edit.h"

#include <algorithm>
#include <iterator>

#include "core/harness/any_change.h"
#include "core/harness/entry_json.h"

namespace bold::harness {
namespace {

template <class T>
std::vector<T>& list(Harness& h) {
  if constexpr (std::is_same_v<T, Device>)
    return h.devices;
  else if constexpr (std::is_same_v<T, Connection>)
    return h.connections;
  else if constexpr (std::is_same_v<T, Goal>)
    return h.goals;
  else if constexpr (std::is_same_v<T, Assignment>)
    return h.assignments;
  else if constexpr (std::is_same_v<T, ProgramFacts>)
    return h.program;
  else if constexpr (std::is_same_v<T, SourceRead>)
    return h.sources;
  else if constexpr (std::is_same_v<T, Mark>)
    return h.marks;
  else
    return h.rounds;
}

template <class T>
Change applyOne(Harness& h, const Put<T>& put) {
  auto& items = list<T>(h);
  const auto it = std::ranges::find(items, put.value.id, &T::id);
  if (it != items.end()) {
    Put<T> inverse{*it, {}};
    *it = put.value;
    if (!it->raw) it->raw = inverse.value.raw;  // what stands in the file is the document's own
    return inverse;
  }
  const auto at = std::min(put.at.value_or(items.size()), items.size());
  const auto now = items.insert(items.begin() + static_cast<std::ptrdiff_t>(at), put.value);
  // A copy of something under another id is not what stands in the file.
  if (now->raw && asRead(*now).id != now->id) now->raw = nullptr;
  return Drop<T>{put.value.id};
}

template <class T>
Change applyOne(Harness& h, const Drop<T>& drop) {
  auto& items = list<T>(h);
  const auto it = std::ranges::find(items, drop.id, &T::id);
  if (it == items.end()) return drop;
  Put<T> inverse{*it, static_cast<std::size_t>(it - items.begin())};
  items.erase(it);
  return inverse;
}

Change applyOne(Harness& h, const SetTitle& s) {
  SetTitle inverse{h.title};
  h.title = s.title;
  return inverse;
}

Change applyOne(Harness& h, const SetAmbient& s) {
  SetAmbient inverse{h.ambient};
  h.ambient = s.ambient;
  return inverse;
}

Change applyOne(Harness& h, const SetNames& s) {
  SetNames inverse{h.names};
  h.names = s.names;
  return inverse;
}

Change applyOne(Harness& h, const SetSource& s) {
  SetSource inverse{h.raw};
  h.raw = s.raw;
  return inverse;
}

bool before(const Unread& a, const Unread& b) {
  return std::pair(a.section, a.raw->index) < std::pair(b.section, b.raw->index);
}

Change applyOne(Harness& h, const DropUnread& drop) {
  const auto it = std::ranges::find_if(h.unread, [&](const Unread& u) { return u.section == drop.section && u.raw->index == drop.index; });
  if (it == h.unread.end()) return drop;
  PutUnread inverse{*it};
  h.unread.erase(it);
  return inverse;
}

Change applyOne(Harness& h, const PutUnread& put) {
  h.unread.insert(std::ranges::upper_bound(h.unread, put.entry, before), put.entry);
  return DropUnread{put.entry.section, put.entry.raw->index};
}

Change applyOne(Harness& h, const DropCopy& drop) {
  const auto it = std::ranges::find(h.parts, drop.id, &PartCopy::id);
  if (it == h.parts.end()) return drop;
  PutCopy inverse{*it, static_cast<std::size_t>(it - h.parts.begin())};
  h.parts.erase(it);
  return inverse;
}

Change applyOne(Harness& h, const PutCopy& put) {
  const auto at = std::min(put.at, h.parts.size());
  h.parts.insert(h.parts.begin() + static_cast<std::ptrdiff_t>(at), put.copy);
  return DropCopy{put.copy.id};
}

}  // namespace

template <ChangeKind T>
Change::Change(T change) : m_any(std::make_unique<AnyChange>(std::move(change))) {}
Change::Change(const Change& other) : m_any(std::make_unique<AnyChange>(*other.m_any)) {}
Change::Change(Change&&) noexcept = default;
Change& Change::operator=(const Change& other) {
  return *this = Change(other);
}
Change& Change::operator=(Change&&) noexcept = default;
Change::~Change() = default;

template <ChangeKind T>
const T* Change::as() const {
  return std::get_if<T>(m_any.get());
}
template <ChangeKind T>
T* Change::as() {
  return std::get_if<T>(m_any.get());
}

// NOLINTBEGIN(bugprone-macro-parentheses): a type stands in none
#define BOLD_CHANGE(T)                     \
  template Change::Change(T);              \
  template const T* Change::as<T>() const; \
  template T* Change::as<T>();
#define BOLD_ENTRY(T) \
  BOLD_CHANGE(Put<T>) \
  BOLD_CHANGE(Drop<T>)
// NOLINTEND(bugprone-macro-parentheses)
BOLD_ENTRY(Device)
BOLD_ENTRY(Connection)
BOLD_ENTRY(Goal)
BOLD_ENTRY(Assignment)
BOLD_ENTRY(ProgramFacts)
BOLD_ENTRY(SourceRead)
BOLD_ENTRY(Mark)
BOLD_ENTRY(Round)
BOLD_CHANGE(SetTitle)
BOLD_CHANGE(SetAmbient)
BOLD_CHANGE(SetNames)
BOLD_CHANGE(SetSource)
BOLD_CHANGE(DropUnread)
BOLD_CHANGE(PutUnread)
BOLD_CHANGE(DropCopy)
BOLD_CHANGE(PutCopy)
#undef BOLD_ENTRY
#undef BOLD_CHANGE

Edit apply(Harness& harness, const Edit& edit) {
  std::vector<Change> undone;
  for (const auto& change : edit.changes) undone.push_back(std::visit([&](const auto& c) { return applyOne(harness, c); }, change.any()));
  // The last one first.
  return {edit.title, {std::make_move_iterator(undone.rbegin()), std::make_move_iterator(undone.rend())}};
}

}  // namespace bold::harness
