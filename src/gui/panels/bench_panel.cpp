#include "gui/panels/bench_panel.h"

#include <QApplication>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QSettings>
#include <QStyledItemDelegate>
#include <QVBoxLayout>
#include <algorithm>

#include "core/harness/add_part.h"
#include "core/harness/names.h"
#include "core/harness/remove_device.h"
#include "core/parts/search.h"
#include "core/parts/typed_part.h"
#include "gui/half_typed.h"
#include "gui/panels/device_details.h"
#include "gui/panels/part_card_dialog.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/subject_menu.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {
constexpr int kMostHits = 30;
constexpr int kMostRecentParts = 12;
constexpr int kFigures = Qt::UserRole + 1;  // of a part as typed: its replaced figures
constexpr int kSummary = Qt::UserRole + 2;
const char* const kRecentParts = "recentParts";
// A part in two lines, its name and what it is; both cut short, so that nobody scrolls sideways.
class HitDelegate : public QStyledItemDelegate {
 public:
  using QStyledItemDelegate::QStyledItemDelegate;
  QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {100, 40}; }
  void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const auto& c = gui::palette();
    const bool chosen = option.state & QStyle::State_Selected;
    p->save();
    p->fillRect(option.rect, chosen ? c.accentSoft : c.panel);
    const auto inside = option.rect.adjusted(8, 3, -8, -3);
    QFont f = option.font;
    f.setWeight(QFont::DemiBold);
    p->setFont(f);
    p->setPen(c.ink);
    p->drawText(inside, Qt::AlignLeft | Qt::AlignTop, QFontMetrics(f).elidedText(index.data().toString(), Qt::ElideRight, inside.width()));
    f.setWeight(QFont::Normal);
    f.setPixelSize(12);
    p->setFont(f);
    p->setPen(c.inkSoft);
    p->drawText(inside, Qt::AlignLeft | Qt::AlignBottom,
                QFontMetrics(f).elidedText(index.data(kSummary).toString(), Qt::ElideRight, inside.width()));
    p->restore();
  }
};
}  // namespace

BenchPanel::BenchPanel(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
  setObjectName("bench");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(12, 12, 10, 10);
  column->setSpacing(8);
  auto* head = plainLabel(tr("Bench"), this);
  QFont f = head->font();
  f.setPixelSize(16);
  f.setWeight(QFont::DemiBold);
  head->setFont(f);
  column->addWidget(head);
  m_search = new QLineEdit(this);
  declareField(m_search, FieldKind::Search);
  m_search->setObjectName("partSearch");
  m_search->setPlaceholderText(tr("add a part: uno, 28byj, 12 V 0.5 A, 2 A stall"));
  m_search->setAccessibleName(tr("Find a part to add"));
  m_search->setClearButtonEnabled(true);
  m_search->installEventFilter(this);
  column->addWidget(m_search);
  m_hits = new QListWidget(this);
  m_hits->setObjectName("partHits");
  m_hits->setAccessibleName(tr("Matching parts"));
  m_hits->setToolTip(tr("Enter puts it on the bench, F1 shows its card"));
  m_hits->setItemDelegate(new HitDelegate(m_hits));
  m_hits->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  m_hits->setFixedHeight(204);
  m_hits->hide();
  column->addWidget(m_hits);
  m_devices = new QListWidget(this);
  m_devices->setObjectName("devices");
  m_devices->setAccessibleName(tr("Devices on the bench"));
  m_devices->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);  // long names are cut short
  m_devices->setTextElideMode(Qt::ElideRight);
  column->addWidget(m_devices, 2);
  m_details = new QScrollArea(this);
  m_details->setFrameShape(QFrame::NoFrame);
  m_details->setWidgetResizable(true);
  m_details->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  column->addWidget(m_details, 5);

  connect(m_search, &QLineEdit::textChanged, this, &BenchPanel::showHits);
  connect(m_search, &QLineEdit::returnPressed, this, [this] { addHit(std::max(0, m_hits->currentRow())); });
  connect(m_hits, &QListWidget::itemActivated, this, [this](QListWidgetItem* item) { addHit(m_hits->row(item)); });
  connect(m_hits, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) { addHit(m_hits->row(item)); });
  connect(m_devices, &QListWidget::currentRowChanged, this, [this](int row) {
    if (!m_filling && row >= 0) m_session.selection.select(m_devices->item(row)->data(Qt::UserRole).toString());
  });
  m_devices->setContextMenuPolicy(Qt::CustomContextMenu);
  connect(m_devices, &QWidget::customContextMenuRequested, this, [this](const QPoint& at) {
    if (const auto* item = m_devices->itemAt(at))
      showSubjectMenu(m_session, item->data(Qt::UserRole).toString(), m_devices->viewport()->mapToGlobal(at), this);
  });
  connect(&m_session.document, &Document::replaced, this, [this] { putDetails(new QWidget); });  // its fields are of another bench
  connect(&m_session.document, &Document::changed, this, &BenchPanel::refresh);
  connect(&m_session.selection, &Selection::changed, this, &BenchPanel::showPicked);
  refresh();
}

void BenchPanel::focusSearch() {
  m_search->setFocus();
  m_search->selectAll();
}

bool BenchPanel::eventFilter(QObject* watched, QEvent* event) {
  if (watched == m_search && event->type() == QEvent::KeyPress && m_hits->isVisible()) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    const int step = key == Qt::Key_Down ? 1 : key == Qt::Key_Up ? -1 : 0;
    if (step != 0) {
      m_hits->setCurrentRow(std::clamp(m_hits->currentRow() + step, 0, m_hits->count() - 1));
      return true;
    }
    if (key == Qt::Key_F1 && m_hits->currentItem()) {
      const auto id = m_hits->currentItem()->data(Qt::UserRole).toString().toStdString();
      if (!id.empty()) (new PartCardDialog(m_session, id, {}, window()))->show();
      return true;
    }
    if (key == Qt::Key_Escape) {
      m_search->clear();
      return true;
    }
  }
  return QWidget::eventFilter(watched, event);
}

void BenchPanel::showHits() {
  m_hits->clear();
  const auto query = m_search->text().trimmed();
  m_hits->setVisible(!query.isEmpty());
  if (query.isEmpty()) return;
  auto hits = m_session.document.library().search(query.toStdString());
  // The best match first; among equals what was used lately, which is likely meant again.
  const auto recent = QSettings().value(kRecentParts).toStringList();
  const auto parsed = parts::parseQuery(query.toStdString());
  const auto rank = [&](const auto& p) {
    const auto at = recent.indexOf(qs(p->id));
    return std::pair{-parts::score(*p, parsed), at < 0 ? recent.size() : at};
  };
  std::ranges::stable_sort(hits, {}, rank);
  const auto add = [&](const QString& text, const QString& summary, const std::string& id, const QVariantMap& figures) {
    auto* item = new QListWidgetItem(text, m_hits);
    item->setData(Qt::UserRole, qs(id));
    item->setData(kFigures, figures);
    item->setData(kSummary, summary);
    item->setData(Qt::AccessibleTextRole, text + ": " + summary);
    item->setToolTip(plainTip(text + "\n" + summary));
  };
  for (std::size_t k = 0; k < std::min<std::size_t>(hits.size(), kMostHits); ++k)
    add(qs(hits[k]->name), qs(hits[k]->summary), hits[k]->id, {});
  for (const auto& t : parts::typedParts(query.toStdString())) {
    QVariantMap figures;
    for (const auto& [name, value] : t.overrides) figures[qs(name)] = qs(value);
    const auto part = m_session.document.library().find(t.part);
    add(qs(t.text), tr("as typed, on the figures of: %1").arg(part ? qs(part->name) : qs(t.part)), t.part, figures);
  }
  if (m_hits->count() == 0) {
    auto* none = new QListWidgetItem(tr("No part matches all of these words."), m_hits);
    none->setData(kSummary, tr("Try fewer of them, or a figure: 12 V 0.5 A"));
  }
  m_hits->setCurrentRow(0);
}

void BenchPanel::addHit(int row) {
  if (row >= m_hits->count() || !m_hits->item(row)) return;
  const auto id = m_hits->item(row)->data(Qt::UserRole).toString().toStdString();
  if (id.empty()) return;
  auto edit = harness::addPart(m_session.document.harness(), m_session.document.library(), id);
  if (!edit) return;
  auto& put = edit->changes.front().as<harness::Put<harness::Device>>()->value;
  const auto device = put.id;
  const auto figures = m_hits->item(row)->data(kFigures).toMap();
  for (auto it = figures.begin(); it != figures.end(); ++it) put.overrides[it.key().toStdString()] = it.value().toString().toStdString();
  QSettings settings;
  auto recent = settings.value(kRecentParts).toStringList();
  recent.removeAll(qs(id));
  recent.prepend(qs(id));
  settings.setValue(kRecentParts, QStringList(recent.mid(0, kMostRecentParts)));
  m_session.document.apply(*edit);
  m_search->clear();
  m_search->setFocus();  // the next part is typed at once, also after a click
  m_session.selection.select(qs(device));
}

void BenchPanel::refresh() {
  m_filling = true;
  const auto names = shownNames(m_session.document.harness());
  const auto& devices = m_session.document.harness().devices;
  while (m_devices->count() > static_cast<int>(devices.size())) delete m_devices->takeItem(m_devices->count() - 1);
  while (m_devices->count() < static_cast<int>(devices.size())) m_devices->addItem(QString());
  for (int i = 0; i < m_devices->count(); ++i) {
    const auto& d = devices[i];
    const auto part = m_session.document.library().find(d.part);
    QString text = qs(names[i]) + "  " + (part ? qs(part->name) : tr("unknown part %1").arg(qs(d.part)));
    if (d.state == harness::State::Planned) text += tr("  (to add)");
    if (d.state == harness::State::ToBeRemoved) text += tr("  (to take away)");
    if (m_devices->item(i)->text() != text) m_devices->item(i)->setText(text);
    m_devices->item(i)->setToolTip(plainTip(text));
    m_devices->item(i)->setData(Qt::UserRole, qs(d.id));
  }
  m_filling = false;
  showPicked();
}

void BenchPanel::showPicked() {
  const auto device = m_session.selection.subject().section('.', 0, 0).toStdString();
  const auto& devices = m_session.document.harness().devices;
  const auto it = std::ranges::find(devices, device, &harness::Device::id);
  const int current = it == devices.end() ? -1 : static_cast<int>(it - devices.begin());
  m_filling = true;
  if (current != m_devices->currentRow()) m_devices->setCurrentRow(current);
  m_filling = false;
  showDetails();
}

void BenchPanel::showDetails() {
  const auto device = m_session.selection.subject().section('.', 0, 0).toStdString();
  if (const auto* d = m_session.document.harness().device(device)) {
    // The field that is typed in must survive the edit it causes.
    auto* shown = qobject_cast<DeviceDetails*>(m_details->widget());
    if (shown && shown->isFor(*d))
      shown->refresh();
    else
      putDetails(new DeviceDetails(m_session, d->id));
    return;
  }
  auto* empty = plainLabel(m_session.document.harness().devices.empty()
                               ? tr("Begin with what is on the bench: type a part above and press Enter. It appears in the picture.")
                               : tr("Pick a device to see its figures, each with its source, and to replace them by measured ones."));
  empty->setWordWrap(true);
  empty->setAlignment(Qt::AlignTop);
  empty->setContentsMargins(2, 8, 2, 8);
  putDetails(empty);
}

// What goes may be the very field whose change is being told, so it ends later.
void BenchPanel::putDetails(QWidget* next) {
  if (auto* old = m_details->takeWidget()) {
    old->hide();
    old->deleteLater();
  }
  m_details->setWidget(next);
}

bool BenchPanel::focusField(const QString& name) {
  auto* details = qobject_cast<DeviceDetails*>(m_details->widget());
  if (!details || !details->focusField(name)) return false;
  if (auto* field = QApplication::focusWidget()) m_details->ensureWidgetVisible(field, 0, 60);
  return true;
}

void BenchPanel::removeSelected() {
  const auto id = m_session.selection.subject().section('.', 0, 0).toStdString();
  if (m_session.document.harness().device(id)) m_session.document.apply(harness::removeDevice(m_session.document.harness(), id));
}

}  // namespace bold::gui
