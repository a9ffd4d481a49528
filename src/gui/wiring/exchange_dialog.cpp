#include "gui/wiring/exchange_dialog.h"

#include <QDialogButtonBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

#include "core/harness/names.h"
#include "gui/half_typed.h"
#include "gui/panels/plural.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

ExchangeDialog::ExchangeDialog(Session& session, std::string device, QWidget* parent)
    : QDialog(parent), m_session(session), m_device(std::move(device)) {
  setObjectName("exchange");
  setAttribute(Qt::WA_DeleteOnClose);
  const auto* d = session.document.harness().device(m_device);
  const auto name = d ? qs(shownName(session.document.harness(), *d)) : qs(m_device);
  setWindowTitle(tr("Exchange %1").arg(name));
  resize(520, 520);
  auto* column = new QVBoxLayout(this);
  m_search = new QLineEdit(this);
  declareField(m_search, FieldKind::Search);
  m_search->setObjectName("exchangeSearch");
  m_search->setPlaceholderText(tr("which part takes its place?"));
  m_search->setAccessibleName(tr("Find the part that takes the place of %1").arg(name));
  column->addWidget(m_search);
  m_parts = new QListWidget(this);
  m_parts->setObjectName("exchangeParts");
  m_parts->setAccessibleName(tr("Parts"));
  column->addWidget(m_parts, 1);
  m_what = plainLabel(this);
  m_what->setObjectName("exchangeWhat");
  m_what->setWordWrap(true);
  column->addWidget(m_what);
  auto* buttons = new QDialogButtonBox(this);
  m_take = buttons->addButton(tr("Exchange it"), QDialogButtonBox::AcceptRole);
  m_take->setObjectName("exchangeTake");
  buttons->addButton(QDialogButtonBox::Cancel);
  column->addWidget(buttons);
  connect(m_search, &QLineEdit::textChanged, this, &ExchangeDialog::search);
  connect(m_parts, &QListWidget::currentRowChanged, this, &ExchangeDialog::preview);
  connect(&m_session.document, &Document::changed, this, &ExchangeDialog::preview);
  connect(buttons, &QDialogButtonBox::accepted, this, [this] {
    if (!m_exchange) return;
    const auto edit = m_exchange->edit;
    accept();
    m_session.document.apply(edit);
  });
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  search();
}

// Parts of the same kind before anything is typed.
void ExchangeDialog::search() {
  const auto* d = m_session.document.harness().device(m_device);
  const auto now = d ? m_session.document.library().find(d->part) : nullptr;
  const auto words = m_search->text().trimmed();
  const QSignalBlocker quiet(m_parts);
  m_parts->clear();
  for (const auto& p : m_session.document.library().search(words.isEmpty() && now ? now->kind : words.toStdString())) {
    if (d && p->id == d->part) continue;
    if (words.isEmpty() && now && p->kind != now->kind) continue;
    auto* item = new QListWidgetItem(qs(p->name), m_parts);
    item->setData(Qt::UserRole, qs(p->id));
    item->setToolTip(plainTip(qs(p->summary)));
  }
  m_parts->setCurrentRow(0);
  preview();
}

void ExchangeDialog::preview() {
  m_exchange.reset();
  const auto* item = m_parts->currentItem();
  QStringList told;
  if (item) {
    auto made = exchangePart(m_session.document.harness(), m_session.document.library(), m_device,
                             item->data(Qt::UserRole).toString().toStdString());
    if (made) {
      m_exchange = std::move(*made);
      const auto most = [&](const QString& head, const std::vector<std::string>& lines) {
        if (lines.empty()) return;
        told << head;
        for (std::size_t k = 0; k < std::min<std::size_t>(lines.size(), 8); ++k) told << "  " + qs(lines[k]);
        if (lines.size() > 8) told << tr("  and %1 more").arg(lines.size() - 8);
      };
      most(tr("To terminals of another name:"), m_exchange->moved);
      most(tr("No place there, taken away:"), m_exchange->lost);
      if (told.isEmpty()) told << tr("Every wire stays where it is.");
    } else {
      told << qs(made.error().what);
    }
  } else {
    told << tr("Nothing in the library is called that.");
  }
  m_what->setText(told.join("\n"));
  m_take->setEnabled(m_exchange && !m_session.document.readOnly());
}

}  // namespace bold::gui
