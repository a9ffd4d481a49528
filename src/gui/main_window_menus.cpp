#include <QActionGroup>
#include <QClipboard>
#include <QCoreApplication>
#include <QGuiApplication>
#include <QMenu>
#include <QMenuBar>
#include <QToolButton>

#include "core/harness/mark_done.h"
#include "core/parts/roles.h"
#include "core/places/numbering.h"
#include "gui/export_actions.h"
#include "gui/file_actions.h"
#include "gui/main_window.h"
#include "gui/panels/about_dialog.h"
#include "gui/panels/bench_panel.h"
#include "gui/panels/currents_panel.h"
#include "gui/panels/find_dialog.h"
#include "gui/panels/findings_panel.h"
#include "gui/panels/keys_dialog.h"
#include "gui/panels/step_rail.h"
#include "gui/picture/picture_view.h"
#include "gui/places/numbering_words.h"
#include "gui/program/program_panel.h"
#include "gui/report_actions.h"
#include "gui/session/session.h"
#include "gui/stages/pins_dialog.h"
#include "gui/stages/stages_panel.h"
#include "gui/steps.h"
#include "gui/wiring/paste_dialog.h"
#include "gui/wiring/wiring_panel.h"

namespace bold::gui {

void MainWindow::buildMenus() {
  buildFileMenu();
  buildEditMenu();
  buildViewMenu();
  auto* help = menuBar()->addMenu(tr("&Help"));
  help->addAction(tr("&Keys"), QKeySequence(tr("F1")), this, [this] { (new KeysDialog(*menuBar(), this))->show(); });
  help->addAction(tr("&About Bold Harness"), this, [this] { (new AboutDialog(this))->show(); });
}

void MainWindow::buildFileMenu() {
  auto* file = menuBar()->addMenu(tr("&File"));
  file->addAction(tr("&New bench"), QKeySequence(tr("Ctrl+N")), this, [this] {
    if (m_files->mayDiscard()) m_session.file.startEmpty();
  });
  file->addAction(tr("&Open…"), QKeySequence::Open, m_files, &FileActions::chooseAndOpen);
  auto* recent = file->addMenu(tr("Open &recent"));
  connect(recent, &QMenu::aboutToShow, m_files, [this, recent] { m_files->fillRecent(*recent); });
  auto* demos = file->addMenu(tr("Open a &demo bench"));
  for (const auto& [title, name] : {std::pair{tr("The wave tank, ready to switch on"), "wave-tank.harness"},
                                    std::pair{tr("The wave tank, as somebody wired it first"), "wave-tank-first-try.harness"}})
    demos->addAction(title, this, [this, file = QString(name)] {
      if (m_files->mayDiscard()) m_session.file.openDemo(file);
    });
  file->addSeparator();
  file->addAction(tr("&Save"), QKeySequence::Save, this, [this] { m_files->save(false); });
  file->addAction(tr("Save &as…"), QKeySequence(tr("Ctrl+Shift+S")), this, [this] { m_files->save(true); });
  file->addAction(tr("&Export…"), QKeySequence(tr("Ctrl+Shift+E")), this, [this] {
    if (mayTell()) m_exporter->choose();
  });
  file->addAction(tr("&Compare with another bench…"), QKeySequence(tr("Ctrl+Shift+D")), this, &MainWindow::compareWith);
  file->addAction(tr("&Print the report…"), QKeySequence(tr("Ctrl+P")), this, [this] {
    if (mayTell()) printReport(m_session, this);
  });
  file->addSeparator();
  file->addAction(tr("&Quit"), QKeySequence(tr("Ctrl+Q")), this, &QWidget::close);
}

void MainWindow::buildEditMenu() {
  auto* edit = menuBar()->addMenu(tr("&Edit"));
  auto* undo = m_session.document.undoStack().createUndoAction(this, tr("Undo"));
  undo->setShortcut(QKeySequence::Undo);
  auto* redo = m_session.document.undoStack().createRedoAction(this, tr("Redo"));
  redo->setShortcuts({QKeySequence(tr("Ctrl+Shift+Z")), QKeySequence(tr("Ctrl+Y"))});
  edit->addAction(undo);
  edit->addAction(redo);
  edit->addSeparator();
  edit->addAction(tr("Add a &part"), QKeySequence(tr("Ctrl+K")), this, [this] {
    m_rail->setStep(Step::Bench);
    m_bench->focusSearch();
  });
  edit->addAction(tr("Type a &wire"), QKeySequence(tr("Ctrl+L")), this, [this] {
    m_rail->setStep(Step::Wiring);
    m_wiring->focusEntry();
  });
  edit->addAction(tr("Paste a wire &list…"), QKeySequence(tr("Ctrl+Shift+V")), this,
                  [this] { (new PasteDialog(m_session, QGuiApplication::clipboard()->text(), this))->show(); });
  edit->addAction(tr("E&xchange the picked part…"), QKeySequence(tr("Ctrl+E")), this, &MainWindow::exchangePicked);
  edit->addAction(tr("Ano&ther one like the picked part"), QKeySequence(tr("Ctrl+T")), this, &MainWindow::duplicatePicked);
  edit->addAction(tr("Look the wires o&ver"), QKeySequence(tr("Ctrl+R")), this, &MainWindow::lookOver);
  edit->addAction(tr("Read the wirin&g back…"), QKeySequence(tr("Ctrl+B")), this, [this] { readBack(); });
  edit->addAction(tr("&Find on this bench"), QKeySequence(tr("Ctrl+F")), m_find, &FindDialog::begin);
  edit->addAction(tr("State the pins as they are wire&d"), QKeySequence(tr("Ctrl+U")), this, &MainWindow::stateAsWired);
  edit->addAction(tr("&Import a part…"), this, &MainWindow::importPart);
  edit->addAction(tr("C&hoose a stage for a motor"), QKeySequence(tr("Ctrl+G")), this, &MainWindow::chooseStage);
  edit->addAction(tr("Find pi&ns for signals…"), QKeySequence(tr("Ctrl+J")), this, [this] { (new PinsDialog(m_session, this))->show(); });
  edit->addAction(tr("Read a program's s&ources…"), QKeySequence(tr("Ctrl+Shift+R")), this, [this] {
    m_rail->setStep(Step::Program);
    m_program->choose();
  });
  edit->addAction(tr("Su&ms for a motor…"), QKeySequence(tr("Ctrl+M")), this, &MainWindow::showSums);
  auto* drop = edit->addAction(tr("&Delete what is picked"), this, &MainWindow::deletePicked);
  drop->setShortcuts({QKeySequence(tr("Delete")), QKeySequence(tr("Ctrl+Backspace"))});
  edit->addSeparator();
  edit->addAction(tr("Put the picked &repair or stage on the plan"), QKeySequence(tr("Ctrl+Return")), this, [this] {
    if (m_rail->step() == Step::Stages)
      m_stages->putCurrent();
    else
      m_findings->repairPicked();
  });
  edit->addAction(tr("&Copy the report"), QKeySequence(tr("Ctrl+Shift+C")), this, [this] {
    if (mayTell()) copyReport(m_session);
  });
  edit->addAction(tr("The picked change is d&one"), QKeySequence(tr("Ctrl+D")), m_wiring, &WiringPanel::markSelectedDone);
  edit->addAction(tr("&All planned changes are done"), this,
                  [this] { m_session.document.apply(harness::markAllDone(m_session.document.harness())); });
}

void MainWindow::buildViewMenu() {
  auto* view = menuBar()->addMenu(tr("&View"));
  for (const auto& row : steps())
    view->addAction(QCoreApplication::translate("bold::gui::StepRail", row.name), QKeySequence(row.key()), this,
                    [this, step = row.step] { m_rail->setStep(step); });
  view->addAction(tr("Ne&xt command"), QKeySequence(tr("Alt+Right")), this, [this] {
    m_rail->setStep(Step::Currents);
    m_currents->step(1);
  });
  view->addAction(tr("Previ&ous command"), QKeySequence(tr("Alt+Left")), this, [this] {
    m_rail->setStep(Step::Currents);
    m_currents->step(-1);
  });
  view->addSeparator();
  view->addAction(tr("&Next matter"), QKeySequence(tr("Alt+Down")), this, [this] {
    m_rail->setStep(Step::Limits);
    m_findings->step(1);
  });
  view->addAction(tr("&Previous matter"), QKeySequence(tr("Alt+Up")), this, [this] {
    m_rail->setStep(Step::Limits);
    m_findings->step(-1);
  });
  view->addAction(tr("Zoom &in"), QKeySequence(tr("Ctrl++")), this, [this] { m_picture->zoomBy(1.15); });
  view->addAction(tr("Zoom o&ut"), QKeySequence(tr("Ctrl+-")), this, [this] { m_picture->zoomBy(1 / 1.15); });
  view->addAction(tr("&Fit the whole picture"), QKeySequence(tr("Ctrl+0")), m_picture, &PictureView::fitAll);
  view->addAction(tr("Fit what is pi&cked"), QKeySequence(tr("Ctrl+9")), m_picture, &PictureView::fitPicked);
  view->addAction(tr("U&sual size"), QKeySequence(tr("Ctrl+8")), m_picture, &PictureView::usualSize);
  view->addSeparator();
  auto* conceal = view->addAction(tr("&Hide what is found until it is named"));
  conceal->setCheckable(true);
  conceal->setChecked(m_session.concealment.chosen());
  conceal->setShortcut(QKeySequence(tr("Ctrl+H")));
  connect(conceal, &QAction::triggered, &m_session.concealment, &Concealment::choose);
  buildNumberings(*view->addMenu(tr("Pins are &called")));
  view->addAction(tr("Show or hide the &panel"), QKeySequence(tr("F9")), m_sheet, &QToolButton::toggle);
  view->addSeparator();
  view->addAction(tr("L&ight"), this, [this] { setTheme("light"); });
  view->addAction(tr("&Dark"), this, [this] { setTheme("dark"); });
}

// The numberings that the controllers of the bench have; all others cannot be chosen.
void MainWindow::buildNumberings(QMenu& menu) {
  menu.setObjectName("numberings");
  auto* group = new QActionGroup(&menu);
  for (const auto n : {places::Numbering::Printed, places::Numbering::Position, places::Numbering::Chip, places::Numbering::Program,
                       places::Numbering::Function}) {
    auto* action = menu.addAction(numberingWords(n));
    action->setCheckable(true);
    action->setData(static_cast<int>(n));
    group->addAction(action);
    connect(action, &QAction::triggered, this, [this, n] {
      const auto names = n == places::Numbering::Printed ? std::string() : std::string(places::word(n));
      if (names != m_session.document.harness().names)
        m_session.document.apply({"Call the pins " + numberingWords(n).toStdString(), {harness::SetNames{names}}});
    });
  }
  const auto refresh = [this, group] {
    const auto& h = m_session.document.harness();
    std::set<places::Numbering> known{places::Numbering::Printed};
    for (const auto& d : h.devices)
      if (const auto part = m_session.document.library().find(d.part); part && parts::isController(*part))
        for (const auto n : places::numberingsOf(*part)) known.insert(n);
    const auto now = places::numberingNamed(h.names).value_or(places::Numbering::Printed);
    for (auto* a : group->actions()) {
      const auto n = static_cast<places::Numbering>(a->data().toInt());
      a->setEnabled(known.contains(n) && !m_session.document.readOnly());
      a->setChecked(n == now);
    }
  };
  connect(&m_session.document, &Document::changed, group, refresh);
  refresh();
}

}  // namespace bold::gui
