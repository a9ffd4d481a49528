#include "core/bench/doing_words.h"

namespace bold::bench {

std::string_view word(Doing d) {
  switch (d) {
    case Doing::Nothing:
      return "does nothing";
    case Doing::Forward:
      return "runs forward";
    case Doing::Reverse:
      return "runs in reverse";
    case Doing::Brake:
      return "brakes";
    case Doing::Coast:
      return "coasts";
    case Doing::On:
      return "is on";
    case Doing::Off:
      return "is off";
    case Doing::Energised:
      return "is energised";
    case Doing::Undecided:
      return "is undecided";
  }
  return {};
}

std::string doingWords(const OperatingPoint& point, int motor) {
  const auto doing = point.doing(motor);
  const auto plain = std::string(word(doing));
  const auto& c = point.command();
  if (c.motor != motor) return plain;
  const std::string way = doing == Doing::Forward ? "forward" : doing == Doing::Reverse ? "in reverse" : "";
  switch (c.moment) {
    case Moment::Running:
      return plain;
    case Moment::Stalled:
    case Moment::StalledAtMost:
      return way.empty() ? plain : "is held still and pushed " + way;
    case Moment::JustOpened:
      return "was just switched off";
    case Moment::Reversing:
      return way.empty() ? plain : "still turns and is driven " + way;
  }
  return plain;
}

}  // namespace bold::bench
