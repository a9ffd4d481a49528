#include "gui/session/latest_work.h"

#include <QCoreApplication>
#include <QEventLoop>
#include <QThread>
#include <QTimer>
#include <atomic>
#include <catch2/catch.hpp>

#include "gui/export_actions.h"
#include "gui/program/program_panel.h"
#include "gui/session/stage_search.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("what was begun last wins, and runs once what it replaces has given up") {
  gui::LatestWork work;
  std::atomic<int> running = 0, most = 0, gaveUp = 0;
  std::vector<int> handed;
  for (int k = 0; k < 20; ++k)
    work.begin([&, k](const gui::LatestWork::Run& run) {
      most = std::max(most.load(), ++running);
      for (int round = 0; k < 19 && !run.cancelled(); ++round) QThread::msleep(1);
      gaveUp += run.cancelled();
      --running;
      run.hand([&, k] { handed.push_back(k); });
    });
  REQUIRE(eventually([&] { return !handed.empty(); }));
  CHECK(handed == std::vector<int>{19});
  CHECK(most == 1);
}

TEST_CASE("closing asks what runs to give up, waits for it, and hands nothing over any more") {
  bool handed = false;
  std::atomic<bool> ended = false, began = false;
  {
    gui::LatestWork work;
    work.begin([&](const gui::LatestWork::Run& run) {
      began = true;
      while (!run.cancelled()) QThread::msleep(1);
      run.hand([&] { handed = true; });
      ended = true;
    });
    REQUIRE(eventually([&] { return began.load(); }));
  }
  CHECK(ended);
  QCoreApplication::processEvents();
  CHECK_FALSE(handed);
  // What never began is not begun any more.
  std::atomic<int> begun = 0;
  {
    gui::LatestWork work;
    for (int k = 0; k < 50; ++k)
      work.begin([&](const gui::LatestWork::Run& run) {
        ++begun;
        while (!run.cancelled()) QThread::msleep(1);
      });
  }
  CHECK(begun <= 50);
  const int then = begun;
  QTest::qWait(20);
  CHECK(begun == then);
}

TEST_CASE("a window closes while it judges, reads a program, tries stages and writes an export") {
  TemporaryFolder folder;
  std::string text = "void setup() { pinMode(9, OUTPUT); }\nvoid loop() {\n";
  for (int k = 0; k < 20'000; ++k)
    text += "  if (analogRead(0) > " + std::to_string(k % 900) + ") digitalWrite(9, HIGH); else digitalWrite(9, LOW);\n";
  const auto source = QString::fromStdString(folder.write("long.ino", text + "}\n"));
  for (int round = 0; round < 3; ++round) {
    auto w = std::make_unique<Window>();
    w->open("demo/wave-tank-first-try.harness");
    auto search = std::make_unique<gui::StageSearch>(w->session.document);
    auto& exporter = *new gui::Exporter(w->session, w->main);  // the window's
    w->main.rail().setStep(gui::Step::Program);
    w->main.findChild<gui::ProgramPanel*>()->read({source});
    search->begin("paddle", {}, std::nullopt);
    const auto sheet = folder.path("sheet" + std::to_string(round) + ".pdf");
    exporter.begin(QString::fromStdString(sheet), "sheet");
    CHECK(w->session.program.reading());
    w->session.document.apply({"x", {harness::SetTitle{"changed"}}});
    QTest::qWait(20 * round);
    search.reset();
    w.reset();  // nothing of it is handed to a window that is gone: the sanitizers watch
    QCoreApplication::processEvents();
    const auto bytes = Disk().read(sheet);
    CHECK((!bytes || (bytes->starts_with("%PDF") && bytes->ends_with("%%EOF\n"))));  // whole or not at all
  }
  SUCCEED();
}
