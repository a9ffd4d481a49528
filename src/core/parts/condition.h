#pragma once

#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <set>
#include <string>
#include <string_view>

#include "core/base/quantity.h"
#include "core/parts/node.h"

namespace bold::parts {

/// A logic level or truth value as a stage sees it: an open input is neither.
enum class Level { Low, High, Undefined };

/// A condition that steers a switch: "IN1 & ENA & awake", "V(5V,GND) > 2.25 V", "!EN".
/// Grammar: or (|) of and (&) of [!] atom; an atom is a terminal id, a named condition of the part,
/// a voltage comparison, or parentheses. Values are three-valued (Kleene).
class Condition {
 public:
  /// What a condition asks of the world.
  struct World {
    std::function<Level(const parts::Node& terminal)> level;
    std::function<std::optional<double>(const parts::Node& a, const parts::Node& b)> volts;
  };

  /// @param named other conditions that may be used by name
  /// Errors: what is wrong and at which character.
  [[nodiscard]] static Result<Condition> parse(std::string_view text, const std::map<std::string, Condition>& named);

  Level evaluate(const World& world) const;

  /// The same condition with its terminals looked up: `find` gives what Node::at is to be.
  Condition resolved(const std::function<int(const std::string&)>& find) const;

  /// Says nothing: always true.
  bool empty() const { return !m_root; }

  /// The terminals whose levels decide.
  const std::set<std::string>& inputs() const { return m_inputs; }

 private:
  struct Term;
  std::shared_ptr<const Term> m_root;  // shared: conditions are immutable values, copied with their part
  std::set<std::string> m_inputs;
  friend class ConditionParser;
};

Level operator!(Level v);
Level both(Level a, Level b);
Level either(Level a, Level b);

}  // namespace bold::parts
