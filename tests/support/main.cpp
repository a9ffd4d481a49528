#include <clocale>

#include "support/run_tests.h"

// As in a window: the locale of the machine. (Qt sets it for the programs that it runs in.)
int main(int argc, char** argv) {
  std::setlocale(LC_ALL, "");  // NOLINT(concurrency-mt-unsafe): no thread has begun
  return bold::test::runTests(argc, argv);
}
