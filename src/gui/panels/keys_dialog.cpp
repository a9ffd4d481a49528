#include "gui/panels/keys_dialog.h"

#include <QAction>
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QMenu>
#include <QMenuBar>
#include <QTableWidget>
#include <QVBoxLayout>

namespace bold::gui {
namespace {

struct Row {
  QString keys, does, where;
};

void collect(const QMenu& menu, const QString& where, std::vector<Row>& rows) {
  for (const auto* action : menu.actions()) {
    if (action->menu()) collect(*action->menu(), where, rows);
    QStringList keys;
    for (const auto& k : action->shortcuts()) keys << k.toString(QKeySequence::NativeText);
    keys.removeAll(QString());
    keys.removeDuplicates();
    if (!keys.isEmpty()) rows.push_back({keys.join(KeysDialog::tr(" or ")), QString(action->text()).remove('&'), where});
  }
}

}  // namespace

KeysDialog::KeysDialog(const QMenuBar& menus, QWidget* parent) : QDialog(parent) {
  setAttribute(Qt::WA_DeleteOnClose);
  setObjectName("keys");
  setWindowTitle(tr("Keys"));
  resize(620, 640);
  std::vector<Row> rows;
  for (const auto* top : menus.actions())
    if (top->menu()) collect(*top->menu(), QString(top->text()).remove('&'), rows);
  const auto picture = tr("picture");
  rows.push_back({tr("Arrow keys"), tr("Go to the next terminal that way"), picture});
  rows.push_back({tr("Return, then Return"), tr("Begin a wire at this terminal, end it at another"), picture});
  rows.push_back({tr("Escape"), tr("Let go of what is begun, then of what is picked"), picture});
  rows.push_back({tr("Ctrl and the wheel"), tr("Zoom at the pointer"), picture});
  rows.push_back({tr("Middle button"), tr("Drag the picture about"), picture});
  rows.push_back({tr("Menu key, right button"), tr("What can be done with what is there"), tr("picture, lists")});
  rows.push_back({tr("Up, Down"), tr("Go through findings, wires, devices"), tr("panel")});
  rows.push_back({tr("Tab, Shift+Tab"), tr("To the next part of the window and back"), tr("everywhere")});
  auto* table = new QTableWidget(static_cast<int>(rows.size()), 3, this);
  table->setObjectName("keyTable");
  table->setAccessibleName(tr("Every key and what it does"));
  table->setHorizontalHeaderLabels({tr("Keys"), tr("What they do"), tr("Where")});
  table->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  table->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  table->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
  table->verticalHeader()->hide();
  table->setShowGrid(false);
  table->setEditTriggers(QAbstractItemView::NoEditTriggers);
  table->setSelectionBehavior(QAbstractItemView::SelectRows);
  table->setTabKeyNavigation(false);
  for (int i = 0; i < table->rowCount(); ++i) {
    const auto& r = rows[i];
    table->setItem(i, 0, new QTableWidgetItem(r.keys));
    table->setItem(i, 1, new QTableWidgetItem(r.does));
    table->setItem(i, 2, new QTableWidgetItem(r.where));
  }
  auto* column = new QVBoxLayout(this);
  column->addWidget(table);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  column->addWidget(buttons);
}

}  // namespace bold::gui
