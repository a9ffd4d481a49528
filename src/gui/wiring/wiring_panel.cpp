#include "gui/wiring/wiring_panel.h"

#include <QButtonGroup>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QShortcut>
#include <QVBoxLayout>
#include <algorithm>
#include <functional>

#include "core/harness/end_place.h"
#include "core/harness/join.h"
#include "core/harness/mark_done.h"
#include "core/harness/names.h"
#include "core/harness/rewire.h"
#include "core/harness/several_wires.h"
#include "core/harness/typed_end.h"
#include "gui/half_typed.h"
#include "gui/panels/plural.h"
#include "gui/panels/spoken.h"
#include "gui/panels/tab_order.h"
#include "gui/places/ends_view.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"
#include "gui/wiring/connection_model.h"
#include "gui/wiring/end_list.h"
#include "gui/wiring/look_over.h"
#include "gui/wiring/wire_editor.h"
#include "gui/wiring/wire_table.h"

namespace bold::gui {
namespace {

constexpr int kHigh = 640;
constexpr int kLow = 500;
constexpr int kTallPlaces = 160;
constexpr int kLowPlaces = 100;

// Both ends in the words of a person with a finger on the bench.
QString inWords(const Session& s, const Address& a) {
  const auto name = qs(shownEnd(s.document.harness(), s.document.library(), a));
  const auto place = endPlace(s.document.harness(), s.document.library(), a);
  return place.empty() ? name : name + " (" + qs(place) + ")";
}

}  // namespace

WiringPanel::WiringPanel(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
  setObjectName("wiring");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 10, 10);
  column->setSpacing(8);
  column->addWidget(buildHead());

  m_entry = new QLineEdit(this);
  declareField(m_entry, FieldKind::Entry, tr("the wire"));
  m_entry->setObjectName("wireEntry");
  m_entry->setAccessibleName(tr("Type a wire, two terminals with a space between, or a plug, two devices"));
  m_entry->setClearButtonEnabled(true);
  column->addWidget(m_entry);
  m_said = plainLabel(this);
  m_said->setObjectName("wireSaid");
  m_said->setWordWrap(true);
  m_said->hide();
  column->addWidget(m_said);

  m_ends = plainLabel(this);
  m_ends->setObjectName("wireEnds");
  m_ends->setWordWrap(true);
  QFont large = m_ends->font();
  large.setPixelSize(17);
  m_ends->setFont(large);
  column->addWidget(m_ends);

  m_places = new EndsView(session, this);
  column->addWidget(m_places);
  m_look = new LookOver(session, this);
  column->addWidget(m_look);

  m_editor = new WireEditor(
      session, [this] { return pickedWires(); }, this);
  column->addWidget(m_editor);
  column->addWidget(buildFilter());
  m_table = new WireTable(session, this);
  connect(m_table, &WireTable::next, this, &WiringPanel::stepOn);
  column->addWidget(m_table, 1);
  m_allDone = new QPushButton(tr("Mark all planned changes as done"), this);
  m_allDone->setObjectName("allDone");
  column->addWidget(m_allDone);

  m_offers = new EndList(session, m_entry, this);
  tabInOrder(QList<QWidget*>{m_entry} + m_editor->inOrder() + QList<QWidget*>{m_filter, m_grouping, m_table, m_allDone});
  connect(m_entry, &QLineEdit::returnPressed, this, &WiringPanel::addTyped);
  connect(m_entry, &QLineEdit::textChanged, this, &WiringPanel::followTyped);
  connect(m_editor, &WireEditor::said, this, &WiringPanel::say);
  connect(m_editor, &WireEditor::moveWanted, this, [this] {
    m_moving = pickedWires();
    m_entry->setPlaceholderText(tr("where to? d8, or d8-d10 for three wires"));
    focusEntry();
  });
  connect(m_allDone, &QPushButton::clicked, this, [this] { m_session.document.apply(harness::markAllDone(m_session.document.harness())); });
  connect(m_look, &LookOver::done, this, [this] { m_table->setFocus(); });
  connect(&m_session.document, &Document::changed, this, &WiringPanel::refresh);
  connect(&m_session.selection, &Selection::changed, this, [this] {
    if (!m_moving.empty()) setMode(m_mode);  // other wires than those that were to move
    if (!m_kept.empty() && m_kept != m_session.selection.subject().toStdString())
      fillTable();
    else
      showSelection();
  });
  connect(&m_session.document, &Document::marked, this, &WiringPanel::remark);
  // Single letters, where no text is typed: a hand that holds a probe has one finger left.
  for (const auto& [key, what] : {std::pair{Qt::Key_F, harness::Marked::Fitted},
                                  {Qt::Key_T, harness::Marked::Tugged},
                                  {Qt::Key_S, harness::Marked::Seen},
                                  {Qt::Key_X, harness::Marked::Wrong}}) {
    auto* shortcut = new QShortcut(QKeySequence(key), this, nullptr, nullptr, Qt::WidgetWithChildrenShortcut);
    connect(shortcut, &QShortcut::activated, this, [this, what = what] { m_look->mark(what); });
    m_keys.push_back(shortcut);
  }
  setMode(Mode::Make);
  refresh();
}

QWidget* WiringPanel::buildHead() {
  auto* box = new QWidget(this);
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  auto* row = new QHBoxLayout;
  row->setSpacing(4);
  auto* head = plainLabel(tr("Wiring"), box);
  QFont f = head->font();
  f.setPixelSize(16);
  f.setWeight(QFont::DemiBold);
  head->setFont(f);
  row->addWidget(head);
  row->addStretch();
  m_modes = new QButtonGroup(this);
  for (const auto& [mode, name, id, tip] :
       {std::tuple{Mode::Make, tr("Make"), "modeMake", tr("Wires are typed, drawn and changed")},
        std::tuple{Mode::LookOver, tr("Look over"), "modeLookOver", tr("Wires are gone through one by one and marked (Ctrl+R)")}}) {
    auto* b = new QPushButton(name, box);
    b->setObjectName(id);
    b->setToolTip(tip);
    b->setCheckable(true);
    m_modes->addButton(b, static_cast<int>(mode));
    row->addWidget(b);
  }
  auto* readBack = new QPushButton(tr("Read back…"), box);
  readBack->setObjectName("readBack");
  readBack->setToolTip(tr("A second person says where each wire goes, without being shown it"));
  connect(readBack, &QPushButton::clicked, this, &WiringPanel::readBackWanted);
  row->addWidget(readBack);
  column->addLayout(row);
  m_progress = new QProgressBar(box);
  m_progress->setObjectName("wiresLeft");
  m_progress->setTextVisible(true);
  m_progress->setFixedHeight(18);
  column->addWidget(m_progress);
  connect(m_modes, &QButtonGroup::idClicked, this, [this](int id) { setMode(static_cast<Mode>(id)); });
  return box;
}

QWidget* WiringPanel::buildFilter() {
  auto* box = new QWidget(this);
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  m_filter = new QLineEdit(box);
  declareField(m_filter, FieldKind::Search);
  m_filter->setObjectName("wireFilter");
  m_filter->setPlaceholderText(tr("only: open, wrong, ground, motor 2…"));
  m_filter->setAccessibleName(tr("Show only wires that these words mean"));
  m_filter->setClearButtonEnabled(true);
  m_grouping = new QComboBox(box);
  m_grouping->setObjectName("wireGrouping");
  speak(m_grouping, tr("What the list is grouped by"));
  m_grouping->addItem(tr("as entered"), -1);
  m_grouping->addItem(tr("by stage"), static_cast<int>(wiring::By::Stage));
  m_grouping->addItem(tr("by motor"), static_cast<int>(wiring::By::Motor));
  m_grouping->addItem(tr("by board"), static_cast<int>(wiring::By::Board));
  m_more = new QPushButton(tr("+ wire"), box);
  m_more->setObjectName("wireFound");
  m_more->setToolTip(tr("Enter a wire that is on the bench and not in the list (Ctrl+L)"));
  m_more->setProperty("tight", true);
  connect(m_more, &QPushButton::clicked, this, &WiringPanel::focusEntry);
  row->addWidget(m_filter, 3);
  row->addWidget(m_grouping, 2);
  row->addWidget(m_more);
  connect(m_filter, &QLineEdit::textChanged, this, &WiringPanel::fillTable);
  connect(m_filter, &QLineEdit::returnPressed, this, [this] { m_table->setFocus(); });
  connect(m_grouping, &QComboBox::activated, this, &WiringPanel::fillTable);
  return box;
}

void WiringPanel::setMode(Mode mode) {
  m_moving.clear();
  m_mode = mode;
  m_modes->button(static_cast<int>(mode))->setChecked(true);
  const bool look = mode == Mode::LookOver;
  m_editor->setVisible(!look);
  m_entry->setVisible(!look);  // room for the list: it comes when it is asked for
  m_more->setVisible(look);
  m_look->setVisible(look);
  m_places->setLarge(look);
  m_entry->setPlaceholderText(look ? tr("a wire that is there and not in the list: d9 s1.in1")
                                   : tr("type a wire, d9 s1.in1, or a plug, usb uno"));
  for (auto* key : m_keys) key->setEnabled(look);
  m_table->setColumnHidden(ConnectionModel::Gauge, look);
  if (look && m_session.selection.subject().isEmpty()) stepOn();
  refresh();
  if (look) m_table->setFocus();
}

// Where the window is low the list is worth more than large drawings.
void WiringPanel::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  m_places->setTall(height() >= kHigh ? kTallPlaces : height() >= kLow ? kLowPlaces : 0);
  showSelection();
}

void WiringPanel::stepOn() {
  m_table->stepOn(m_mode == Mode::LookOver);
}

void WiringPanel::focusEntry() {
  m_entry->show();
  m_entry->setFocus();
  m_entry->selectAll();
}

void WiringPanel::refresh() {
  const auto& h = m_session.document.harness();
  m_list = wiring::wireList(h, m_session.document.library());
  fillTable();
  const int open = h.openChanges();
  m_allDone->setVisible(open > 0 && m_mode == Mode::Make);
  m_allDone->setText(tr("%1 planned: mark all as done").arg(plural(open, tr("change"), tr("changes"))));
}

// What was marked alone: the wires are those that they were.
void WiringPanel::remark() {
  wiring::takeMarks(m_list, m_session.document.harness(), m_session.document.library());
  fillTable();
}

void WiringPanel::fillTable() {
  const auto& h = m_session.document.harness();
  const wiring::WireFilter filter(m_filter->text().toStdString(), h, m_session.document.library());
  // What is picked stays in the list, also once it is no more what was asked for: whoever marks it goes on from there.
  const auto picked = m_session.selection.subject().toStdString();
  m_kept.clear();
  const auto shown = [&](const wiring::ListedWire& w) {
    if (filter.fits(w)) return true;
    if (w.id == picked) m_kept = picked;
    return w.id == picked;
  };
  std::vector<WireRow> rows;
  if (const int by = m_grouping->currentData().toInt(); by < 0) {
    for (const auto& w : m_list)
      if (shown(w)) rows.push_back({w, {}});
  } else {
    for (const auto& g : wiring::grouped(m_list, h, m_session.document.library(), static_cast<wiring::By>(by))) {
      const auto before = rows.size();
      rows.push_back({{}, g.title});
      for (const int i : g.wires)
        if (shown(m_list[i])) rows.push_back({m_list[i], {}});
      if (rows.size() == before + 1) rows.pop_back();
    }
  }
  m_table->show(std::move(rows));
  m_table->setColumnHidden(ConnectionModel::Made, m_mode == Mode::LookOver || std::ranges::all_of(h.connections, [](const auto& c) {
                                                    return c.state == harness::State::OnBench;
                                                  }));
  const bool marked = !h.marks.empty();
  m_table->setColumnHidden(ConnectionModel::Looked, m_mode == Mode::Make && !marked);
  const int all = static_cast<int>(m_list.size());
  const int left = wiring::left(m_list);
  m_progress->setVisible((marked || m_mode == Mode::LookOver) && all > 0);
  m_progress->setRange(0, std::max(1, all));
  m_progress->setValue(all - left);
  m_progress->setFormat(left == 0 ? tr("all %1 looked over").arg(all) : tr("%1 of %2 left").arg(left).arg(all));
  m_progress->setAccessibleName(tr("Wires looked over: %1").arg(m_progress->format()));
  showSelection();
}

void WiringPanel::showSelection() {
  const auto& h = m_session.document.harness();
  const auto* c = h.connection(m_session.selection.subject().toStdString());
  m_table->pick(c ? qs(c->id) : QString());
  const bool wire = c && c->kind == harness::ConnectionKind::Wire;
  m_editor->refresh();
  const auto place = parseAddress(m_session.selection.subject().toStdString());
  if (!m_entry->text().trimmed().isEmpty())
    followTyped(m_entry->text());
  else if (c)
    m_places->show(c->a, c->b, wire ? qs(c->colour) : QString());
  else
    m_places->show(m_session.selection.subject(), QString());
  if (c) {
    m_ends->setText(m_places->isHidden() ? inWords(m_session, c->a) + "\n" + inWords(m_session, c->b) : QString());
  } else if (place) {
    QStringList ends;
    for (const auto& x : h.connections)
      if (x.a == *place || x.b == *place) ends << qs(shownEnd(h, m_session.document.library(), x.a == *place ? x.b : x.a));
    const auto joined = ends.isEmpty() ? tr("nothing is connected here") : tr("joined to %1").arg(ends.join(", "));
    m_ends->setText(m_places->isHidden() ? inWords(m_session, *place) + "\n" + joined : joined);
  } else {
    m_ends->setText(h.connections.empty() ? tr("No wires yet. Drag from one terminal to another, or type both ends above.")
                                          : tr("Pick a wire to see both its ends."));
  }
  m_ends->setVisible(!m_ends->text().isEmpty());
  const auto listed = c ? std::ranges::find(m_list, c->id, &wiring::ListedWire::id) : m_list.end();
  m_look->refresh(listed == m_list.end() ? std::vector<std::string>{} : listed->readBy);
  layout()->activate();  // at once: nobody scrolls a list that is about to be moved
}

void WiringPanel::followTyped(const QString& text) {
  const auto& h = m_session.document.harness();
  const auto& library = m_session.document.library();
  if (text.trimmed().isEmpty()) return showSelection();
  if (const auto wire = harness::parseTypedWire(h, library, text.toStdString()))
    m_places->show(wire->a, wire->b);
  else if (const auto end = harness::parseTypedEnd(h, library, text.toStdString()))
    m_places->show(*end, std::nullopt);  // between two letters what was shown stays
}

void WiringPanel::say(const QString& sentence) {
  m_said->setVisible(!sentence.isEmpty());
  m_said->setText(sentence);
  auto p = m_said->palette();
  p.setColor(QPalette::WindowText, gui::palette().stop);
  m_said->setPalette(p);
}

std::vector<std::string> WiringPanel::pickedWires() const {
  auto ids = m_table->picked();
  const auto subject = m_session.selection.subject().toStdString();
  if (std::ranges::count(ids, subject) == 0) ids = {subject};
  return ids;
}

bool WiringPanel::take(const Result<harness::Edit>& edit) {
  say(edit ? QString() : qs(edit.error().what));
  if (edit) m_session.document.apply(*edit);
  return edit.has_value();
}

void WiringPanel::moveEnd(const QString& connection, bool second, const QString& to) {
  const auto end = parseAddress(to.toStdString());
  if (!end || m_session.document.readOnly()) return;
  const auto edit = harness::moveEnd(m_session.document.harness(), m_session.document.library(), connection.toStdString(), second, *end);
  if (!edit) {
    Q_EMIT refused(qs(edit.error().what));
    return;
  }
  m_session.document.apply(*edit);
  m_session.selection.select(connection);
}

void WiringPanel::moveTyped() {
  const auto run = harness::parseTypedRun(m_session.document.harness(), m_session.document.library(), m_entry->text().toStdString());
  if (!run) return say(qs(run.error().what));
  if (!take(harness::moveBundle(m_session.document.harness(), m_session.document.library(), m_moving, *run))) return;
  m_moving.clear();
  m_entry->clear();
  setMode(m_mode);
}

void WiringPanel::addTyped() {
  if (!m_moving.empty() && !m_session.document.readOnly()) return moveTyped();
  if (m_session.document.readOnly()) return say(tr("This file comes from a newer version: it can only be looked at."));
  const auto edit = harness::typedWires(m_session.document.harness(), m_session.document.library(), m_entry->text().toStdString());
  if (!edit) return say(qs(edit.error().what));
  put(*edit);
  m_entry->clear();
  if (m_mode == Mode::Make) return;
  m_look->mark(harness::Marked::Seen);  // whoever found it saw both its ends
  m_entry->hide();
  m_table->setFocus();
}

void WiringPanel::join(const QString& from, const QString& to) {
  const auto a = parseAddress(from.toStdString());
  const auto b = parseAddress(to.toStdString());
  if (!a || !b || m_session.document.readOnly()) return;
  const auto edit = harness::join(m_session.document.harness(), m_session.document.library(), *a, *b);
  if (edit)
    put(*edit);
  else
    Q_EMIT refused(qs(edit.error().what));
}

void WiringPanel::put(const harness::Edit& edit) {
  say({});
  const auto id = edit.changes.front().as<harness::Put<harness::Connection>>()->value.id;
  m_session.document.apply(edit);
  m_session.selection.select(qs(id));
}

bool WiringPanel::focusField(const QString& name) {
  auto* field = m_editor->field(name);
  (field ? field : m_table)->setFocus(Qt::OtherFocusReason);
  return true;
}

void WiringPanel::removeSelected() {
  m_editor->removePicked();
}

void WiringPanel::markSelectedDone() {
  m_editor->markPickedDone();
}

}  // namespace bold::gui
