#include "gui/main_window.h"

#include <QApplication>
#include <QClipboard>
#include <QCloseEvent>
#include <QDragEnterEvent>
#include <QDropEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QPushButton>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QToolButton>
#include <QToolTip>
#include <QVBoxLayout>

#include "core/checks/wired_signals.h"
#include "core/harness/document_file.h"
#include "core/harness/exchange_part.h"
#include "core/harness/mark_done.h"
#include "core/harness/overlaid.h"
#include "core/parts/roles.h"
#include "gui/export_actions.h"
#include "gui/file_actions.h"
#include "gui/half_typed.h"
#include "gui/panels/bench_panel.h"
#include "gui/panels/check_page_dialog.h"
#include "gui/panels/currents_panel.h"
#include "gui/panels/find_dialog.h"
#include "gui/panels/findings_panel.h"
#include "gui/panels/keys_dialog.h"
#include "gui/panels/notice_bar.h"
#include "gui/panels/own_part_dialog.h"
#include "gui/panels/start_card.h"
#include "gui/panels/step_rail.h"
#include "gui/panels/verdict_bar.h"
#include "gui/picture/picture_view.h"
#include "gui/places/ends_view.h"
#include "gui/program/program_panel.h"
#include "gui/report_actions.h"
#include "gui/session/session.h"
#include "gui/stages/stages_panel.h"
#include "gui/subject_menu.h"
#include "gui/sums/sums_dialog.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"
#include "gui/wiring/compare_dialog.h"
#include "gui/wiring/exchange_dialog.h"
#include "gui/wiring/read_back_view.h"
#include "gui/wiring/wiring_panel.h"

namespace bold::gui {
namespace {

constexpr int kSheetBelow = 1200;  // logical px: below it the side panel becomes a sheet over the picture
constexpr int kShortBelow = 900;   // below it the steps are short
constexpr int kUsualSide = 400;
constexpr int kLeastPicture = 240;      // px beside a wide panel
constexpr QSize kUsualSize{1280, 756};  // with its frame it fits a screen of 800 px

QPushButton* button(const QString& text, const QString& name, QWidget* parent) {
  auto* b = new QPushButton(text, parent);
  b->setObjectName(name);
  return b;
}

}  // namespace

MainWindow::MainWindow(Session& session)
    : m_session(session),
      m_notices(new NoticeBar),
      m_files(new FileActions(session, *m_notices, *this)),
      m_exporter(new Exporter(session, *this)) {
  resize(kUsualSize);
  setMinimumSize(800, 500);
  setAcceptDrops(true);
  auto* central = new QWidget(this);
  m_body = new QWidget(central);
  m_body->installEventFilter(this);
  m_rail = new StepRail(m_session, m_body);
  m_picture = new PictureView(m_session, m_body);
  m_joining = new EndsView(m_session, m_body);
  m_joining->setObjectName("joining");
  m_joining->setAutoFillBackground(true);
  m_joining->setContentsMargins(10, 8, 10, 8);
  m_start = new StartCard(m_body);
  m_side = new QStackedWidget(m_body);
  for (const auto& row : steps()) m_side->addWidget(row.panel(m_session, m_side));
  m_bench = m_side->findChild<BenchPanel*>();
  m_wiring = m_side->findChild<WiringPanel*>();
  m_findings = m_side->findChild<FindingsPanel*>();
  m_currents = m_side->findChild<CurrentsPanel*>();
  m_stages = m_side->findChild<StagesPanel*>();
  m_program = m_side->findChild<ProgramPanel*>();
  m_side->setAutoFillBackground(true);
  m_side->setObjectName("side");

  auto* column = new QVBoxLayout(central);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  column->addWidget(m_top = buildTop());
  column->addWidget(m_notices);
  column->addWidget(m_body, 1);
  m_readBack = new ReadBackView(m_session, central);
  m_readBack->hide();
  column->addWidget(m_readBack, 1);
  m_status = plainLabel(central);
  m_status->setContentsMargins(14, 5, 14, 5);
  m_status->setAutoFillBackground(true);
  paintStatus();
  m_usually = tr("Alt+Down next matter · Ctrl+Enter puts its repair on the plan · Ctrl+K adds a part · Ctrl+L types a wire · F1 all keys");
  m_status->setText(m_usually);
  column->addWidget(m_status);
  setCentralWidget(central);
  m_find = new FindDialog(m_session, this);
  buildMenus();

  connectPanels();
  m_start->refresh(QSettings().value("recent").toStringList());
  showStep();
  refreshTitle();
  m_picture->setFocus();
}

void MainWindow::connectPanels() {
  connect(m_rail, &StepRail::stepChanged, this, &MainWindow::showStep);
  connect(m_verdict, &VerdictBar::firstMatter, this, [this](const QString& id) {
    m_rail->setStep(Step::Limits);
    m_session.selection.pick(id);
  });
  auto& picture = m_picture->picture();
  connect(&picture, &Picture::wireDrawn, m_wiring, &WiringPanel::join);
  connect(&picture, &Picture::endDrawn, m_wiring, &WiringPanel::moveEnd);
  connect(&picture, &Picture::joining, this, [this](const QString& from, const QString& to) {
    m_joining->show(from, to);
    arrange();
  });
  connect(&picture, &Picture::menuWanted, this,
          [this](const QString& subject, const QPoint& at) { showSubjectMenu(m_session, subject, at, this); });
  connect(&picture, &Picture::litChanged, this, [this](const QString& what) {
    m_status->setText(what.isEmpty() ? m_usually : tr("Lit: %1. Escape in the picture lights everything.").arg(what));
  });
  connect(&m_session.selection, &Selection::stageWanted, this, [this](const QString& motor) { showStages(motor.toStdString()); });
  connect(m_stages, &StagesPanel::loomChanged, this, &MainWindow::showGhost);
  connect(m_stages, &StagesPanel::placed, this, [this] { m_rail->setStep(Step::Wiring); });
  connect(m_wiring, &WiringPanel::refused, m_status, &QLabel::setText);
  connect(m_program, &ProgramPanel::refused, m_status, &QLabel::setText);
  connect(m_wiring, &WiringPanel::readBackWanted, this, [this] { readBack(); });
  connect(m_readBack, &ReadBackView::closed, this, [this] { showOnlyReadBack(false); });
  connect(m_readBack, &ReadBackView::wireWanted, this, [this](const QString& id) {
    showOnlyReadBack(false);
    lookOver();
    m_session.selection.select(id);
  });
  // Emptied is not untouched: what was taken off the bench may still be wanted.
  connect(m_start, &StartCard::demo, this, [this](const QString& name) {
    if (m_files->mayDiscard()) m_session.file.openDemo(name);
  });
  connect(m_start, &StartCard::file, this, [this](const QString& path) {
    if (m_files->mayDiscard()) m_files->open(path);
  });
  connect(m_start, &StartCard::addPart, this, [this] {
    m_rail->setStep(Step::Bench);
    m_bench->focusSearch();
  });
  connect(&m_session.document, &Document::changed, this, &MainWindow::arrange);
  // What was opened is looked at first by its limits; an empty bench is filled.
  connect(&m_session.document, &Document::replaced, this,
          [this] { m_rail->setStep(m_session.document.harness().devices.empty() ? Step::Bench : Step::Limits); });
  connect(&m_session.selection, &Selection::fieldWanted, this, &MainWindow::goTo);
  connect(m_findings, &FindingsPanel::explain, this, &MainWindow::showPage);
  connect(&m_session.selection, &Selection::pickedChanged, this, [this] {
    if (!m_session.selection.picked().isEmpty()) m_rail->setStep(Step::Limits);
  });
  // What was found is what the next key is about.
  connect(m_find, &FindDialog::wireFound, this, [this] {
    m_rail->setStep(Step::Wiring);
    m_picture->setFocus();
  });
  connect(m_find, &FindDialog::placeFound, this, [this] {
    if (m_session.document.harness().device(m_session.selection.subject().toStdString())) m_rail->setStep(Step::Bench);
    m_picture->setFocus();
  });
  connect(&m_session.document, &Document::changed, this, &MainWindow::refreshTitle);
  connect(&m_session.document, &Document::marked, this, &MainWindow::refreshTitle);
  connect(&m_session.document.undoStack(), &QUndoStack::cleanChanged, this, &MainWindow::refreshTitle);
  connect(m_files, &FileActions::saved, this, &MainWindow::refreshTitle);
  connect(m_exporter, &Exporter::said, m_status, &QLabel::setText);
  connect(m_exporter, &Exporter::done, this, [this](const QString& why) {
    if (!why.isEmpty()) tell(this, tr("Nothing was written"), why);
  });
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
  connect(undo, &QPushButton::clicked, &m_session.document.undoStack(), &QUndoStack::undo);
  undo->setEnabled(false);
  connect(&m_session.document.undoStack(), &QUndoStack::canUndoChanged, undo, &QPushButton::setEnabled);
  for (auto* b : {open, keep, undo}) row->addWidget(b);
  return top;
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
  Q_EMIT m_session.document.changed();
}

bool MainWindow::eventFilter(QObject* watched, QEvent* event) {
  if (watched == m_body && event->type() == QEvent::Resize) arrange();
  return QMainWindow::eventFilter(watched, event);
}

// Rail, picture and panel side by side; where that leaves too little picture, the panel can be put away. Nothing of the picture lies
// behind it: what a finding speaks of can always be scrolled into view.
void MainWindow::arrange() {
  m_narrow = width() < kSheetBelow;
  m_rail->setNarrow(width() < kShortBelow);
  m_sheet->setVisible(m_narrow && m_rail->step() != Step::Stages);
  const int rail = m_rail->width();
  const int h = m_body->height();
  const bool whole = m_rail->step() == Step::Stages && m_stages->wide();
  const int wanted =
      std::max(kUsualSide, std::min(steps()[static_cast<std::size_t>(m_rail->step())].side, m_body->width() - rail - kLeastPicture));
  const int side = whole ? m_body->width() - rail : std::min(wanted, m_body->width() - rail - 60);
  const bool shown = !m_narrow || m_sheet->isChecked() || m_rail->step() == Step::Stages;
  m_rail->setGeometry(0, 0, rail, h);
  m_picture->setGeometry(rail, 0, m_body->width() - rail - (shown ? side : 0), h);
  m_side->setVisible(shown);
  m_side->setGeometry(m_body->width() - side, 0, side, h);
  m_side->raise();
  // Beside the picture, of which any terminal may be where the wire goes; over it only where nothing is beside it.
  const int wide = shown ? side : std::min(kUsualSide, m_picture->width() - 24);
  const int tall = shown ? h : std::min(m_joining->sizeHint().height(), h);
  m_joining->setGeometry(shown ? m_body->width() - side : m_picture->x() + 12, shown ? 0 : h - tall - 24, wide, tall);
  m_joining->raise();
  m_start->setVisible(m_session.document.harness().devices.empty() && !whole);
  m_start->move(m_picture->x() + std::max(8, (m_picture->width() - m_start->width()) / 2), std::max(8, (h - m_start->height()) / 3));
}

void MainWindow::showStep() {
  // What was being typed in the step that is left.
  if (const auto refused = takeUp(*this); !refused.isEmpty()) m_status->setText(refused.join(" "));
  m_side->setCurrentIndex(static_cast<int>(m_rail->step()));
  m_picture->picture().setDimming(m_rail->step() != Step::Wiring && m_rail->step() != Step::Stages);
  m_picture->picture().showProgress(m_rail->step() == Step::Wiring);
  m_picture->picture().showCurrents(m_rail->step() == Step::Currents);
  if (m_narrow && !m_sheet->isChecked()) m_sheet->setChecked(true);
  showGhost();
}

void MainWindow::showGhost() {
  arrange();
  if (m_rail->step() == Step::Stages) m_status->setText(m_usually);  // of the picture nothing is seen
  m_picture->picture().showInstead(m_rail->step() == Step::Stages ? m_stages->ghost() : std::nullopt);
}

void MainWindow::showStages(const std::string& motor) {
  m_stages->chooseFor(motor);
  m_session.selection.select(QString::fromStdString(motor));
  m_rail->setStep(Step::Stages);
}

void MainWindow::lookOver() {
  m_rail->setStep(Step::Wiring);
  m_wiring->setMode(WiringPanel::Mode::LookOver);
}

void MainWindow::readBack() {
  m_rail->setStep(Step::Wiring);
  showOnlyReadBack(true);
  m_readBack->begin();
}

void MainWindow::readBack(const QString& reader, int shuffle) {
  readBack();
  m_readBack->startRound(reader, shuffle);
}

void MainWindow::showOnlyReadBack(bool only) {
  m_readBack->setVisible(only);
  m_body->setVisible(!only);
  for (QWidget* w : std::initializer_list<QWidget*>{m_verdict, m_status, m_sheet}) w->setVisible(!only);
  for (const auto* name : {"open", "save", "undo"})
    if (auto* b = m_top->findChild<QWidget*>(name)) b->setVisible(!only);
  m_notices->setHidden(only || m_notices->said().isEmpty());
  menuBar()->setVisible(!only);
  for (auto* menu : menuBar()->actions()) menu->setEnabled(!only);  // and with it the keys of all that is in it
  if (!only) {
    arrange();
    return;
  }
  // What else is open may tell where wires go; so may what was copied from here, and a tip.
  for (auto* d : findChildren<QDialog*>()) d->close();
  if (QGuiApplication::clipboard()->ownsClipboard()) QGuiApplication::clipboard()->clear();
  QToolTip::hideText();
}

bool MainWindow::mayTell() {
  if (!m_files->takeUpTyped()) return false;
  if (m_session.concealment.hidden()) m_status->setText(tr("What is found is hidden until you have named the faults: step Limits."));
  return !m_session.concealment.hidden();
}

void MainWindow::goTo(const QString& subject, const QString& field) {
  const bool connection = m_session.document.harness().connection(subject.toStdString());
  m_rail->setStep(connection ? Step::Wiring : Step::Bench);
  if (m_narrow) m_sheet->setChecked(true);
  if (connection)
    m_wiring->focusField(field);
  else
    m_bench->focusField(field);
}

void MainWindow::deletePicked() {
  if (m_session.document.readOnly()) return;
  if (m_session.document.harness().connection(m_session.selection.subject().toStdString()))
    m_wiring->removeSelected();
  else if (m_session.document.harness().device(m_session.selection.subject().toStdString()))
    m_bench->removeSelected();
}

// Of the picked motor or sensor; where nothing is picked, of all of them.
void MainWindow::stateAsWired() {
  const auto& solved = m_session.analyser.analysis().solved;
  if (!solved || m_session.document.readOnly()) return;
  const auto picked = m_session.selection.subject().section('.', 0, 0).toStdString();
  auto grown = m_session.document.harness();
  harness::Edit all{tr("State the pins as they are wired").toStdString(), {}};
  for (const auto& device : solved->bench.devices) {
    const auto& id = device.doc.id;
    if (m_session.document.harness().device(picked) && id != picked) continue;
    if (const auto one = checks::stateAsWired(grown, *solved, id)) {
      harness::apply(grown, *one);
      all.changes.insert(all.changes.end(), one->changes.begin(), one->changes.end());
    }
  }
  if (all.changes.empty())
    m_status->setText(tr("There is nothing to state: every pin that the wires lead to is stated, or none is wired."));
  else
    m_session.document.apply(all);
}

void MainWindow::dragEnterEvent(QDragEnterEvent* e) {
  if (e->mimeData()->hasUrls() && e->mimeData()->urls().front().isLocalFile()) e->acceptProposedAction();
}

// A bench is opened, a part is looked over.
void MainWindow::dropEvent(QDropEvent* e) {
  const auto path = e->mimeData()->urls().front().toLocalFile();
  e->acceptProposedAction();
  if (path.endsWith(".json"))
    importPartFrom(path);
  else if (m_files->mayDiscard())
    m_files->open(path);
}

void MainWindow::refreshTitle() {
  const auto& h = m_session.document.harness();
  const auto file = m_session.file.path().isEmpty() ? tr("not saved yet") : QFileInfo(m_session.file.path()).fileName();
  const auto title = h.title.empty()
                         ? (m_session.file.path().isEmpty() ? tr("New bench") : QFileInfo(m_session.file.path()).completeBaseName())
                         : QString::fromStdString(h.title);
  const bool changed = !m_session.document.undoStack().isClean();
  m_title->setText(title);
  m_where->setText(m_session.document.readOnly() ? tr("%1 · read only").arg(file) : changed ? tr("%1 · changed").arg(file) : file);
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

void MainWindow::closeEvent(QCloseEvent* e) {
  if (m_files->mayDiscard())
    e->accept();
  else
    e->ignore();
}

}  // namespace bold::gui
