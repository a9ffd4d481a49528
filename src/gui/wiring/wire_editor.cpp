#include "gui/wiring/wire_editor.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "core/base/number.h"
#include "core/harness/kinds.h"
#include "core/harness/mark_done.h"
#include "core/harness/names.h"
#include "core/harness/rewire.h"
#include "gui/half_typed.h"
#include "gui/panels/spoken.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/wiring/connection_model.h"

namespace bold::gui {
namespace {

// Those that the library knows, the thinnest first.
std::vector<int> gauges(const parts::Library& library) {
  std::vector<int> out;
  for (const auto& p : library.search("wire"))
    if (p->kind == "wire" && p->id.starts_with("wire-")) out.push_back(static_cast<int>(wholeAtStart(p->id.substr(5)).value_or(0)));
  std::ranges::sort(out, std::greater<>());
  return out;
}

}  // namespace

WireEditor::WireEditor(Session& session, Picked picked, QWidget* parent)
    : QWidget(parent), m_session(session), m_picked(std::move(picked)) {
  setObjectName("wireEditor");
  auto* making = new QVBoxLayout(this);
  making->setContentsMargins(0, 0, 0, 0);
  making->setSpacing(8);
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
  declareField(m_length, FieldKind::Value, tr("the length of a wire"));
  m_length->setObjectName("wireLength");
  m_length->setAccessibleName(tr("Length of the wire"));
  m_length->setPlaceholderText(tr("length, 0.3 m"));
  m_length->setToolTip(tr("How long the wire is; where it is not given, 0.2 or 0.3 m is taken"));
  m_colour->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  row->addWidget(m_colour, 3);
  row->addWidget(m_gauge, 2);
  row->addWidget(m_length, 2);
  making->addLayout(row);
  auto* buttons = new QHBoxLayout;
  buttons->setSpacing(4);
  m_move = new QPushButton(tr("Move…"), this);
  m_move->setObjectName("wireMove");
  m_move->setToolTip(tr("Other terminals for the picked wires: d8, or d8-d10 for three"));
  m_swap = new QPushButton(tr("Swap ends"), this);
  m_swap->setObjectName("wireSwap");
  m_swap->setToolTip(tr("Two picked wires exchange the ends that they have on one part"));
  m_byUse = new QPushButton(tr("By use"), this);
  m_byUse->setObjectName("wireByUse");
  m_byUse->setToolTip(tr("Colours by use: black grounds, red supplies, motor leads as they are, signals each another"));
  for (auto* b : {m_done, m_remove, m_move, m_swap, m_byUse}) {
    b->setProperty("tight", true);
    buttons->addWidget(b);
  }
  making->addLayout(buttons);
  connect(m_colour, &QComboBox::activated, this,
          [this](int index) { change("colour", [&](auto& c) { c.colour = m_colour->itemData(index).toString().toStdString(); }); });
  connect(m_gauge, &QComboBox::activated, this, [this] {
    const int awg = m_gauge->currentData().toInt();
    change("gauge", [awg](auto& c) { c.gauge = awg > 0 ? std::optional(awg) : std::nullopt; });
  });
  connect(m_length, &QLineEdit::editingFinished, this, &WireEditor::takeLength);
  connect(m_remove, &QPushButton::clicked, this, &WireEditor::removePicked);
  connect(m_done, &QPushButton::clicked, this, &WireEditor::markPickedDone);
  connect(m_move, &QPushButton::clicked, this, &WireEditor::moveWanted);
  connect(m_swap, &QPushButton::clicked, this, &WireEditor::swapEnds);
  connect(m_byUse, &QPushButton::clicked, this, [this] {
    Q_EMIT said({});
    m_session.document.apply(harness::colourByUse(m_session.document.harness(), m_session.document.library(), m_picked()));
  });
}

QList<QWidget*> WireEditor::inOrder() const {
  return {m_colour, m_gauge, m_length, m_done, m_remove, m_move, m_swap, m_byUse};
}

QWidget* WireEditor::field(const QString& name) const {
  if (name == "gauge") return m_gauge;
  if (name == "length") return m_length;
  return name == "colour" ? m_colour : nullptr;
}

void WireEditor::refresh() {
  const auto& h = m_session.document.harness();
  const auto* c = h.connection(m_session.selection.subject().toStdString());
  const bool wire = c && c->kind == harness::ConnectionKind::Wire;
  for (QWidget* w : std::initializer_list<QWidget*>{m_colour, m_gauge, m_length, m_move, m_swap, m_byUse})
    w->setEnabled(wire && !m_session.document.readOnly());
  m_remove->setEnabled(c && !m_session.document.readOnly());
  m_done->setEnabled(c && c->state != harness::State::OnBench && !m_session.document.readOnly());
  if (wire) m_colour->setCurrentIndex(m_colour->findData(qs(c->colour)));
  if (wire) m_gauge->setCurrentIndex(std::max(0, m_gauge->findData(c->gauge.value_or(0))));
  const auto length = wire && c->length ? qs(displayText(*c->length)) : QString();
  const auto of = c ? qs(c->id) : QString();
  if (of != m_lengthOf || (!m_length->isModified() && m_length->text() != length)) m_length->setText(length);
  m_lengthOf = of;
}

void WireEditor::swapEnds() {
  const auto ids = m_picked();
  if (ids.size() != 2) {
    Q_EMIT said(tr("Pick two wires first: Ctrl and a click, or Shift and an arrow key."));
    return;
  }
  const auto edit = harness::swapEnds(m_session.document.harness(), m_session.document.library(), ids[0], ids[1]);
  Q_EMIT said(edit ? QString() : qs(edit.error().what));
  if (edit) m_session.document.apply(*edit);
}

// Of all that are picked in the list; as one edit.
void WireEditor::change(const std::string& what, const std::function<void(harness::Connection&)>& f) {
  const auto& h = m_session.document.harness();
  const auto ids = m_picked();
  harness::Edit edit;
  for (const auto& id : ids) {
    const auto* c = h.connection(id);
    if (!c || c->kind != harness::ConnectionKind::Wire) continue;
    auto changed = *c;
    f(changed);
    if (changed == *c) continue;
    edit.title = edit.changes.empty() ? "Change the " + what + " of " + shownEnds(h, m_session.document.library(), *c)
                                      : "Change the " + what + " of several wires";
    edit.changes.emplace_back(harness::Put<harness::Connection>{changed, {}});
  }
  m_session.document.apply(edit);
}

void WireEditor::takeLength() {
  if (!m_length->isModified()) return;
  const auto typed = m_length->text().trimmed().toStdString();
  std::optional<Metres> length;
  if (!typed.empty()) {
    const auto parsed = harness::parseKind(typed, harness::kWireLength);
    if (!parsed) {
      Q_EMIT said(qs(parsed.error().what));
      return;
    }
    length = Metres{parsed->value};
  }
  Q_EMIT said({});
  m_length->setModified(false);
  change("length", [&](auto& c) { c.length = length; });
}

void WireEditor::removePicked() {
  const auto& h = m_session.document.harness();
  harness::Edit edit;
  for (const auto& id : m_picked())
    if (const auto* c = h.connection(id)) {
      edit.title = edit.changes.empty() ? "Delete " + shownEnds(h, m_session.document.library(), *c) : "Delete several connections";
      edit.changes.emplace_back(harness::Drop<harness::Connection>{id});
    }
  if (edit.changes.empty()) return;
  m_session.document.apply(edit);
  m_session.selection.select({});
}

void WireEditor::markPickedDone() {
  const auto& h = m_session.document.harness();
  harness::Edit edit;
  for (const auto& id : m_picked()) {
    const auto* c = h.connection(id);
    if (!c || c->state == harness::State::OnBench) continue;
    auto one = harness::markDone(h, id);
    edit.title = one.title;
    edit.changes.insert(edit.changes.end(), one.changes.begin(), one.changes.end());
  }
  m_session.document.apply(edit);
}

}  // namespace bold::gui
