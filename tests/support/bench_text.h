#pragma once

#include <functional>
#include <string>
#include <string_view>

#include "core/harness/harness.h"
#include "core/parts/library.h"

namespace bold::test {

/// Reads the short notation in which examples of check pages and test benches are written, one thing a line:
///
///   from low-side                     begin with that bench (see `find`)
///   part s1 l298n-module [name…]      put a part on the bench, with the jumpers that come fitted
///   wire uno.D9 s1.ENA [RD] [22AWG] [0.3m]
///   plug usb.USB uno.USB              |  jumper s1.ENA s1.ENA-5V
///   unwire s1.GND uno.GND             take the connection between these two away (either order)
///   move s1.IN1 s1.IN2                whatever ends on the first ends on the second
///   exchange d1.A d1.K                whatever ends on one ends on the other
///   swap q1 npn-pn2222a C=D B=G E=S   another part, terminals renamed old=new afterwards as new=old
///   remove d1                         a device with its connections
///   set s1.reg off                    a setting      |  figure m1.winding 5 ohm
///   intent m1 [both] [speed] [hold] [pwm=490Hz] [forward=P] [stage=s1] [channel=A] [sequence=full] [duty=0.5] [ramp] [together]
///   [switched=program|hand|always]
///          [rate=800Hz] [steps=200] [length=2us] role=uno.D9 … (role=uno.D9! is stated active low,
///          role=uno.D9^ active high, role=uno.D9? names no numbering)
///   program uno lift.ino              what that program says of uno's pins; its lines follow, each behind "|" and a blank
///   plan                              what follows is planned
///   title …                           |  # comment
/// Throws std::runtime_error naming the line: it is for our own files only.
harness::Harness readBenchText(std::string_view text, const parts::Library& library,
                               const std::function<std::string(const std::string&)>& find);

}  // namespace bold::test
