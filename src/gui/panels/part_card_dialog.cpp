#include "gui/panels/part_card_dialog.h"

#include <QDialogButtonBox>
#include <QLabel>
#include <QPainter>
#include <QPixmap>
#include <QPushButton>
#include <QScrollArea>
#include <QSplitter>
#include <QTextBrowser>
#include <QTextFrame>
#include <QTextTable>
#include <QVBoxLayout>
#include <cmath>

#include "core/parts/own_parts.h"
#include "core/parts/part_card.h"
#include "gui/panels/own_part_dialog.h"
#include "gui/picture/picture.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

constexpr double kMargin = 14;

// The part alone, as it is drawn on a bench.
QPixmap drawing(const Session& session, const std::string& part, double ratio) {
  harness::Harness alone;
  harness::Device d;
  d.id = "part";
  d.part = part;
  const auto known = session.document.library().find(part);
  d.name = known ? known->name : part;
  alone.devices.push_back(d);
  const auto layout = picture::layOut(alone, session.document.library());
  const auto* box = layout.box("part");
  if (!box) return {};
  double left = box->rect.x;
  double top = box->rect.y;
  double right = box->rect.right();
  double bottom = box->rect.bottom();
  for (const auto& t : box->terminals) {
    left = std::min(left, t.at.x - (t.labelLeft ? 70 : 12));
    right = std::max(right, t.at.x + (t.labelLeft ? 12 : 70));
    top = std::min(top, t.at.y - 12);
    bottom = std::max(bottom, t.at.y + 12);
  }
  const QRectF seen(left - kMargin, top - kMargin, right - left + 2 * kMargin, bottom - top + 2 * kMargin);
  QPixmap out((seen.size() * ratio).toSize());
  out.setDevicePixelRatio(ratio);
  out.fill(gui::palette().paper);
  QPainter p(&out);
  p.translate(-seen.topLeft());
  paintPicture(p, layout, {}, {}, true, {}, {});
  return out;
}

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

PartCardDialog::PartCardDialog(Session& session, const std::string& id, QWidget* parent) : QDialog(parent) {
  setObjectName("partCard");
  setAttribute(Qt::WA_DeleteOnClose);
  resize(900, 640);
  auto* column = new QVBoxLayout(this);
  const auto part = session.document.library().find(id);
  setWindowTitle(part ? QString::fromStdString(part->name) : QString::fromStdString(id));
  auto* split = new QSplitter(this);
  auto* picture = plainLabel(split);
  picture->setObjectName("partDrawing");
  picture->setPixmap(drawing(session, id, devicePixelRatioF()));
  picture->setAlignment(Qt::AlignTop | Qt::AlignHCenter);
  picture->setAccessibleName(tr("Drawing of the part; its terminals are listed beside it"));
  auto* scroll = new QScrollArea(split);
  scroll->setWidget(picture);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  split->addWidget(scroll);
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
  split->setSizes({270, 590});
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
