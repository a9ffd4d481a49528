#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/bench/nets.h"
#include "core/parts/condition.h"

/// What commands have to do with buttons, sensors, registers and expanders.
namespace bold::bench {

/// Contacts of one device that are the other way at a time.
struct MovedContacts {
  std::vector<std::pair<int, int>> contacts;  ///< device, element
  std::string title;                          ///< "Gate closed pressed", "Dial at end A"
  bool switchedOff = false;                   ///< a switch that stays as it is put, and is opened, or a connector that is pulled
  bool relay = false;                         ///< moved by a coil
};
/// Of everything that is wired at both its ends: what is pressed or senses, all of a device together; what slides, each end for itself;
/// what is switched by hand; a connector with all its poles; the contacts of each relay together.
std::vector<MovedContacts> movedContacts(const Bench& bench, const Nets& nets);
/// Whether a contact of a relay is closed while its coil carries nothing, or, with `on`, while it carries its current; nothing: its
/// condition does not say.
std::optional<bool> relayClosed(const parts::Switch& contact, bool on);

/// Outputs of expanders that are low until a program asks for something else.
std::vector<TerminalIndex> lowUntilAsked(const Bench& bench);

/// A pin that a program writes to a peripheral by.
struct LinePin {
  TerminalIndex pin;
  std::optional<parts::Level> enables;  ///< the level without which the peripheral's outputs do not drive; nothing for data and clocks
};
/// As stated, else the one pin that is wired. Lines of an I2C bus, which nobody writes high, are not among them.
std::vector<LinePin> linePins(const Bench& bench, const Nets& nets);

}  // namespace bold::bench
