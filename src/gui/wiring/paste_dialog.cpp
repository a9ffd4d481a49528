#include "gui/wiring/paste_dialog.h"

#include <QDialogButtonBox>
#include <QFileDialog>
#include <QHeaderView>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include "core/base/file_system.h"
#include "gui/half_typed.h"
#include "gui/panels/plural.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

PasteDialog::PasteDialog(Session& session, const QString& text, QWidget* parent) : QDialog(parent), m_session(session) {
  setObjectName("pasteWires");
  setAttribute(Qt::WA_DeleteOnClose);
  setWindowTitle(tr("Paste a wire list"));
  resize(720, 560);
  auto* column = new QVBoxLayout(this);
  auto* how = plainLabel(
      tr("A line for each wire: its two ends, then colour, gauge and length, with commas, semicolons or tabs between. A first line may say "
         "what stands where. Wires that the list does not have stay."),
      this);
  how->setWordWrap(true);
  column->addWidget(how);
  m_text = new QPlainTextEdit(text, this);
  declareField(m_text, FieldKind::Entry, tr("the wire list that was typed"));
  m_text->setObjectName("pastedList");
  m_text->setAccessibleName(tr("Wire list"));
  m_text->setTabChangesFocus(true);
  m_text->setPlaceholderText("uno.d9, s1.in1, yellow, 24, 20 cm");
  column->addWidget(m_text, 1);
  m_sum = plainLabel(this);
  m_sum->setObjectName("pasteSum");
  column->addWidget(m_sum);
  m_lines = new QTableWidget(0, 2, this);
  m_lines->setObjectName("pastedLines");
  m_lines->setAccessibleName(tr("What each line does"));
  m_lines->setHorizontalHeaderLabels({tr("Line"), tr("What it does, or why not")});
  m_lines->verticalHeader()->hide();
  m_lines->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
  m_lines->setEditTriggers(QAbstractItemView::NoEditTriggers);
  m_lines->setSelectionBehavior(QAbstractItemView::SelectRows);
  m_lines->setTabKeyNavigation(false);
  column->addWidget(m_lines, 2);
  auto* buttons = new QDialogButtonBox(this);
  m_take = buttons->addButton(tr("Take these wires"), QDialogButtonBox::AcceptRole);
  m_take->setObjectName("takeList");
  buttons->addButton(QDialogButtonBox::Cancel);
  auto* file = buttons->addButton(tr("From a file…"), QDialogButtonBox::ActionRole);
  column->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::accepted, this, [this] {
    m_session.document.apply(m_read.edit);
    accept();
  });
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(file, &QPushButton::clicked, this, [this] {
    const auto path = QFileDialog::getOpenFileName(this, tr("A wire list"), QString(), tr("CSV (*.csv);;All files (*)"));
    if (path.isEmpty()) return;
    Disk disk;
    const auto list = disk.read(path.toStdString());
    if (list)
      m_text->setPlainText(QString::fromStdString(*list));
    else
      tell(this, tr("The list cannot be read"), qs(bold::text(list.error())));
  });
  connect(m_text, &QPlainTextEdit::textChanged, this, &PasteDialog::read);
  connect(&m_session.document, &Document::changed, this, &PasteDialog::read);
  read();
}

void PasteDialog::reject() {
  if (mayGiveUp(*this)) QDialog::reject();
}

void PasteDialog::read() {
  m_read = wiring::readWireTable(m_session.document.harness(), m_session.document.library(), m_text->toPlainText().toStdString());
  m_lines->setRowCount(static_cast<int>(m_read.lines.size()));
  for (int i = 0; i < m_lines->rowCount(); ++i) {
    const auto& line = m_read.lines[i];
    m_lines->setItem(i, 0, new QTableWidgetItem(QString::number(line.number)));
    auto* what = new QTableWidgetItem(line.why.empty() ? qs(line.does) : tr("left out: %1").arg(qs(line.why)));
    if (!line.why.empty()) what->setForeground(gui::palette().stop);
    what->setToolTip(plainTip(qs(line.text)));
    m_lines->setItem(i, 1, what);
  }
  m_sum->setText(tr("%1 made or changed, %2 left out.")
                     .arg(plural(m_read.changes, tr("wire"), tr("wires")), plural(m_read.unusable, tr("line"), tr("lines"))));
  m_take->setEnabled(m_read.changes > 0 && !m_session.document.readOnly());
}

}  // namespace bold::gui
