#include "gui/panels/wiring_panel.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include "core/base/ordinal.h"
#include "core/harness/recipe.h"
#include "gui/panels/plural.h"
#include "gui/panels/spoken.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

QString qs(const std::string& s) {
  return QString::fromStdString(s);
}

QIcon swatch(const QString& code) {
  QPixmap pix(28, 14);
  pix.fill(Qt::transparent);
  QPainter p(&pix);
  p.setRenderHint(QPainter::Antialiasing);
  QColor stripe;
  p.setPen(QPen(palette().casing, 1));
  p.setBrush(wireColour(code, &stripe));
  p.drawRoundedRect(QRectF(1, 2, 26, 10), 3, 3);
  if (stripe.isValid()) p.fillRect(QRectF(9, 3, 9, 8), stripe);
  return QIcon(pix);
}

// Both ends in the words of a person with a finger on the bench.
QString inWords(const Session& s, const Address& a) {
  const auto* d = s.harness().device(a.device);
  const auto part = d ? s.library().find(d->part) : nullptr;
  const auto* t = part ? part->find(a.terminal) : nullptr;
  if (!t) return qs(a.text());
  QString out = qs(d->called()) + " " + qs(t->label);
  if (part->layoutKnown && t->place.position > 0)
    out += " (" + qs(t->place.connector) + ", " + qs(ordinal(t->place.position)) + ")";
  else
    out += " (" + qs(t->place.contact) + ")";
  return out;
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
  m_entry->setPlaceholderText(tr("type a wire: d9 s1.in1"));
  m_entry->setAccessibleName(tr("Type a wire, two terminals with a space between"));
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

  auto* row = new QHBoxLayout;
  m_colour = new QComboBox(this);
  m_colour->setObjectName("wireColour");
  speak(m_colour, tr("Wire colour"));
  for (const auto& [code, name] : wireCodes()) m_colour->addItem(swatch(code), code + "  " + name, code);
  m_remove = new QPushButton(tr("Delete"), this);
  m_remove->setObjectName("wireDelete");
  m_done = new QPushButton(tr("It is done"), this);
  m_done->setObjectName("wireDone");
  m_done->setToolTip(tr("The planned change has been made on the bench (Ctrl+D)"));
  row->addWidget(m_colour, 1);
  row->addWidget(m_done);
  row->addWidget(m_remove);
  column->addLayout(row);

  m_table = new QTableWidget(0, 4, this);
  m_table->setObjectName("wireTable");
  m_table->setAccessibleName(tr("Connections"));
  m_table->setHorizontalHeaderLabels({tr("Id"), tr("From"), tr("To"), tr("State")});
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
  m_table->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
  m_table->horizontalHeader()->setSectionResizeMode(2, QHeaderView::Stretch);
  column->addWidget(m_table, 1);
  m_allDone = new QPushButton(tr("Mark all planned changes as done"), this);
  m_allDone->setObjectName("allDone");
  column->addWidget(m_allDone);

  connect(m_entry, &QLineEdit::returnPressed, this, &WiringPanel::addTyped);
  connect(m_colour, &QComboBox::activated, this, &WiringPanel::recolour);
  connect(m_remove, &QPushButton::clicked, this, &WiringPanel::removeSelected);
  connect(m_done, &QPushButton::clicked, this, &WiringPanel::markSelectedDone);
  connect(m_allDone, &QPushButton::clicked, this, [this] { m_session.apply(harness::markAllDone(m_session.harness())); });
  connect(m_table, &QTableWidget::itemSelectionChanged, this, [this] {
    if (m_filling || m_table->currentRow() < 0 || m_table->selectedItems().isEmpty()) return;
    m_session.select(m_table->item(m_table->currentRow(), 0)->text());
  });
  connect(&m_session, &Session::documentChanged, this, &WiringPanel::refresh);
  connect(&m_session, &Session::selectionChanged, this, &WiringPanel::showSelection);
  refresh();
}

void WiringPanel::focusEntry() {
  m_entry->setFocus();
  m_entry->selectAll();
}

void WiringPanel::refresh() {
  m_filling = true;
  const auto& h = m_session.harness();
  m_table->setRowCount(static_cast<int>(h.connections.size()));
  for (int i = 0; i < m_table->rowCount(); ++i) {
    const auto& c = h.connections[static_cast<std::size_t>(i)];
    const QString state = c.state == harness::State::Planned       ? tr("to add")
                          : c.state == harness::State::ToBeRemoved ? tr("to take away")
                                                                   : tr("there");
    auto* id = new QTableWidgetItem(qs(c.id));
    if (c.kind == harness::ConnectionKind::Wire) id->setIcon(swatch(qs(c.colour)));
    id->setToolTip(c.kind == harness::ConnectionKind::Wire   ? tr("wire")
                   : c.kind == harness::ConnectionKind::Plug ? tr("plug")
                                                             : tr("jumper"));
    m_table->setItem(i, 0, id);
    m_table->setItem(i, 1, new QTableWidgetItem(qs(c.a.text())));
    m_table->setItem(i, 2, new QTableWidgetItem(qs(c.b.text())));
    m_table->setItem(i, 3, new QTableWidgetItem(state));
  }
  m_filling = false;
  const int open = h.openChanges();
  m_allDone->setVisible(open > 0);
  m_allDone->setText(tr("%1 planned: mark all as done").arg(plural(open, tr("change"), tr("changes"))));
  showSelection();
}

void WiringPanel::showSelection() {
  const auto& h = m_session.harness();
  const auto* c = h.connection(m_session.selection().toStdString());
  m_filling = true;
  if (c) {
    m_table->selectRow(static_cast<int>(c - h.connections.data()));
  } else {
    m_table->clearSelection();
  }
  m_filling = false;
  const bool wire = c && c->kind == harness::ConnectionKind::Wire;
  m_colour->setEnabled(wire && !m_session.readOnly());
  m_remove->setEnabled(c && !m_session.readOnly());
  m_done->setEnabled(c && c->state != harness::State::OnBench);
  if (wire) m_colour->setCurrentIndex(m_colour->findData(qs(c->colour)));
  if (c) {
    m_ends->setText(inWords(m_session, c->a) + "\n" + inWords(m_session, c->b));
  } else if (const auto a = parseAddress(m_session.selection().toStdString())) {
    QStringList ends;
    for (const auto& x : h.connections)
      if (x.a == *a || x.b == *a) ends << qs(x.id);
    m_ends->setText(inWords(m_session, *a) + "\n" +
                    (ends.isEmpty() ? tr("nothing is connected here") : tr("connected by %1").arg(ends.join(", "))));
  } else {
    m_ends->setText(h.connections.empty() ? tr("No wires yet. Drag from one terminal to another, or type both ends above.")
                                          : tr("Pick a wire to see both its ends."));
  }
}

void WiringPanel::addTyped() {
  const auto typed = harness::parseTypedWire(m_session.harness(), m_session.library(), m_entry->text().toStdString());
  m_said->setVisible(!typed);
  if (!typed) {
    m_said->setText(qs(typed.error().what));
    auto p = m_said->palette();
    p.setColor(QPalette::WindowText, gui::palette().stop);
    m_said->setPalette(p);
    return;
  }
  const auto edit = harness::addWire(m_session.harness(), m_session.library(), typed->a, typed->b);
  const auto id = std::get<harness::Put<harness::Connection>>(edit.changes.front()).value.id;
  m_session.apply(edit);
  m_session.select(qs(id));
  m_entry->clear();
}

void WiringPanel::recolour(int index) {
  const auto* c = m_session.harness().connection(m_session.selection().toStdString());
  if (!c) return;
  auto changed = *c;
  changed.colour = m_colour->itemData(index).toString().toStdString();
  if (changed.colour == c->colour) return;
  m_session.apply({"Recolour " + c->id, {harness::Put<harness::Connection>{changed, {}}}});
}

void WiringPanel::removeSelected() {
  const auto* c = m_session.harness().connection(m_session.selection().toStdString());
  if (!c) return;
  m_session.apply({"Delete " + c->id, {harness::Drop<harness::Connection>{c->id}}});
  m_session.select({});
}

void WiringPanel::markSelectedDone() {
  const auto id = m_session.selection().toStdString();
  const auto* c = m_session.harness().connection(id);
  if (c && c->state != harness::State::OnBench) m_session.apply(harness::markDone(m_session.harness(), id));
}

}  // namespace bold::gui
