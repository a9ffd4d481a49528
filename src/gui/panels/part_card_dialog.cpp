#include "gui/panels/part_card_dialog.h"

#include <QDialogButtonBox>
#include <QPushButton>
#include <QSplitter>
#include <QTextBrowser>
#include <QTextFrame>
#include <QTextTable>
#include <QVBoxLayout>

#include "core/parts/own_parts.h"
#include "core/parts/part_card.h"
#include "gui/panels/own_part_dialog.h"
#include "gui/places/place_card.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

// Markdown tables come with a double frame.
void plainTables(QTextDocument& document) {
  for (auto* frame : document.rootFrame()->childFrames())
    if (auto* table = qobject_cast<QTextTable*>(frame)) {
      auto format = table->format();
      format.setBorderCollapse(true);
      format.setBorder(0);
      format.setCellPadding(4);
      table->setFormat(format);
      for (int row = 0; row < table->rows(); ++row)
        for (int column = 0; column < table->columns(); ++column) {
          auto cell = table->cellAt(row, column);
          auto line = cell.format().toTableCellFormat();
          line.setBottomBorder(1);
          line.setBottomBorderStyle(QTextFrameFormat::BorderStyle_Solid);
          line.setBottomBorderBrush(gui::palette().line);
          cell.setFormat(line);
        }
    }
}

}  // namespace

PartCardDialog::PartCardDialog(Session& session, const std::string& id, const std::string& device, QWidget* parent) : QDialog(parent) {
  setObjectName("partCard");
  setAttribute(Qt::WA_DeleteOnClose);
  resize(900, 640);
  auto* column = new QVBoxLayout(this);
  const auto part = session.document.library().find(id);
  setWindowTitle(part ? QString::fromStdString(part->name) : QString::fromStdString(id));
  auto* split = new QSplitter(this);
  split->addWidget(new PlaceCard(session, id, device, split));
  auto* text = new PlainBrowser(split);
  text->setObjectName("partText");
  text->setFrameShape(QFrame::NoFrame);
  text->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);  // its tables are as wide as it is
  text->document()->setDocumentMargin(10);
  if (part) text->setMarkdown(QString::fromStdString(parts::partCard(*part, session.document.library().json(id), parts::CardFor::Window)));
  plainTables(*text->document());
  split->addWidget(text);
  split->setStretchFactor(0, 1);
  split->setStretchFactor(1, 2);
  split->setSizes({340, 560});
  column->addWidget(split, 1);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  // One's own part is changed, a shipped one copied first.
  if (part) {
    auto* change = buttons->addButton(part->own ? tr("Change it…") : tr("Copy and change…"), QDialogButtonBox::ActionRole);
    change->setObjectName("copyPart");
    connect(change, &QPushButton::clicked, this, [this, &session, part] {
      const auto copyId = part->own ? part->id : "my-" + part->id;
      const auto name = part->own ? part->name : tr("My %1").arg(QString::fromStdString(part->name)).toStdString();
      if (const auto copy = parts::copyOf(session.document.library(), part->id, copyId, name))
        (new OwnPartDialog(session, QString::fromStdString(*copy), parentWidget()))->show();
      close();
    });
  }
  column->addWidget(buttons);
}

}  // namespace bold::gui
