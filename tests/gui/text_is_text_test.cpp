#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QMessageBox>
#include <QTextBlock>
#include <QTextBrowser>
#include <QTimer>
#include <catch2/catch.hpp>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "core/harness/read_harness.h"
#include "gui/panels/check_page_dialog.h"
#include "gui/panels/left_out_card.h"
#include "gui/panels/part_card_dialog.h"
#include "gui/stages/pins_dialog.h"
#include "gui/sums/sums_dialog.h"
#include "gui/window.h"

using namespace bold;
using namespace bold::test;

namespace {

// Reads without end where it is taken for a picture; looks like a verdict where it is taken for markup.
const std::string kHostile = "<img src='/dev/zero'><b>Clear to switch on</b> & ![x](/dev/zero) # *all well*";

// A bench in which everything that has a name has this one.
std::string hostileBench() {
  auto h = good("bridge");
  h.title = kHostile;
  Json part = *library().json("l298n-module");
  part["id"] = "l298n_module";
  for (const auto* key : {"name", "summary", "hold"}) part[key] = kHostile;
  part["pitfalls"] = Json::array({kHostile});
  part["notes"] = Json::array({kHostile});
  for (auto& [id, f] : part["figures"].items()) f["label"] = kHostile;
  for (auto& s : part["settings"]) s["label"] = kHostile;
  part["terminals"][0]["label"] = kHostile;
  int n = 0;
  for (auto& d : h.devices) {
    d.name = kHostile + std::to_string(++n);
    if (d.part == "l298n-module") d.part = "l298n_module";
  }
  h.parts.push_back({"l298n_module", std::make_shared<const Json>(part), nullptr});
  auto text = harness::writeHarness(h);
  // And something that cannot be read.
  text.insert(text.find("\"connections\": [") + 16, R"({"id": "<img src='/dev/zero'>", "wire": ["a", "b"]}, )");
  return text;
}

void nothingActs() {
  for (const auto* w : QApplication::allWidgets()) {
    INFO(w->metaObject()->className() << " " << w->objectName().toStdString() << " in "
                                      << (w->parentWidget() ? w->parentWidget()->metaObject()->className() : "nothing"));
    CHECK((!Qt::mightBeRichText(w->toolTip()) || w->toolTip().startsWith("<p style='white-space:pre-wrap'>")));
    if (const auto* label = qobject_cast<const QLabel*>(w)) INFO(label->text().toStdString());
    if (const auto* label = qobject_cast<const QLabel*>(w)) CHECK((label->textFormat() == Qt::PlainText || label->text().isEmpty()));
    if (const auto* browser = qobject_cast<const QTextBrowser*>(w)) {
      CHECK_FALSE(browser->openLinks());
      for (auto block = browser->document()->begin(); block.isValid(); block = block.next())
        for (auto it = block.begin(); !it.atEnd(); ++it) {
          CHECK_FALSE(it.fragment().charFormat().isImageFormat());
          CHECK_FALSE(it.fragment().charFormat().isAnchor());
        }
    }
  }
}

}  // namespace

TEST_CASE("names, titles, ids and file names never act, in any panel, dialog or tip") {
  Window w;
  const auto path = w.folder.write("<img src='x'><b>Clear.harness", hostileBench());
  int dialogs = 0;
  QTimer look;
  QObject::connect(&look, &QTimer::timeout, [&] {
    if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) {
      ++dialogs;
      nothingActs();
      box->reject();
    }
  });
  look.start(30);
  w.main.openFile(QString::fromStdString(path));
  w.settle();
  CHECK(dialogs > 0);  // what is wrong with the file
  REQUIRE(w.session.document.harness().devices.size() > 4);
  for (const auto& row : gui::steps()) {
    const auto step = row.step;
    w.main.rail().setStep(step);
    for (const auto& d : w.session.document.harness().devices) {
      w.session.selection.select(QString::fromStdString(d.id));
      QTest::qWait(1);
      nothingActs();
    }
  }
  for (const auto& id : {std::string("l298n_module"), std::string("brushed-gear-plastic-6v")}) {
    gui::PartCardDialog card(w.session, id, {}, &w.main);
    card.setAttribute(Qt::WA_DeleteOnClose, false);
    card.show();
    nothingActs();
    const auto said = card.findChild<QTextBrowser*>("partText")->toPlainText();
    if (id == "l298n_module") CHECK(said.count(QString::fromStdString(kHostile)) >= 6);
  }
  w.main.rail().setStep(gui::Step::Stages);
  (void)eventually([&] { return w.find<QLabel>("stagesSaid")->text().contains("fit"); });
  nothingActs();
  const auto motor = w.find<QComboBox>("stagesMotor")->currentData().toString().toStdString();
  gui::SumsDialog sums(w.session, motor, &w.main);
  gui::PinsDialog pins(w.session, &w.main);
  for (QDialog* dialog : {static_cast<QDialog*>(&sums), static_cast<QDialog*>(&pins)}) {
    dialog->setAttribute(Qt::WA_DeleteOnClose, false);
    dialog->show();
  }
  nothingActs();
  gui::CheckPageDialog page(w.session, "command-outcome", &w.main);
  page.setAttribute(Qt::WA_DeleteOnClose, false);
  page.show();
  nothingActs();
  look.stop();
}

TEST_CASE("what could not be used stands on a card of its own, and is taken out of the file by its button") {
  Window w;
  auto text = readFile("demo/wave-tank.harness");
  const std::string wire = R"("wire": ["psu.P", "s1.12V"])";
  text.insert(text.find("    {\"id\": \"w1\""), R"(    {"id": "wx", "wire": ["psu.P", "uno D5"]},)"
                                                "\n");
  const auto path = w.folder.write("b.harness", text);
  QTimer::singleShot(100, &w.main, [] {
    if (auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget())) box->reject();
  });
  w.main.openFile(QString::fromStdString(path));
  w.settle();
  CHECK(w.find<QAbstractButton>("verdict")->accessibleName().startsWith("Not judged: 1 note, 1 left out of the file"));
  auto* card = w.find<QWidget>("leftOut");
  REQUIRE(card->isVisible());
  QStringList said;
  for (const auto* l : card->findChildren<QLabel*>()) said << l->text();
  CHECK(said.join("\n").contains("\"wire\" cannot be used: \"uno D5\" is not a terminal address"));
  CHECK(said.join("\n").contains("In the file: /connections/1/wire"));
  // Saving keeps it, taking it out mends the verdict, undo brings it back.
  bool ask = false;
  w.session.document.apply({"x", {harness::SetTitle{"renamed"}}});
  CHECK(w.session.file.save(QString::fromStdString(path), harness::Overwrite::Ask, ask).isEmpty());
  CHECK(w.disk.read(path)->find(R"({"id": "wx", "wire": ["psu.P", "uno D5"]})") != std::string::npos);
  w.settle();
  card->findChild<QPushButton*>("takeOut")->click();
  w.settle();
  CHECK_FALSE(card->isVisible());
  CHECK(w.find<QAbstractButton>("verdict")->accessibleName().startsWith("Clear to switch on"));
  w.session.document.undoStack().undo();
  w.settle();
  CHECK(card->isVisible());
}

TEST_CASE("a pin typed into a plan stays, whatever the analysis takes away beside it, and says no less than before") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Bench);
  // No stage is named: the roles follow from the wires, which an analysis has to find out anew after each edit.
  auto intent = *harness::intentOf(w.session.document.harness(), "pump");
  intent.stage.clear();
  intent.channel.clear();
  for (auto& s : intent.signals) {
    s.active = harness::Active::Low;
    s.numbering = "chip";
  }
  w.session.document.apply(harness::stating(w.session.document.harness(), intent, "x"));
  w.session.selection.select("pump");
  w.settle();
  auto* pin = w.find<QLineEdit>("signal-in");
  REQUIRE(pin);
  for (const auto* typed : {"d3", "d6", "d5"}) {
    pin->setFocus();
    pin->selectAll();
    QTest::keyClicks(pin, typed);
    QTest::keyClick(pin, Qt::Key_Tab);  // the analysis is running from here on
    QTest::qWait(5);
    REQUIRE(w.find<QLineEdit>("signal-in") == pin);
    const auto now = harness::intentOf(w.session.document.harness(), "pump")->signals.front();
    CHECK(QString::fromStdString(now.pin.terminal).toLower() == typed);
    CHECK(now.active == harness::Active::Low);
    CHECK(now.numbering == "chip");
  }
  w.settle();
  CHECK(w.find<QLineEdit>("signal-in") == pin);
}

TEST_CASE("where saving fails, another place is offered, and nothing is lost") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.session.document.apply({"x", {harness::SetTitle{"renamed"}}});
  std::filesystem::remove_all(w.folder.path());
  QStringList offered;
  QTimer::singleShot(100, &w.main, [&] {
    auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
    REQUIRE(box);
    for (const auto* b : box->buttons()) offered << b->text().remove('&');
    box->reject();
  });
  for (auto* a : w.main.findChildren<QAction*>())
    if (a->text().remove('&') == "Save") a->trigger();
  CHECK(offered.contains(QString::fromUtf8("Save as…")));
  CHECK_FALSE(w.session.document.undoStack().isClean());
  CHECK(w.session.document.harness().title == "renamed");
}

TEST_CASE("where the file's copy of an own part counts, the window says so and offers one's own") {
  const TemporaryFolder folder;
  Disk disk;
  const auto cell = [](const char* volts) {
    return std::string(
               R"({"format": 1, "id": "my-cell", "name": "My cell", "kind": "battery", "figures": {"v": {"unit": "V", "value": ")") +
           volts + R"("}}, "terminals": [{"id": "P"}, {"id": "N"}], "elements": [{"source": ["P", "N"], "full": "@v", "nominal": "@v",
    "empty": "@v", "r": "1 ohm"}]})";
  };
  auto mine = parts::Library::shipped();
  std::vector<Problem> problems;
  mine.addOwn({{"c.json", cell("4 V")}}, problems);
  harness::Harness h;
  h.devices.push_back({.id = "cell", .part = "my-cell"});
  h.parts.push_back({"my-cell", std::make_shared<const Json>(parsedJson(cell("3 V"))), nullptr});
  const auto path = folder.write("b.harness", harness::writeHarness(h));
  gui::Session session(mine, disk, folder.path("state"));
  gui::LeftOutCard card(session);
  REQUIRE(session.file.open(QString::fromStdString(path)));
  const auto settle = [&] { REQUIRE(eventually([&] { return session.analyser.current() && session.analyser.analysis().explained; })); };
  settle();
  card.refresh();
  CHECK(session.document.library().find("my-cell")->figure("v")->figure.typ == 3.0);
  auto* use = card.findChild<QPushButton*>("useMine");
  REQUIRE(use);
  CHECK(use->accessibleDescription() == "your own part my-cell differs from the copy in this file (v): the file's is used.");
  use->click();
  settle();
  CHECK(session.document.library().find("my-cell")->figure("v")->figure.typ == 4.0);
  session.document.undoStack().undo();
  CHECK(session.document.library().find("my-cell")->figure("v")->figure.typ == 3.0);
  session.document.undoStack().setClean();
}
