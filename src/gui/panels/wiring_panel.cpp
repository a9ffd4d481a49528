#include "gui/panels/wiring_panel.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableView>
#include <QVBoxLayout>
#include <algorithm>
#include <functional>

#include "core/harness/join.h"
#include "core/harness/mark_done.h"
#include "core/harness/names.h"
#include "core/harness/seen_part.h"
#include "core/harness/typed_end.h"
#include "core/places/words.h"
#include "gui/panels/connection_model.h"
#include "gui/panels/plural.h"
#include "gui/panels/spoken.h"
#include "gui/panels/tab_order.h"
#include "gui/places/ends_view.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/subject_menu.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

// Those that the library knows, the thinnest first.
std::vector<int> gauges(const parts::Library& library) {
  std::vector<int> out;
  for (const auto& p : library.search("wire"))
    if (p->kind == "wire" && p->id.starts_with("wire-")) out.push_back(std::atoi(p->id.c_str() + 5));
  std::ranges::sort(out, std::greater<>());
  return out;
}

// Both ends in the words of a person with a finger on the bench.
QString inWords(const Session& s, const Address& a) {
  const auto* d = s.document.harness().device(a.device);
  const auto part = d ? harness::seenPart(s.document.library().find(d->part), *d, s.document.harness()) : nullptr;
  const auto* t = part ? part->find(a.terminal) : nullptr;
  const auto out = qs(shownEnd(s.document.harness(), s.document.library(), a));
  return t ? out + " (" + qs(places::placeWords(*part, *t, d->lie)) + ")" : out;
}

}  // namespace

WiringPanel::WiringPanel(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
  setObjectName("wiring");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 10, 10);
  column->setSpacing(8);
  auto* head = plainLabel(tr("Wiring"), this);
  QFont f = head->font();
  f.setPixelSize(16);
  f.setWeight(QFont::DemiBold);
  head->setFont(f);
  column->addWidget(head);

  m_entry = new QLineEdit(this);
  m_entry->setObjectName("wireEntry");
  m_entry->setPlaceholderText(tr("type a wire, d9 s1.in1, or a plug, usb uno"));
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

  auto* row = new QHBoxLayout;
  m_colour = new QComboBox(this);
  m_colour->setObjectName("wireColour");
  speak(m_colour, tr("Wire colour"));
  for (const auto& [code, name] : wireCodes()) m_colour->addItem(wireSwatch(code), code + "  " + name, code);
  m_remove = new QPushButton(tr("Delete"), this);
  m_remove->setObjectName("wireDelete");
  m_remove->setToolTip(tr("It is not on the bench (Delete)"));
  m_done = new QPushButton(tr("It is done"), this);
  m_done->setObjectName("wireDone");
  m_done->setToolTip(tr("The planned change has been made on the bench (Ctrl+D)"));
  m_gauge = new QComboBox(this);
  m_gauge->setObjectName("wireGauge");
  speak(m_gauge, tr("Wire gauge"));
  m_gauge->setToolTip(tr("How thick the wire is; where it is not given, what such wires usually are is taken"));
  m_gauge->addItem(tr("gauge ?"), 0);
  for (const auto& awg : gauges(session.document.library())) m_gauge->addItem(tr("%1 AWG").arg(awg), awg);
  m_length = new QLineEdit(this);
  m_length->setObjectName("wireLength");
  m_length->setAccessibleName(tr("Length of the wire"));
  m_length->setPlaceholderText(tr("length, 0.3 m"));
  m_length->setToolTip(tr("How long the wire is; where it is not given, 0.2 or 0.3 m is taken"));
  m_colour->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  row->addWidget(m_colour, 3);
  row->addWidget(m_gauge, 2);
  row->addWidget(m_length, 2);
  column->addLayout(row);
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(m_done);
  buttons->addWidget(m_remove);
  buttons->addStretch();
  column->addLayout(buttons);

  m_rows = new ConnectionModel(this);
  m_table = new QTableView(this);
  m_table->setModel(m_rows);
  m_table->setObjectName("wireTable");
  m_table->setAccessibleName(tr("Connections"));
  m_table->verticalHeader()->hide();
  m_table->verticalHeader()->setDefaultSectionSize(26);
  m_table->setSelectionBehavior(QAbstractItemView::SelectRows);
  m_table->setSelectionMode(QAbstractItemView::SingleSelection);
  m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
  m_table->setShowGrid(false);
  m_table->setTabKeyNavigation(false);
  m_table->setIconSize({28, 14});
  m_table->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  m_table->horizontalHeader()->setSectionResizeMode(ConnectionModel::From, QHeaderView::Stretch);
  m_table->horizontalHeader()->setSectionResizeMode(ConnectionModel::To, QHeaderView::Stretch);
  m_table->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);  // what is cut short stands in the tip
  m_table->setWordWrap(false);
  m_table->setTextElideMode(Qt::ElideMiddle);  // a terminal is at the end of its name
  m_table->setContextMenuPolicy(Qt::CustomContextMenu);
  connect(m_table, &QWidget::customContextMenuRequested, this, [this](const QPoint& at) {
    if (const auto index = m_table->indexAt(at); index.isValid()) {
      m_session.selection.select(m_rows->idOf(index));
      showSubjectMenu(m_session, m_session.selection.subject(), m_table->viewport()->mapToGlobal(at), this);
    }
  });
  column->addWidget(m_table, 1);
  m_allDone = new QPushButton(tr("Mark all planned changes as done"), this);
  m_allDone->setObjectName("allDone");
  column->addWidget(m_allDone);

  tabInOrder({m_entry, m_colour, m_gauge, m_length, m_done, m_remove, m_table, m_allDone});
  connect(m_entry, &QLineEdit::returnPressed, this, &WiringPanel::addTyped);
  connect(m_entry, &QLineEdit::textChanged, this, &WiringPanel::followTyped);
  connect(m_colour, &QComboBox::activated, this, &WiringPanel::recolour);
  connect(m_gauge, &QComboBox::activated, this, [this] {
    const int awg = m_gauge->currentData().toInt();
    change("gauge", [awg](auto& c) { c.gauge = awg > 0 ? std::optional(awg) : std::nullopt; });
  });
  connect(m_length, &QLineEdit::editingFinished, this, &WiringPanel::takeLength);
  connect(m_remove, &QPushButton::clicked, this, &WiringPanel::removeSelected);
  connect(m_done, &QPushButton::clicked, this, &WiringPanel::markSelectedDone);
  connect(m_allDone, &QPushButton::clicked, this, [this] { m_session.document.apply(harness::markAllDone(m_session.document.harness())); });
  connect(m_table->selectionModel(), &QItemSelectionModel::selectionChanged, this, [this] {
    if (m_filling || !m_table->selectionModel()->hasSelection()) return;
    m_session.selection.select(m_rows->idOf(m_table->currentIndex()));
  });
  connect(&m_session.document, &Document::changed, this, &WiringPanel::refresh);
  connect(&m_session.selection, &Selection::changed, this, &WiringPanel::showSelection);
  refresh();
}

void WiringPanel::focusEntry() {
  m_entry->setFocus();
  m_entry->selectAll();
}

void WiringPanel::refresh() {
  const auto& h = m_session.document.harness();
  m_filling = true;
  m_rows->show(harness::connectionTable(h, m_session.document.library()));
  m_filling = false;
  const int open = h.openChanges();
  m_table->setColumnHidden(ConnectionModel::Made,
                           std::ranges::all_of(h.connections, [](const auto& c) { return c.state == harness::State::OnBench; }));
  m_allDone->setVisible(open > 0);
  m_allDone->setText(tr("%1 planned: mark all as done").arg(plural(open, tr("change"), tr("changes"))));
  showSelection();
}

void WiringPanel::showSelection() {
  const auto& h = m_session.document.harness();
  const auto* c = h.connection(m_session.selection.subject().toStdString());
  m_filling = true;
  if (c) {
    const int row = m_rows->rowOf(qs(c->id));
    if (m_table->currentIndex().row() != row || !m_table->selectionModel()->hasSelection()) m_table->selectRow(row);
  } else {
    m_table->clearSelection();
  }
  m_filling = false;
  const bool wire = c && c->kind == harness::ConnectionKind::Wire;
  for (QWidget* w : std::initializer_list<QWidget*>{m_colour, m_gauge, m_length}) w->setEnabled(wire && !m_session.document.readOnly());
  m_remove->setEnabled(c && !m_session.document.readOnly());
  m_done->setEnabled(c && c->state != harness::State::OnBench && !m_session.document.readOnly());
  if (wire) m_colour->setCurrentIndex(m_colour->findData(qs(c->colour)));
  if (wire) m_gauge->setCurrentIndex(std::max(0, m_gauge->findData(c->gauge.value_or(0))));
  const auto length = wire && c->length ? qs(displayText(*c->length)) : QString();
  const auto of = c ? qs(c->id) : QString();
  if (of != m_lengthOf || (!m_length->isModified() && m_length->text() != length)) m_length->setText(length);
  m_lengthOf = of;
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

void WiringPanel::addTyped() {
  if (m_session.document.readOnly()) return say(tr("This file comes from a newer version: it can only be looked at."));
  const auto edit = harness::typedJoin(m_session.document.harness(), m_session.document.library(), m_entry->text().toStdString());
  if (!edit) return say(qs(edit.error().what));
  put(*edit);
  m_entry->clear();
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
  const auto id = std::get<harness::Put<harness::Connection>>(edit.changes.front()).value.id;
  m_session.document.apply(edit);
  m_session.selection.select(qs(id));
}

void WiringPanel::change(const std::string& what, const std::function<void(harness::Connection&)>& f) {
  const auto* c = m_session.document.harness().connection(m_session.selection.subject().toStdString());
  if (!c) return;
  auto changed = *c;
  f(changed);
  if (changed == *c) return;
  m_session.document.apply({"Change the " + what + " of " + shownEnds(m_session.document.harness(), m_session.document.library(), *c),
                            {harness::Put<harness::Connection>{changed, {}}}});
}

void WiringPanel::takeLength() {
  if (!m_length->isModified()) return;
  const auto typed = m_length->text().trimmed().toStdString();
  std::optional<Metres> length;
  if (!typed.empty()) {
    const auto parsed = parse<Metres>(typed);
    if (!parsed || parsed->value <= 0) return say(parsed ? tr("A wire is longer than nothing.") : qs(parsed.error().what));
    length = *parsed;
  }
  say({});
  m_length->setModified(false);
  change("length", [&](auto& c) { c.length = length; });
}

bool WiringPanel::focusField(const QString& name) {
  QWidget* field = name == "gauge"    ? static_cast<QWidget*>(m_gauge)
                   : name == "length" ? m_length
                   : name == "colour" ? static_cast<QWidget*>(m_colour)
                                      : m_table;
  field->setFocus(Qt::OtherFocusReason);
  return true;
}

void WiringPanel::recolour(int index) {
  change("colour", [&](auto& c) { c.colour = m_colour->itemData(index).toString().toStdString(); });
}

void WiringPanel::removeSelected() {
  const auto* c = m_session.document.harness().connection(m_session.selection.subject().toStdString());
  if (!c) return;
  m_session.document.apply(
      {"Delete " + shownEnds(m_session.document.harness(), m_session.document.library(), *c), {harness::Drop<harness::Connection>{c->id}}});
  m_session.selection.select({});
}

void WiringPanel::markSelectedDone() {
  const auto id = m_session.selection.subject().toStdString();
  const auto* c = m_session.document.harness().connection(id);
  if (c && c->state != harness::State::OnBench) m_session.document.apply(harness::markDone(m_session.document.harness(), id));
}

}  // namespace bold::gui
