#include "gui/program/program_panel.h"

#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QSplitter>
#include <QTableWidget>
#include <QVBoxLayout>
#include <algorithm>

#include "core/harness/names.h"
#include "core/wiring/program_edit.h"
#include "core/wiring/program_plan.h"
#include "gui/panels/check_page_dialog.h"
#include "gui/panels/spoken.h"
#include "gui/program/plan_dialog.h"
#include "gui/program/source_view.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

QString standingWords(harness::Standing standing) {
  switch (standing) {
    case harness::Standing::Changed:
      return ProgramPanel::tr("changed since it was read");
    case harness::Standing::Missing:
      return ProgramPanel::tr("not there");
    default:
      return {};
  }
}

}  // namespace

ProgramPanel::ProgramPanel(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
  setObjectName("program");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 12, 8);
  column->setSpacing(6);
  auto* head = plainLabel(tr("Program"), this);
  QFont large = head->font();
  large.setPixelSize(16);
  large.setWeight(QFont::DemiBold);
  head->setFont(large);
  column->addWidget(head);
  auto* row = new QHBoxLayout;
  m_controller = new QComboBox(this);
  m_controller->setObjectName("programOf");
  speak(m_controller, tr("Controller that runs the program"));
  m_read = new QPushButton(tr("Read sources…"), this);
  m_read->setObjectName("readSources");
  m_again = new QPushButton(tr("Read again"), this);
  m_again->setObjectName("readAgain");
  m_forget = new QPushButton(tr("Forget it"), this);
  m_forget->setObjectName("forgetProgram");
  m_plan = new QPushButton(tr("Plan from it…"), this);
  m_plan->setObjectName("planFromProgram");
  row->addWidget(m_controller, 1);
  for (auto* b : {m_read, m_again, m_plan, m_forget}) row->addWidget(b);
  column->addLayout(row);
  m_told = plainLabel(this);
  m_told->setObjectName("told");
  m_told->setWordWrap(true);
  m_told->setForegroundRole(QPalette::PlaceholderText);
  column->addWidget(m_told);
  m_elsewhere = new QPushButton(this);
  m_elsewhere->setObjectName("openElsewhere");
  column->addWidget(m_elsewhere, 0, Qt::AlignLeft);
  m_empty = plainLabel(this);
  m_empty->setWordWrap(true);
  m_empty->setAlignment(Qt::AlignTop);
  column->addWidget(m_empty, 1);

  m_body = new QWidget(this);
  auto* inside = new QVBoxLayout(m_body);
  inside->setContentsMargins(0, 0, 0, 0);
  auto* parts = new QSplitter(Qt::Vertical, m_body);
  parts->setChildrenCollapsible(false);
  auto* list = new QWidget(parts);
  auto* listColumn = new QVBoxLayout(list);
  listColumn->setContentsMargins(0, 0, 0, 0);
  listColumn->setSpacing(6);
  m_pins = new QTableWidget(0, 3, list);
  m_pins->setObjectName("programPins");
  m_pins->setAccessibleName(tr("Pins: what the program says, what the wires say"));
  m_pins->setHorizontalHeaderLabels({tr("Pin"), tr("The program says"), tr("The wires say")});
  m_pins->verticalHeader()->hide();
  m_pins->verticalHeader()->setDefaultSectionSize(24);
  m_pins->setSelectionBehavior(QAbstractItemView::SelectRows);
  m_pins->setSelectionMode(QAbstractItemView::SingleSelection);
  m_pins->setEditTriggers(QAbstractItemView::NoEditTriggers);
  m_pins->setShowGrid(false);
  m_pins->setTabKeyNavigation(false);
  m_pins->setWordWrap(false);
  m_pins->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  m_pins->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Fixed);
  m_pins->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
  m_pins->horizontalHeader()->setSectionResizeMode(2, QHeaderView::Stretch);
  m_pins->setColumnWidth(0, 66);
  listColumn->addWidget(m_pins, 1);
  m_detail = plainLabel(list);
  m_detail->setObjectName("programDetail");
  m_detail->setWordWrap(true);
  m_detail->setTextInteractionFlags(Qt::TextSelectableByMouse);
  listColumn->addWidget(m_detail);
  auto* doing = new QHBoxLayout;
  m_mend = new QPushButton(tr("Put its repair on the plan"), list);
  m_mend->setObjectName("programMend");
  m_page = new QPushButton(tr("Explain"), list);
  m_page->setObjectName("programExplain");
  doing->addWidget(m_mend);
  doing->addWidget(m_page);
  doing->addStretch();
  listColumn->addLayout(doing);
  auto* text = new QWidget(parts);
  auto* textColumn = new QVBoxLayout(text);
  textColumn->setContentsMargins(0, 0, 0, 0);
  textColumn->setSpacing(4);
  m_file = new QComboBox(text);
  m_file->setObjectName("programFile");
  speak(m_file, tr("Source that is shown"));
  textColumn->addWidget(m_file);
  m_source = new SourceView(text);
  textColumn->addWidget(m_source, 1);
  parts->addWidget(list);
  parts->addWidget(text);
  parts->setStretchFactor(0, 2);
  parts->setStretchFactor(1, 3);
  inside->addWidget(parts);
  column->addWidget(m_body, 5);

  connect(m_controller, &QComboBox::activated, this, &ProgramPanel::refresh);
  connect(m_read, &QPushButton::clicked, this, &ProgramPanel::choose);
  connect(m_again, &QPushButton::clicked, &m_session.program, &ProgramReader::readAgain);
  connect(m_elsewhere, &QPushButton::clicked, this, [this] {
    if (const auto* s = source()) m_session.program.openElsewhere(s->controller);
  });
  connect(m_plan, &QPushButton::clicked, this, &ProgramPanel::plan);
  connect(m_forget, &QPushButton::clicked, this, [this] {
    if (const auto* s = source()) m_session.document.apply(wiring::forgetProgram(m_session.document.harness(), s->controller));
  });
  connect(m_file, &QComboBox::activated, this, &ProgramPanel::markSource);
  connect(m_pins, &QTableWidget::itemSelectionChanged, this, [this] {
    if (!m_filling) pickRow(current(), true);
  });
  connect(m_source, &SourceView::rowPicked, this, [this](int r) {
    if (r < m_pins->rowCount()) m_pins->selectRow(r);
  });
  connect(m_mend, &QPushButton::clicked, this, [this] {
    if (const auto* f = gravest(); f && f->repair && m_session.analyser.current()) m_session.document.apply(harness::Edit(f->repair->edit));
  });
  connect(m_page, &QPushButton::clicked, this, [this] {
    if (const auto* f = gravest()) (new CheckPageDialog(m_session, QString::fromStdString(f->check), this))->show();
  });
  connect(&m_session.document, &Document::changed, this, &ProgramPanel::refresh);
  connect(&m_session.analyser, &Analyser::changed, this, &ProgramPanel::refresh);
  connect(&m_session.program, &ProgramReader::changed, this, &ProgramPanel::refresh);
  connect(&m_session.concealment, &Concealment::changed, this, &ProgramPanel::refresh);
  connect(&m_session.selection, &Selection::changed, this, &ProgramPanel::pickSubject);
  refresh();
}

const harness::SourceRead* ProgramPanel::source() const {
  const auto& all = m_session.document.harness().sources;
  const auto it = std::ranges::find(all, m_controller->currentData().toString().toStdString(), &harness::SourceRead::controller);
  return it == all.end() ? nullptr : &*it;
}

int ProgramPanel::current() const {
  const auto rows = m_pins->selectionModel()->selectedRows();
  return rows.isEmpty() ? -1 : rows.front().row();
}

void ProgramPanel::fillControllers() {
  const auto& h = m_session.document.harness();
  QStringList ids;
  const auto all = wiring::controllersFor(h, m_session.document.library(), {});
  // Those whose program was read first.
  for (const auto& s : h.sources) ids << QString::fromStdString(s.controller);
  for (const auto& c : all)
    if (!ids.contains(QString::fromStdString(c))) ids << QString::fromStdString(c);
  const auto was = m_controller->currentData().toString();
  QStringList now;
  for (int i = 0; i < m_controller->count(); ++i) now << m_controller->itemData(i).toString() + m_controller->itemText(i);
  QStringList wanted;
  for (const auto& id : ids)
    if (const auto* d = h.device(id.toStdString())) wanted << id + QString::fromStdString(harness::shownName(h, *d));
  if (now == wanted) return;
  m_controller->clear();
  for (const auto& id : ids)
    if (const auto* d = h.device(id.toStdString())) m_controller->addItem(QString::fromStdString(harness::shownName(h, *d)), id);
  m_controller->setCurrentIndex(std::max(0, m_controller->findData(was)));
}

void ProgramPanel::refresh() {
  m_filling = true;
  fillControllers();
  const auto* s = source();
  const bool any = m_controller->count() > 0;
  const bool frozen = m_session.document.readOnly();
  const bool reading = m_session.program.reading();
  const bool hidden = m_session.concealment.hidden();
  m_controller->setVisible(any);
  m_read->setEnabled(any && !frozen && !reading);
  m_again->setVisible(s != nullptr);
  m_forget->setVisible(s != nullptr);
  m_plan->setVisible(s != nullptr);
  for (auto* b : {m_again, m_forget, m_plan}) b->setEnabled(!frozen && !reading);
  m_body->setVisible(s != nullptr && !hidden);
  m_empty->setVisible(s == nullptr || hidden);
  m_told->setVisible(s != nullptr && !hidden);
  // Somebody else's bench may name any file: what it names is opened by a person who has seen where it lies.
  const auto elsewhere = s ? std::ranges::count(s->files, harness::Standing::Elsewhere, &harness::SourceFile::standing) : 0;
  m_elsewhere->setVisible(elsewhere > 0 && !hidden);
  m_elsewhere->setText(elsewhere == 1 ? tr("Open the source that lies elsewhere") : tr("Open the sources that lie elsewhere"));
  m_empty->setText(hidden    ? tr("What is found is hidden until you have named the faults: step Limits.")
                   : reading ? tr("Reading…")
                   : any     ? tr("No program was read yet. Read its sources (.ino, .cpp, .c, .py): they are read, never run. What they "
                                      "include below their folder is found by itself, and "
                                      "each pin that the program uses is held against the wires.")
                             : tr("There is no controller on this bench: put one there first (Ctrl+K)."));
  if (s && !hidden) {
    auto told = QString::fromStdString(wiring::toldWords(*s)) + ".";
    if (m_session.analyser.current()) told = QString::fromStdString(wiring::agreementWords(m_session.analyser.analysis(), *s)) + " " + told;
    for (const auto& file : s->files)
      if (const auto words = standingWords(file.standing); !words.isEmpty())
        told += " " + tr("%1 is %2: what stands here is not judged.").arg(QString::fromStdString(file.file), words);
    for (const auto& file : s->files)
      if (file.standing == harness::Standing::Elsewhere)
        told += "\n" + tr("Not opened, since it lies outside the bench's folder: %1").arg(m_session.program.whereItLies(file.file));
    for (std::size_t k = 0; k < std::min<std::size_t>(s->untold.size(), 3); ++k) {
      const auto& u = s->untold[k];
      told += "\n" + (u.place.line > 0 ? tr("Not told, %1, line %2: %3.")
                                             .arg(QString::fromStdString(u.place.file))
                                             .arg(u.place.line)
                                             .arg(QString::fromStdString(u.what))
                                       : tr("Not told: %1.").arg(QString::fromStdString(u.what)));
    }
    if (s->untold.size() > 3) told += " " + tr("And %1 more.").arg(s->untold.size() - 3);
    m_told->setText(told);
    fillPins(*s);
    fillFiles(*s);
    markSource();
    if (const int row = current(); row >= 0 && !m_rows[row].spots.empty() && m_lit != m_picked) m_source->light(m_rows[row].spots.front());
    m_lit = current() >= 0 ? m_picked : std::string();
    showDetail();
  } else {
    m_rows.clear();
    m_pins->setRowCount(0);
  }
  m_filling = false;
}

void ProgramPanel::fillFiles(const harness::SourceRead& s) {
  QStringList files;
  for (const auto& f : s.files) files << QString::fromStdString(f.file);
  QStringList now;
  for (int i = 0; i < m_file->count(); ++i) now << m_file->itemText(i);
  if (now != files) {
    const auto was = m_file->currentText();
    m_file->clear();
    m_file->addItems(files);
    m_file->setCurrentIndex(std::max(0, m_file->findText(was)));
  }
  m_file->setVisible(files.size() > 1);
}

void ProgramPanel::fillPins(const harness::SourceRead& s) {
  const auto& c = gui::palette();
  m_rows = wiring::programRows(m_session.analyser.analysis(), s);
  m_pins->setRowCount(static_cast<int>(m_rows.size()));
  int picked = -1;
  for (int r = 0; r < static_cast<int>(m_rows.size()); ++r) {
    const auto& row = m_rows[r];
    const QString texts[] = {QString::fromStdString(row.name), QString::fromStdString(row.program), QString::fromStdString(row.wires)};
    const auto grave = row.disagrees() ? (row.gravest == checks::Severity::Stop ? tr("stop") : tr("caution")) : tr("agrees");
    for (int k = 0; k < 3; ++k) {
      auto* item = m_pins->item(r, k);
      if (!item) m_pins->setItem(r, k, item = new QTableWidgetItem);
      item->setText(
          (k == 0 && row.disagrees() ? (row.gravest == checks::Severity::Stop ? QStringLiteral("■ ") : QStringLiteral("○ ")) : QString()) +
          texts[k]);
      item->setToolTip(plainTip(texts[k]));
      item->setData(Qt::AccessibleTextRole, k == 0 ? tr("%1, %2").arg(texts[0], grave) : texts[k]);
      item->setForeground(row.disagrees() && k == 0 ? (row.gravest == checks::Severity::Stop ? c.stop : c.caution) : c.ink);
      item->setBackground(row.disagrees() ? (row.gravest == checks::Severity::Stop ? c.stopSoft : c.cautionSoft) : QBrush());
    }
    if (row.name == m_picked || (m_picked.empty() && row.pin.text() == m_session.selection.subject().toStdString())) picked = r;
  }
  if (picked >= 0) m_picked = m_rows[picked].name;
  if (picked >= 0 && picked != current()) m_pins->selectRow(picked);
  if (picked < 0) m_pins->clearSelection();
}

void ProgramPanel::markSource() {
  const auto file = m_file->currentText().toStdString();
  const auto* text = m_session.program.text(file);
  m_source->show(text, m_elsewhere->isVisibleTo(this)
                           ? tr("%1 was not opened.").arg(QString::fromStdString(file))
                           : tr("%1 cannot be read: it may have been moved or renamed.").arg(QString::fromStdString(file)));
  std::vector<SourceView::Mark> marks;
  for (int r = 0; r < static_cast<int>(m_rows.size()); ++r) {
    const auto& row = m_rows[r];
    for (const auto& spot : row.spots)
      if (spot.file == file && spot.line > 0)
        marks.push_back({spot, row.disagrees(), row.gravest, QString::fromStdString(row.name + ": " + row.program + "\n" + row.wires), r});
  }
  m_source->mark(std::move(marks));
}

// A pin lights its thread and its line.
void ProgramPanel::pickRow(int row, bool scroll) {
  if (row < 0 || row >= static_cast<int>(m_rows.size())) return;
  const auto& r = m_rows[row];
  m_picked = m_lit = r.name;
  if (!r.pin.device.empty()) m_session.selection.select(QString::fromStdString(r.pin.text()));
  if (!r.spots.empty() && scroll) {
    const auto& spot = r.spots.front();
    if (const int k = m_file->findText(QString::fromStdString(spot.file)); k >= 0 && k != m_file->currentIndex()) {
      m_file->setCurrentIndex(k);
      markSource();
    }
    m_source->light(spot);
  }
  showDetail();
}

const checks::Finding* ProgramPanel::gravest() const {
  const int row = current();
  if (row < 0 || row >= static_cast<int>(m_rows.size()) || m_rows[row].findings.empty()) return nullptr;
  return m_session.analyser.analysis().find(m_rows[row].findings.front());
}

void ProgramPanel::showDetail() {
  const auto* f = gravest();
  const int row = current();
  QString text;
  if (f) {
    text = QString::fromStdString(f->text);
    if (f->repair) text += " " + QString::fromStdString(f->repair->text);
    for (const auto& w : f->ways) text += " " + QString::fromStdString(w.text);
    const auto more = m_rows[row].findings.size() - 1;
    if (more > 0) text += " " + tr("%1 more said of this pin: step Limits.").arg(more);
  } else if (row >= 0)
    text = tr("Program and wires agree here.");
  else
    text = m_rows.empty() ? tr("The program uses no pins.") : tr("Pick a pin: its thread and its line light up.");
  m_detail->setText(text);
  m_mend->setVisible(f && f->repair);
  m_mend->setEnabled(!m_session.document.readOnly() && m_session.analyser.current() && m_session.analyser.analysis().explained);
  m_page->setVisible(f != nullptr);
}

// What is picked elsewhere is found here too.
void ProgramPanel::pickSubject() {
  const auto subject = m_session.selection.subject().toStdString();
  for (int r = 0; r < static_cast<int>(m_rows.size()); ++r)
    if (!m_rows[r].pin.device.empty() && m_rows[r].pin.text() == subject && r != current()) m_pins->selectRow(r);
}

void ProgramPanel::choose() {
  const auto path = m_session.file.path();
  read(QFileDialog::getOpenFileNames(this, tr("Sources of the program"), path.isEmpty() ? QString() : QFileInfo(path).path(),
                                     tr("Sources (*.ino *.cpp *.cc *.c *.h *.hpp *.py);;All files (*)")));
}

void ProgramPanel::read(const QStringList& files) {
  if (files.isEmpty()) return;
  if (m_controller->count() == 0) {
    Q_EMIT refused(tr("There is no controller on this bench that could run the program."));
    return;
  }
  // Where several are there and none was chosen, the one that such sources are usually for.
  if (!source()) {
    std::vector<std::string> names;
    for (const auto& f : files) names.push_back(f.toStdString());
    const auto fitting = wiring::controllersFor(m_session.document.harness(), m_session.document.library(), names);
    if (m_controller->currentIndex() <= 0 && !fitting.empty())
      m_controller->setCurrentIndex(std::max(0, m_controller->findData(QString::fromStdString(fitting.front()))));
  }
  m_session.program.read(m_controller->currentData().toString().toStdString(), files);
}

void ProgramPanel::plan() {
  if (!source() || !m_session.analyser.current()) return;
  const auto proposals = wiring::planFromProgram(m_session.document.harness(), m_session.analyser.analysis());
  if (proposals.empty()) {
    Q_EMIT refused(tr("What the program does is stated already."));
    return;
  }
  (new PlanDialog(m_session, proposals, this))->show();
}

}  // namespace bold::gui
