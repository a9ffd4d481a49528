#include "support/generate.h"

#include "support/benches.h"

namespace bold::test {

using namespace harness;

namespace {
constexpr int kCell = 6;  // motors at one controller
}

Harness benchOf(int motors) {
  std::string text;
  int pin = 0;
  std::string cell;  // six motors share a controller and an adapter; the grounds of all are joined
  const auto gp = [&pin, &cell] {
    static const int kFree[] = {2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20, 21, 22, 26, 27, 28};
    return "sbc" + cell + ".GP" + std::to_string(kFree[static_cast<std::size_t>(pin++) % std::size(kFree)]);
  };
  for (int i = 1; i <= motors; ++i) {
    const auto n = std::to_string(i);
    if (i % kCell == 1) {
      const auto before = cell;
      cell = i == 1 ? "" : n;
      pin = 0;
      text += "part usb" + cell + " usb-port-0a5 USB" + cell + "\npart sbc" + cell + " board-rp2040-40 Controller" + cell + "\nplug usb" +
              cell + ".USB sbc" + cell + ".USB\npart psu" + cell + " adapter-12v-5a Adapter" + cell + "\nwire sbc" + cell + ".GND psu" +
              cell + ".N BK\n";
      if (i > 1) text += "wire psu" + before + ".N psu" + cell + ".N BK\n";
    }
    if (i % 3 == 1) {  // TB6612, a small motor at 12 V
      const auto a = gp();
      const auto b = gp();
      const auto s = gp();
      text += "part s" + n + " tb6612fng\npart m" + n + " brushed-gear25-12v\nfigure m" + n + ".winding 20 ohm\nwire psu" + cell + ".P s" +
              n + ".VM RD\nwire psu" + cell + ".N s" + n + ".GND BK\nwire sbc" + cell + ".3V3 s" + n + ".VCC RD\nwire sbc" + cell +
              ".3V3 s" + n + ".STBY RD\nwire " + a + " s" + n + ".AIN1\nwire " + b + " s" + n + ".AIN2\nwire " + s + " s" + n +
              ".PWMA\nwire s" + n + ".AO1 m" + n + ".P\nwire s" + n + ".AO2 m" + n + ".N\nintent m" + n + " both speed forward=P stage=s" +
              n + " channel=A in1=" + a + " in2=" + b + " speed=" + s + "\n";
    } else if (i % 3 == 2) {  // Darlington, pump
      const auto a = gp();
      text += "part s" + n + " darlington-tip120\npart r" + n + " resistor-1k\npart d" + n + " diode-1n5822\npart m" + n +
              " pump-diaphragm-12v\nfigure m" + n + ".winding 14 ohm\nwire " + a + " r" + n + ".A\nwire r" + n + ".B s" + n +
              ".B\nwire psu" + cell + ".P m" + n + ".P RD\nwire m" + n + ".N s" + n + ".C\nwire s" + n + ".E psu" + cell + ".N BK\nwire d" +
              n + ".K m" + n + ".P\nwire d" + n + ".A m" + n + ".N\nintent m" + n + " stage=s" + n + " in=" + a + "\n";
    } else {  // DRV8825, stepper
      const auto a = gp();
      const auto b = gp();
      text += "part s" + n + " drv8825-carrier\nfigure s" + n + ".reference 0.6 V\npart c" + n + " capacitor-100u-35v\nwire c" + n +
              ".P s" + n + ".VMOT 22AWG 0.05m\nwire c" + n + ".N s" + n + ".GND 22AWG 0.05m\npart m" + n +
              " stepper-nema17-1a68\nwire psu" + cell + ".P s" + n + ".VMOT RD\nwire psu" + cell + ".N s" + n + ".GND BK\nwire sbc" + cell +
              ".GND-2 s" + n + ".GND-2 BK\nwire sbc" + cell + ".3V3 s" + n + ".RST RD\njumper s" + n + ".RST s" + n + ".SLP\nwire " + a +
              " s" + n + ".STEP\nwire " + b + " s" + n + ".DIR\nwire s" + n + ".A1 m" + n + ".A-P\nwire s" + n + ".A2 m" + n +
              ".A-N\nwire s" + n + ".B1 m" + n + ".B-P\nwire s" + n + ".B2 m" + n + ".B-N\nintent m" + n + " both hold stage=s" + n +
              " step=" + a + " dir=" + b + "\n";
    }
  }
  return wiredBench(text);
}

rc::Gen<Harness> generatedBench() {
  return rc::gen::exec([] {
    auto h = benchOf(*rc::gen::inRange(1, 7));
    const int changes = *rc::gen::inRange(0, 4);
    for (int i = 0; i < changes; ++i) apply(h, *editOf(h));
    return h;
  });
}

rc::Gen<Edit> editOf(const Harness& h) {
  return rc::gen::exec([h]() -> Edit {
    if (h.connections.empty() || h.devices.empty()) return {"title", {SetTitle{"t"}}};
    auto c = h.connections[*rc::gen::inRange<std::size_t>(0, h.connections.size())];
    auto d = h.devices[*rc::gen::inRange<std::size_t>(0, h.devices.size())];
    switch (*rc::gen::inRange(0, 7)) {
      case 0:
        return {"drop a wire", {Drop<Connection>{c.id}}};
      case 1:
        c.colour = "VT";
        return {"recolour", {Put<Connection>{c, {}}}};
      case 2:
        c.length = Metres{*rc::gen::inRange(1, 200) / 100.0};
        return {"length", {Put<Connection>{c, {}}}};
      case 3:
        c.state = State::ToBeRemoved;
        return {"to be removed", {Put<Connection>{c, {}}}};
      case 4:
        d.name = "N" + std::to_string(*rc::gen::inRange(0, 99));
        return {"rename", {Put<Device>{d, {}}}};
      case 5: {
        Connection fresh = c;
        fresh.id = h.freeId("w");
        fresh.state = State::Planned;
        return {"plan a wire", {Put<Connection>{fresh, std::size_t{0}}}};
      }
      default:
        return {"two at once", {Drop<Connection>{c.id}, SetTitle{"x"}, SetAmbient{Celsius{25}}}};
    }
  });
}

}  // namespace bold::test
