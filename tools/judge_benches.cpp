// judge_benches [--say] FOLDER...: benches of tests/benches/FOLDER against what their own remarks expect of them (expected.h),
// and how many are as expected, with the 95 % bound of what that says about benches nobody has tried.
//   --say prints everything that is said of each
#include <fmt/core.h>

#include <cmath>
#include <cstdio>
#include <string_view>

#include "support/benches.h"
#include "support/expected.h"

namespace {

// Greatest share of failures that `failed` of n leave possible, one time in twenty (Clopper and Pearson, one-sided).
double bound(int failed, int n) {
  double low = 0, high = 1;
  for (int i = 0; i < 60; ++i) {
    const double p = (low + high) / 2;
    double tail = 0;
    double term = std::pow(1 - p, n);
    for (int k = 0; k <= failed; ++k) {
      tail += term;
      term *= p / (1 - p) * (n - k) / (k + 1);
    }
    (tail > 0.05 ? low : high) = p;
  }
  return high;
}

}  // namespace

int main(int argc, char** argv) {
  using namespace bold;
  bool say = false;
  for (int i = 1; i < argc; ++i) {
    const std::string_view arg = argv[i];
    if (arg == "--say") {
      say = true;
      continue;
    }
    int n = 0;
    int failed = 0;
    for (const auto& name : test::namesIn(argv[i])) {
      const auto text = test::textOf(argv[i], name);
      ++n;
      try {
        const auto a = analyse(test::wiredBench(text), test::library());
        const auto wrong = test::unmet(text, a);
        failed += !wrong.empty();
        fmt::print("{} {}: {}, {}\n", wrong.empty() ? "ok   " : "WRONG", name, headline(a.verdict), summary(a));
        for (const auto& w : wrong) fmt::print("    {}\n", w);
        if (say || !wrong.empty())
          for (const auto& f : a.findings)
            if (say || f.severity != checks::Severity::Note)
              fmt::print("    {}{} {}: {}\n", f.explainedBy.empty() ? "" : "(follows) ", checks::word(f.severity), f.check, f.text);
        if (say || !wrong.empty())
          for (const auto& w : a.why) fmt::print("    why: {}\n", w);
      } catch (const std::exception& e) {
        ++failed;
        fmt::print("WRONG {}: {}\n", name, e.what());
      }
    }
    fmt::print("{}: {} of {} as expected; of benches like these at most {:.0f} % are judged otherwise (95 %)\n", arg, n - failed, n,
               100 * bound(failed, n));
  }
  return 0;
}
