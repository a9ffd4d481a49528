#include "gui/panels/find_dialog.h"

#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>
#include <algorithm>

#include "core/checks/find.h"
#include "gui/half_typed.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

QString kindWords(checks::Found::Kind kind) {
  switch (kind) {
    case checks::Found::Kind::Device:
      return FindDialog::tr("device");
    case checks::Found::Kind::Terminal:
      return FindDialog::tr("terminal");
    case checks::Found::Kind::Wire:
      return FindDialog::tr("wire");
    case checks::Found::Kind::Finding:
      return FindDialog::tr("finding");
  }
  return {};
}

}  // namespace

FindDialog::FindDialog(Session& session, QWidget* parent) : QDialog(parent), m_session(session) {
  setObjectName("find");
  setWindowTitle(tr("Find on this bench"));
  resize(460, 380);
  auto* column = new QVBoxLayout(this);
  m_text = new QLineEdit(this);
  declareField(m_text, FieldKind::Search);
  m_text->setObjectName("findText");
  m_text->setPlaceholderText(tr("a part, a terminal, a wire or a finding"));
  m_text->setAccessibleName(tr("Find a part, terminal, wire or finding"));
  m_text->setClearButtonEnabled(true);
  m_text->installEventFilter(this);
  column->addWidget(m_text);
  m_hits = new QListWidget(this);
  m_hits->setObjectName("findHits");
  m_hits->setAccessibleName(tr("What was found"));
  m_hits->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  m_hits->setTextElideMode(Qt::ElideRight);
  column->addWidget(m_hits, 1);
  connect(m_text, &QLineEdit::textChanged, this, &FindDialog::search);
  connect(m_text, &QLineEdit::returnPressed, this, [this] { go(std::max(0, m_hits->currentRow())); });
  connect(m_hits, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) { go(m_hits->row(item)); });
  connect(m_hits, &QListWidget::itemActivated, this, [this](QListWidgetItem* item) { go(m_hits->row(item)); });
  connect(&m_session.document, &Document::changed, this, [this] {
    if (isVisible()) search();
  });
}

void FindDialog::begin() {
  show();
  raise();
  activateWindow();
  search();
  m_text->setFocus();
  m_text->selectAll();
}

void FindDialog::search() {
  const int before = m_hits->currentRow();
  m_hits->clear();
  static const checks::Findings kNone;
  const auto& findings = m_session.concealment.hidden() ? kNone : m_session.analyser.analysis().findings;
  for (const auto& f : checks::find(m_session.document.harness(), m_session.document.library(), findings, m_text->text().toStdString())) {
    const auto besides = f.besides.empty() ? QString() : " · " + QString::fromStdString(f.besides);
    const auto text = QString::fromStdString(f.text) + "  (" + kindWords(f.kind) + besides + ")";
    auto* item = new QListWidgetItem(text, m_hits);
    item->setToolTip(plainTip(text));
    item->setData(Qt::UserRole, QString::fromStdString(f.subject));
    item->setData(Qt::UserRole + 1, static_cast<int>(f.kind));
  }
  if (m_hits->count() == 0 && !m_text->text().trimmed().isEmpty()) new QListWidgetItem(tr("Nothing on this bench is called that."), m_hits);
  m_hits->setCurrentRow(std::clamp(before, 0, std::max(0, m_hits->count() - 1)));
}

void FindDialog::go(int row) {
  const auto* item = m_hits->item(row);
  const auto subject = item ? item->data(Qt::UserRole).toString() : QString();
  if (subject.isEmpty()) return;
  const auto kind = static_cast<checks::Found::Kind>(item->data(Qt::UserRole + 1).toInt());
  hide();
  if (kind == checks::Found::Kind::Finding) {
    m_session.selection.pick(subject);
    Q_EMIT findingFound();
    return;
  }
  m_session.selection.pick({});
  m_session.selection.select(subject);
  if (kind == checks::Found::Kind::Wire)
    Q_EMIT wireFound();
  else
    Q_EMIT placeFound();
}

bool FindDialog::eventFilter(QObject* watched, QEvent* event) {
  if (watched == m_text && event->type() == QEvent::KeyPress) {
    const int key = static_cast<QKeyEvent*>(event)->key();
    const int step = key == Qt::Key_Down ? 1 : key == Qt::Key_Up ? -1 : 0;
    if (step != 0 && m_hits->count() > 0) {
      m_hits->setCurrentRow(std::clamp(m_hits->currentRow() + step, 0, m_hits->count() - 1));
      return true;
    }
  }
  return QDialog::eventFilter(watched, event);
}

}  // namespace bold::gui
