#include "gui/main_window.h"

#include <QApplication>
#include <QCloseEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenuBar>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

#include "core/harness/recipe.h"
#include "gui/file_actions.h"
#include "gui/panels/bench_panel.h"
#include "gui/panels/check_page_dialog.h"
#include "gui/panels/currents_panel.h"
#include "gui/panels/findings_panel.h"
#include "gui/panels/keys_dialog.h"
#include "gui/panels/notice_bar.h"
#include "gui/panels/own_part_dialog.h"
#include "gui/panels/recipe_dialog.h"
#include "gui/panels/start_card.h"
#include "gui/panels/step_rail.h"
#include "gui/panels/verdict_bar.h"
#include "gui/panels/wiring_panel.h"
#include "gui/picture/picture.h"
#include "gui/report_actions.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

constexpr int kSheetBelow = 1200;  // logical px: below it the side panel becomes a sheet over the picture
constexpr int kShortBelow = 900;   // below it the steps are short
constexpr int kSideWidth = 400;

QPushButton* button(const QString& text, const QString& name, QWidget* parent) {
  auto* b = new QPushButton(text, parent);
  b->setObjectName(name);
  return b;
}

}  // namespace

MainWindow::MainWindow(Session& session)
    : m_session(session), m_notices(new NoticeBar), m_files(new FileActions(session, *m_notices, *this)) {
  resize(1280, 800);
  setMinimumSize(800, 500);
  setAcceptDrops(false);
  auto* central = new QWidget(this);
  m_body = new QWidget(central);
  m_body->installEventFilter(this);
  m_rail = new StepRail(m_session, m_body);
  m_picture = new PictureView(m_session, m_body);
  m_start = new StartCard(m_body);
  m_side = new QStackedWidget(m_body);
  m_findings = new FindingsPanel(m_session, m_side);
  m_wiring = new WiringPanel(m_session, m_side);
  m_bench = new BenchPanel(m_session, m_side);
  m_currents = new CurrentsPanel(m_session, m_side);
  m_side->addWidget(m_bench);
  m_side->addWidget(m_wiring);
  m_side->addWidget(m_findings);
  m_side->addWidget(m_currents);
  m_side->setAutoFillBackground(true);
  m_side->setObjectName("side");

  auto* column = new QVBoxLayout(central);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  column->addWidget(buildTop());
  column->addWidget(m_notices);
  column->addWidget(m_body, 1);
  m_status = plainLabel(central);
  m_status->setContentsMargins(14, 5, 14, 5);
  m_status->setAutoFillBackground(true);
  paintStatus();
  m_status->setText(tr("Alt+Down next matter · Ctrl+Enter puts its repair on the plan · Ctrl+K adds a part · Ctrl+L types a wire"));
  column->addWidget(m_status);
  setCentralWidget(central);
  buildMenus();

  connect(m_rail, &StepRail::stepChanged, this, &MainWindow::showStep);
  connect(m_verdict, &VerdictBar::firstMatter, this, [this](const QString& id) {
    m_rail->setStep(Step::Limits);
    m_session.pick(id);
  });
  connect(&m_picture->picture(), &Picture::wireDrawn, this, [this](const QString& a, const QString& b) {
    const auto from = parseAddress(a.toStdString());
    const auto to = parseAddress(b.toStdString());
    if (from && to) m_session.apply(harness::addWire(m_session.harness(), m_session.library(), *from, *to));
  });
  // Emptied is not untouched: what was taken off the bench may still be wanted.
  connect(m_start, &StartCard::demo, this, [this](const QString& name) {
    if (m_files->mayDiscard()) m_session.openDemo(name);
  });
  connect(m_start, &StartCard::file, this, [this](const QString& path) {
    if (m_files->mayDiscard()) m_files->open(path);
  });
  connect(m_start, &StartCard::addPart, this, [this] {
    m_rail->setStep(Step::Bench);
    m_bench->focusSearch();
  });
  connect(&m_session, &Session::documentChanged, this, &MainWindow::arrange);
  m_start->refresh(QSettings().value("recent").toStringList());
  connect(m_findings, &FindingsPanel::explain, this, &MainWindow::showPage);
  connect(&m_session, &Session::pickedChanged, this, [this] {
    if (!m_session.picked().isEmpty()) m_rail->setStep(Step::Limits);
  });
  connect(&m_session, &Session::documentChanged, this, &MainWindow::refreshTitle);
  connect(&m_session.undoStack(), &QUndoStack::cleanChanged, this, &MainWindow::refreshTitle);
  connect(m_files, &FileActions::saved, this, &MainWindow::refreshTitle);
  showStep();
  refreshTitle();
  m_picture->setFocus();
}

QWidget* MainWindow::buildTop() {
  auto* top = new QWidget(this);
  top->setObjectName("top");
  auto* row = new QHBoxLayout(top);
  row->setContentsMargins(16, 8, 12, 8);
  row->setSpacing(12);
  auto* names = new QVBoxLayout;
  names->setSpacing(1);
  m_title = plainLabel(top);
  QFont f = m_title->font();
  f.setPixelSize(17);
  f.setWeight(QFont::DemiBold);
  m_title->setFont(f);
  m_where = plainLabel(top);
  m_where->setForegroundRole(QPalette::PlaceholderText);
  names->addWidget(m_title);
  names->addWidget(m_where);
  row->addLayout(names, 1);
  m_verdict = new VerdictBar(m_session, top);
  row->addWidget(m_verdict, 2);
  m_sheet = new QToolButton(top);
  m_sheet->setObjectName("sheet");
  m_sheet->setText(tr("Panel"));
  m_sheet->setCheckable(true);
  m_sheet->setChecked(true);
  m_sheet->setToolTip(tr("Show or hide the panel over the picture (F9)"));
  connect(m_sheet, &QToolButton::toggled, this, &MainWindow::arrange);
  row->addWidget(m_sheet);
  auto* open = button(tr("Open"), "open", top);
  auto* keep = button(tr("Save"), "save", top);
  auto* undo = button(tr("Undo"), "undo", top);
  connect(open, &QPushButton::clicked, m_files, &FileActions::chooseAndOpen);
  connect(keep, &QPushButton::clicked, this, [this] { m_files->save(false); });
  connect(undo, &QPushButton::clicked, &m_session.undoStack(), &QUndoStack::undo);
  undo->setEnabled(false);
  connect(&m_session.undoStack(), &QUndoStack::canUndoChanged, undo, &QPushButton::setEnabled);
  for (auto* b : {open, keep, undo}) row->addWidget(b);
  return top;
}

void MainWindow::buildMenus() {
  auto* file = menuBar()->addMenu(tr("&File"));
  file->addAction(tr("&New bench"), QKeySequence(tr("Ctrl+N")), this, [this] {
    if (m_files->mayDiscard()) m_session.startEmpty();
  });
  file->addAction(tr("&Open…"), QKeySequence::Open, m_files, &FileActions::chooseAndOpen);
  auto* recent = file->addMenu(tr("Open &recent"));
  connect(recent, &QMenu::aboutToShow, m_files, [this, recent] { m_files->fillRecent(*recent); });
  auto* demos = file->addMenu(tr("Open a &demo bench"));
  for (const auto& [title, name] : {std::pair{tr("The wave tank, ready to switch on"), "wave-tank.harness"},
                                    std::pair{tr("The wave tank, as somebody wired it first"), "wave-tank-first-try.harness"}})
    demos->addAction(title, this, [this, file = QString(name)] {
      if (m_files->mayDiscard()) m_session.openDemo(file);
    });
  file->addSeparator();
  file->addAction(tr("&Save"), QKeySequence::Save, this, [this] { m_files->save(false); });
  file->addAction(tr("Save &as…"), QKeySequence(tr("Ctrl+Shift+S")), this, [this] { m_files->save(true); });
  file->addAction(tr("&Print the report…"), QKeySequence(tr("Ctrl+P")), this, [this] { printReport(m_session, this); });
  file->addSeparator();
  file->addAction(tr("&Quit"), QKeySequence(tr("Ctrl+Q")), this, &QWidget::close);

  auto* edit = menuBar()->addMenu(tr("&Edit"));
  auto* undo = m_session.undoStack().createUndoAction(this, tr("Undo"));
  undo->setShortcut(QKeySequence::Undo);
  auto* redo = m_session.undoStack().createRedoAction(this, tr("Redo"));
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
  edit->addAction(tr("&Import a part…"), this, &MainWindow::importPart);
  edit->addAction(tr("Low-side &switch for a motor…"), this, &MainWindow::lowSideSwitch);
  edit->addAction(tr("&Delete what is picked"), QKeySequence(tr("Ctrl+Backspace")), this, [this] {
    if (m_session.harness().connection(m_session.selection().toStdString()))
      m_wiring->removeSelected();
    else
      m_bench->removeSelected();
  });
  edit->addSeparator();
  edit->addAction(tr("Put the picked &repair on the plan"), QKeySequence(tr("Ctrl+Return")), m_findings, &FindingsPanel::repairPicked);
  edit->addAction(tr("&Copy the report"), QKeySequence(tr("Ctrl+Shift+C")), this, [this] { copyReport(m_session); });
  edit->addAction(tr("The picked change is d&one"), QKeySequence(tr("Ctrl+D")), m_wiring, &WiringPanel::markSelectedDone);
  edit->addAction(tr("&All planned changes are done"), this, [this] { m_session.apply(harness::markAllDone(m_session.harness())); });

  auto* view = menuBar()->addMenu(tr("&View"));
  view->addAction(tr("&Bench"), QKeySequence(tr("Ctrl+1")), this, [this] { m_rail->setStep(Step::Bench); });
  view->addAction(tr("&Wiring"), QKeySequence(tr("Ctrl+2")), this, [this] { m_rail->setStep(Step::Wiring); });
  view->addAction(tr("&Limits"), QKeySequence(tr("Ctrl+3")), this, [this] { m_rail->setStep(Step::Limits); });
  view->addAction(tr("&Currents"), QKeySequence(tr("Ctrl+4")), this, [this] { m_rail->setStep(Step::Currents); });
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
  view->addAction(tr("Show or hide the &panel"), QKeySequence(tr("F9")), m_sheet, &QToolButton::toggle);
  view->addSeparator();
  view->addAction(tr("L&ight"), this, [this] { setTheme("light"); });
  view->addAction(tr("&Dark"), this, [this] { setTheme("dark"); });

  auto* help = menuBar()->addMenu(tr("&Help"));
  help->addAction(tr("&Keys"), QKeySequence(tr("F1")), this, [this] { (new KeysDialog(*menuBar(), this))->show(); });
  help->addAction(tr("&About Bold Harness"), this, &MainWindow::about);
}

void MainWindow::paintStatus() {
  auto back = m_status->palette();
  back.setColor(QPalette::Window, gui::palette().rail);
  back.setColor(QPalette::WindowText, gui::palette().inkSoft);
  m_status->setPalette(back);
}

// Colours are looked up when things are painted or filled: fill everything once more.
void MainWindow::setTheme(const QString& name) {
  QSettings().setValue("theme", name);
  applyTheme(*qApp, name == "dark" ? Theme::Dark : Theme::Light);
  paintStatus();
  Q_EMIT m_session.documentChanged();
  Q_EMIT m_session.analysisChanged();
}

bool MainWindow::eventFilter(QObject* watched, QEvent* event) {
  if (watched == m_body && event->type() == QEvent::Resize) arrange();
  return QMainWindow::eventFilter(watched, event);
}

// Rail, picture and panel side by side; where that leaves too little picture, the panel lies over it.
void MainWindow::arrange() {
  m_narrow = width() < kSheetBelow;
  m_rail->setNarrow(width() < kShortBelow);
  m_sheet->setVisible(m_narrow);
  const int rail = m_rail->width();
  const int h = m_body->height();
  const int side = std::min(kSideWidth, m_body->width() - rail - 60);
  const bool shown = !m_narrow || m_sheet->isChecked();
  m_rail->setGeometry(0, 0, rail, h);
  m_picture->setGeometry(rail, 0, m_body->width() - rail - (m_narrow ? 0 : side), h);
  m_side->setVisible(shown);
  m_side->setGeometry(m_body->width() - side, 0, side, h);
  m_side->raise();
  m_start->setVisible(m_session.harness().devices.empty());
  m_start->move(m_picture->x() + std::max(8, (m_picture->width() - m_start->width()) / 2), std::max(8, (h - m_start->height()) / 3));
}

void MainWindow::showStep() {
  m_side->setCurrentIndex(static_cast<int>(m_rail->step()));
  m_picture->picture().showCurrents(m_rail->step() == Step::Currents);
  if (m_narrow && !m_sheet->isChecked()) m_sheet->setChecked(true);
  arrange();
}

void MainWindow::refreshTitle() {
  const auto& h = m_session.harness();
  const auto file = m_session.path().isEmpty() ? tr("not saved yet") : QFileInfo(m_session.path()).fileName();
  const auto title = h.title.empty() ? (m_session.path().isEmpty() ? tr("New bench") : QFileInfo(m_session.path()).completeBaseName())
                                     : QString::fromStdString(h.title);
  const bool changed = !m_session.undoStack().isClean();
  m_title->setText(title);
  m_where->setText(m_session.readOnly() ? tr("%1 · read only").arg(file) : changed ? tr("%1 · changed").arg(file) : file);
  setWindowTitle(tr("%1%2 – Bold Harness").arg(title, changed ? "*" : ""));
}

void MainWindow::openFile(const QString& path) {
  m_files->open(path);
}

void MainWindow::offerRecovery() {
  m_files->offerRecovery();
}

void MainWindow::showPage(const QString& check) {
  (new CheckPageDialog(m_session, check, this))->show();
}

void MainWindow::about() {
  QMessageBox::about(
      this, tr("About Bold Harness"),
      tr("<p><b>Bold Harness %1</b></p><p>Looks a motor bench over before power-up: controller, driver stages, motors, supplies and "
         "every wire between them.</p><p>It judges direct-current benches up to 60 V from the wires and parts you enter. It does not see "
         "your bench: "
         "a wire that is not as drawn, a damaged part or a figure that is wrong stays unseen. Most figures are recalled and not re-read "
         "from "
         "data sheets; each says so. It does not replace a fuse, a current limit, or a second pair of eyes.</p><p>Free software under the "
         "GNU General "
         "Public License, version 3 or later. No warranty.</p>")
          .arg(QApplication::applicationVersion()));
}

void MainWindow::lowSideSwitch() {
  RecipeDialog dialog(m_session, this);
  if (dialog.exec() == QDialog::Accepted) m_session.apply(dialog.edit());
}

// Looked over and named in the dialog before it is kept.
void MainWindow::importPart() {
  const auto path = QFileDialog::getOpenFileName(this, tr("Import a part"), QString(), tr("Parts (*.json);;All files (*)"));
  if (path.isEmpty()) return;
  Disk disk;
  const auto text = disk.read(path.toStdString());
  if (!text) {
    Q_EMIT m_session.problems({QString::fromStdString(bold::text(text.error()))});
    return;
  }
  (new OwnPartDialog(m_session, QString::fromStdString(*text), this))->show();
}

void MainWindow::closeEvent(QCloseEvent* e) {
  if (m_files->mayDiscard())
    e->accept();
  else
    e->ignore();
}

}  // namespace bold::gui
