#pragma once

namespace bold::test {

/// Runs the program's tests as its arguments say. Behind it is the test library's own runner, which is dear to compile: once for all.
int runTests(int argc, char** argv);

}  // namespace bold::test
