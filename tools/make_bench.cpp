// make_bench IN.bench OUT.harness [FOLDER]: turns the short notation of tests/support/bench_text.h into a bench file.
// FOLDER is where "from NAME" looks for NAME.bench. Used to keep the demo benches readable in review.
#include <cstdio>
#include <exception>
#include <stdexcept>

#include "core/harness/document_file.h"
#include "support/bench_text.h"

int main(int argc, char** argv) {
  try {
    if (argc < 3) throw std::runtime_error("usage: make_bench IN.bench OUT.harness [FOLDER]");
    bold::Disk disk;
    const auto library = bold::parts::Library::shipped();
    const std::string folder = argc > 3 ? argv[3] : ".";
    const auto read = [&](const std::string& path) {
      auto text = disk.read(path);
      if (!text) throw std::runtime_error(bold::text(text.error()));
      return *text;
    };
    auto harness =
        bold::test::readBenchText(read(argv[1]), library, [&](const std::string& name) { return read(folder + "/" + name + ".bench"); });
    auto done = bold::harness::save(disk, harness, library, {}, argv[2], bold::harness::Overwrite::Yes);
    if (!done) throw std::runtime_error(bold::text(done.error()));
    return 0;
  } catch (const std::exception& e) {
    std::fprintf(stderr, "%s\n", e.what());
    return 2;
  }
}
