#include "gui/wiring/read_back_view.h"

#include <QComboBox>
#include <QDateTime>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QScrollArea>
#include <QSettings>
#include <QSpinBox>
#include <QStackedWidget>
#include <QVBoxLayout>
#include <random>

#include "core/harness/colour_codes.h"
#include "core/harness/end_place.h"
#include "core/harness/names.h"
#include "core/harness/seen_part.h"
#include "core/harness/typed_end.h"
#include "gui/field_manners.h"
#include "gui/half_typed.h"
#include "gui/panels/plural.h"
#include "gui/panels/spoken.h"
#include "gui/places/ends_view.h"
#include "gui/places/place_view.h"
#include "gui/qs.h"
#include "gui/session/second_opinion.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

constexpr int kWide = 640;                             // of what is read
constexpr const char* kEdit = "Read the wiring back";  // stands in the undo list, where no answer may

QString now() {
  return QDateTime::currentDateTime().toString("yyyy-MM-ddTHH:mm");
}

QLabel* heading(const QString& text, QWidget* parent, int pixels) {
  auto* out = plainLabel(text, parent);
  QFont f = out->font();
  f.setPixelSize(pixels);
  f.setWeight(QFont::DemiBold);
  out->setFont(f);
  out->setWordWrap(true);
  return out;
}

// A page of it, in the middle of the window.
std::pair<QWidget*, QVBoxLayout*> page(QWidget* parent) {
  auto* outside = new QWidget(parent);
  auto* row = new QHBoxLayout(outside);
  auto* inside = new QWidget(outside);
  inside->setFixedWidth(kWide);
  row->addStretch();
  row->addWidget(inside);
  row->addStretch();
  auto* column = new QVBoxLayout(inside);
  column->setSpacing(10);
  return {outside, column};
}

}  // namespace

ReadBackView::ReadBackView(Session& session, QWidget* parent)
    : QWidget(parent), m_session(session), m_opinion(new SecondOpinion(session.document, this)) {
  setObjectName("readBackView");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(16, 12, 16, 12);
  m_pages = new QStackedWidget(this);
  m_pages->addWidget(startPage());
  m_pages->addWidget(askPage());
  m_pages->addWidget(countPage());
  m_pages->addWidget(resultPage());
  column->addWidget(m_pages);
  connect(m_opinion, &SecondOpinion::answered, this,
          [this](const Analysis& a) { m_asRead->setText(tr("As read: %1: %2.").arg(qs(headline(a.verdict)).toLower(), qs(summary(a)))); });
  connect(&m_session.document, &Document::replaced, this, [this] {
    if (isVisible()) Q_EMIT closed();
  });
}

QWidget* ReadBackView::startPage() {
  const auto [outside, column] = page(this);
  column->addWidget(heading(tr("Read the wiring back"), outside, 20));
  auto* how = plainLabel(
      tr("The program names one end of a wire, the reader says where the other one is, from the bench and not from the screen. Then the "
         "wires at each part are counted, so that one too many is found. Meanwhile nothing in this window tells an answer; it is no "
         "lock: whoever wants to can read the file."),
      outside);
  how->setWordWrap(true);
  column->addWidget(how);
  m_rounds = plainLabel(outside);
  m_rounds->setObjectName("rounds");
  m_rounds->setWordWrap(true);
  column->addWidget(m_rounds);
  auto* row = new QHBoxLayout;
  m_reader = new QLineEdit(outside);
  declareField(m_reader, FieldKind::Search);  // asked for again at every round
  m_reader->setObjectName("reader");
  m_reader->setAccessibleName(tr("Initials of who reads"));
  m_reader->setPlaceholderText(tr("who reads?"));
  m_reader->setMaxLength(8);
  m_start = new QPushButton(tr("Begin a round"), outside);
  m_start->setObjectName("startRound");
  m_start->setProperty("primary", true);
  m_goOn = new QPushButton(tr("Go on with the last"), outside);
  m_goOn->setObjectName("goOnRound");
  m_showLast = new QPushButton(tr("Show the last"), outside);
  m_showLast->setObjectName("showRound");
  auto* close = new QPushButton(tr("Back to the bench"), outside);
  close->setObjectName("leaveReadBack");
  for (QWidget* w : std::initializer_list<QWidget*>{m_reader, m_start, m_goOn, m_showLast, close}) row->addWidget(w);
  row->addStretch();
  column->addLayout(row);
  column->addStretch();
  connect(m_reader, &QLineEdit::returnPressed, this, &ReadBackView::startTyped);
  connect(m_start, &QPushButton::clicked, this, &ReadBackView::startTyped);
  connect(m_goOn, &QPushButton::clicked, this, [this] {
    m_round = m_session.document.harness().rounds.back().id;
    ask();
  });
  connect(m_showLast, &QPushButton::clicked, this, [this] {
    m_round = m_session.document.harness().rounds.back().id;
    showResult();
  });
  connect(close, &QPushButton::clicked, this, &ReadBackView::closed);
  return outside;
}

QWidget* ReadBackView::askPage() {
  const auto [outside, column] = page(this);
  m_progress = new QProgressBar(outside);
  m_progress->setObjectName("roundLeft");
  column->addWidget(m_progress);
  m_which = heading({}, outside, 17);
  m_which->setObjectName("question");
  column->addWidget(m_which);
  m_named = new EndsView(m_session, outside);
  m_named->setObjectName("namedEnd");
  m_named->setLarge(true);
  column->addWidget(m_named);
  column->addWidget(heading(tr("Where is its other end?"), outside, 17));
  m_answer = new QLineEdit(outside);
  declareField(m_answer, FieldKind::Entry, tr("the answer"));
  m_answer->setMaxLength(kMostLetters);
  m_answer->setObjectName("answer");
  m_answer->setAccessibleName(tr("Where the other end is: part and terminal, in any numbering"));
  m_answer->setPlaceholderText(tr("part and terminal, as printed or counted: s1 in1, uno pos 12"));
  column->addWidget(m_answer);
  m_understood = plainLabel(outside);
  m_understood->setObjectName("understood");
  m_understood->setWordWrap(true);
  column->addWidget(m_understood);
  auto* buttons = new QHBoxLayout;
  auto* answer = new QPushButton(tr("That is it"), outside);
  answer->setObjectName("takeAnswer");
  answer->setProperty("primary", true);
  auto* none = new QPushButton(tr("It goes nowhere"), outside);
  none->setObjectName("noEnd");
  auto* stop = new QPushButton(tr("Stop here"), outside);
  stop->setObjectName("stopRound");
  stop->setToolTip(tr("What was answered is kept; the round can go on later"));
  for (auto* b : {answer, none}) buttons->addWidget(b);
  buttons->addStretch();
  buttons->addWidget(stop);
  column->addLayout(buttons);
  auto* pick = new QHBoxLayout;
  pick->addWidget(plainLabel(tr("Or point at it on"), outside));
  m_device = new QComboBox(outside);
  m_device->setObjectName("answerPart");
  speak(m_device, tr("Part to point at"));
  pick->addWidget(m_device, 1);
  column->addLayout(pick);
  m_place = new PlaceView(outside);
  m_place->setObjectName("answerPlace");
  column->addWidget(m_place, 1);
  connect(answer, &QPushButton::clicked, this, [this] { take(m_answer->text()); });
  connect(none, &QPushButton::clicked, this, [this] { take("none"); });
  connect(stop, &QPushButton::clicked, this, [this] { showResult(); });
  connect(m_answer, &QLineEdit::returnPressed, this, [this] { take(m_answer->text()); });
  connect(m_answer, &QLineEdit::textChanged, this, &ReadBackView::understand);
  connect(m_device, &QComboBox::currentIndexChanged, this, &ReadBackView::showPart);
  connect(m_place, &PlaceView::picked, this, [this](int terminal) {
    const auto* d = m_session.document.harness().device(m_device->currentData().toString().toStdString());
    const auto part = d ? m_session.document.library().find(d->part) : nullptr;
    if (part) m_answer->setText(qs(d->id + "." + part->terminals[terminal].id));
  });
  return outside;
}

QWidget* ReadBackView::countPage() {
  const auto [outside, column] = page(this);
  column->addWidget(heading(tr("How many wires end on each part?"), outside, 17));
  auto* how = plainLabel(tr("Count them on the bench: leads and pins that are plugged in as they are do not count."), outside);
  how->setWordWrap(true);
  column->addWidget(how);
  auto* scroll = new QScrollArea(outside);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  auto* list = new QWidget(scroll);
  list->setObjectName("counts");
  m_counts = new QFormLayout(list);
  scroll->setWidget(list);
  column->addWidget(scroll, 1);
  auto* row = new QHBoxLayout;
  auto* done = new QPushButton(tr("That is what I counted"), outside);
  done->setObjectName("takeCounts");
  done->setProperty("primary", true);
  auto* later = new QPushButton(tr("Not now"), outside);
  later->setObjectName("skipCounts");
  row->addWidget(done);
  row->addWidget(later);
  row->addStretch();
  column->addLayout(row);
  connect(done, &QPushButton::clicked, this, &ReadBackView::takeCounts);
  connect(later, &QPushButton::clicked, this, &ReadBackView::showResult);
  return outside;
}

QWidget* ReadBackView::resultPage() {
  const auto [outside, column] = page(this);
  m_summary = heading({}, outside, 20);
  m_summary->setObjectName("readSummary");
  column->addWidget(m_summary);
  m_asRead = plainLabel(outside);
  m_asRead->setObjectName("asRead");
  m_asRead->setWordWrap(true);
  column->addWidget(m_asRead);
  auto* scroll = new QScrollArea(outside);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  m_list = new QWidget(scroll);
  m_list->setObjectName("disagreements");
  new QVBoxLayout(m_list);
  scroll->setWidget(m_list);
  column->addWidget(scroll, 1);
  auto* row = new QHBoxLayout;
  auto* again = new QPushButton(tr("Rounds"), outside);
  again->setObjectName("otherRounds");
  auto* close = new QPushButton(tr("Back to the bench"), outside);
  close->setObjectName("closeReadBack");
  row->addWidget(close);
  row->addWidget(again);
  row->addStretch();
  column->addLayout(row);
  connect(again, &QPushButton::clicked, this, &ReadBackView::begin);
  connect(close, &QPushButton::clicked, this, &ReadBackView::closed);
  return outside;
}

const harness::Round* ReadBackView::round() const {
  const auto& rounds = m_session.document.harness().rounds;
  const auto it = std::ranges::find(rounds, m_round, &harness::Round::id);
  return it == rounds.end() ? nullptr : &*it;
}

void ReadBackView::put(harness::Round round) {
  m_session.document.apply({kEdit, {harness::Put<harness::Round>{std::move(round), {}}}});
}

void ReadBackView::begin() {
  const auto& h = m_session.document.harness();
  const auto& library = m_session.document.library();
  QStringList told;
  for (const auto& r : h.rounds) {
    const auto out = wiring::result(h, library, r);
    told << tr("%1, %2: %3 of %4 read, %5%6")
                .arg(r.reader.empty() ? tr("somebody") : qs(r.reader), qs(r.at).replace('T', ' '))
                .arg(out.asked)
                .arg(out.asked + out.left)
                .arg(out.disagreements.empty() && out.counts.empty()
                         ? tr("all agree")
                         : plural(static_cast<int>(out.disagreements.size() + out.counts.size()), tr("disagreement"), tr("disagreements")))
                .arg(out.whole() ? QString() : tr(", not whole"));
  }
  m_rounds->setText(told.join("\n"));
  m_rounds->setVisible(!told.isEmpty());
  const bool wires = wiring::questionsLeft(h, library, {}) > 0;
  m_start->setEnabled(wires && !m_session.document.readOnly());
  m_goOn->setVisible(!h.rounds.empty() && wiring::mayGoOn(h.rounds.back()) && !wiring::result(h, library, h.rounds.back()).whole());
  m_showLast->setVisible(!h.rounds.empty());
  if (!wires) {
    m_rounds->setText(tr("There is no wire on this bench that could be read back."));
    m_rounds->show();
  }
  m_pages->setCurrentIndex(Start);
  m_reader->setFocus();
}

void ReadBackView::startTyped() {
  if (m_start->isEnabled()) startRound(m_reader->text().trimmed(), static_cast<int>(std::random_device{}() % 1'000'000));
}

void ReadBackView::startRound(const QString& reader, int shuffle) {
  const auto& h = m_session.document.harness();
  harness::Round r;
  for (int n = 1; r.id.empty(); ++n)
    if (const auto id = "round" + std::to_string(n); std::ranges::count(h.rounds, id, &harness::Round::id) == 0) r.id = id;
  r.reader = reader.toStdString();
  r.at = now().toStdString();
  r.shuffle = shuffle;
  m_round = r.id;
  put(std::move(r));
  ask();
}

void ReadBackView::ask() {
  const auto* r = round();
  const auto& h = m_session.document.harness();
  const auto& library = m_session.document.library();
  if (!r) return begin();
  m_question = wiring::nextQuestion(h, library, *r);
  m_answer->clear();  // after the last one too
  understand();
  if (!m_question) return askCounts();
  const auto& c = *h.connection(m_question->wire);
  const auto& end = m_question->fromB ? c.b : c.a;
  const int all = wiring::questionsLeft(h, library, {});
  const int left = wiring::questionsLeft(h, library, *r);
  m_progress->setRange(0, all);
  m_progress->setValue(all - left);
  m_progress->setFormat(tr("%1 of %2 left").arg(left).arg(all));
  const auto colour = c.colour.empty() ? tr("wire") : tr("%1 wire").arg(qs(harness::colourName(c.colour)));
  m_which->setText(m_question->alike > 1 ? tr("One of the %1 %2s here; one that was not asked yet:").arg(m_question->alike).arg(colour)
                                         : tr("One end of a %1 is here:").arg(colour));
  m_named->show(end, std::nullopt, qs(c.colour));
  if (m_device->count() == 0 || m_device->count() != static_cast<int>(h.devices.size())) {
    const QSignalBlocker quiet(m_device);
    m_device->clear();
    for (std::size_t k = 0; k < h.devices.size(); ++k) m_device->addItem(qs(shownName(h, h.devices[k])), qs(h.devices[k].id));
  }
  m_device->setCurrentIndex(0);
  showPart();
  m_pages->setCurrentIndex(Ask);
  m_answer->setFocus();
}

void ReadBackView::understand() {
  const auto text = m_answer->text().trimmed();
  QString told;
  if (!text.isEmpty() && m_question) {
    const auto end = harness::parseTypedEnd(m_session.document.harness(), m_session.document.library(), text.toStdString());
    if (end)
      told = tr("Understood as %1: %2")
                 .arg(qs(shownEnd(m_session.document.harness(), m_session.document.library(), *end)),
                      qs(endPlace(m_session.document.harness(), m_session.document.library(), *end)));
  }
  m_understood->setText(told);
}

void ReadBackView::showPart() {
  const auto& h = m_session.document.harness();
  const auto* d = h.device(m_device->currentData().toString().toStdString());
  const auto part = d ? harness::seenPart(m_session.document.library().find(d->part), *d, h) : nullptr;
  const bool drawn = part && part->layoutKnown;
  m_place->setVisible(drawn);
  if (!drawn) return;
  places::Wish wish;
  wish.lie = d->lie;
  m_place->show(part, wish);
}

void ReadBackView::take(const QString& said) {
  const auto* r = round();
  if (!r || !m_question) return;
  if (said.trimmed().isEmpty()) return m_understood->setText(tr("Type where it goes, or say that it goes nowhere."));
  const auto answer =
      answered(m_session.document.harness(), m_session.document.library(), *m_question, said.trimmed().toStdString(), now().toStdString());
  if (!answer) return m_understood->setText(qs(answer.error().what));
  auto changed = *r;
  changed.answers.push_back(*answer);
  put(std::move(changed));
  ask();
}

void ReadBackView::askCounts() {
  while (m_counts->rowCount() > 0) m_counts->removeRow(0);
  const auto& h = m_session.document.harness();
  const auto* r = round();
  for (const auto& id : wiring::countedDevices(h, m_session.document.library())) {
    auto* count = new QSpinBox(this);
    count->setObjectName("count-" + qs(id));
    count->setRange(-1, 999);
    count->setSpecialValueText(tr("not counted"));
    const auto known = r->counts.find(id);
    count->setValue(known == r->counts.end() ? -1 : known->second);
    const auto name = qs(shownName(h, *h.device(id)));
    count->setAccessibleName(tr("Wires at %1").arg(name));
    plainRow(*m_counts, name, count);
  }
  m_pages->setCurrentIndex(Count);
  if (auto* first = m_counts->rowCount() > 0 ? m_counts->itemAt(0, QFormLayout::FieldRole)->widget() : nullptr) first->setFocus();
}

void ReadBackView::takeCounts() {
  const auto* r = round();
  if (!r) return begin();
  auto changed = *r;
  for (const auto& id : wiring::countedDevices(m_session.document.harness(), m_session.document.library()))
    if (const auto* count = findChild<QSpinBox*>("count-" + qs(id)); count && count->value() >= 0) changed.counts[id] = count->value();
  put(std::move(changed));
  showResult();
}

void ReadBackView::showResult() {
  const auto* r = round();
  if (!r) return begin();
  const auto& h = m_session.document.harness();
  const auto& library = m_session.document.library();
  const auto out = wiring::result(h, library, *r);
  qDeleteAll(m_list->findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly));
  auto* column = static_cast<QVBoxLayout*>(m_list->layout());
  while (auto* item = column->takeAt(0)) delete item;
  const auto reader = r->reader.empty() ? tr("The reader") : qs(r->reader);
  const int wrong = static_cast<int>(out.disagreements.size() + out.counts.size());
  QStringList open;
  if (out.left > 0) open << tr("%1 not asked").arg(plural(out.left, tr("wire"), tr("wires")));
  if (out.uncounted > 0) open << tr("%1 not counted").arg(plural(out.uncounted, tr("part"), tr("parts")));
  const auto whole = open.isEmpty() ? QString() : tr(" Not whole: %1.").arg(open.join(", "));
  m_summary->setText(
      (wrong == 0
           ? tr("%1 read all %2 as they are in the list.").arg(reader, plural(out.asked, tr("wire"), tr("wires")))
           : tr("%1 read %2 of %3 as they are in the list.").arg(reader).arg(out.agreed).arg(plural(out.asked, tr("wire"), tr("wires")))) +
      whole);
  for (const auto& d : out.disagreements) {
    auto* row = new QWidget(m_list);
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    auto* told = plainLabel(qs(wiring::sentence(h, library, d)), row);
    told->setWordWrap(true);
    auto* show = new QPushButton(tr("Show it"), row);
    show->setObjectName("show-" + qs(d.wire));
    connect(show, &QPushButton::clicked, this, [this, id = qs(d.wire)] { Q_EMIT wireWanted(id); });
    line->addWidget(told, 1);
    line->addWidget(show);
    column->addWidget(row);
  }
  for (const auto& c : out.counts) {
    auto* told =
        plainLabel(tr("%1: %2 counted, %3 in the list").arg(qs(shownName(h, *h.device(c.device)))).arg(c.counted).arg(c.listed), m_list);
    told->setWordWrap(true);
    column->addWidget(told);
  }
  column->addStretch();
  m_asRead->setVisible(!out.disagreements.empty());
  m_opinion->drop();
  if (!out.disagreements.empty()) {
    m_asRead->setText(tr("Judged as it was read…"));
    m_opinion->ask(wiring::asRead(h, out));
  }
  m_pages->setCurrentIndex(Result);
}

}  // namespace bold::gui
