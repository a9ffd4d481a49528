#include "output.h"

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <string>

#include "core/base/shown_text.h"

namespace bold::cli {
namespace {

int g_error = 0;  // errno of the first thing that could not be written

void write(std::string_view text) {
  if (g_error == 0 && std::fwrite(text.data(), 1, text.size(), stdout) != text.size()) g_error = errno == 0 ? EIO : errno;
}

}  // namespace

void say(std::string_view lines) {
  write(shownLines(lines));
}

void sayJson(std::string_view json) {
  write(shownJson(json));
}

void sayColoured(std::string_view report) {
  write(report);
}

void complain(std::string_view line) {
  std::fprintf(stderr, "boldh: %s\n", shownText(line).c_str());
}

bool finishOutput() {
  if (std::fflush(stdout) != 0 && g_error == 0) g_error = errno;
  if (g_error == 0) return true;
  complain(std::string("The output cannot be written (") + std::strerror(g_error) + ").");  // NOLINT(concurrency-mt-unsafe)
  return false;
}

}  // namespace bold::cli
