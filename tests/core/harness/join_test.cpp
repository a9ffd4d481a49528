#include "core/harness/join.h"

#include <catch2/catch.hpp>

#include "core/harness/names.h"
#include "core/harness/turn_round.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::harness;
using namespace bold::test;

namespace {

// What a line makes: "wire uno.D9 s1.IN1; plug usb.USB uno.USB", or the sentence that refuses it.
std::string typed(const Harness& h, std::string_view text) {
  const auto edit = typedJoin(h, library(), text);
  if (!edit) return edit.error().what;
  std::string out;
  for (const auto& c : edit->changes) {
    const auto& put = c.as<Put<Connection>>()->value;
    out +=
        (out.empty() ? "" : "; ") + std::string(put.kind == ConnectionKind::Plug ? "plug " : "wire ") + put.a.text() + " " + put.b.text();
  }
  return out;
}

const Harness& desk() {
  static const auto kDesk = wiredBench(
      "part usb usb-port-0a5\npart uno board-uno-atmega328p\npart shield bridge-stack-l293d\npart psu adapter-9v-1a Nine volt\n"
      "part s1 l298n-module Left bridge\npart m brushed-130-6v Wave paddle\nwire uno.D9 s1.IN1");
  return kDesk;
}

}  // namespace

TEST_CASE("a plug is typed by the two things it joins") {
  CHECK(typed(desk(), "usb uno") == "plug usb.USB uno.USB");
  CHECK(typed(desk(), "uno usb") == "plug uno.USB usb.USB");
  CHECK(typed(desk(), "USB.usb UNO.usb") == "plug usb.USB uno.USB");
  CHECK(typed(desk(), "psu uno") == "plug psu.jack uno.jack");
  CHECK(typed(desk(), "adapter uno") == "plug psu.jack uno.jack");
  CHECK(typed(desk(), "shield uno") ==
        "plug shield.power-left uno.power-left; plug shield.analogue-left uno.analogue-left; "
        "plug shield.digital-13-8-right uno.digital-13-8-right; plug shield.digital-7-0-right uno.digital-7-0-right");
  CHECK(typed(desk(), "usb psu") == "Nothing of \"usb\" can be plugged into \"psu\".");
}

TEST_CASE("what is plugged in is not plugged in again, and a board takes what is left") {
  auto h = desk();
  apply(h, *typedJoin(h, library(), "usb uno"));
  CHECK(typed(h, "usb uno") == "usb USB and uno USB are joined already, by p1.");
  apply(h, *typedJoin(h, library(), "shield.power-left uno.power-left"));
  CHECK(typed(h, "shield uno").find("power-left") == std::string::npos);
  apply(h, *typedJoin(h, library(), "shield uno"));
  CHECK(typed(h, "shield uno") == "shield is plugged in already.");
}

TEST_CASE("a carrier in a stack of three sockets has to be told which") {
  const auto h = wiredBench("part k stack-three-carriers\npart c a4988-carrier");
  const auto said = typed(h, "c k");
  CHECK(said.find("could be c.left-row k.X-socket-left-row or c.right-row k.Z-socket-right-row: write them so.") != std::string::npos);
  CHECK(typed(h, "c.left-row k.y-socket-left-row") == "plug c.left-row k.Y-socket-left-row");
}

TEST_CASE("wires are typed by the names that are shown, gaps and all") {
  CHECK(typed(desk(), "d8 s1.in2") == "wire uno.D8 s1.IN2");
  CHECK(typed(desk(), "d8 left bridge in2") == "wire uno.D8 s1.IN2");
  CHECK(typed(desk(), "Wave paddle + Left bridge OUT1") == "wire m.P s1.OUT1");
  CHECK(typed(desk(), "wave paddle.p s1.out1") == "wire m.P s1.OUT1");
  CHECK(typed(desk(), "uno d8 left bridge nowhere") ==
        "\"uno d8 left bridge nowhere\" is not two terminals on this bench: write device.terminal twice, such as uno.d9 s1.in1.");
}

TEST_CASE("what is joined already is not joined again, and the wire that does it is named") {
  CHECK(typed(desk(), "d9 s1.in1") == "uno D9 and Left bridge IN1 are joined already, by w1.");
  CHECK(typed(desk(), "s1.in1 uno.d9") == "Left bridge IN1 and uno D9 are joined already, by w1.");
  auto h = desk();
  std::ranges::find(h.connections, "w1", &Connection::id)->state = State::ToBeRemoved;
  CHECK(typed(h, "d9 s1.in1") == "wire uno.D9 s1.IN1");
}

TEST_CASE("by hand a connector and a terminal do not go together") {
  const auto refused = [](const Address& a, const Address& b) {
    const auto edit = join(desk(), library(), a, b);
    return edit ? std::string() : edit.error().what;
  };
  CHECK(refused({"usb", "USB"}, {"uno", "D9"}) == "usb USB is a connector of 2 poles and uno D9 is one terminal: join it pole by pole.");
  CHECK(refused({"usb", "USB"}, {"uno", "jack"}) == "usb USB and uno jack do not go into each other.");
  CHECK(refused({"uno", "D9"}, {"uno", "D9"}) == "Both ends are uno D9.");
  CHECK(refused({"usb", "USB"}, {"uno", "USB"}).empty());
}

TEST_CASE("ids are shown only where two names clash") {
  const auto h = wiredBench("part m1 brushed-130-6v Pump\npart m2 brushed-130-6v Pump\npart m3 brushed-130-6v Gate");
  CHECK(shownName(h, h.devices[0]) == "Pump (m1)");
  CHECK(shownName(h, h.devices[1]) == "Pump (m2)");
  CHECK(shownName(h, h.devices[2]) == "Gate");
  CHECK(shownNames(h) == std::vector<std::string>{"Pump (m1)", "Pump (m2)", "Gate"});
  CHECK(shownEnd(h, library(), {"m3", "P"}) == "Gate +");
  CHECK(shownEnd(h, library(), {"gone", "P"}) == "gone.P");
  // And findings speak of them so too.
  const auto a = analyseFast(h);
  REQUIRE(a.solved);
  CHECK(a.solved->bench.devices[1].called() == "Pump (m2)");
}

TEST_CASE("a part turned round is one change, and turned twice it is as before") {
  for (const auto& [name, id] : {std::pair{"npn", "q1"}, {"npn", "d1"}}) {
    const auto h = good(name);
    const auto once = turnRound(h, library(), id);
    REQUIRE(once);
    auto turned = h;
    const auto back = apply(turned, *once);
    CHECK_FALSE(turned == h);
    CHECK(turned.connections.size() == h.connections.size());
    CHECK(turned.openChanges() == 0);
    auto twice = turned;
    apply(twice, *turnRound(turned, library(), id));
    CHECK(twice.connections == h.connections);
    apply(turned, back);
    CHECK(turned == h);
  }
  CHECK_FALSE(turnRound(good("npn"), library(), "uno"));
  CHECK_FALSE(turnRound(good("npn"), library(), "gone"));
  Harness loose;
  loose.devices = {{.id = "d1", .part = "diode-1n4001"}};
  CHECK_FALSE(turnRound(loose, library(), "d1"));  // nothing hangs on it
  // A diode that is put in backwards is found, and turning it mends it.
  auto wrong = good("npn");
  apply(wrong, *turnRound(wrong, library(), "d1"));
  CHECK_FALSE(findingsOf(analyseFast(wrong), "flyback-reversed").empty());
  apply(wrong, *turnRound(wrong, library(), "d1"));
  CHECK(findingsOf(analyseFast(wrong), "flyback-reversed").empty());
}
