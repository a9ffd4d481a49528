// ./dev bench: how long the window takes. Figures and the machine they were read on: docs/benchmarks.md.
#include <benchmark/benchmark.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <QApplication>
#include <QElapsedTimer>
#include <QImage>
#include <QPainter>

#include "core/harness/read_harness.h"
#include "gui/main_window.h"
#include "gui/picture/picture_view.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
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
    gui::paintPicture(p, layout, {}, {}, true, {}, {});
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

}  // namespace

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  Watching app(argc, argv);
  gui::applyTheme(app, gui::Theme::Light);
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
}
