#include <catch2/catch.hpp>
#include <map>

#include "support/benches.h"
#include "support/mutants.h"
#include "support/run_length.h"

using namespace bold;
using namespace bold::test;

// A person with one fault on the bench follows the first advice that is offered: it must mend what it says it mends, and
// bring up nothing that was not there.
TEST_CASE("every repair offered on a spoilt bench removes its finding and adds no stop or caution") {
  int repairs = 0;
  int causes = 0;  // spoilt benches whose first finding is a stop or caution
  int mended = 0;  // of those, with a repair
  // To look for one costs tens of judgements: one of so many is tried. All of them once: 2347 repairs, 2207 of 4008 causes.
  const int every = oneOf(27);
  int number = 0;
  for (const auto& name : goodNames()) {
    const auto unspoilt = analyseFast(good(name));
    everyMutant(name, good(name), [&](const Mutant& m) {
      if (++number % every != 0) return;
      const auto before = analyse(m.bench, library());
      std::map<std::string, checks::Severity> known;
      for (const auto& f : unspoilt.findings) known.emplace(f.identity(), f.severity);  // what the fault hid may come back
      for (const auto& f : before.findings) known.emplace(f.identity(), f.severity);
      if (!before.findings.empty() && before.findings.front().severity <= checks::Severity::Caution) {
        ++causes;
        mended += before.findings.front().repair.has_value();
      }
      for (const auto& f : before.findings) {
        if (!f.repair) continue;
        ++repairs;
        auto made = m.bench;
        harness::apply(made, f.repair->edit);
        const auto after = analyseFast(harness::asPlanned(made));
        INFO(m.name << ": " << f.check << ": " << f.repair->text);
        CHECK(after.find(f.identity()) == nullptr);
        for (const auto& g : after.findings) {
          if (g.severity == checks::Severity::Note) continue;
          INFO("brings up " << g.check << ": " << g.headline);
          const auto it = known.find(g.identity());
          CHECK((it != known.end() && g.severity >= it->second));
        }
      }
    });
  }
  CHECK(repairs > 50);
  CHECK(2 * mended > causes);  // half of all causes
  WARN(repairs << " repairs; of " << causes << " causes that are named first " << mended << " carry one");
}
