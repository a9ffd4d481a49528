#include <QAction>
#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QXmlStreamReader>
#include <catch2/catch.hpp>
#include <map>

#include "core/harness/read_harness.h"
#include "core/places/svg.h"
#include "gui/picture/picture_view.h"
#include "gui/places/place_view.h"
#include "support/benches.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

namespace {

void openBench(Window& w, const harness::Harness& h) {
  w.main.openFile(QString::fromStdString(w.folder.write("b.harness", harness::writeHarness(h))));
  w.settle();
}

std::vector<int> ringed(const places::Drawing& d) {
  std::vector<int> out;
  for (const auto& s : d.shapes)
    if (const auto* c = std::get_if<places::Circle>(&s); c && c->heavy)
      for (const auto& t : d.targets)
        if (std::abs(t.x - c->x) + std::abs(t.y - c->y) < 0.01) out.push_back(t.terminal);
  return out;
}

std::string ringedIn(Window& w, const char* view, const char* part) {
  auto* v = w.find<gui::PlaceView>(view);
  REQUIRE(v);
  const auto all = ringed(v->drawing());
  return v->isVisible() && all.size() == 1 ? library().find(part)->terminals[all.front()].id : "";
}

}  // namespace

TEST_CASE("while a wire is typed, the places of both its ends are lit as far as they are known") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Wiring);
  auto* entry = w.find<QLineEdit>("wireEntry");
  QTest::keyClicks(entry, "d3");
  CHECK(ringedIn(w, "placeOfFirst", "board-uno-atmega328p") == "D3");
  CHECK_FALSE(w.find<gui::PlaceView>("placeOfSecond")->isVisible());
  QTest::keyClicks(entry, " s1.in2");
  CHECK(ringedIn(w, "placeOfFirst", "board-uno-atmega328p") == "D3");
  CHECK(ringedIn(w, "placeOfSecond", "l298n-module") == "IN2");
  CHECK(w.find<QLabel>("wordsOfSecond")->text().contains("inputs, bottom, 3rd from the left"));
  CHECK(w.find<QLabel>("wordsOfSecond")->text().contains("left of it IN1, right of it IN3"));
  entry->clear();
  CHECK_FALSE(w.find<gui::PlaceView>("placeOfFirst")->isVisible());
}

TEST_CASE("a number that counts two pins is refused with the places of both") {
  Window w;
  openBench(w, good("array-sbc"));
  w.main.rail().setStep(gui::Step::Wiring);
  auto* entry = w.find<QLineEdit>("wireEntry");
  QTest::keyClicks(entry, "sbc.18 s1.in1");
  QTest::keyClick(entry, Qt::Key_Return);
  CHECK(w.find<QLabel>("wireSaid")
            ->text()
            .contains("GPIO18 by program (J8, right column, 6th from the top, position 12), or GPIO24 by position"));
  CHECK(entry->text() == "sbc.18 s1.in1");  // nothing is lost
}

TEST_CASE("while a wire is drawn, by mouse or keys, the places of both its ends lie over the picture") {
  Window w;
  w.open("demo/wave-tank.harness");
  auto* over = w.find<QWidget>("joining");
  REQUIRE(over);
  CHECK_FALSE(over->isVisible());
  auto& p = w.main.findChild<gui::PictureView*>()->picture();
  const auto at = [&](const char* subject) { return p.placeOf(subject).value().toPoint(); };
  QTest::mousePress(&p, Qt::LeftButton, {}, at("uno.D3"));
  QTest::mouseMove(&p, (at("uno.D3") + at("s1.IN2")) / 2);
  QTest::mouseMove(&p, at("s1.IN2"));
  CHECK(over->isVisible());
  const auto views = over->findChildren<gui::PlaceView*>();
  REQUIRE(views.size() == 2);
  CHECK(ringed(views[0]->drawing()) == std::vector<int>{library().find("board-uno-atmega328p")->indexOf("D3")});
  CHECK(ringed(views[1]->drawing()) == std::vector<int>{library().find("l298n-module")->indexOf("IN2")});
  QTest::mouseRelease(&p, Qt::LeftButton, {}, at("s1.IN2"));
  CHECK_FALSE(over->isVisible());

  w.session.selection.select("uno.D4");
  p.setFocus();
  QTest::keyClick(&p, Qt::Key_Return);
  CHECK(over->isVisible());
  QTest::keyClick(&p, Qt::Key_Down);
  CHECK(over->isVisible());
  QTest::keyClick(&p, Qt::Key_Escape);
  CHECK_FALSE(over->isVisible());
}

TEST_CASE("a part is turned as it lies on the table: kept with the bench, said in the words, taken back by undo") {
  Window w;
  w.open("demo/wave-tank.harness");
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("uno");
  w.find<QPushButton>("aboutPart")->click();
  auto* card = w.find<QDialog>("partCard");
  REQUIRE(card);
  auto* view = card->findChild<gui::PlaceView*>("placeView");
  auto* said = card->findChild<QLabel*>("placeSaid");
  const int d9 = library().find("board-uno-atmega328p")->indexOf("D9");
  const auto press = [&] {
    const auto at = view->placeOf(d9);
    REQUIRE(at);
    QTest::mouseClick(view, Qt::LeftButton, {}, at->toPoint());
  };
  press();
  CHECK(said->text() == "D9: digital 13-8, right, 2nd from the bottom, chip PB1");
  QTest::mouseClick(card->findChild<QPushButton*>("placeTurn"), Qt::LeftButton);
  CHECK(said->text() == "D9: digital 13-8, bottom, 2nd from the left, chip PB1");
  CHECK(w.session.document.harness().device("uno")->lie == places::Lie{1, false});
  QTest::mouseClick(card->findChild<QCheckBox*>("placeBelow"), Qt::LeftButton, {},
                    QPoint(10, card->findChild<QCheckBox*>("placeBelow")->height() / 2));
  CHECK(w.session.document.harness().device("uno")->lie == places::Lie{1, true});
  const auto text = harness::writeHarness(w.session.document.harness());
  const auto again = harness::readHarness(text, "x");
  REQUIRE(again);
  CHECK(again->harness.device("uno")->lie == places::Lie{1, true});
  CHECK(again->problems.empty());
  w.session.document.undoStack().undo();
  w.session.document.undoStack().undo();
  CHECK(w.session.document.harness().device("uno")->lie == places::Lie{});
  CHECK(card->findChild<QLabel*>("placeHold")->text() == "Held: USB up, parts up");
  // Its names in another numbering are this card's own matter.
  auto* names = card->findChild<QComboBox*>("placeNames");
  REQUIRE(names->count() >= 3);
  names->setCurrentIndex(names->findText("by the chip"));
  Q_EMIT names->activated(names->currentIndex());
  bool chip = false;
  for (const auto& s : view->drawing().shapes)
    if (const auto* t = std::get_if<places::Words>(&s)) chip = chip || t->text == "PB1";
  CHECK(chip);
}

TEST_CASE("an order that is only the usual one is drawn where a bench says that it was compared") {
  Window w;
  openBench(w, good("tb6612"));
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("s1");
  w.find<QPushButton>("aboutPart")->click();
  auto* card = w.find<QDialog>("partCard");
  CHECK(card->findChild<QLabel*>("placeOrder")->text().startsWith("This is the usual order, and not certain"));
  w.main.rail().setStep(gui::Step::Wiring);
  w.session.selection.select("s1.PWMA");
  CHECK_FALSE(w.find<gui::PlaceView>("placeOfFirst")->isVisible());
  CHECK(w.find<QLabel>("wordsOfFirst")->text().contains("order not known: look at the print"));
  auto* mine = card->findChild<QPushButton*>("placeMine");
  REQUIRE(mine->isVisible());
  QTest::mouseClick(mine, Qt::LeftButton);
  CHECK(w.session.document.harness().device("s1")->orderSeen);
  CHECK_FALSE(mine->isVisible());
  w.session.selection.select({});
  w.session.selection.select("s1.PWMA");
  CHECK(ringedIn(w, "placeOfFirst", "tb6612fng") == "PWMA");
  CHECK(w.find<QLabel>("wordsOfFirst")->text().contains("left row, 1st from the top"));
}

TEST_CASE("a part of which nobody knows the order is not drawn in one") {
  Window w;
  openBench(w, good("pump-relay"));
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("k1");
  w.find<QPushButton>("aboutPart")->click();
  auto* card = w.find<QDialog>("partCard");
  CHECK(card->findChild<QLabel*>("placeOrder")->text() == "Order not known: look at the print.");
  CHECK_FALSE(card->findChild<gui::PlaceView*>("placeView")->isVisible());
}

TEST_CASE("the whole bench is shown in another numbering of its board") {
  Window w;
  openBench(w, good("array-sbc"));
  auto* menu = w.main.findChild<QMenu*>("numberings");
  REQUIRE(menu);
  std::map<QString, QAction*> by;
  for (auto* a : menu->actions()) by[a->text()] = a;
  CHECK(by.at("as printed")->isChecked());
  by.at("by position")->trigger();
  w.settle();
  CHECK(w.session.document.harness().names == "position");
  w.main.rail().setStep(gui::Step::Wiring);
  w.session.selection.select("sbc.J8-11");
  CHECK(w.find<QLabel>("wordsOfFirst")->text().contains("position 11, chip GPIO17"));
  const auto& bench = w.session.analyser.analysis().solved->bench;
  CHECK(bench.called(bench.terminal({"sbc", "J8-11"})) == "Controller pos 11");
  w.session.document.undoStack().undo();
  CHECK(w.session.document.harness().names.empty());
  CHECK(by.at("as printed")->isChecked());
}

TEST_CASE("every drawing as SVG is read by another reader: as many names and terminals as were drawn, all within its paper") {
  for (const auto& part : library().search("")) {
    if (part->layout.empty()) continue;
    INFO(part->id);
    const auto d = places::drawingOf(*part, {});
    QXmlStreamReader xml(QByteArray::fromStdString(places::svgOf(d, part->name)));
    std::map<QString, int> count;
    double width = 0;
    bool within = true;
    while (!xml.atEnd()) {
      if (xml.readNext() != QXmlStreamReader::StartElement) continue;
      ++count[xml.name().toString()];
      if (xml.name() == QLatin1String("svg")) width = xml.attributes().value("viewBox").toString().split(' ').value(2).toDouble();
      if (xml.name() == QLatin1String("text")) {
        const double x = xml.attributes().value("x").toDouble();
        within = within && x >= 0 && x <= width;
      }
    }
    CHECK_FALSE(xml.hasError());
    std::size_t words = 0;
    for (const auto& s : d.shapes) words += std::holds_alternative<places::Words>(s);
    CHECK(count["text"] == static_cast<int>(words));
    CHECK(within);
    CHECK(count["svg"] == 1);
  }
}
