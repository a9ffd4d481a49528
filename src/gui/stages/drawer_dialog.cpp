#include "gui/stages/drawer_dialog.h"

#include <QDialogButtonBox>
#include <QFileDialog>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>
#include <algorithm>

#include "core/base/file_system.h"
#include "core/parts/roles.h"
#include "gui/half_typed.h"
#include "gui/panels/plural.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/stages/drawer.h"
#include "gui/theme/plain_text.h"
#include "gui/write_asking.h"

namespace bold::gui {
namespace {
constexpr int kCountWidth = 80;
}

DrawerDialog::DrawerDialog(Session& session, Drawer& drawer, QWidget* parent) : QDialog(parent), m_session(session), m_drawer(drawer) {
  setObjectName("drawer");
  setAttribute(Qt::WA_DeleteOnClose);
  setWindowTitle(tr("My drawer"));
  resize(500, 560);
  auto* column = new QVBoxLayout(this);
  m_filter = new QLineEdit(this);
  declareField(m_filter, FieldKind::Search);
  m_filter->setObjectName("drawerFilter");
  m_filter->setPlaceholderText(tr("Find a part"));
  m_filter->setAccessibleName(tr("Find a part"));
  m_filter->setClearButtonEnabled(true);
  column->addWidget(m_filter);
  m_table = new QTableWidget(0, 2, this);
  m_table->setObjectName("drawerTable");
  m_table->setAccessibleName(tr("Parts and how many there are"));
  m_table->setHorizontalHeaderLabels({tr("Part"), tr("Count")});
  m_table->verticalHeader()->hide();
  m_table->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  m_table->setColumnWidth(1, kCountWidth);
  m_table->setEditTriggers(QAbstractItemView::AllEditTriggers);
  column->addWidget(m_table, 1);
  m_said = plainLabel(this);
  m_said->setObjectName("drawerSaid");
  m_said->setWordWrap(true);
  column->addWidget(m_said);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
  auto* in = buttons->addButton(tr("From CSV…"), QDialogButtonBox::ActionRole);
  auto* out = buttons->addButton(tr("To CSV…"), QDialogButtonBox::ActionRole);
  in->setObjectName("drawerImport");
  out->setObjectName("drawerExport");
  column->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(in, &QPushButton::clicked, this, &DrawerDialog::importFrom);
  connect(out, &QPushButton::clicked, this, &DrawerDialog::exportTo);
  connect(m_filter, &QLineEdit::textChanged, this, &DrawerDialog::fill);
  connect(m_table, &QTableWidget::cellChanged, this, &DrawerDialog::counted);
  fill();
  m_filter->setFocus();
}

// What lies there first, then stages, then everything else.
void DrawerDialog::fill() {
  m_filling = true;
  auto found = m_session.document.library().search(m_filter->text().toStdString());
  std::ranges::stable_sort(found, {}, [&](const auto& p) {
    return std::tuple(!m_drawer.stock().contains(p->id), p->channels.empty() || parts::isController(*p), p->name);
  });
  m_table->setRowCount(static_cast<int>(found.size()));
  for (int k = 0; k < m_table->rowCount(); ++k) {
    const auto& p = found[static_cast<std::size_t>(k)];
    auto* name = new QTableWidgetItem(qs(p->name));
    name->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
    name->setData(Qt::UserRole, qs(p->id));
    const auto it = m_drawer.stock().find(p->id);
    auto* count = new QTableWidgetItem(it == m_drawer.stock().end() ? QString() : QString::number(it->second));
    count->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
    count->setData(Qt::AccessibleTextRole, tr("how many of %1").arg(qs(p->name)));
    m_table->setItem(k, 0, name);
    m_table->setItem(k, 1, count);
  }
  m_filling = false;
}

void DrawerDialog::counted(int row) {
  if (m_filling) return;
  auto* item = m_table->item(row, 1);
  const auto part = m_table->item(row, 0)->data(Qt::UserRole).toString().toStdString();
  const auto text = item->text().trimmed();
  bool whole = false;
  const int n = text.isEmpty() ? 0 : text.toInt(&whole);
  auto stock = m_drawer.stock();
  if (!text.isEmpty() && (!whole || n < 0)) {
    const auto it = stock.find(part);
    m_filling = true;
    item->setText(it == stock.end() ? QString() : QString::number(it->second));
    m_filling = false;
    const auto why = tr("\"%1\" is no count: a whole number from 0 on is. What was there stays.").arg(text);
    refuseCell(m_table, why);
    return m_said->setText(why);
  }
  stock[part] = n;
  m_said->setText(m_drawer.set(std::move(stock)));
}

void DrawerDialog::importFrom() {
  const auto path = QFileDialog::getOpenFileName(this, tr("The drawer from CSV"), QString(), tr("CSV (*.csv);;All files (*)"));
  if (path.isEmpty()) return;
  Disk disk;
  const auto csv = disk.read(path.toStdString());
  if (!csv) return m_said->setText(qs(text(csv.error())));
  const auto read = choose::readStock(*csv, m_session.document.library());
  auto stock = m_drawer.stock();
  for (const auto& [part, n] : read.stock) stock[part] = n;
  QStringList said{tr("%1 read; what the file does not name stays as it was.")
                       .arg(plural(static_cast<int>(read.stock.size()), tr("part"), tr("parts")))};
  for (const auto& p : read.problems) said << qs(text(p));
  const auto kept = m_drawer.set(std::move(stock));
  if (!kept.isEmpty()) said << kept;
  m_said->setText(said.mid(0, 6).join("\n"));
  fill();
}

void DrawerDialog::exportTo() {
  const auto path = QFileDialog::getSaveFileName(this, tr("The drawer to CSV"), "drawer.csv", tr("CSV (*.csv)"));
  if (path.isEmpty()) return;
  if (writeAsking(this, path, choose::writeStock(m_drawer.stock()), harness::Overwrite::AskUnlessAlike)) m_said->setText(tr("Written."));
}

}  // namespace bold::gui
