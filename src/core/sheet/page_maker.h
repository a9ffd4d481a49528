#pragma once

#include <string>
#include <vector>

#include "core/draw/shapes.h"

/// Blocks of text, tables and drawings, one below the other, on as many pages as they take.
namespace bold::sheet {

/// In points (1/72 inch).
struct Paper {
  double width, height;
};
inline constexpr Paper kA4{595.28, 841.89};
inline constexpr Paper kLetter{612, 792};

struct Column {
  std::string title;
  double share = 1;  ///< of the width, against the others
  bool mono = false;
  bool tick = false;  ///< an empty box to tick; a cell that says anything is ticked
};

class PageMaker {
 public:
  /// @param foot stands at the end of every page, before its number
  PageMaker(Paper paper, std::string foot);

  void title(const std::string& text);
  /// @param with how much of what follows has to fit on the same page, in points
  void heading(const std::string& text, double with = 40);
  void text(const std::string& words, bool bold = false);
  /// An empty box to tick, and words beside it.
  void toDo(const std::string& words);
  /// Its head is repeated on every page that it takes. A row that is one cell only is a heading within the table.
  void table(const std::vector<Column>& columns, const std::vector<std::vector<std::string>>& rows);
  /// As large as fits the width and this share of a page, never larger than it is; words above it.
  void drawing(const draw::Drawing& drawing, const std::string& words, double most = 0.9);
  /// Two or three side by side, each as `drawing`.
  void drawings(const std::vector<std::pair<draw::Drawing, std::string>>& beside, double height);
  /// A line to write on.
  void blank(const std::string& words);
  void gap(double points);
  /// The next block begins a page, where this one holds anything.
  void newPage();

  std::vector<draw::Drawing> take();

 private:
  Paper m_paper;
  std::string m_foot;
  std::vector<draw::Drawing> m_pages;
  double m_y = 0;

  double room() const;
  double wide() const;
  void need(double height);
  void words(const std::string& text, double x, double width, double size, bool bold, bool mono = false);
  void place(const draw::Drawing& drawing, double x, double width, double height);
};

}  // namespace bold::sheet
