#include <QClipboard>
#include <QDialog>
#include <QGuiApplication>
#include <QLabel>
#include <QMenuBar>
#include <QPdfWriter>
#include <QPlainTextEdit>
#include <QTableWidget>
#include <QTextBrowser>
#include <catch2/catch.hpp>
#include <filesystem>

#include "core/base/embedded.h"
#include "core/base/markup.h"
#include "core/report/report.h"
#include "gui/report_actions.h"
#include "window.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("the key list holds every key of the menus, and no key is taken twice") {
  Window w;
  action(w, "Keys")->trigger();
  const auto* table = w.find<QTableWidget>("keyTable");
  REQUIRE(table);
  QStringList listed;
  for (int i = 0; i < table->rowCount(); ++i) listed << table->item(i, 0)->text() + " " + table->item(i, 1)->text();
  std::set<QString> taken;
  int keys = 0;
  for (auto* a : w.main.findChildren<QAction*>())
    for (const auto& k : a->shortcuts()) {
      if (k.isEmpty()) continue;
      ++keys;
      INFO(k.toString().toStdString());
      CHECK(taken.insert(k.toString()).second);
      CHECK_FALSE(listed.filter(k.toString(QKeySequence::NativeText)).isEmpty());
    }
  CHECK(keys > 20);
  CHECK(action(w, "Quit")->shortcut().toString() == "Ctrl+Q");
}

TEST_CASE("unknown figures say how they are measured, known ones when they are looked at") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  w.main.rail().setStep(gui::Step::Bench);
  w.session.selection.select("s2");  // its reference was never measured
  auto* how = w.find<QLabel>("howToMeasure");
  REQUIRE(how);
  CHECK(how->isVisible());
  CHECK(how->text().contains("is unknown. To measure: voltmeter from the trimmer's wiper"));
  w.session.selection.select("paddle");
  how = w.find<QLabel>("howToMeasure");
  auto* figures = w.find<QTableWidget>("figures");
  REQUIRE(figures);
  for (int i = 0; i < figures->rowCount(); ++i)
    if (figures->item(i, 0)->data(Qt::UserRole).toString() == "winding") figures->setCurrentCell(i, 1);
  CHECK(how->text().contains("shaft turned to three positions"));
}

TEST_CASE("the page of a check ends with this bench's numbers") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  for (const auto& f : w.session.analyser.analysis().findings)
    if (f.check == "base-drive") w.session.selection.pick(QString::fromStdString(f.identity()));
  for (auto* b : w.main.findChildren<QPushButton*>())
    if (b->isVisible() && b->text() == "About this check") b->click();
  auto* page = w.find<QDialog>("page");
  REQUIRE(page);
  const auto text = page->findChild<QTextBrowser*>()->toPlainText();
  CHECK(text.contains("Why it matters"));
  CHECK(text.contains("On this bench"));
  CHECK(text.contains("8.74 mA x 40 / 600 mA = 0.58"));
}

TEST_CASE("the report goes onto the clipboard and onto paper") {
  Window w;
  w.open("demo/wave-tank-first-try.harness");
  action(w, "Copy the report")->trigger();
  const auto copied = QGuiApplication::clipboard()->text();
  CHECK(copied.toStdString() == report::text("bench.harness", w.session.document.harness(), w.session.analyser.analysis()));
  CHECK(copied.contains("Q1 gets 8.74 mA of base current"));
  const auto path = w.folder.path("report.pdf");
  {
    QPdfWriter pdf(QString::fromStdString(path));
    gui::paintReport(w.session, pdf);
  }
  CHECK(std::filesystem::file_size(path) > 5000);
  CHECK(Disk().read(path)->starts_with("%PDF"));
}

TEST_CASE("the printed report has every finding, every repair and the plan to tick off") {
  auto h = wiredBench(readFile("demo/wave-tank-first-try.bench"));
  auto a = analyse(h, library());
  const auto repair = std::ranges::find_if(a.findings, [](const auto& f) { return f.repair.has_value(); });
  REQUIRE(repair != a.findings.end());
  harness::apply(h, repair->repair->edit);
  a = analyse(h, library());
  const auto html = report::html("a<b.harness", h, a);
  for (const auto& f : a.findings) {
    CHECK(html.find(markupText(f.headline)) != std::string::npos);
  }
  CHECK(html.find("a&lt;b.harness") != std::string::npos);
  CHECK(html.find("<h2>To make on the bench</h2>") != std::string::npos);
  CHECK(html.find("&#9744; <b>To do:</b>") != std::string::npos);
}

TEST_CASE("Help > About holds the licence of everything that is compiled in") {
  Window w;
  action(w, "About Bold Harness")->trigger();
  auto* about = w.main.findChild<QDialog*>("about");
  REQUIRE(about);
  CHECK(about->isVisible());
  const auto text = about->findChild<QPlainTextEdit*>("licences")->toPlainText();
  REQUIRE(embedded::licences().size() >= 8);
  for (const auto& l : embedded::licences()) {
    INFO(l.path);
    CHECK(text.contains(QString::fromUtf8(l.text.data(), static_cast<qsizetype>(l.text.size())).trimmed()));
  }
  for (const char* name : {"CLI11", "JSON for Modern C++", "Eigen", "expected", "tree-sitter-cpp"}) CHECK(text.contains(name));
}
