#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/bench/copper_distance.h"
#include "core/bench/queries.h"
#include "core/checks/margin.h"

/// What most checks need: the questions of core/bench/queries.h by their bare names, and how findings and their numbers are put into words.
namespace bold::checks {

using bench::Action;
using bench::Bench;
using bench::ChannelRef;
using bench::Corner;
using bench::Moment;
using bench::Motor;
using bench::MotorKind;
using bench::OperatingPoint;
using bench::SolvedBench;
using bench::TerminalIndex;

using bench::at;
using bench::brief;
using bench::called;
using bench::connectionsAt;
using bench::connectorsOf;
using bench::continuousOf;
using bench::copperDistance;
using bench::drivenBy;
using bench::during;
using bench::dutyOf;
using bench::eachElement;
using bench::everyday;
using bench::Extreme;
using bench::fullVoltage;
using bench::hasSignals;
using bench::idOf;
using bench::indexOf;
using bench::isServo;
using bench::largest;
using bench::leaving;
using bench::loadedChannels;
using bench::loadsOf;
using bench::onLead;
using bench::onlyConnectionAt;
using bench::pinGroup;
using bench::PinGroup;
using bench::plainGround;
using bench::referenceOf;
using bench::returnAstray;
using bench::signalReach;
using bench::sourceAt;
using bench::sourceBody;
using bench::steady;
using bench::steeredBy;
using bench::SupplyInput;
using bench::supplyInputs;

/// How grave it is that something fails only once the supplies are at their lower end: cells go flat on every bench, a regulated
/// supply is always within its tolerance.
Severity onceEmpty(const SolvedBench& s);
/// "12.6 V", "1.68 A"
std::string show(AnyQuantity q);
/// "2.71 V > 2.7 V": with as many digits as it takes to see that it is so.
std::string against(AnyQuantity value, std::string_view sign, AnyQuantity limit);

/// One finding with its severity and words; the engine adds check and harm.
Finding finding(Severity severity, std::string headline, std::string text, std::vector<std::string> subjects);

/// The same for what was measured: how grave it is follows from the limit that is passed.
Finding finding(std::string headline, std::string text, std::vector<std::string> subjects);

/// Fields of what is stated of a motor, of a figure of a device (the device as such where its part has no such figure), of a setting.
Field fieldOf(const SolvedBench& s, const Motor& motor, std::string name);
Field figureOf(const Bench& bench, int device, std::string_view figure);
Field settingOf(const Bench& bench, int device, std::string_view setting);

/// Where the figures of a sentence come from, without repetition.
std::vector<std::string> sourcesOf(std::initializer_list<const Figure*> figures);

}  // namespace bold::checks
