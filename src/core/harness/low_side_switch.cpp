#include "core/harness/low_side_switch.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/harness/edit_maker.h"
#include "core/harness/end_facts.h"

namespace bold::harness {

Result<Edit> lowSideSwitch(const Harness& h, const parts::Library& library, const LowSideSwitch& what) {
  const auto transistor = library.find(what.transistor);
  if (!transistor || transistor->channels.size() != 1 || !transistor->channels.front().lowSide ||
      !transistor->channels.front().signals.contains("in"))
    return fail(fmt::format("\"{}\" is no transistor that can switch a motor to ground.", what.transistor));
  const auto* motor = h.device(what.motor);
  const auto* supply = h.device(what.supply);
  if (!motor || !factsOf(h, library, {what.motor, "P"}) || !factsOf(h, library, {what.motor, "N"}))
    return fail(fmt::format("\"{}\" is no motor with two leads on this bench.", what.motor));
  if (!supply || !isPole(h, library, {what.supply, "P"}, true)) return fail(fmt::format("\"{}\" is no supply on this bench.", what.supply));
  if (!factsOf(h, library, what.pin) || !factsOf(h, library, what.pin)->pin)
    return fail(fmt::format("\"{}\" is no pin of a controller.", what.pin.text()));
  if (!factsOf(h, library, what.ground) || !factsOf(h, library, what.ground)->ground)
    return fail(fmt::format("\"{}\" is no ground.", what.ground.text()));
  const auto& channel = transistor->channels.front();
  const auto out = channel.out.front();
  const auto in = channel.signals.at("in");
  const auto back = channel.returnTerminal;
  const bool mosfet =
      std::ranges::any_of(transistor->elements, [](const auto& e) { return std::holds_alternative<parts::Mosfet>(e.body); });
  EditMaker maker(h);
  const auto group = maker.freeId("switch");
  const auto place = [&](const std::string& part, const std::string& stem) {
    Device d;
    d.part = part;
    d.group = group;
    return maker.device(std::move(d), stem);
  };
  const auto q = place(what.transistor, "q");
  const auto r = place(mosfet ? "resistor-220r" : "resistor-1k", "r");
  const auto d = place("diode-1n5822", "d");
  maker.wire(what.pin, {r, "A"}, "YE");
  maker.wire({r, "B"}, {q, in}, "YE");
  if (mosfet) {
    const auto pull = place("resistor-10k", "r");
    maker.wire({pull, "A"}, {q, in}, "YE");
    maker.wire({pull, "B"}, {q, back}, "BK");
  }
  maker.wire({what.supply, "P"}, {what.motor, "P"}, "RD");
  maker.wire({what.motor, "N"}, {q, out}, "BU");
  maker.wire({q, back}, {what.supply, "N"}, "BK");
  maker.wire({q, back}, what.ground, "BK");
  maker.wire({d, "K"}, {what.motor, "P"}, "RD");
  maker.wire({d, "A"}, {what.motor, "N"}, "BU");
  return maker.take(fmt::format("Add a low-side switch for {}", motor->called()));
}

}  // namespace bold::harness
