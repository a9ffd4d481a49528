#include "core/choose/stage_wiring.h"

#include <catch2/catch.hpp>
#include <iostream>

#include "core/checks/analysis.h"
#include "core/checks/trial.h"
#include "core/harness/mark_done.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

namespace {

const char* kUno = "part usb usb-port-0a9\npart u board-uno-atmega328p Board\nplug usb.USB u.USB\n";
const char* kEsp = "part usb usb-port-0a9\npart u board-esp32-38 Board\nplug usb.USB u.USB\n";

}  // namespace

TEST_CASE("matrix probe") {
  struct Row {
    const char *stage, *motor, *supply;
    const char* more;
  };
  for (const auto& r : std::vector<Row>{
           {"l298n-module", "brushed-gear25-12v", "adapter-12v-2a", "both speed"},
           {"tb6612fng", "brushed-n20-6v", "battery-4aa-nimh", "both speed"},
           {"drv8833-board", "brushed-n20-6v", "battery-4aa-nimh", "both speed"},
           {"drv8835-carrier", "brushed-n20-6v", "battery-4aa-nimh", "both speed"},
           {"drv8871-board", "brushed-gear25-12v", "adapter-12v-2a", "both speed"},
           {"l293d", "brushed-n20-6v-low-power", "battery-6aa-nimh", "both speed"},
           {"l293", "brushed-n20-6v-low-power", "battery-6aa-nimh", "both speed"},
           {"sn754410", "brushed-n20-6v-low-power", "battery-6aa-nimh", "both speed"},
           {"l298", "brushed-gear25-12v", "adapter-12v-2a", "both speed"},
           {"l9110s-module", "brushed-n20-6v-low-power", "battery-4aa-nimh", "both speed"},
           {"mx1508-module", "brushed-n20-6v-low-power", "battery-4aa-nimh", "both speed"},
           {"bts7960-module", "brushed-775-12v", "battery-lead-12v-7ah", "both speed"},
           {"vnh2sp30-module", "brushed-550-12v", "battery-lead-12v-7ah", "both speed"},
           {"vnh5019-carrier", "brushed-550-12v", "battery-lead-12v-7ah", "both speed"},
           {"bridge-dir-pwm-2x10a", "brushed-gear37-12v", "adapter-12v-5a", "both speed"},
           {"bridge-in-in-2x3a", "brushed-gear25-12v", "adapter-12v-2a", "both speed"},
           {"a4988-carrier", "stepper-nema17-0a4", "adapter-12v-2a", "both"},
           {"drv8825-carrier", "stepper-nema17-0a4", "adapter-12v-2a", "both"},
           {"tmc2208-carrier", "stepper-nema17-0a4", "adapter-12v-2a", "both"},
           {"tmc2209-carrier", "stepper-nema17-0a4", "adapter-12v-2a", "both"},
           {"a3967-board", "stepper-nema17-0a4", "adapter-12v-2a", "both"},
           {"stepdir-tb6560", "stepper-nema17-1a68", "adapter-12v-5a", "both"},
           {"stepdir-box-tb6600", "stepper-nema17-1a68", "adapter-24v-5a", "both"},
           {"stepdir-box-opto", "stepper-nema17-1a68", "adapter-24v-5a", "both"},
           {"uln2003-board", "stepper-28byj48-5v", "adapter-5v-2a", "both sequence=wave"},
           {"uln2003a", "pump-submersible-5v", "adapter-5v-2a", "speed"},
           {"uln2803a", "pump-submersible-5v", "adapter-5v-2a", "speed"},
           {"nmos-irlz44n", "pump-diaphragm-12v", "adapter-12v-2a", "speed"},
           {"nmos-2n7000", "brushed-coin-3v", "battery-2aa-alkaline", ""},
           {"nmos-ao3400a", "pump-submersible-5v", "adapter-5v-2a", "speed"},
           {"nmos-irlb8721", "pump-diaphragm-12v", "adapter-12v-2a", "speed"},
           {"nmos-irf520", "pump-diaphragm-12v", "adapter-12v-2a", "speed"},
           {"nmos-irf540n", "pump-diaphragm-12v", "adapter-12v-2a", "speed"},
           {"npn-pn2222a", "pump-submersible-5v", "adapter-5v-2a", "speed"},
           {"npn-bc337", "pump-submersible-5v", "adapter-5v-2a", "speed"},
           {"npn-bd139", "pump-submersible-5v", "adapter-5v-2a", "speed"},
           {"npn-tip31c", "pump-submersible-5v", "adapter-5v-2a", "speed"},
           {"darlington-tip120", "pump-diaphragm-12v", "adapter-12v-2a", "speed"},
           {"darlington-tip122", "pump-diaphragm-12v", "adapter-12v-2a", "speed"},
           {"mosfet-module-d4184", "pump-diaphragm-12v", "adapter-12v-2a", "speed"},
           {"mosfet-module-irf520", "pump-diaphragm-12v", "adapter-12v-2a", "speed"},
       })
    for (const auto* board : {kUno, kEsp}) {
      const auto h = wiredBench(std::string(board) + "part v " + r.supply + " Supply\npart m " + r.motor + " Motor\nintent m " + r.more);
      const auto edit = choose::wireStage(h, library(), {"m", r.stage, "v"});
      std::cout << "== " << r.stage << (board == kUno ? " 5 V" : " 3.3 V") << "\n";
      if (!edit) {
        std::cout << "   " << edit.error().what << "\n";
        continue;
      }
      const auto t = tryOut(h, *edit, library(), {}, {});
      for (const auto& f : t->findings)
        if (f.severity != checks::Severity::Note) std::cout << "   " << checks::word(f.severity) << " " << f.check << ": " << f.text << "\n";
    }
}
