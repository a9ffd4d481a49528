#pragma once

namespace bold::test {

/// Whether this is `./dev test long`.
bool longRun();

/// Of what is tried over and over, one of how many: `usually` as everybody runs the tests, every one in a long run.
/// What a test claims is claimed in either; the long run only repeats it for more of the same.
int oneOf(int usually);

}  // namespace bold::test
