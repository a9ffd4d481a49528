#include <QApplication>
#include <QComboBox>
#include <QFileDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <catch2/catch.hpp>
#include <filesystem>

#include "core/harness/intent.h"
#include "gui/program/plan_dialog.h"
#include "gui/program/program_panel.h"
#include "gui/program/source_view.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

namespace {

// The demo bench in a folder, and a program beside it.
struct Programmed : Window {
  QString source;
  explicit Programmed(const std::string& program = "demo/wave-tank-first-try.ino", const std::string& bench = "demo/wave-tank.harness")
      : source(QString::fromStdString(folder.write("tank.ino", readFile(program)))) {
    open(bench);
    main.rail().setStep(gui::Step::Program);
  }
  gui::ProgramPanel* panel() { return main.findChild<gui::ProgramPanel*>(); }
  QTableWidget* pins() { return find<QTableWidget>("programPins"); }
  gui::SourceView* view() { return main.findChild<gui::SourceView*>(); }
  void read() {
    panel()->read({source});
    REQUIRE(eventually([&] { return !session.program.reading() && !session.document.harness().sources.empty(); }));
    settle();
  }
  int rowOf(const QString& pin) {
    for (int r = 0; r < pins()->rowCount(); ++r)
      if (pins()->item(r, 0)->text().endsWith(pin)) return r;
    return -1;
  }
  QString cell(const QString& pin, int column) { return pins()->item(rowOf(pin), column)->text(); }
};

}  // namespace

TEST_CASE("a program is read in the background; a pin lights its thread and its line, disagreements first") {
  Programmed w;
  CHECK(w.find<QWidget>("programPins")->isVisible() == false);
  w.read();
  CHECK(w.pins()->isVisible());
  CHECK(w.session.analyser.analysis().verdict == Verdict::DoNotSwitchOn);
  CHECK(w.rowOf("D10") == 0);
  CHECK(w.cell("D9", 1) == "never named");
  CHECK(w.cell("D9", 2) == "S1 ENA: speed of Wave paddle");
  CHECK(w.cell("D2", 1) == "2 (STEP_PIN): high and low");
  w.pins()->selectRow(w.rowOf("D9"));
  CHECK(w.session.selection.subject() == "uno.D9");
  CHECK(w.view()->textCursor().blockNumber() + 1 == 4);  // the word to change
  CHECK(w.find<QLabel>("programDetail")->text().contains("Change 10 (PADDLE_ENABLE) to 9 in tank.ino, line 4."));
  // And back: a line picks its pin, so does the picture.
  Q_EMIT w.view()->rowPicked(w.view()->rowAt(13));
  CHECK(w.session.selection.subject() == "uno.D4");
  w.session.selection.select("uno.D2");
  CHECK(w.pins()->currentRow() == w.rowOf("D2"));
  CHECK(w.view()->isReadOnly());
  CHECK(w.view()->toPlainText().toStdString() == readFile("demo/wave-tank-first-try.ino"));
  // One edit: taken back by one undo.
  w.session.document.undoStack().undo();
  CHECK(w.session.document.harness().sources.empty());
}

TEST_CASE("by keys alone: sources are chosen, read, and the first disagreement is picked") {
  Programmed w;
  w.main.activateWindow();
  (void)QTest::qWaitForWindowActive(&w.main);
  w.main.rail().setStep(gui::Step::Bench);
  bool typed = false;
  QTimer::singleShot(200, &w.main, [&] {
    auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
    if (!dialog) return;
    auto* name = dialog->findChild<QLineEdit*>("fileNameEdit");
    name->clear();
    QTest::keyClicks(name, w.source);
    typed = true;
    QTest::keyClick(name, Qt::Key_Return);
  });
  QTest::keyClick(&w.main, Qt::Key_R, Qt::ControlModifier | Qt::ShiftModifier);
  REQUIRE(typed);
  CHECK(w.main.rail().step() == gui::Step::Program);
  REQUIRE(eventually([&] { return !w.session.document.harness().sources.empty(); }));
  w.settle();
  w.pins()->setFocus();
  QTest::keyClick(w.pins(), Qt::Key_Home, Qt::ControlModifier);
  CHECK(w.session.selection.subject() == "uno.D10");
  QTest::keyClick(w.pins(), Qt::Key_Down);
  CHECK(w.session.selection.subject() == "uno.D9");
  // From the source's line to its pin.
  w.view()->setFocus();
  w.view()->light({"tank.ino", 13, 1, 1});
  QTest::keyClick(w.view(), Qt::Key_Return);
  CHECK(w.session.selection.subject() == "uno.D4");
}

TEST_CASE("the step says where it stands, and the report of the window speaks of the program") {
  Programmed w;
  auto* button = w.find<QAbstractButton>("step-program");
  CHECK(button->accessibleName() == "Program, not read");
  w.read();
  CHECK(button->accessibleName() == "Program, 6 disagreements");
  CHECK(card(w, "program-pin-slip"));
}

TEST_CASE("a source that is saved is read again, one that is gone keeps the bench from being judged") {
  Programmed w("demo/wave-tank.ino");
  w.read();
  REQUIRE(w.session.analyser.analysis().verdict == Verdict::Clear);
  auto text = readFile("demo/wave-tank.ino");
  text.replace(text.find("PUMP = 5"), 8, "PUMP = 3");
  (void)w.folder.write("tank.ino", text);
  CHECK(eventually([&] { return w.session.analyser.current() && w.session.analyser.analysis().verdict == Verdict::DoNotSwitchOn; }));
  (void)w.folder.write("tank.ino", readFile("demo/wave-tank.ino"));
  CHECK(eventually([&] { return w.session.analyser.current() && w.session.analyser.analysis().verdict == Verdict::Clear; }));
  REQUIRE(QFile::remove(w.source));
  CHECK(eventually([&] { return w.session.analyser.current() && w.session.analyser.analysis().verdict == Verdict::NotJudged; }));
  CHECK(w.find<QLabel>("told")->text().contains("not there"));
  CHECK(w.view()->toPlainText().contains("cannot be read"));
}

TEST_CASE("an undone reading is not taken for what stands on the disk") {
  Programmed w("demo/wave-tank.ino");
  w.read();
  auto text = readFile("demo/wave-tank.ino");
  text += "\n// more\n";
  (void)w.folder.write("tank.ino", text);
  const auto digest = [&] { return w.session.document.harness().sources.front().files.front().digest; };
  const auto first = digest();
  CHECK(eventually([&] { return digest() != first; }));
  w.session.document.undoStack().undo();
  CHECK(digest() == first);
  CHECK(eventually([&] { return w.session.analyser.current() && w.session.analyser.analysis().verdict == Verdict::NotJudged; }));
  // Read again on request.
  QTest::mouseClick(w.find<QPushButton>("readAgain"), Qt::LeftButton);
  CHECK(eventually([&] { return w.session.analyser.current() && w.session.analyser.analysis().verdict == Verdict::Clear; }));
}

TEST_CASE("goals and pins are planned from the program one by one, each confirmed") {
  Programmed w("demo/wave-tank.ino");
  // Nothing is stated yet.
  harness::Edit bare{"x", {}};
  for (const auto& a : w.session.document.harness().assignments) bare.changes.emplace_back(harness::Drop<harness::Assignment>{a.id});
  for (const auto& g : w.session.document.harness().goals) bare.changes.emplace_back(harness::Drop<harness::Goal>{g.id});
  for (const auto& p : w.session.document.harness().program) bare.changes.emplace_back(harness::Drop<harness::ProgramFacts>{p.id});
  w.session.document.apply(bare);
  w.settle();
  w.read();
  QTest::mouseClick(w.find<QPushButton>("planFromProgram"), Qt::LeftButton);
  auto* dialog = w.main.findChild<gui::PlanDialog*>();
  REQUIRE(dialog);
  auto* list = dialog->findChild<QListWidget*>("proposals");
  auto* take = dialog->findChild<QPushButton*>("takePlan");
  REQUIRE(list->count() >= 12);
  CHECK_FALSE(take->isEnabled());
  list->item(0)->setCheckState(Qt::Checked);
  CHECK(take->isEnabled());
  QTest::mouseClick(dialog->findChild<QPushButton*>("tickAll"), Qt::LeftButton);
  QTest::mouseClick(take, Qt::LeftButton);
  w.settle();
  const auto& h = w.session.document.harness();
  const auto paddle = harness::intentOf(h, "paddle");
  REQUIRE(paddle);
  CHECK(paddle->bothDirections);
  CHECK(paddle->speedControl);
  CHECK(paddle->signals.size() == 3);
  CHECK(std::ranges::all_of(h.assignments, [](const auto& a) { return a.source.typed(); }));
  // The step's own plan is one undo.
  w.session.document.undoStack().undo();
  CHECK_FALSE(harness::intentOf(w.session.document.harness(), "paddle")->bothDirections);
}

TEST_CASE("a broken, missing or empty source is said, and a bench without a controller asks for one") {
  Programmed w;
  QStringList said;
  QObject::connect(&w.session.program, &gui::ProgramReader::problems, &w.main, [&](const QStringList& s) { said += s; });
  w.panel()->read({w.source + ".none"});
  CHECK(eventually([&] { return !said.isEmpty() && !w.session.program.reading(); }));
  CHECK(said.front().contains(".none"));
  (void)w.folder.write("tank.ino", "");
  w.read();
  CHECK(w.find<QLabel>("told")->text().contains("0 of 0"));
  CHECK(w.session.document.harness().sources.front().pins.empty());
  w.session.file.startEmpty();
  CHECK_FALSE(w.find<QPushButton>("readSources")->isEnabled());
}

TEST_CASE("in class mode the step tells nothing before the faults are named") {
  Programmed w;
  w.read();
  w.session.concealment.choose(true);
  CHECK_FALSE(w.pins()->isVisible());
  CHECK(w.find<QAbstractButton>("step-program")->accessibleName() == "Program, hidden");
  w.session.concealment.choose(false);  // it is remembered
}

TEST_CASE("a source of many thousand lines is shown and scrolled") {
  Programmed w("demo/wave-tank.ino");
  std::string text = readFile("demo/wave-tank.ino");
  for (int k = 0; k < 20000; ++k) text += "// line " + std::to_string(k) + "\n";
  text += "const int kLast = 3;\n";
  (void)w.folder.write("tank.ino", text);
  w.read();
  CHECK(w.view()->blockCount() > 20000);
  w.view()->light({"tank.ino", 20050, 1, 4});
  CHECK(w.view()->textCursor().blockNumber() == 20049);
}

TEST_CASE("a source outside the bench's folder is not opened until a person has seen where it lies and asked for it") {
  Programmed w;
  const auto elsewhere = QString::fromStdString(w.folder.path("elsewhere/tank.ino"));
  std::filesystem::create_directories(w.folder.path("elsewhere"));
  std::filesystem::create_directories(w.folder.path("bench"));
  w.folder.write("elsewhere/tank.ino", readFile("demo/wave-tank-first-try.ino"));
  const auto path = QString::fromStdString(w.folder.write("bench/bench.harness", readFile("demo/wave-tank.harness")));
  w.main.openFile(path);
  w.settle();
  w.main.rail().setStep(gui::Step::Program);
  // Chosen by hand it is opened, and stays so.
  w.panel()->read({elsewhere});
  REQUIRE(eventually([&] { return !w.session.program.reading() && !w.session.document.harness().sources.empty(); }));
  w.settle();
  auto* open = w.find<QPushButton>("openElsewhere");
  REQUIRE(open);
  CHECK(open->isHidden());
  CHECK(w.view()->toPlainText().contains("void setup"));
  bool ask = false;
  REQUIRE(w.session.file.save(path, harness::Overwrite::Yes, ask).isEmpty());
  // Somebody else opens the bench.
  Window other;
  other.main.openFile(path);
  other.settle();
  other.main.rail().setStep(gui::Step::Program);
  auto* button = other.find<QPushButton>("openElsewhere");
  REQUIRE(button);
  CHECK(button->isVisible());
  auto* text = other.main.findChild<gui::SourceView*>();
  CHECK_FALSE(text->toPlainText().contains("void setup"));
  CHECK(other.find<QLabel>("told")->text().contains(elsewhere));  // where it lies
  CHECK(other.session.analyser.analysis().verdict != Verdict::Clear);
  other.session.program.readAgain();
  CHECK_FALSE(other.session.program.reading());
  button->click();
  other.settle();
  CHECK(button->isHidden());
  CHECK(text->toPlainText().contains("void setup"));
}
