#pragma once

#include <QPlainTextEdit>
#include <map>
#include <vector>

#include "core/checks/finding.h"
#include "core/program/source_text.h"

namespace bold::gui {

/// A source to be looked at, not to be changed: lines are numbered, words for pins are marked, and what is said of a line stands in its
/// margin.
class SourceView : public QPlainTextEdit {
  Q_OBJECT
 public:
  explicit SourceView(QWidget* parent = nullptr);

  struct Mark {
    harness::Spot spot;
    bool disagrees = false;
    checks::Severity severity = checks::Severity::Note;
    QString tip;
    int row = -1;  ///< of the list beside it
  };
  /// nullptr: there is nothing to show, and why.
  void show(const program::SourceText* source, const QString& why);
  void mark(std::vector<Mark> marks);
  /// Scrolls to a place and lights its line.
  void light(const harness::Spot& spot);
  const std::string& file() const { return m_file; }
  /// The row that a line's mark belongs to; -1: none.
  int rowAt(int line) const;

 Q_SIGNALS:
  void rowPicked(int row);

 protected:
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

 private:
  class Margin;
  Margin* m_margin;
  std::string m_file;
  std::vector<Mark> m_marks;
  std::map<int, const Mark*> m_byLine;  ///< the gravest of each
  harness::Spot m_lit;
  void arrange();
  void paint();
  void paintMargin(QPaintEvent* event);
};

}  // namespace bold::gui
