#include <QAction>
#include <QComboBox>
#include <QLabel>
#include <catch2/catch.hpp>
#include <cmath>

#include "core/harness/read_harness.h"
#include "core/harness/remove_device.h"
#include "gui/charts/bridge_chart.h"
#include "gui/charts/coil_order_chart.h"
#include "gui/charts/curve_plot.h"
#include "gui/charts/level_ladder_chart.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

namespace {
void choose(Window& w, const char* command) {
  auto* box = w.find<QComboBox>("command");
  const int at = box->findData(command);
  REQUIRE(at >= 0);
  box->setCurrentIndex(at);
}
void trigger(Window& w, const QKeySequence& keys) {
  for (auto* a : w.main.findChildren<QAction*>())
    if (a->shortcut() == keys) a->trigger();
}
}  // namespace

TEST_CASE("the currents step lists every command and shows the first motor running") {
  Window w;
  w.open("demo/wave-tank.harness");
  trigger(w, QKeySequence("Ctrl+5"));
  CHECK(w.main.rail().step() == gui::Step::Currents);
  auto* box = w.find<QComboBox>("command");
  CHECK(box->count() == static_cast<int>(w.session.analyser.analysis().solved->commands.size()));
  REQUIRE(w.session.shownPoint());
  CHECK(box->currentData().toString().toStdString() == w.session.shownPoint()->command().id);
  CHECK(w.find<QLabel>("does")->text().contains("runs forward"));
  w.session.selection.showCommand("all off", bench::Corner::Nominal);  // from elsewhere, as a finding does
  CHECK(box->currentData().toString() == "all off");
}

TEST_CASE("a chosen command turns the arrows in the picture round") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Currents);
  choose(w, "Wave paddle forward");
  REQUIRE(w.picture().flows());
  const auto forward = *w.picture().flows();
  choose(w, "Wave paddle reverse");
  const auto reverse = *w.picture().flows();
  int turned = 0;
  for (const auto& c : w.session.document.harness().connections)
    if (c.a.device == "paddle" || c.b.device == "paddle") {
      CHECK(std::abs(forward.amps.at(c.id)) > 0.1);
      CHECK(forward.amps.at(c.id) * reverse.amps.at(c.id) < 0);
      ++turned;
    }
  CHECK(turned == 2);
  CHECK_FALSE(forward.volts.empty());
}

TEST_CASE("the arrows are the operating point's currents, and go when the step is left or the bench is edited") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Currents);
  const auto* p = w.session.shownPoint();
  REQUIRE(p);
  const auto& s = *w.session.analyser.analysis().solved;
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const auto& id = s.bench.connections[s.bench.links[l].connection].id;
    CHECK(std::abs(w.picture().flows()->amps.at(id)) >= std::abs(p->link(static_cast<int>(l)).value) - 1e-15);
  }
  harness::Edit edit = harness::removeDevice(w.session.document.harness(), "paddle");
  w.session.document.apply(edit);
  CHECK_FALSE(w.picture().flows());
  w.settle();
  CHECK(w.picture().flows());
  w.main.rail().setStep(gui::Step::Limits);
  CHECK_FALSE(w.picture().flows());
}

TEST_CASE("supply states change the figures, and only those solved are offered") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Currents);
  choose(w, "Wave paddle forward");
  auto* corner = w.find<QComboBox>("corner");
  CHECK(corner->count() == static_cast<int>(w.session.shownPoint()->command().corners.size()));
  const auto full = w.find<QLabel>("does")->text();
  corner->setCurrentIndex(corner->findData(static_cast<int>(bench::Corner::Empty)));
  CHECK(w.session.shownPoint()->corner() == bench::Corner::Empty);
  CHECK(w.find<QLabel>("does")->text() != full);
}

TEST_CASE("Alt+Right and Alt+Left walk through the commands") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Currents);
  auto* box = w.find<QComboBox>("command");
  box->setCurrentIndex(0);
  trigger(w, QKeySequence("Alt+Left"));
  CHECK(box->currentIndex() == 0);
  trigger(w, QKeySequence("Alt+Right"));
  CHECK(box->currentIndex() == 1);
  CHECK(w.session.shownPoint()->command().id == box->currentData().toString().toStdString());
}

TEST_CASE("each motor has the figures that fit it, and each figure says in words what it shows") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Currents);
  choose(w, "Wave paddle forward");
  auto* bridge = w.find<gui::BridgeChart>("bridgeChart");
  auto* coils = w.find<gui::CoilOrderChart>("coilOrder");
  auto* ladder = w.find<gui::LevelLadderChart>("levelLadder");
  CHECK(bridge->isVisible());
  CHECK(bridge->accessibleName().contains("runs forward"));
  CHECK_FALSE(coils->isVisible());
  CHECK(ladder->isVisible());
  CHECK(ladder->accessibleName().contains("high"));
  int curves = 0;
  for (auto* c : w.main.findChildren<gui::CurvePlot*>()) {
    if (!c->isVisible()) continue;
    ++curves;
    CHECK_FALSE(c->accessibleName().isEmpty());
  }
  CHECK(curves >= 1);
}

TEST_CASE("a unipolar stepper shows its coil order, and one wired across says that it shakes") {
  Window w;
  const auto path = w.folder.write("s.harness", harness::writeHarness(wiredBench(readFile("tests/benches/good/array.bench"))));
  w.main.openFile(QString::fromStdString(path));
  w.settle();
  w.main.rail().setStep(gui::Step::Currents);
  auto* coils = w.find<gui::CoilOrderChart>("coilOrder");
  CHECK(coils->isVisible());
  CHECK(coils->accessibleName() == "The field turns as intended");
}

TEST_CASE("an empty bench has no commands and says so") {
  Window w;
  w.settle();
  w.main.rail().setStep(gui::Step::Currents);
  CHECK_FALSE(w.find<QComboBox>("command")->isVisible());
  CHECK_FALSE(w.find<gui::BridgeChart>("bridgeChart")->isVisible());
}
