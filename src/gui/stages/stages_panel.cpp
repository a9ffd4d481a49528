#include "gui/stages/stages_panel.h"

#include <QButtonGroup>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QShortcut>
#include <QSpinBox>
#include <QVBoxLayout>
#include <algorithm>

#include "core/choose/stage_questions.h"
#include "core/choose/stock.h"
#include "core/harness/intent.h"
#include "core/harness/names.h"
#include "core/parts/roles.h"
#include "gui/panels/plural.h"
#include "gui/panels/spoken.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/stages/area_chart.h"
#include "gui/stages/candidate_list.h"
#include "gui/stages/drawer_dialog.h"
#include "gui/sums/sums_dialog.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

constexpr int kSide = 258;      // px, beside the list
constexpr int kSideTall = 300;  // below it
constexpr int kMostBenches = 200;

QLabel* heading(const QString& text, QWidget* parent, int pixels = 13) {
  auto* l = plainLabel(text, parent);
  QFont f = l->font();
  f.setPixelSize(pixels);
  f.setWeight(QFont::DemiBold);
  l->setFont(f);
  return l;
}

QLabel* paragraph(const char* name, QWidget* parent) {
  auto* l = plainLabel(parent);
  l->setObjectName(name);
  l->setWordWrap(true);
  l->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  QFont f = l->font();
  f.setPixelSize(12);
  l->setFont(f);
  return l;
}

// "12 V brushed · 0.5 A running · 2.1 A stalled · both ways · speed"
QString factsOf(const harness::Harness& h, const parts::Part& motor, const std::string& id) {
  QStringList out;
  for (const auto& e : motor.elements) {
    const auto* w = std::get_if<parts::Winding>(&e.body);
    if (!w) continue;
    const auto v = w->nominal.typical();
    if (v) out << StagesPanel::tr("%1%2").arg(qs(displayText(Volts{*v})), w->brushed ? StagesPanel::tr(" brushed") : QString());
    if (const auto i = w->run.typical()) out << StagesPanel::tr("%1 running").arg(qs(displayText(Amps{*i})));
    if (const auto r = w->resistance.typical(); v && r && *r > 0 && w->brushed)
      out << StagesPanel::tr("%1 stalled").arg(qs(displayText(Amps{*v / *r})));
    if (const auto phase = w->phase.typical()) out << StagesPanel::tr("%1 a coil").arg(qs(displayText(Amps{*phase})));
    break;
  }
  const auto intent = harness::intentFor(h, id);
  out << (intent.bothDirections ? StagesPanel::tr("both ways") : StagesPanel::tr("one way"));
  if (intent.speedControl) out << StagesPanel::tr("speed");
  return out.join(QString::fromUtf8(" · "));
}

}  // namespace

StagesPanel::StagesPanel(Session& session, QWidget* parent)
    : QWidget(parent), m_session(session), m_search(session.document), m_drawer(session.document.library()) {
  setObjectName("stagesPanel");
  m_outer = new QHBoxLayout(this);
  m_outer->setContentsMargins(12, 10, 8, 8);
  m_outer->setSpacing(10);
  auto* column = new QVBoxLayout;
  column->setSpacing(4);
  buildTop(*column);
  m_list = new CandidateList(session, this);
  m_list->setAccessibleName(tr("Stages for the motor, best first"));
  m_header = new CandidateHeader(*m_list, this);
  column->addWidget(m_header);
  column->addWidget(m_list, 1);
  m_said = plainLabel(this);
  m_said->setObjectName("stagesSaid");
  m_said->setForegroundRole(QPalette::PlaceholderText);
  m_said->setWordWrap(true);
  column->addWidget(m_said);
  m_outer->addLayout(column, 1);
  buildSide();
  m_outer->addWidget(m_side);
  connect(m_list, &CandidateList::picked, this, &StagesPanel::showCurrent);
  connect(m_list, &CandidateList::pinsChanged, this, &StagesPanel::refresh);
  connect(m_list, &QListView::activated, this, [this] { put(false); });
  connect(&m_search, &StageSearch::changed, this, &StagesPanel::refresh);
  connect(&m_drawer, &Drawer::changed, this, &StagesPanel::refresh);
  connect(&m_session.document, &Document::changed, this, [this] {
    m_due = true;
    if (isVisible()) restart();
  });
  connect(&m_session.selection, &Selection::changed, this, [this] {
    const int at = m_motor->findData(m_session.selection.subject());
    if (at < 0 || at == m_motor->currentIndex()) return;
    m_motor->setCurrentIndex(at);
    m_due = true;
    if (isVisible()) restart();
  });
  fillChoices();
}

void StagesPanel::buildTop(QBoxLayout& column) {
  m_motor = new QComboBox(this);
  m_motor->setObjectName("stagesMotor");
  speak(m_motor, tr("The motor that is to have a stage"));
  m_supply = new QComboBox(this);
  m_supply->setObjectName("stagesSupply");
  speak(m_supply, tr("What feeds the motor"));
  auto* row = new QHBoxLayout;
  row->addWidget(heading(tr("A stage for"), this, 16));
  row->addWidget(m_motor);
  auto* by = plainLabel(tr("fed by"), this);
  row->addWidget(by);
  row->addWidget(m_supply);
  row->addStretch();
  m_kind = new QComboBox(this);
  m_kind->setObjectName("stagesKind");
  speak(m_kind, tr("Which kind of stages"));
  m_kind->addItem(tr("every kind"), -1);
  for (const auto k : {StageKind::Transistor, StageKind::Bridge, StageKind::Stepper, StageKind::Other})
    m_kind->addItem(word(k), static_cast<int>(k));
  row->addWidget(m_kind);
  column.addLayout(row);
  m_facts = paragraph("stagesFacts", this);
  m_facts->setForegroundRole(QPalette::PlaceholderText);
  auto* facts = new QWidget(this);
  auto* second = new QHBoxLayout(facts);
  second->setContentsMargins(0, 0, 0, 0);
  second->addWidget(m_facts, 1);
  auto* legend = paragraph("stagesLegend", this);
  legend->setText(tr("bar: what is asked · tick: the limit"));
  legend->setForegroundRole(QPalette::PlaceholderText);
  legend->setWordWrap(false);
  second->addWidget(legend);
  column.addWidget(facts);
  auto* bar = new QWidget(this);
  auto* tools = new QHBoxLayout(bar);
  tools->setContentsMargins(0, 2, 0, 2);
  tools->setSpacing(6);
  m_filters = new QButtonGroup(this);
  for (int k = 0; k < kFilters; ++k) {
    auto* b = new QPushButton(bar);
    b->setObjectName(QString("stagesFilter%1").arg(k));
    b->setCheckable(true);
    m_filters->addButton(b, k);
    tools->addWidget(b);
  }
  m_filters->button(All)->setChecked(true);
  tools->addStretch();
  column.addWidget(bar);
  m_onlyWide = {by, m_supply, m_kind, facts, bar};
  connect(m_filters, &QButtonGroup::idClicked, this, &StagesPanel::refresh);
  connect(m_kind, &QComboBox::activated, this, &StagesPanel::refresh);
  connect(m_motor, &QComboBox::activated, this, [this] {
    m_session.selection.select(m_motor->currentData().toString());
    m_due = true;
    restart();
  });
  connect(m_supply, &QComboBox::activated, this, [this] {
    m_due = true;
    restart();
  });
}

void StagesPanel::buildSide() {
  m_side = new QWidget(this);
  m_side->setFixedWidth(kSide);
  auto* column = new QVBoxLayout(m_side);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  auto* scroll = new QScrollArea(m_side);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* inside = new QWidget(scroll);
  auto* facts = new QVBoxLayout(inside);
  facts->setContentsMargins(0, 0, 6, 0);
  auto* stands = heading(tr("What it stands, and what is asked of it"), inside);
  m_onlyWide.push_back(stands);
  facts->addWidget(stands);
  m_area = new AreaChart(inside);
  m_onlyWide.push_back(m_area);
  facts->addWidget(m_area);
  m_gets = paragraph("stagesGets", inside);
  facts->addWidget(m_gets);
  facts->addWidget(heading(tr("What is said against it"), inside));
  m_why = paragraph("stagesWhy", inside);
  facts->addWidget(m_why);
  auto* comes = new QHBoxLayout;
  comes->addWidget(heading(tr("It takes, for"), inside));
  m_benches = new QSpinBox(inside);
  m_benches->setObjectName("stagesBenches");
  m_benches->setRange(1, kMostBenches);
  m_benches->setAccessibleName(tr("For how many equal benches"));
  comes->addWidget(m_benches);
  comes->addWidget(heading(tr("benches"), inside));
  comes->addStretch();
  facts->addLayout(comes);
  m_comes = paragraph("stagesComes", inside);
  facts->addWidget(m_comes);
  auto* drawer = new QPushButton(tr("My drawer…"), inside);
  drawer->setObjectName("stagesDrawer");
  auto* sums = new QPushButton(tr("Sums…"), inside);
  sums->setObjectName("stagesSums");
  auto* more = new QHBoxLayout;
  more->addWidget(drawer);
  more->addWidget(sums);
  more->addStretch();
  facts->addLayout(more);
  connect(sums, &QPushButton::clicked, this, [this] {
    if (m_motor->count() > 0) (new SumsDialog(m_session, m_motor->currentData().toString().toStdString(), window()))->show();
  });
  connect(drawer, &QPushButton::clicked, this, [this] { (new DrawerDialog(m_session, m_drawer, this))->show(); });
  facts->addStretch();
  scroll->setWidget(inside);
  column->addWidget(scroll, 1);
  m_loom = new QPushButton(tr("Show it in the loom"), m_side);
  m_loom->setObjectName("stagesLoom");
  m_loom->setCheckable(true);
  column->addWidget(m_loom);
  m_putChanged = new QPushButton(m_side);
  m_putChanged->setObjectName("stagesPutChanged");
  column->addWidget(m_putChanged);
  m_put = new QPushButton(tr("Put it on the plan"), m_side);
  m_put->setObjectName("stagesPut");
  m_put->setProperty("primary", true);
  column->addWidget(m_put);
  connect(m_benches, &QSpinBox::valueChanged, this, &StagesPanel::refresh);
  connect(m_put, &QPushButton::clicked, this, [this] { put(false); });
  connect(m_putChanged, &QPushButton::clicked, this, [this] { put(true); });
  connect(m_loom, &QPushButton::toggled, this, &StagesPanel::setInLoom);
}

// The motors of the bench, those that hang on nothing first; its supplies.
void StagesPanel::fillChoices() {
  const auto& h = m_session.document.harness();
  const auto motor = m_motor->currentData().toString();
  const auto supply = m_supply->currentData().toString();
  m_motor->clear();
  m_supply->clear();
  m_supply->addItem(tr("the first that is free"), QString());
  for (const bool open : {true, false})
    for (const auto& d : h.devices) {
      const auto part = m_session.document.library().find(d.part);
      if (!part || !parts::isMotor(*part) || d.state == harness::State::ToBeRemoved) continue;
      const bool hangs = std::ranges::any_of(h.connections, [&](const auto& c) { return c.a.device == d.id || c.b.device == d.id; });
      if (hangs != open) m_motor->addItem(qs(harness::shownName(h, d)), qs(d.id));
    }
  for (const auto& d : h.devices)
    if (const auto part = m_session.document.library().find(d.part);
        part && parts::isSource(*part) && d.state != harness::State::ToBeRemoved)
      m_supply->addItem(qs(harness::shownName(h, d)), qs(d.id));
  const int picked = m_motor->findData(m_session.selection.subject());
  const int had = m_motor->findData(motor);
  m_motor->setCurrentIndex(picked >= 0 ? picked : std::max(had, 0));
  m_supply->setCurrentIndex(std::max(m_supply->findData(supply), 0));
}

void StagesPanel::chooseFor(const std::string& motor) {
  m_due = true;
  fillChoices();
  if (const int at = m_motor->findData(qs(motor)); at >= 0) m_motor->setCurrentIndex(at);
  if (isVisible()) restart();
}

void StagesPanel::showEvent(QShowEvent* e) {
  QWidget::showEvent(e);
  if (m_due) restart();
  m_list->setFocus();
}

void StagesPanel::hideEvent(QHideEvent* e) {
  QWidget::hideEvent(e);
  if (!m_search.done()) m_due = true;
  m_search.stop();
}

void StagesPanel::restart() {
  m_due = false;
  fillChoices();
  const auto motor = m_motor->currentData().toString().toStdString();
  const auto* device = m_session.document.harness().device(motor);
  const auto part = device ? choose::partOf(m_session.document.library(), *device) : nullptr;
  m_facts->setText(part ? factsOf(m_session.document.harness(), *part, motor) : QString());
  m_list->clearPins();
  if (part) {
    const bool judged = m_session.analyser.current();
    m_search.begin(motor, m_supply->currentData().toString().toStdString(),
                   judged ? std::optional(m_session.analyser.analysis().judged) : std::nullopt);
  } else {
    m_search.stop();
  }
  refresh();
}

bool StagesPanel::passes(const StageSearch::Row& row, int filter) const {
  const auto& c = row.candidate;
  switch (filter) {
    case InDrawer:
      return choose::inStock(c, m_drawer.stock(), m_benches->value());
    case Fits:
      return c.excluded.empty() && (c.verdict == Verdict::Clear || c.verdict == Verdict::LookAgain);
    case NothingBesides:
      return c.excluded.empty() && c.parts == 0;
    case LeavesChannel:
      return c.excluded.empty() && c.channelsLeft > 0;
    default:
      return true;
  }
}

void StagesPanel::refresh() {
  const bool any = m_motor->count() > 0;
  static const char* const kNames[kFilters]{QT_TR_NOOP("all %1"), QT_TR_NOOP("in my drawer %1"), QT_TR_NOOP("fits %1"),
                                            QT_TR_NOOP("nothing besides %1"), QT_TR_NOOP("leaves a channel %1")};
  const int kind = m_kind->currentData().toInt();
  std::vector<const StageSearch::Row*> shown;
  int counts[kFilters]{};
  if (any)
    for (const auto& row : m_search.rows()) {
      if (kind >= 0 && static_cast<int>(kindOf(m_session, row.candidate)) != kind) continue;
      for (int k = 0; k < kFilters; ++k) counts[k] += passes(row, k);
      if (passes(row, m_filters->checkedId())) shown.push_back(&row);
    }
  for (int k = 0; k < kFilters; ++k) m_filters->button(k)->setText(tr(kNames[k]).arg(counts[k]));
  m_list->show(shown);
  const auto open = std::ranges::count_if(m_search.rows(), [](const auto& r) { return !r.changeKnown; });
  const auto fit = std::ranges::count_if(m_search.rows(), [this](const auto& r) { return passes(r, Fits); });
  m_said->setText(
      !any                                                       ? tr("There is no motor on this bench. Ctrl+K adds one.")
      : m_search.tried() < m_search.all() || m_search.all() == 0 ? tr("Trying: %1 of %2").arg(m_search.tried()).arg(m_search.all())
      : open > 0 && !m_search.done()
          ? tr("%1; asking what would let %2 in").arg(plural(static_cast<int>(fit), tr("stage fits"), tr("stages fit"))).arg(open)
      : fit > 0 ? tr("%1, best first · Space compares · Enter puts it on the plan")
                      .arg(plural(static_cast<int>(fit), tr("stage fits"), tr("stages fit")))
                : tr("No stage of the library fits as the bench is."));
  showCurrent();
}

void StagesPanel::showCurrent() {
  const auto* row = m_list->currentRow();
  const bool usable = row && row->candidate.excluded.empty() && !m_session.document.readOnly();
  m_put->setEnabled(usable);
  const bool change = usable && row->change && row->change->plannable;
  m_putChanged->setVisible(change);
  if (change) m_putChanged->setText(tr("Put it on, %1").arg(qs(row->change->text)));
  std::vector<charts::OperatingArea> areas;
  if (row && row->candidate.area) areas.push_back(*row->candidate.area);
  for (const auto* p : m_list->pinned())
    if (p != row && p->candidate.area && areas.size() < 3) areas.push_back(*p->candidate.area);
  m_area->show(std::move(areas), row ? row->candidate.whiskers : std::vector<charts::Whisker>());
  QStringList gets;
  if (row) {
    const auto& g = row->candidate.gets;
    const auto line = [&](const QString& text, const std::optional<Volts>& v) {
      if (v) gets << text.arg(qs(displayText(*v)));
    };
    line(tr("The motor gets %1 at most"), g.most);
    line(tr("%1 running"), g.running);
    line(tr("%1 stalled"), g.stalled);
    if (g.speed) gets << tr("%1 % of its speed").arg(qRound(100 * *g.speed));
  }
  m_gets->setText(gets.join(", "));
  QStringList why;
  if (row && !row->candidate.excluded.empty()) why << qs(row->candidate.excluded);
  if (row && !row->candidate.unjudged.empty()) why << tr("Not judged: %1").arg(qs(row->candidate.unjudged));
  if (row)
    for (const auto& f : row->candidate.against) why << qs(f.text);
  if (row && row->candidate.sink) why << tr("It needs %1 K/W or less from the junction to the air.").arg(*row->candidate.sink, 0, 'g', 3);
  if (row && row->change) why << changeOf(*row) + ".";
  if (row && why.isEmpty()) why << tr("Nothing is said against it.");
  m_why->setText(why.join("\n\n"));
  QStringList comes;
  if (row && row->candidate.excluded.empty()) {
    comes = partLines(m_session, choose::addedParts(row->candidate));
    if (!comes.isEmpty()) comes.front() += tr(" as %1").arg(qs(row->candidate.device));
    comes << plural(row->candidate.pins, tr("pin"), tr("pins")) +
                 (row->candidate.pwmPins > 0 ? tr(", %1 with PWM").arg(row->candidate.pwmPins) : QString());
    const auto buy = partLines(m_session, choose::toBuy(row->candidate, m_drawer.stock(), m_benches->value()));
    if (!m_drawer.stock().empty() || m_benches->value() > 1)
      comes << (buy.isEmpty() ? tr("Nothing has to be bought.") : tr("To buy: %1").arg(buy.join(", ")));
  }
  m_comes->setText(comes.join("\n"));
  if (m_inLoom) Q_EMIT loomChanged();
}

void StagesPanel::setInLoom(bool in) {
  m_inLoom = in;
  for (auto* w : m_onlyWide) w->setVisible(!in);
  m_outer->setDirection(in ? QBoxLayout::TopToBottom : QBoxLayout::LeftToRight);
  m_side->setMinimumWidth(in ? 0 : kSide);
  m_side->setMaximumWidth(in ? QWIDGETSIZE_MAX : kSide);
  m_side->setMaximumHeight(in ? kSideTall : QWIDGETSIZE_MAX);
  Q_EMIT loomChanged();
}

std::optional<harness::Harness> StagesPanel::ghost() const {
  const auto* row = m_list->currentRow();
  if (!m_inLoom || !isVisible() || !row || !row->candidate.excluded.empty()) return std::nullopt;
  auto h = m_session.document.harness();
  harness::apply(h, row->candidate.edit);
  return h;
}

void StagesPanel::putCurrent() {
  put(false);
}

void StagesPanel::put(bool withChange) {
  const auto* row = m_list->currentRow();
  if (!row || !m_put->isEnabled()) return;
  auto edit = row->candidate.edit;
  if (withChange && row->change) {
    auto h = m_session.document.harness();
    harness::apply(h, edit);
    for (const auto& c : row->change->changes) {
      const auto more = c.edit(h);
      harness::apply(h, more);
      edit.changes.insert(edit.changes.end(), more.changes.begin(), more.changes.end());
    }
  }
  const auto motor = m_search.motor();
  m_session.document.apply(edit);
  m_session.selection.select(qs(motor));
  Q_EMIT placed();
}

}  // namespace bold::gui
