#pragma once

#include <functional>
#include <set>
#include <string>

#include "core/harness/harness.h"

/// The ways a good bench is easily spoilt: every connection removed, moved to the next terminal, exchanged with its
/// neighbour; every diode and transistor reversed; every jumper and switch toggled.
namespace bold::test {

struct Mutant {
  std::string name;
  harness::Harness bench;
  std::set<std::string> changed;  // devices, terminals, connections
};

void everyMutant(const std::string& name, const harness::Harness& good, const std::function<void(const Mutant&)>& f);

}  // namespace bold::test
