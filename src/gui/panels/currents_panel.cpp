#include "gui/panels/currents_panel.h"

#include <QComboBox>
#include <QLabel>
#include <QScrollArea>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "core/bench/doing_words.h"
#include "core/bench/queries.h"
#include "core/charts/bridge_state.h"
#include "core/charts/flyback_curve.h"
#include "core/charts/heat_curve.h"
#include "core/charts/level_ladder.h"
#include "core/charts/sag_curve.h"
#include "gui/charts/bridge_chart.h"
#include "gui/charts/coil_order_chart.h"
#include "gui/charts/curve_plot.h"
#include "gui/charts/level_ladder_chart.h"
#include "gui/panels/fill_combo.h"
#include "gui/panels/spoken.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

constexpr double kNothing = 1e-3;  // A that are not worth a word

QString cornerName(bench::Corner c) {
  switch (c) {
    case bench::Corner::Full:
      return QObject::tr("supplies full, parts typical");
    case bench::Corner::Nominal:
      return QObject::tr("supplies nominal, parts typical");
    case bench::Corner::Empty:
      return QObject::tr("supplies empty, parts at their weakest");
    case bench::Corner::Strong:
      return QObject::tr("supplies full, parts at their strongest");
  }
  return {};
}

QLabel* heading(const QString& text, QWidget* parent) {
  auto* label = plainLabel(text, parent);
  QFont f = label->font();
  f.setWeight(QFont::DemiBold);
  label->setFont(f);
  return label;
}

// "Paddle runs forward, 0.51 A", then what each source gives.
QString whatHappens(const bench::SolvedBench& s, const bench::OperatingPoint& p) {
  QStringList lines;
  if (p.hunts()) lines << QObject::tr("A stage goes off and on, for want of supply: shown while it is on.");
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto& motor = s.motors[m];
    double amps = 0;
    for (const int w : motor.windings) amps = std::max(amps, std::abs(p.element(motor.device, w).value));
    auto line = QObject::tr("%1 %2").arg(qs(bench::called(s, motor)), qs(bench::doingWords(p, static_cast<int>(m))));
    if (amps > kNothing) line += QObject::tr(", %1").arg(qs(displayText(Amps{amps})));
    lines << line;
  }
  for (const auto& pole : s.nets.sources()) {
    const auto volts = p.across(pole.positive, pole.negative);
    const auto amps = p.element(pole.device, pole.element).value;
    const auto name = qs(bench::called(s.bench, pole.device));
    if (!volts) continue;
    lines << (amps < -kNothing ? QObject::tr("%1 takes in %2 at %3") : QObject::tr("%1 gives %2 at %3"))
                 .arg(name, qs(displayText(Amps{std::abs(amps)})), qs(displayText(*volts)));
  }
  return lines.join("\n");
}

}  // namespace

CurrentsPanel::CurrentsPanel(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
  setObjectName("currents");
  auto* outer = new QVBoxLayout(this);
  outer->setContentsMargins(12, 12, 8, 8);
  outer->setSpacing(6);
  auto* head = plainLabel(tr("Currents"), this);
  QFont f = head->font();
  f.setPixelSize(16);
  f.setWeight(QFont::DemiBold);
  head->setFont(f);
  outer->addWidget(head);
  m_command = new QComboBox(this);
  m_command->setObjectName("command");
  speak(m_command, tr("What the program asks for"));
  m_command->setToolTip(tr("What the program asks for (Alt+Right: the next)"));
  m_command->setMaxVisibleItems(24);
  m_command->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  m_corner = new QComboBox(this);
  m_corner->setObjectName("corner");
  speak(m_corner, tr("State of the supplies"));
  m_corner->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  outer->addWidget(m_command);
  outer->addWidget(m_corner);
  m_none = plainLabel(tr("Nothing to solve yet: put a motor, a stage and a supply on the bench and wire them."), this);
  m_none->setWordWrap(true);
  m_none->setForegroundRole(QPalette::PlaceholderText);
  outer->addWidget(m_none);

  auto* scroll = new QScrollArea(this);
  scroll->setFrameShape(QFrame::NoFrame);
  scroll->setWidgetResizable(true);
  scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* inside = new QWidget(scroll);
  auto* column = new QVBoxLayout(inside);
  column->setContentsMargins(0, 4, 6, 4);
  column->setSpacing(10);
  m_does = plainLabel(inside);
  m_does->setObjectName("does");
  m_does->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
  m_does->setWordWrap(true);
  m_bridge = new BridgeChart(inside);
  m_coils = new CoilOrderChart(inside);
  m_levelsHead = heading(tr("Signal levels, at their worst"), inside);
  m_levels = new LevelLadderChart(inside);
  m_curvesHead = heading(tr("Over time"), inside);
  for (QWidget* w : std::initializer_list<QWidget*>{m_does, m_bridge, m_coils, m_levelsHead, m_levels, m_curvesHead}) column->addWidget(w);
  for (int k = 0; k < 3; ++k) {
    m_curves.push_back(new CurvePlot(inside));
    column->addWidget(m_curves.back());
  }
  column->addStretch();
  scroll->setWidget(inside);
  outer->addWidget(scroll, 1);

  connect(m_command, &QComboBox::currentIndexChanged, this, [this] {
    if (m_filling) return;
    m_session.selection.showCommand(m_command->currentData().toString(), m_session.selection.shownCorner());
    fillCorners();
  });
  connect(m_corner, &QComboBox::currentIndexChanged, this, [this] {
    if (!m_filling)
      m_session.selection.showCommand(m_command->currentData().toString(), static_cast<bench::Corner>(m_corner->currentData().toInt()));
  });
  connect(&m_session.analyser, &Analyser::changed, this, [this] {
    fillCommands();
    refresh();
  });
  connect(&m_session.document, &Document::replaced, this, [this] {
    fillCommands();
    refresh();
  });
  connect(&m_session.selection, &Selection::commandShown, this, [this] {
    fillCommands();  // asked for from elsewhere: the lists say what is shown
    refresh();
  });
  connect(&m_session.selection, &Selection::changed, this, &CurrentsPanel::refresh);
  fillCommands();
  refresh();
}

void CurrentsPanel::step(int by) {
  if (m_command->count() > 0) m_command->setCurrentIndex(std::clamp(m_command->currentIndex() + by, 0, m_command->count() - 1));
}

void CurrentsPanel::showEvent(QShowEvent* e) {
  QWidget::showEvent(e);
  refresh();
}

void CurrentsPanel::fillCommands() {
  m_filling = true;
  std::vector<std::pair<QString, QVariant>> items;
  const auto& solved = m_session.analyser.analysis().solved;
  const auto* shown = m_session.shownPoint();
  if (solved)
    for (const auto& c : solved->commands)
      // Every state that the pins of a loose bridge can have: looked at one by one only where one of them was asked for.
      if (c.action != bench::Action::Combination || (shown && shown->command().id == c.id)) items.emplace_back(qs(c.title), qs(c.id));
  fillCombo(*m_command, items, shown ? qs(shown->command().id) : QString());
  m_filling = false;
  fillCorners();
}

void CurrentsPanel::fillCorners() {
  m_filling = true;
  std::vector<std::pair<QString, QVariant>> items;
  const auto* shown = m_session.shownPoint();
  if (shown)
    for (const auto c : shown->command().corners) items.emplace_back(cornerName(c), static_cast<int>(c));
  fillCombo(*m_corner, items, shown ? static_cast<int>(shown->corner()) : -1);
  m_filling = false;
}

// The motor the command is about; else the one that is picked; else the first.
int CurrentsPanel::motorShown() const {
  const auto* p = m_session.shownPoint();
  if (!p) return -1;
  if (p->command().motor >= 0) return p->command().motor;
  const auto& s = *m_session.analyser.analysis().solved;
  const auto picked = m_session.selection.subject().toStdString();
  for (std::size_t m = 0; m < s.motors.size(); ++m)
    if (bench::idOf(s.bench, s.motors[m].device) == picked) return static_cast<int>(m);
  return s.motors.empty() ? -1 : 0;
}

void CurrentsPanel::refresh() {
  if (!isVisible()) return;
  // Without a motor there are commands all the same, and nothing that they would show.
  const auto& solved = m_session.analyser.analysis().solved;
  const auto* p = solved && !solved->motors.empty() ? m_session.shownPoint() : nullptr;
  m_none->setVisible(!p);
  m_command->setVisible(p);
  m_corner->setVisible(p);
  m_does->setVisible(p);
  if (p) m_does->setText(p->solved() ? whatHappens(*solved, *p) : tr("Not judged: %1").arg(qs(p->whyNot())));
  refreshFigures();
}

void CurrentsPanel::refreshFigures() {
  const auto* p = m_session.shownPoint();
  const int motor = motorShown();
  const auto& solved = m_session.analyser.analysis().solved;
  const bool usable = p && p->solved() && motor >= 0;
  m_bridge->show(usable ? charts::bridgeState(*solved, motor, *p) : std::nullopt);
  // Levels and curves do not depend on the command.
  if (usable && m_drawn == solved && m_drawnMotor == motor) return;
  m_drawn = usable ? solved : nullptr;
  m_drawnMotor = usable ? motor : -1;
  m_coils->show(usable ? bench::coilOrder(*solved, motor) : std::nullopt);
  auto rungs = usable ? charts::levelLadder(*solved) : std::vector<charts::Rung>{};
  if (usable) {
    const auto& m = solved->motors[motor];
    std::erase_if(rungs, [&](const auto& r) {
      return std::ranges::none_of(m.reached, [&](const auto& ref) { return ref.device == solved->bench.deviceOf(r.input); });
    });
  }
  m_levelsHead->setVisible(!rungs.empty());
  m_levels->show(std::move(rungs));
  std::vector<charts::Curve> curves;
  if (usable)
    for (auto curve : {charts::sagCurve(*solved, motor), charts::heatCurve(*solved, motor), charts::flybackCurve(*solved, motor)})
      if (curve) curves.push_back(std::move(*curve));
  m_curvesHead->setVisible(!curves.empty());
  for (std::size_t k = 0; k < m_curves.size(); ++k) {
    m_curves[k]->setVisible(k < curves.size());
    if (k < curves.size()) m_curves[k]->show(curves[k]);
  }
}

}  // namespace bold::gui
