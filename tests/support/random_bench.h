#pragma once

#include "core/harness/harness.h"

namespace bold::test {

/// A few parts of any kind and a handful of wires between any of their terminals: what nobody would wire, and somebody does.
harness::Harness randomBench(unsigned seed);

}  // namespace bold::test
