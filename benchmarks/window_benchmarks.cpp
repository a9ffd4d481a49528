// ./dev bench: how long the window takes. Figures and the machine they were read on: docs/benchmarks.md.
#include <benchmark/benchmark.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <QApplication>
#include <QElapsedTimer>
#include <QImage>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>

#include "core/harness/read_harness.h"
#include "gui/main_window.h"
#include "gui/panels/step_rail.h"
#include "gui/picture/picture_view.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/wiring/wiring_panel.h"
#include "support/benches.h"
#include "support/generate.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

namespace {

// Knows how long the longest event took to be dealt with.
class Watching : public QApplication {
 public:
  using QApplication::QApplication;
  bool notify(QObject* receiver, QEvent* event) override {
    QElapsedTimer clock;
    clock.start();
    ++m_depth;
    const bool done = QApplication::notify(receiver, event);
    --m_depth;
    const double ms = static_cast<double>(clock.nsecsElapsed()) / 1e6;
    if (m_depth == 0 && ms > longest) {
      longest = ms;
      what = QString("%1 of %2").arg(event->type()).arg(receiver->metaObject()->className());
    }
    return done;
  }
  double longest = 0;
  QString what;

 private:
  int m_depth = 0;
};

void layOutPicture(benchmark::State& state) {
  const auto h = benchOf(static_cast<int>(state.range(0)));
  for (auto _ : state) benchmark::DoNotOptimize(picture::layOut(h, library()));
}
BENCHMARK(layOutPicture)->Arg(6)->Arg(50)->Arg(200)->Unit(benchmark::kMillisecond);

void repaintPicture(benchmark::State& state) {
  const auto layout = picture::layOut(benchOf(static_cast<int>(state.range(0))), library());
  QImage page(1280, 800, QImage::Format_ARGB32_Premultiplied);
  for (auto _ : state) {
    QPainter p(&page);
    p.setClipRect(page.rect());
    gui::paintPicture(p, layout, {}, {}, true, false, {}, {});
  }
}
BENCHMARK(repaintPicture)->Arg(6)->Arg(50)->Arg(200)->Unit(benchmark::kMillisecond);

// The whole program, from exec to the end after its first painted window.
void startOfProgram(benchmark::State& state) {
  const TemporaryFolder home;
  double megabytes = 0;
  for (auto _ : state) {
    const auto pid = ::fork();
    if (pid == 0) {
      ::setenv("HOME", home.path().c_str(), 1);
      ::execl(BOLD_HARNESS, BOLD_HARNESS, "--first-paint", BOLD_SOURCE_DIR "/demo/wave-tank.harness", nullptr);
      ::_exit(127);
    }
    int status = 0;
    rusage used{};
    ::wait4(pid, &status, 0, &used);
    if (status != 0) state.SkipWithError("the program did not start");
    megabytes = static_cast<double>(used.ru_maxrss) / 1024;
  }
  state.counters["MB"] = megabytes;
}
BENCHMARK(startOfProgram)->Unit(benchmark::kMillisecond)->UseRealTime();

// An edit, and whatever the window does until its analysis has come with all explanations.
void editWhileAnalysing(benchmark::State& state) {
  auto& app = static_cast<Watching&>(*qApp);
  const TemporaryFolder folder;
  Disk disk;
  gui::Session session(library(), disk, folder.path("state"));
  gui::MainWindow window(session);
  const auto path = folder.write("six.harness", harness::writeHarness(benchOf(static_cast<int>(state.range(0)))));
  window.openFile(QString::fromStdString(path));
  window.show();
  const auto settle = [&] {
    while (!session.analyser.current() || !session.analyser.analysis().explained)
      QApplication::processEvents(QEventLoop::WaitForMoreEvents, 5);
  };
  settle();
  app.longest = 0;
  // A wire is taken away and put back.
  const auto wire = session.document.harness().connections.back();
  for (auto _ : state) {
    if (session.document.harness().connection(wire.id))
      session.document.apply({"Take a wire away", {harness::Drop<harness::Connection>{wire.id}}});
    else
      session.document.apply({"Put it back", {harness::Put<harness::Connection>{wire, std::nullopt}}});
    settle();
  }
  state.counters["longest_event_ms"] = app.longest;
  state.SetLabel(app.what.toStdString());
  session.document.undoStack().setClean();
}
BENCHMARK(editWhileAnalysing)->Arg(6)->Unit(benchmark::kMillisecond)->Iterations(20);

// A list of 3,000 wires in the wiring step: one action, and all that follows from it in the window. What is judged in the background is
// left out.
struct LongList {
  TemporaryFolder folder;
  Disk disk;
  gui::Session session{library(), disk, folder.path("state")};
  gui::MainWindow window{session};
  LongList() {
    auto h = benchOf(6);
    for (int k = 0; static_cast<int>(h.connections.size()) < 3000; ++k) {
      const auto block = "x" + std::to_string(k / 4 + 100);
      if (k % 4 == 0) h.devices.push_back({.id = block, .part = "terminal-block-4"});
      h.connections.push_back({.id = "many" + std::to_string(k),
                               .a = {block, std::to_string(k % 4 + 1) + "A"},
                               .b = {"x" + std::to_string((k / 4 + 1) % 700 + 100), std::to_string(k % 4 + 1) + "B"},
                               .colour = "YE"});
    }
    std::erase_if(h.connections, [&](const auto& c) { return !h.device(c.a.device) || !h.device(c.b.device); });
    std::vector<Problem> said;
    window.show();
    window.rail().setStep(gui::Step::Wiring);
    session.document.replace(std::move(h), {}, said);
    window.lookOver();
    while (!session.analyser.current() || !session.analyser.analysis().explained)
      QApplication::processEvents(QEventLoop::WaitForMoreEvents, 5);
    QApplication::processEvents();
  }
  ~LongList() { session.document.undoStack().setClean(); }
  template <class W>
  W* find(const char* name) {
    return window.findChild<W*>(name);
  }
};

void stepThroughLongList(benchmark::State& state) {
  LongList list;
  auto* panel = list.find<gui::WiringPanel>("wiring");
  for (auto _ : state) {
    panel->stepOn();
    QApplication::processEvents();
  }
}
BENCHMARK(stepThroughLongList)->Unit(benchmark::kMillisecond);

void filterLongList(benchmark::State& state) {
  LongList list;
  auto* filter = list.find<QLineEdit>("wireFilter");
  bool on = false;
  for (auto _ : state) {
    filter->setText((on = !on) ? "yellow x10" : "ground");
    QApplication::processEvents();
  }
}
BENCHMARK(filterLongList)->Unit(benchmark::kMillisecond);

void markInLongList(benchmark::State& state) {
  LongList list;
  auto* fitted = list.find<QPushButton>("mark-fitted");
  for (auto _ : state) {
    fitted->click();
    QApplication::processEvents();
  }
}
BENCHMARK(markInLongList)->Unit(benchmark::kMillisecond)->Iterations(20);

void openLongList(benchmark::State& state) {
  LongList list;
  for (auto _ : state) {
    list.window.rail().setStep(gui::Step::Bench);
    QApplication::processEvents();
    list.window.rail().setStep(gui::Step::Wiring);
    QApplication::processEvents();
  }
}
BENCHMARK(openLongList)->Unit(benchmark::kMillisecond)->Iterations(10);

}  // namespace

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  Watching app(argc, argv);
  gui::applyTheme(app, gui::Theme::Light);
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
}
