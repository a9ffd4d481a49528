#include <catch2/catch.hpp>

#include "support/benches.h"
#include "support/expected.h"

using namespace bold;
using namespace bold::test;

// Benches wired by people who had never seen the program, with what a practitioner would say of them.
TEST_CASE("strangers' benches are judged as a practitioner judges them") {
  const auto names = namesIn("strangers");
  REQUIRE(names.size() >= 50);
  for (const auto& name : names) {
    const auto text = textOf("strangers", name);
    const auto a = analyse(bench(text), library());
    for (const auto& line : unmet(text, a)) {
      INFO(name << ": " << line << "; said: " << summary(a));
      for (const auto& f : a.findings) UNSCOPED_INFO(checks::word(f.severity) << " " << f.check << ": " << f.text);
      CHECK(false);
    }
  }
}
