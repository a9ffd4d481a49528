#include "gui/places/ends_view.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include "core/harness/names.h"
#include "core/harness/seen_part.h"
#include "core/places/neighbours.h"
#include "core/places/words.h"
#include "gui/places/place_view.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

constexpr int kTall = 160;
constexpr int kLines = 6;  // of type: the name and what is said below
constexpr double kPitch = 20;

}  // namespace

EndsView::EndsView(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
  setObjectName("wirePlaces");
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(8);
  for (std::size_t k = 0; k < m_ends.size(); ++k) {
    auto& e = m_ends[k];
    e.box = new QWidget(this);
    auto* column = new QVBoxLayout(e.box);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(2);
    e.name = plainLabel(e.box);
    QFont strong = e.name->font();
    strong.setWeight(QFont::DemiBold);
    e.name->setFont(strong);
    e.name->setWordWrap(true);
    e.place = new PlaceView(e.box);
    e.place->setObjectName(k == 0 ? "placeOfFirst" : "placeOfSecond");
    e.place->setFixedHeight(kTall);
    e.words = plainLabel(e.box);
    e.words->setObjectName(k == 0 ? "wordsOfFirst" : "wordsOfSecond");
    e.words->setWordWrap(true);
    column->addWidget(e.name);
    column->addWidget(e.place);
    column->addWidget(e.words);
    column->addStretch();
    row->addWidget(e.box, 1);
  }
  setTall(kTall);
  show(QString(), QString());
}

// Always as tall: what stands below does not move from wire to wire.
void EndsView::setTall(int pixels) {
  if (m_tall == pixels) return;
  m_tall = pixels;
  for (auto& e : m_ends) {
    e.place->setFixedHeight(std::max(1, pixels));
    if (pixels == 0) e.place->hide();
  }
  setFixedHeight(pixels + kLines * fontMetrics().lineSpacing() + 4);
}

void EndsView::setLarge(bool large) {
  for (auto& e : m_ends) {
    QFont f = e.name->font();
    f.setPixelSize(large ? 19 : 13);
    e.name->setFont(f);
  }
}

void EndsView::fill(End& end, const std::optional<Address>& at, const QString& colour) {
  const auto& h = m_session.document.harness();
  const auto* d = at ? h.device(at->device) : nullptr;
  const auto part = d ? harness::seenPart(m_session.document.library().find(d->part), *d, h) : nullptr;
  const auto* t = part ? part->find(at->terminal) : nullptr;
  end.box->setVisible(t != nullptr);
  if (!t) return;
  const int index = part->indexOf(t->id);
  end.name->setText(qs(harness::shownEnd(h, m_session.document.library(), *at)));
  QStringList words{qs(places::fullPlace(*part, *t, d->lie))};
  const bool drawn = part->layoutKnown && std::ranges::any_of(part->layout.rows, [&](const parts::LayoutRow& row) {
                       return std::ranges::count(row.terminals, t->id) > 0;
                     });
  end.place->setVisible(drawn && m_tall > 0);
  if (drawn) {
    places::Wish wish;
    wish.lie = d->lie;
    wish.wanted = {index};
    wish.pitch = kPitch;
    end.place->show(part, wish, colour.isEmpty() ? QColor() : wireColour(colour));
    if (const auto beside = places::besideIt(*part, index); !beside.empty() && d->lie == places::Lie{}) words << qs(beside);
    if (const auto hold = places::holdWords(*part, d->lie); !hold.empty()) words << tr("held: %1").arg(qs(hold));
  } else if (part->terminals.size() > 2) {
    words << tr("order not known: look at the print");
  }
  end.words->setText(words.join("\n"));
}

void EndsView::show(const QString& a, const QString& b, const QString& colour) {
  const auto end = [](const QString& text) {
    const auto parsed = parseAddress(text.toStdString());
    return parsed ? std::optional(*parsed) : std::nullopt;
  };
  show(end(a), end(b), colour);
}

void EndsView::show(const std::optional<Address>& a, const std::optional<Address>& b, const QString& colour) {
  fill(m_ends[0], a, colour);
  fill(m_ends[1], b, colour);
  setVisible(!m_ends[0].box->isHidden() || !m_ends[1].box->isHidden());
}

}  // namespace bold::gui
