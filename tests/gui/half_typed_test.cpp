#include "gui/half_typed.h"

#include <QAbstractItemView>
#include <QAbstractSpinBox>
#include <QApplication>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QMessageBox>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <QTreeWidget>
#include <catch2/catch.hpp>
#include <set>

#include "core/parts/own_parts.h"
#include "gui/panels/find_dialog.h"
#include "gui/panels/own_part_dialog.h"
#include "gui/stages/drawer_dialog.h"
#include "gui/stages/stages_panel.h"
#include "gui/steps.h"
#include "gui/sums/sums_dialog.h"
#include "gui/wiring/exchange_dialog.h"
#include "gui/wiring/paste_dialog.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

// What somebody is typing is work: whichever way out is taken, it is taken up, or it is said why it cannot be.
namespace {

// Presses a button of the messages that come up, and keeps their names.
class Answering {
 public:
  explicit Answering(QString button) : m_button(std::move(button)) {
    QObject::connect(&m_look, &QTimer::timeout, [this] { look(); });
    m_look.start(10);
  }
  QStringList names;
  QStringList texts;

 private:
  QString m_button;
  QTimer m_look;

  void look() {
    auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
    if (!box) return;
    names << box->objectName();
    texts << box->text();
    for (auto* b : box->buttons())
      if (b->text().remove('&') == m_button) return b->click();
    box->reject();
  }
};

void open(Window& w) {
  w.open("demo/wave-tank.harness");
  w.main.activateWindow();
}

std::string saved(Window& w) {
  return Disk().read(w.session.file.path().toStdString()).value_or(std::string());
}

// Where the fields of a bench are: a step, and what is picked there.
struct Site {
  gui::Step step;
  QString subject;
};
const std::vector<Site> kSites{{gui::Step::Bench, "paddle"},
                               {gui::Step::Bench, "pump"},
                               {gui::Step::Bench, "carriage"},
                               {gui::Step::Bench, "uno"},
                               {gui::Step::Wiring, "w1"}};

void goTo(Window& w, const Site& site) {
  w.main.rail().setStep(site.step);
  w.session.selection.select(site.subject);
  QApplication::processEvents();
}

bool ofCell(const QWidget* w) {
  for (const auto* p = w->parentWidget(); p; p = p->parentWidget())
    if (qobject_cast<const QAbstractItemView*>(p)) return true;
  return false;
}

// Fields of their own: not those within spin boxes, editable combos and cells.
QList<QLineEdit*> lines(QWidget& window) {
  QList<QLineEdit*> out;
  for (auto* e : window.findChildren<QLineEdit*>())
    if (!qobject_cast<QAbstractSpinBox*>(e->parentWidget()) && !qobject_cast<QComboBox*>(e->parentWidget()) && !ofCell(e)) out << e;
  return out;
}

bool isValue(const QLineEdit& e) {
  return e.property("fieldKind").isValid() && e.property("fieldKind").toInt() == static_cast<int>(gui::FieldKind::Value);
}

// Something that the field can hold, and that it does not hold yet.
QString typable(const QLineEdit& e) {
  const auto name = e.objectName();
  if (name == "deviceName") return "Half typed";
  if (name == "wireLength") return "0.77 m";
  if (name == "initials") return "HT";
  if (name.startsWith("signal-")) return e.text() == "A5" || e.placeholderText() == "A5" ? "A4" : "A5";
  if (name == "number-duty") return "77 %";
  if (name == "number-steps") return "777";
  return name == "number-pulse" ? "7 us" : "777 Hz";
}

void type(QLineEdit& e, const QString& text) {
  e.setFocus();
  e.selectAll();
  QTest::keyClicks(&e, text);
}

struct WayOut {
  const char* name;
  std::function<void(Window&)> take;
};
std::vector<WayOut> waysOut() {
  const auto press = [](const char* text) { return [text](Window& w) { action(w, text)->trigger(); }; };
  return {{"Save", press("Save")},
          {"another step", [](Window& w) { w.main.rail().setStep(gui::Step::Currents); }},
          {"New bench", press("New bench")},
          {"Quit", [](Window& w) { w.main.close(); }},
          {"Copy the report", press("Copy the report")}};
}

}  // namespace

TEST_CASE("every field says what becomes of what is typed there") {
  Window w;
  open(w);
  for (const auto& row : gui::steps()) goTo(w, {row.step, "paddle"});
  for (const auto& site : kSites) goTo(w, site);
  w.main.lookOver();
  w.main.readBack("AB", 7);
  const auto part = parts::copyOf(library(), "l298n-module", "my-part", "My part");
  REQUIRE(part);
  std::vector<QDialog*> dialogs{new gui::OwnPartDialog(w.session, QString::fromStdString(*part), &w.main),
                                new gui::PasteDialog(w.session, "", &w.main), new gui::SumsDialog(w.session, "paddle", &w.main),
                                new gui::ExchangeDialog(w.session, "paddle", &w.main)};
  for (auto* d : dialogs) d->show();
  int values = 0, entries = 0;
  for (auto* e : lines(w.main)) {
    INFO(e->objectName().toStdString() << " in " << (e->parentWidget() ? e->parentWidget()->objectName().toStdString() : ""));
    CHECK(e->property("fieldKind").isValid());
    values += isValue(*e);
  }
  for (auto* e : w.main.findChildren<QPlainTextEdit*>()) {
    INFO(e->objectName().toStdString());
    CHECK((e->isReadOnly() || e->property("fieldKind").isValid()));
    entries += e->property("fieldKind").isValid();
  }
  CHECK(values >= 2);
  CHECK(entries >= 2);
  for (auto* d : dialogs) delete d;
}

TEST_CASE("a value that is half typed is taken up by every way out") {
  std::set<QString> tried;
  for (const auto& way : waysOut()) {
    Window w;
    open(w);
    for (const auto& site : kSites) {
      goTo(w, site);
      QStringList names;
      for (auto* e : lines(w.main))
        if (isValue(*e) && e->isVisible() && e->isEnabled() && e->objectName() != "initials") names << e->objectName();
      for (const auto& name : names) {
        goTo(w, site);
        auto* e = w.find<QLineEdit>(name.toUtf8());
        REQUIRE(e);
        const auto text = typable(*e);
        INFO(way.name << ": " << name.toStdString() << " of " << site.subject.toStdString() << ": " << text.toStdString());
        const auto before = harness::writeHarness(w.session.document.harness());
        type(*e, text);
        REQUIRE(e->isModified());
        REQUIRE(harness::writeHarness(w.session.document.harness()) == before);
        {
          Answering stay("Cancel");  // of unsaved changes: the window and the bench stay
          way.take(w);
          QApplication::processEvents();
        }
        CHECK(harness::writeHarness(w.session.document.harness()) != before);
        if (std::string_view(way.name) == "Save") CHECK(saved(w) == harness::writeHarness(w.session.document.harness()));
        CHECK(w.main.isVisible());
        tried.insert(name);
        w.session.document.undoStack().undo();
        QApplication::processEvents();
        CHECK(harness::writeHarness(w.session.document.harness()) == before);
      }
    }
  }
  CHECK(tried.size() >= 5);
}

TEST_CASE("a cell that is being edited is taken up by every way out") {
  for (const auto& way : waysOut()) {
    Window w;
    open(w);
    goTo(w, {gui::Step::Bench, "paddle"});
    auto* figures = w.find<QTableWidget>("figures");
    REQUIRE(figures);
    const auto before = harness::writeHarness(w.session.document.harness());
    figures->setFocus();
    figures->setCurrentCell(0, 1);
    auto* editor = figures->viewport()->findChild<QLineEdit*>();
    REQUIRE(editor);
    const auto unit = figures->item(0, 1)->text().section(' ', -1);
    INFO(way.name << " " << unit.toStdString());
    editor->selectAll();
    QTest::keyClicks(editor, "7.77 " + unit);
    REQUIRE(harness::writeHarness(w.session.document.harness()) == before);
    {
      Answering stay("Cancel");
      way.take(w);
      QApplication::processEvents();
    }
    CHECK(harness::writeHarness(w.session.document.harness()).find("7.77 ") != std::string::npos);
    if (std::string_view(way.name) == "Save") CHECK(saved(w).find("7.77 ") != std::string::npos);
  }
}

TEST_CASE("what cannot be taken up is said, and nothing goes on without a word") {
  Window w;
  open(w);
  const auto file = saved(w);
  goTo(w, {gui::Step::Wiring, "w1"});
  auto* length = w.find<QLineEdit>("wireLength");
  REQUIRE(length);
  type(*length, "long");
  {
    Answering back("Go back");
    action(w, "Save")->trigger();
    CHECK(back.names == QStringList{"notTakenUp"});
    CHECK(back.texts.front() == "\"long\" cannot be taken as the length of a wire.");
  }
  CHECK(saved(w) == file);
  CHECK(length->text() == "long");
  // A cell likewise.
  type(*length, "0.5 m");
  goTo(w, {gui::Step::Bench, "paddle"});
  auto* figures = w.find<QTableWidget>("figures");
  figures->setCurrentCell(0, 1);
  auto* editor = figures->viewport()->findChild<QLineEdit*>();
  REQUIRE(editor);
  editor->selectAll();
  QTest::keyClicks(editor, "strong");
  {
    Answering on("Go on without it");
    action(w, "Save")->trigger();
    CHECK(on.names == QStringList{"notTakenUp"});
    CHECK(on.texts.front().contains("strong"));
  }
  CHECK(saved(w).find("0.5 m") != std::string::npos);
  CHECK(saved(w).find("strong") == std::string::npos);
}

TEST_CASE("what waits for Enter is told when the bench is saved, and asked about when it would be lost") {
  Window w;
  open(w);
  w.main.rail().setStep(gui::Step::Wiring);
  auto* entry = w.find<QLineEdit>("wireEntry");
  type(*entry, "d12 s1");
  action(w, "Save")->trigger();
  QApplication::processEvents();
  bool told = false;
  for (auto* l : w.main.findChildren<QLabel*>())
    told = told || (l->isVisible() && l->text().contains("typed and not entered: the wire \"d12 s1\""));
  CHECK(told);
  for (const char* way : {"New bench", "Quit"}) {
    INFO(way);
    Answering back("Go back");
    action(w, way)->trigger();
    CHECK(back.names == QStringList{"halfTyped"});
    CHECK(w.main.isVisible());
    CHECK_FALSE(w.session.document.harness().devices.empty());
    CHECK(entry->text() == "d12 s1");
  }
  {
    Answering give("Give it up");
    action(w, "New bench")->trigger();
    CHECK(give.names == QStringList{"halfTyped"});
  }
  CHECK(w.session.document.harness().devices.empty());
}

TEST_CASE("a part that is being made is not lost by closing its dialog or the window") {
  Window w;
  open(w);
  const auto part = parts::copyOf(library(), "l298n-module", "my-half", "My part");
  REQUIRE(part);
  auto* dialog = new gui::OwnPartDialog(w.session, QString::fromStdString(*part), &w.main);
  dialog->show();
  // Untouched it closes.
  CHECK(gui::waitingIn(*dialog).isEmpty());
  auto* figures = dialog->findChild<QTableWidget*>("ownFigures");
  int row = 0;
  while (!(figures->item(row, 1)->flags() & Qt::ItemIsEditable)) ++row;
  figures->editItem(figures->item(row, 1));
  auto* editor = figures->viewport()->findChild<QLineEdit*>();
  REQUIRE(editor);
  const auto unit = figures->item(row, 1)->text().section(' ', -1);
  editor->selectAll();
  QTest::keyClicks(editor, "0.777 " + unit);
  {
    Answering back("Go back");
    dialog->close();
    CHECK(back.names == QStringList{"halfTyped"});
  }
  CHECK(dialog->isVisible());
  CHECK(dialog->findChild<QPlainTextEdit*>("ownText")->toPlainText().contains("0.777"));  // the cell was taken up
  {
    Answering back("Go back");
    w.main.close();
    CHECK(back.names == QStringList{"halfTyped"});
  }
  CHECK(w.main.isVisible());
  Answering give("Give it up");
  dialog->close();
  CHECK_FALSE(dialog->isVisible());
}
