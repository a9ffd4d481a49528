#pragma once

#include <map>
#include <optional>
#include <set>
#include <string>

#include "core/harness/edit.h"

namespace bold::harness {

/// The one maker of edits that add, take away or move: recipes by hand, repairs, proposals. It hands out ids that are free, and what it
/// adds or takes away has the state that was asked for: made at once, or planned.
class EditMaker {
 public:
  /// Of a document: what is made is on the bench at once.
  explicit EditMaker(const Harness& harness) : EditMaker(harness.ids(), State::OnBench) {}
  /// @param taken ids in use, those of planned things included
  /// @param state of what is added: Planned, or OnBench. What is taken away is then to be removed, or gone.
  EditMaker(std::set<std::string> taken, State state) : EditMaker(std::make_shared<const std::set<std::string>>(std::move(taken)), state) {}
  EditMaker(std::shared_ptr<const std::set<std::string>> taken, State state) : m_taken(std::move(taken)), m_state(state) {}

  /// "r3" for the stem "r"; it counts as taken from then on.
  std::string freeId(const std::string& stem);

  /// Returns the device's id.
  /// @param device without an id it gets one of the stem
  std::string device(Device device, const std::string& stem = {});
  EditMaker& wire(const Address& a, const Address& b, const std::string& colour, std::optional<int> gauge = {},
                  std::optional<Metres> length = {});
  /// Two connectors that go into each other.
  EditMaker& plug(const Address& a, const Address& b);
  EditMaker& jumper(const Address& a, const Address& b);
  EditMaker& remove(const Connection& connection);
  /// The device alone: what hangs on it is removed by itself.
  EditMaker& remove(Device device);
  /// The same connection between other ends.
  EditMaker& move(const Connection& connection, const Address& a, const Address& b);
  /// @param now the setting as it stands
  EditMaker& setting(const Device& device, const std::string& id, const std::string& now, const std::string& value);
  /// A figure, replaced on this bench.
  EditMaker& figure(const Device& device, const std::string& id, AnyQuantity value);

  bool empty() const { return m_edit.changes.empty(); }
  Edit take(std::string title) const;

 private:
  std::shared_ptr<const std::set<std::string>> m_taken;  // of a bench that very many repairs are drafted for
  std::set<std::string> m_given;                         // and taken since
  State m_state;
  Edit m_edit;

  EditMaker& add(Connection connection);
};

}  // namespace bold::harness
