#include <exception>

#include "output.h"
#include "subcommand.h"

int main(int argc, char** argv) {
  try {
    const int code = bold::cli::run(argc, argv);
    return bold::cli::finishOutput() ? code : 2;
  } catch (const std::exception& e) {
    bold::cli::complain(e.what());
    return 2;
  }
}
