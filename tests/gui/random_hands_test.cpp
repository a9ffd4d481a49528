#include "random_hands.h"

#include <QPointer>
#include <catch2/catch.hpp>
#include <cstdlib>

#include "core/harness/read_harness.h"

using namespace bold;
using namespace bold::test;

namespace {

int fromEnvironment(const char* name, int otherwise) {
  const auto* text = std::getenv(name);
  return text ? std::atoi(text) : otherwise;
}

std::set<std::string> identities(const Analysis& a) {
  std::set<std::string> out;
  for (const auto& f : a.findings) out.insert(f.identity());
  return out;
}

// One walk from one bench. What must hold afterwards, whatever was done: the document can be written and read, undone and redone to the
// byte, and what is shown is what the engine says of it.
// Returns how often the document changed.
int walk(const char* file, unsigned seed, int events) {
  Window w;
  if (file) w.open(file);
  std::string done;
  int changes = 0;
  QObject::connect(&w.session.document, &gui::Document::changed, &w.main, [&] { ++changes; });
  {
    RandomHands hands(w, seed);
    hands.move(events);
    done = hands.lastDone();
  }
  INFO((file ? file : "an empty bench") << ", seed " << seed << "\n" << done);
  w.settle();
  const auto bytes = harness::writeHarness(w.session.document.harness());
  const auto again = harness::readHarness(bytes, "again");
  REQUIRE(again);
  CHECK(harness::writeHarness(again->harness) == bytes);
  auto& undo = w.session.document.undoStack();
  const int at = undo.index();
  undo.setIndex(0);
  undo.setIndex(at);
  CHECK(harness::writeHarness(w.session.document.harness()) == bytes);
  w.settle();
  CHECK(identities(w.session.analyser.analysis()) == identities(analyse(w.session.document.harness(), w.session.document.library())));
  return changes;
}

}  // namespace

// BOLD_HANDS_SECONDS walks on from seed to seed for so long; BOLD_HANDS_SEED begins with that one.
TEST_CASE("random hands over every control break nothing", "[hands]") {
  const int seconds = fromEnvironment("BOLD_HANDS_SECONDS", 0);
  auto seed = static_cast<unsigned>(fromEnvironment("BOLD_HANDS_SEED", 1));
  constexpr int kEvents = 400;
  const char* const kBenches[]{nullptr, "demo/wave-tank.harness", "demo/wave-tank-first-try.harness"};
  QElapsedTimer clock;
  clock.start();
  int walks = 0;
  int changes = 0;
  do {
    for (const auto* file : kBenches) {
      changes += walk(file, seed++, kEvents);
      ++walks;
    }
  } while (clock.elapsed() < 1000LL * seconds);
  WARN(walks << " walks of " << kEvents << " events, " << changes << " changes, seeds to " << seed - 1);
  CHECK(changes > 10 * walks);  // hands that do nothing would find nothing
}
