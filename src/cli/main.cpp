#include <csignal>
#include <exception>

#include "output.h"
#include "subcommand.h"

int main(int argc, char** argv) {
  std::signal(SIGXFSZ, SIG_IGN);  // a file that may grow no further is a sentence, not the end
  try {
    const int code = bold::cli::run(argc, argv);
    return bold::cli::finishOutput() ? code : 2;
  } catch (const std::exception& e) {
    bold::cli::complain(e.what());
    return 2;
  }
}
