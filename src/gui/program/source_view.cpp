#include "gui/program/source_view.h"

#include <QHelpEvent>
#include <QPainter>
#include <QScrollBar>
#include <QTextBlock>
#include <QToolTip>

#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {
constexpr int kMarkWidth = 16;
}

class SourceView::Margin : public QWidget {
 public:
  explicit Margin(SourceView* view) : QWidget(view), m_view(view) { setCursor(Qt::ArrowCursor); }

 protected:
  void paintEvent(QPaintEvent* event) override { m_view->paintMargin(event); }
  void mousePressEvent(QMouseEvent* event) override {
    const auto block = m_view->cursorForPosition(QPoint(0, event->pos().y())).block();
    if (const int row = m_view->rowAt(block.blockNumber() + 1); row >= 0) Q_EMIT m_view->rowPicked(row);
  }

 private:
  SourceView* m_view;
};

SourceView::SourceView(QWidget* parent) : QPlainTextEdit(parent), m_margin(new Margin(this)) {
  setReadOnly(true);
  setObjectName("source");
  setAccessibleName(tr("Source of the program"));
  setLineWrapMode(NoWrap);
  setTabChangesFocus(true);
  setUndoRedoEnabled(false);
  setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
  QFont f("DejaVu Sans Mono");
  f.setPixelSize(12);
  setFont(f);
  setTabStopDistance(2 * QFontMetricsF(f).horizontalAdvance(' '));
  connect(this, &QPlainTextEdit::blockCountChanged, this, &SourceView::arrange);
  connect(this, &QPlainTextEdit::updateRequest, this, [this](const QRect& area, int dy) {
    if (dy != 0)
      m_margin->scroll(0, dy);
    else
      m_margin->update(0, area.y(), m_margin->width(), area.height());
  });
  arrange();
}

void SourceView::show(const program::SourceText* source, const QString& why) {
  const auto text = source ? QString::fromStdString(source->text) : why;
  m_file = source ? source->file : std::string();
  if (text == toPlainText()) return;
  const int at = verticalScrollBar()->value();
  setPlainText(text);
  verticalScrollBar()->setValue(at);
}

void SourceView::mark(std::vector<Mark> marks) {
  m_marks = std::move(marks);
  m_byLine.clear();
  for (const auto& m : m_marks) {
    auto& best = m_byLine[m.spot.line];
    const auto rank = [](const Mark* x) { return x->disagrees ? static_cast<int>(x->severity) : 10; };
    if (!best || rank(&m) < rank(best)) best = &m;
  }
  paint();
}

void SourceView::light(const harness::Spot& spot) {
  m_lit = spot;
  const auto block = document()->findBlockByNumber(spot.line - 1);
  if (block.isValid()) {
    QTextCursor c(block);
    c.setPosition(block.position() + std::min(std::max(spot.column - 1, 0), std::max(block.length() - 1, 0)));
    setTextCursor(c);
    centerCursor();
  }
  paint();
}

int SourceView::rowAt(int line) const {
  const auto it = m_byLine.find(line);
  return it == m_byLine.end() ? -1 : it->second->row;
}

void SourceView::paint() {
  const auto& c = gui::palette();
  QList<QTextEdit::ExtraSelection> all;
  const auto add = [&](const harness::Spot& spot, const QTextCharFormat& format, bool wholeLine) {
    const auto block = document()->findBlockByNumber(spot.line - 1);
    if (!block.isValid()) return;
    QTextEdit::ExtraSelection s;
    s.format = format;
    s.cursor = QTextCursor(block);
    if (!wholeLine) {
      const int last = block.position() + std::max(block.length() - 1, 0);
      s.cursor.setPosition(std::min(block.position() + std::max(spot.column - 1, 0), last));
      s.cursor.setPosition(std::min(s.cursor.position() + std::max(spot.length, 1), last), QTextCursor::KeepAnchor);
    }
    all << s;
  };
  if (m_lit.line > 0 && m_lit.file == m_file) {
    QTextCharFormat lit;
    lit.setBackground(c.accentSoft);
    lit.setProperty(QTextFormat::FullWidthSelection, true);
    add(m_lit, lit, true);
  }
  for (const auto& m : m_marks) {
    QTextCharFormat f;
    f.setFontUnderline(true);
    f.setUnderlineStyle(m.disagrees ? QTextCharFormat::WaveUnderline : QTextCharFormat::SingleUnderline);
    f.setUnderlineColor(!m.disagrees ? c.accent : m.severity == checks::Severity::Stop ? c.stop : c.caution);
    if (m.disagrees) f.setBackground(m.severity == checks::Severity::Stop ? c.stopSoft : c.cautionSoft);
    add(m.spot, f, false);
  }
  setExtraSelections(all);
  m_margin->update();
}

void SourceView::arrange() {
  const int digits = std::max(2, static_cast<int>(QString::number(blockCount()).size()));
  const int wide = kMarkWidth + fontMetrics().horizontalAdvance('9') * digits + 8;
  setViewportMargins(wide, 0, 0, 0);
  const auto r = contentsRect();
  m_margin->setGeometry(r.left(), r.top(), wide, r.height());
}

void SourceView::resizeEvent(QResizeEvent* event) {
  QPlainTextEdit::resizeEvent(event);
  arrange();
}

void SourceView::mousePressEvent(QMouseEvent* event) {
  QPlainTextEdit::mousePressEvent(event);
  if (const int row = rowAt(cursorForPosition(event->pos()).blockNumber() + 1); row >= 0) Q_EMIT rowPicked(row);
}

void SourceView::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
    if (const int row = rowAt(textCursor().blockNumber() + 1); row >= 0) Q_EMIT rowPicked(row);
    return;
  }
  QPlainTextEdit::keyPressEvent(event);
}

bool SourceView::event(QEvent* event) {
  if (event->type() == QEvent::ToolTip) {
    const auto* help = static_cast<QHelpEvent*>(event);
    const auto at = viewport()->mapFrom(this, help->pos());
    const auto it = m_byLine.find(cursorForPosition(at).blockNumber() + 1);
    if (it != m_byLine.end())
      QToolTip::showText(help->globalPos(), plainTip(it->second->tip), this);
    else
      QToolTip::hideText();
    return true;
  }
  if (event->type() == QEvent::PaletteChange) paint();
  return QPlainTextEdit::event(event);
}

// The gravest of a line: a filled square where a stop is said, a ring where a caution is, a dot where a pin is named and all is well.
void SourceView::paintMargin(QPaintEvent* event) {
  const auto& c = gui::palette();
  QPainter p(m_margin);
  p.fillRect(event->rect(), c.rail);
  p.setRenderHint(QPainter::Antialiasing);
  p.setFont(font());
  auto block = firstVisibleBlock();
  auto top = blockBoundingGeometry(block).translated(contentOffset()).top();
  while (block.isValid() && top <= event->rect().bottom()) {
    const auto height = blockBoundingRect(block).height();
    if (block.isVisible() && top + height >= event->rect().top()) {
      const int line = block.blockNumber() + 1;
      p.setPen(c.inkSoft);
      p.drawText(QRectF(kMarkWidth, top, m_margin->width() - kMarkWidth - 4, height), Qt::AlignRight | Qt::AlignVCenter,
                 QString::number(line));
      if (const auto it = m_byLine.find(line); it != m_byLine.end()) {
        const QPointF at(kMarkWidth / 2.0, top + height / 2);
        const auto& m = *it->second;
        p.setPen(Qt::NoPen);
        if (!m.disagrees) {
          p.setBrush(c.accent);
          p.drawEllipse(at, 2.5, 2.5);
        } else if (m.severity == checks::Severity::Stop) {
          p.setBrush(c.stop);
          p.drawRect(QRectF(at.x() - 4.5, at.y() - 4.5, 9, 9));
        } else {
          p.setPen(QPen(c.caution, 2));
          p.setBrush(Qt::NoBrush);
          p.drawEllipse(at, 4, 4);
        }
      }
    }
    block = block.next();
    top += height;
  }
}

}  // namespace bold::gui
