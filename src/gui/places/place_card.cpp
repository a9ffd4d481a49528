#include "gui/places/place_card.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "core/harness/names.h"
#include "core/harness/seen_part.h"
#include "core/places/neighbours.h"
#include "core/places/words.h"
#include "gui/panels/spoken.h"
#include "gui/places/numbering_words.h"
#include "gui/places/place_view.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
PlaceCard::PlaceCard(Session& session, std::string part, std::string device, QWidget* parent)
    : QWidget(parent), m_session(session), m_part(std::move(part)), m_device(std::move(device)) {
  setObjectName("placeCard");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(8, 8, 8, 8);
  m_hold = plainLabel(this);
  m_hold->setObjectName("placeHold");
  m_hold->setWordWrap(true);
  m_order = plainLabel(this);
  m_order->setObjectName("placeOrder");
  m_order->setWordWrap(true);
  m_mine = new QPushButton(tr("It looks like mine"), this);
  m_mine->setObjectName("placeMine");
  m_view = new PlaceView(this);
  m_view->setObjectName("placeView");
  m_said = plainLabel(this);
  m_said->setObjectName("placeSaid");
  m_said->setWordWrap(true);
  m_turn = new QPushButton(tr("Turn"), this);
  m_turn->setObjectName("placeTurn");
  m_turn->setToolTip(tr("A quarter clockwise, as it lies on your table"));
  m_below = new QCheckBox(tr("from the solder side"), this);
  m_below->setObjectName("placeBelow");
  m_names = new QComboBox(this);
  m_names->setObjectName("placeNames");
  speak(m_names, tr("What its terminals are called"));
  auto* row = new QHBoxLayout;
  row->addWidget(m_turn);
  row->addWidget(m_below);
  row->addStretch();
  column->addWidget(m_hold);
  column->addWidget(m_order);
  column->addWidget(m_mine);
  column->addWidget(m_view, 1);
  column->addWidget(m_said);
  column->addLayout(row);
  column->addWidget(m_names);
  if (const auto p = this->part())
    for (const auto n : places::numberingsOf(*p)) m_names->addItem(numberingWords(n), static_cast<int>(n));
  connect(m_turn, &QPushButton::clicked, this, [this] { lie({(m_wish.lie.quarters + 1) % 4, m_wish.lie.fromBelow}); });
  connect(m_below, &QCheckBox::clicked, this, [this](bool on) { lie({m_wish.lie.quarters, on}); });
  connect(m_names, &QComboBox::activated, this, [this] {
    m_wish.names = static_cast<places::Numbering>(m_names->currentData().toInt());
    refresh();
  });
  connect(m_mine, &QPushButton::clicked, this, &PlaceCard::confirm);
  connect(m_view, &PlaceView::picked, this, [this](int terminal) {
    m_wish.wanted = {terminal};
    refresh();
  });
  connect(&m_session.document, &Document::changed, this, &PlaceCard::refresh);
  refresh();
}

std::shared_ptr<const parts::Part> PlaceCard::part() const {
  return m_session.document.library().find(m_part);
}

void PlaceCard::refresh() {
  const auto* d = m_session.document.harness().device(m_device);
  const auto p = part();
  if (!p) return;
  if (d) m_wish.lie = d->lie;
  const bool drawn = !p->layout.empty();
  const bool certain = p->layoutKnown || (d && d->orderSeen);
  m_hold->setText(drawn ? tr("Held: %1").arg(qs(places::holdWords(*p, m_wish.lie))) : QString());
  m_hold->setVisible(drawn);
  m_order->setText(!drawn     ? tr("Order not known: look at the print.")
                   : !certain ? (d ? tr("This is the usual order, and not certain: compare it with the print on yours.")
                                   : tr("This is the usual order, and not certain: look at the print."))
                              : QString());
  m_order->setVisible(!m_order->text().isEmpty());
  m_mine->setVisible(d && drawn && !certain);
  m_mine->setEnabled(!m_session.document.readOnly());
  m_below->setChecked(m_wish.lie.fromBelow);
  for (QWidget* w : std::initializer_list<QWidget*>{m_view, m_turn, m_below}) w->setVisible(drawn);
  m_names->setVisible(drawn && m_names->count() > 1);
  m_view->show(p, m_wish);
  QString said;
  if (!m_wish.wanted.empty()) {
    auto sure = std::make_shared<parts::Part>(*p);
    sure->layoutKnown = certain;
    const int t = m_wish.wanted.front();
    said = qs(p->terminals[t].label + ": " + places::fullPlace(*sure, p->terminals[t], m_wish.lie));
  }
  m_said->setText(said.isEmpty() && drawn ? tr("Press on a terminal to have its place said.") : said);
  m_said->setVisible(drawn);
}

// Kept with the bench; of a part as such only shown.
void PlaceCard::lie(places::Lie lie) {
  m_wish.lie = lie;
  const auto& h = m_session.document.harness();
  if (const auto* d = h.device(m_device); d && !m_session.document.readOnly()) {
    auto turned = *d;
    turned.lie = lie;
    m_session.document.apply(
        {"Turn " + harness::shownName(h, *d) + " as it lies on the table", {harness::Put<harness::Device>{turned, {}}}});
  }
  refresh();
}

void PlaceCard::confirm() {
  const auto& h = m_session.document.harness();
  const auto* d = h.device(m_device);
  if (!d) return;
  auto seen = *d;
  seen.orderSeen = true;
  m_session.document.apply({"The terminals of " + harness::shownName(h, *d) + " lie as shown", {harness::Put<harness::Device>{seen, {}}}});
}

}  // namespace bold::gui
