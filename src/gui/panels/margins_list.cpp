#include "gui/panels/margins_list.h"

#include <QAbstractButton>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "core/checks/margin_words.h"
#include "core/report/report.h"
#include "gui/panels/limit_bar.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

constexpr std::size_t kFewest = 3;  // lines of a group until it is shown whole

// What a line shows of a margin: values, so that two can be compared.
struct Line {
  QString identity, place, name, value, limit, percent, details, subject;
  double used = 0;
  checks::Severity past = checks::Severity::Note;
  bool known = true;
  bool operator==(const Line&) const = default;
};

QString detailsOf(const checks::Margin& m) {
  QStringList out;
  for (const auto& l : m.limits) {
    const auto follows =
        m.value && l.passedBy(*m.value) ? MarginsList::tr("past it") : MarginsList::tr("past it: %1").arg(qs(word(l.consequence)));
    out << MarginsList::tr("%1: %2, %3; %4%5")
               .arg(qs(std::string(l.name)), qs(checks::bounds(l, m.unit)), qs(word(l.kind)), follows,
                    l.source.empty() ? QString() : MarginsList::tr("; from %1").arg(qs(l.source)));
  }
  if (!m.command.empty())
    out << MarginsList::tr("measured with %1%2")
               .arg(qs(m.command), m.corner ? MarginsList::tr(", supply %1").arg(qs(report::word(*m.corner))) : QString());
  for (const auto& a : m.assumed) out << MarginsList::tr("taken: %1").arg(qs(a));
  return out.join("\n");
}

Line lineOf(const bench::Bench& bench, const checks::Margin& m, bool ofWires) {
  Line out;
  out.identity = qs(m.identity());
  out.subject = m.subjects.empty() ? QString() : qs(m.subjects.front());
  if (!m.subjects.empty() && bench.deviceIndex(m.subjects.front()) < 0) {
    const auto address = parseAddress(m.subjects.front());
    const auto t = address && !ofWires ? bench.terminal(*address) : -1;
    out.place = t >= 0 ? qs(bench.facts(t).label) : qs(checks::calledSubject(bench, m.subjects.front()));
  }
  out.name = qs(m.quantity);
  out.value = m.value ? qs(checks::shown(*m.value, m.unit)) : MarginsList::tr("not known");
  const auto* judged = m.judged();
  out.limit =
      judged ? qs(checks::bounds(*judged, m.unit)) + " (" + qs(std::string(judged->name)) + ")" : MarginsList::tr("limit not known");
  out.percent = qs(checks::percentUsed(m));
  out.details = detailsOf(m);
  out.used = m.used().value_or(0);
  out.known = m.used().has_value();
  if (const auto* passed = m.passed()) out.past = passed->consequence;
  return out;
}

// Equal numbers of several terminals of one device (three inputs on one rail) are one line.
std::vector<Line> linesOf(const bench::Bench& bench, const checks::MarginGroup& group) {
  std::vector<Line> out;
  std::vector<QStringList> places;
  for (const auto* m : group.margins) {
    auto line = lineOf(bench, *m, group.device.empty());
    const auto place = line.place;
    const auto it = std::ranges::find_if(out, [&](const Line& o) {
      return !place.isEmpty() && !o.place.isEmpty() && o.name == line.name && o.value == line.value && o.limit == line.limit &&
             o.percent == line.percent;
    });
    if (it == out.end()) {
      out.push_back(std::move(line));
      places.push_back({place});
    } else if (auto& all = places[it - out.begin()]; !all.contains(place)) {
      all << place;
    }
  }
  for (std::size_t k = 0; k < out.size(); ++k)
    if (!out[k].place.isEmpty()) out[k].name = MarginsList::tr("%1 at %2").arg(out[k].name, places[k].join(", "));
  return out;
}

// One margin: its numbers, its bar, and when it is pressed its limits.
class MarginLine : public QAbstractButton {
 public:
  explicit MarginLine(QWidget* parent) : QAbstractButton(parent) {
    setObjectName("marginLine");
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
    setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
  }
  void show(const Line& line, bool open) {
    if (line == m_line && open == m_open) return;
    m_line = line;
    m_open = open;
    setAccessibleName(line.name + " " + line.value + ", " + line.limit + ", " + line.percent);
    setAccessibleDescription(line.details);
    updateGeometry();
    update();
  }
  const Line& line() const { return m_line; }
  QSize sizeHint() const override { return {200, heightFor(width())}; }
  QSize minimumSizeHint() const override { return {100, heightFor(std::max(100, width()))}; }

 protected:
  void resizeEvent(QResizeEvent*) override {
    if (m_open) updateGeometry();
  }
  void paintEvent(QPaintEvent*) override {
    const auto& c = gui::palette();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (hasFocus()) {
      p.setPen(QPen(c.accent, 1.8));
      p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 5, 5);
    }
    QFont f = font();
    f.setPixelSize(12);
    p.setFont(f);
    const QFontMetricsF metrics(f);
    const QRectF first(6, 4, width() - 12, 17);
    p.setPen(c.ink);
    const auto numbers = m_line.value + QString::fromUtf8("   ") + m_line.percent;
    const double wide = metrics.horizontalAdvance(numbers);
    p.drawText(first, Qt::AlignRight | Qt::AlignVCenter, numbers);
    p.drawText(QRectF(first.left(), first.top(), first.width() - wide - 8, first.height()), Qt::AlignLeft | Qt::AlignVCenter,
               metrics.elidedText(m_line.name, Qt::ElideRight, first.width() - wide - 8));
    p.setPen(c.inkSoft);
    const QRectF second(6, 20, width() - 12, 16);
    p.drawText(second, Qt::AlignLeft | Qt::AlignVCenter, metrics.elidedText(m_line.limit, Qt::ElideRight, second.width()));
    if (m_line.known) paintWay(p, QRectF(7, 41, width() - 14, 6), m_line.used, m_line.past);
    if (m_open) {
      p.setPen(c.inkSoft);
      p.drawText(QRectF(6, kClosed + 2, width() - 12, height() - kClosed - 4), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                 m_line.details);
    }
  }

 private:
  static constexpr int kClosed = 54;
  Line m_line;
  bool m_open = false;

  int heightFor(int wide) const {
    if (!m_open) return kClosed;
    QFont f = font();
    f.setPixelSize(12);
    const auto r = QFontMetrics(f).boundingRect(QRect(0, 0, wide - 12, 10000), Qt::AlignLeft | Qt::TextWordWrap, m_line.details);
    return kClosed + r.height() + 8;
  }
};

// A device's margins under its name.
class MarginGroupBox : public QWidget {
 public:
  MarginGroupBox(const QString& id, QWidget* parent) : QWidget(parent), m_id(id) {
    setObjectName("marginGroup");
    m_column = new QVBoxLayout(this);
    m_column->setContentsMargins(0, 4, 0, 2);
    m_column->setSpacing(2);
    m_head = plainLabel(this);
    QFont f = m_head->font();
    f.setWeight(QFont::DemiBold);
    m_head->setFont(f);
    m_column->addWidget(m_head);
    m_more = new QPushButton(this);
    m_more->setObjectName("marginsMore");
    m_more->setFlat(true);
    m_column->addWidget(m_more, 0, Qt::AlignLeft);
  }
  const QString& id() const { return m_id; }
  QPushButton* more() const { return m_more; }
  // The line that stands at a place; made where there is none yet.
  MarginLine* line(std::size_t k) {
    while (m_lines.size() <= k) {
      m_lines.push_back(new MarginLine(this));
      m_column->insertWidget(static_cast<int>(m_lines.size()), m_lines.back());
    }
    return m_lines[k];
  }
  void keep(std::size_t n) {
    for (std::size_t k = 0; k < m_lines.size(); ++k) m_lines[k]->setVisible(k < n);
  }
  void setHead(const QString& text) { m_head->setText(text); }

 private:
  QString m_id;
  QVBoxLayout* m_column;
  QLabel* m_head;
  QPushButton* m_more;
  std::vector<MarginLine*> m_lines;
};

}  // namespace

MarginsList::MarginsList(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
  setObjectName("margins");
  m_column = new QVBoxLayout(this);
  m_column->setContentsMargins(0, 6, 0, 0);
  m_column->setSpacing(6);
  m_head = plainLabel(tr("How near everything is to its limits"), this);
  QFont f = m_head->font();
  f.setPixelSize(14);
  f.setWeight(QFont::DemiBold);
  m_head->setFont(f);
  m_column->addWidget(m_head);
  m_none = plainLabel(tr("Nothing is measured yet: wire a motor to a stage and a supply."), this);
  m_none->setWordWrap(true);
  m_none->setForegroundRole(QPalette::PlaceholderText);
  m_column->addWidget(m_none);
  refresh();
}

void MarginsList::showEvent(QShowEvent* e) {
  QWidget::showEvent(e);
  refresh();
}

void MarginsList::refresh() {
  if (!isVisible()) return;  // of a large bench there are thousands: filled when somebody looks
  const auto& a = m_session.analyser.analysis();
  const auto margins = a.solved ? a.margins() : checks::Margins{};
  const auto groups = a.solved ? checks::grouped(a.solved->bench, margins) : std::vector<checks::MarginGroup>{};
  m_none->setVisible(groups.empty());
  std::vector<MarginGroupBox*> known;
  for (auto* w : findChildren<QWidget*>("marginGroup", Qt::FindDirectChildrenOnly)) known.push_back(static_cast<MarginGroupBox*>(w));
  int place = 2;
  for (const auto& g : groups) {
    const auto id = qs(g.device);
    const auto it = std::ranges::find_if(known, [&](const MarginGroupBox* b) { return b && b->id() == id; });
    MarginGroupBox* box = nullptr;
    if (it != known.end()) {
      box = *it;
      *it = nullptr;
    } else {
      box = new MarginGroupBox(id, this);
      connect(box->more(), &QPushButton::clicked, this, [this, id] {
        if (!m_whole.erase(id)) m_whole.insert(id);
        refresh();
      });
    }
    if (m_column->indexOf(box) != place) {
      m_column->removeWidget(box);
      m_column->insertWidget(place, box);
    }
    ++place;
    box->setHead(g.name.empty() ? tr("Wires and contacts") : tr("%1, %2").arg(qs(g.name), qs(word(g.kind))));
    const auto lines = linesOf(a.solved->bench, g);
    const bool whole = m_whole.contains(id);
    const auto n = whole ? lines.size() : std::min(kFewest, lines.size());
    for (std::size_t k = 0; k < n; ++k) {
      const bool fresh = static_cast<qsizetype>(k) >= box->findChildren<QAbstractButton*>("marginLine").size();
      auto* line = box->line(k);
      if (fresh)
        connect(line, &QAbstractButton::clicked, this, [this, line] {
          const auto identity = line->line().identity;
          if (!m_opened.erase(identity)) m_opened.insert(identity);
          m_session.selection.pick({});
          if (!line->line().subject.isEmpty()) m_session.selection.select(line->line().subject);
          refresh();
        });
      const auto& shown = lines[k];
      line->show(shown, m_opened.contains(shown.identity));
    }
    box->keep(n);
    const auto rest = static_cast<int>(lines.size() - std::min(kFewest, lines.size()));
    box->more()->setVisible(rest > 0);
    box->more()->setText(whole ? tr("fewer") : tr("%1 more").arg(rest));
  }
  for (auto* gone : known)
    if (gone) {
      m_column->removeWidget(gone);
      gone->hide();
      gone->deleteLater();  // a line that was pressed may be on the stack
      gone->setObjectName({});
    }
}

QList<QWidget*> MarginsList::inOrder() const {
  QList<QWidget*> out;
  for (int k = 0; k < m_column->count(); ++k)
    if (auto* w = m_column->itemAt(k)->widget(); w && w->objectName() == "marginGroup") {
      auto* box = static_cast<MarginGroupBox*>(w);
      for (auto* line : box->findChildren<QAbstractButton*>("marginLine")) out << line;
      out << box->more();
    }
  return out;
}

}  // namespace bold::gui
