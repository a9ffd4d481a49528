#include "core/sheet/page_maker.h"

#include <fmt/core.h>

#include <algorithm>

namespace bold::sheet {
namespace {

constexpr double kMargin = 40;
constexpr double kFoot = 26;
constexpr double kText = 9.5;
constexpr double kSmall = 8;
constexpr double kLine = 1.32;  // of the size of its letters
constexpr double kTick = 8.5;

draw::Stroke hairline(double width = 0.6) {
  return {{draw::Ink::Text}, width, draw::Dash::None};
}

}  // namespace

PageMaker::PageMaker(Paper paper, std::string foot) : m_paper(paper), m_foot(std::move(foot)) {
  newPage();
}

double PageMaker::wide() const {
  return m_paper.width - 2 * kMargin;
}
double PageMaker::room() const {
  return m_paper.height - kMargin - kFoot - m_y;
}

void PageMaker::newPage() {
  if (!m_pages.empty() && m_pages.back().shapes.empty()) return;
  m_pages.push_back({m_paper.width, m_paper.height, {}});
  m_y = kMargin;
}

void PageMaker::need(double height) {
  if (height > room() && m_y > kMargin) newPage();
}

void PageMaker::gap(double points) {
  if (m_y > kMargin) m_y += points;
}

void PageMaker::words(const std::string& text, double x, double width, double size, bool bold, bool mono) {
  for (const auto& line : draw::wrapped(text, size, bold, mono, width)) {
    need(size * kLine);
    draw::Words w{.where = {x, m_y, width, size * kLine}, .side = draw::Side::Left, .text = line, .size = size};
    w.bold = bold;
    w.mono = mono;
    m_pages.back().shapes.emplace_back(std::move(w));
    m_y += size * kLine;
  }
}

void PageMaker::title(const std::string& text) {
  words(text, kMargin, wide(), 17, true);
  gap(2);
}

void PageMaker::heading(const std::string& text, double with) {
  constexpr double kSize = 12;
  gap(10);
  need(kSize * kLine + 3 + with);
  words(text, kMargin, wide(), kSize, true);
  gap(3);
}

void PageMaker::text(const std::string& text, bool bold) {
  words(text, kMargin, wide(), kText, bold);
}

void PageMaker::toDo(const std::string& text) {
  need(kText * kLine);
  m_pages.back().shapes.emplace_back(draw::Box{{kMargin, m_y + 1.5, kTick, kTick}, 0, hairline(0.9), {}});
  words(text, kMargin + kTick + 6, wide() - kTick - 6, kText, false);
  gap(2);
}

void PageMaker::blank(const std::string& text) {
  constexpr double kHigh = 24;
  need(kHigh);
  m_y += kHigh - kText * kLine;
  const auto from = kMargin + draw::textWidth(text, kText, false, false) + 8;
  words(text, kMargin, wide(), kText, false);
  m_pages.back().shapes.emplace_back(draw::Lines{{{{from, m_y - 2}, {m_paper.width - kMargin, m_y - 2}}}, hairline()});
}

void PageMaker::table(const std::vector<Column>& columns, const std::vector<std::vector<std::string>>& rows) {
  constexpr double kPad = 3;
  double shares = 0;
  for (const auto& c : columns) shares += c.share;
  std::vector<double> x{kMargin};
  for (const auto& c : columns) x.push_back(x.back() + wide() * c.share / shares);
  const auto inner = [&](std::size_t k) { return x[k + 1] - x[k] - 2 * kPad; };
  const auto rule = [&](double width) {
    m_pages.back().shapes.emplace_back(draw::Lines{{{{kMargin, m_y}, {m_paper.width - kMargin, m_y}}}, hairline(width)});
  };
  const auto cell = [&](std::size_t k, const std::string& text, double top, bool bold, bool mono) {
    double y = top;
    for (const auto& line : draw::wrapped(text, kSmall, bold, mono, inner(k))) {
      draw::Words w{.where = {x[k] + kPad, y, inner(k), kSmall * kLine}, .side = draw::Side::Left, .text = line, .size = kSmall};
      w.bold = bold;
      w.mono = mono;
      m_pages.back().shapes.emplace_back(std::move(w));
      y += kSmall * kLine;
    }
    return y - top;
  };
  const auto head = [&] {
    double high = 0;
    for (std::size_t k = 0; k < columns.size(); ++k) high = std::max(high, cell(k, columns[k].title, m_y, true, false));
    m_y += high + 2;
    rule(1);
    m_y += 2;
  };
  need(4 * kSmall * kLine);
  head();
  for (const auto& row : rows) {
    const bool title = row.size() == 1 && columns.size() > 1;
    double high = kSmall * kLine;
    for (std::size_t k = 0; !title && k < std::min(row.size(), columns.size()); ++k)
      if (!columns[k].tick)
        high = std::max(high, kSmall * kLine * static_cast<double>(draw::wrapped(row[k], kSmall, false, columns[k].mono, inner(k)).size()));
    const double all = high + 4 + (title ? 3 * kSmall : 0);  // a heading keeps a row with it
    if (all > room()) {
      newPage();
      head();
    }
    if (title) {
      m_y += 4;
      draw::Words w{.where = {kMargin, m_y, wide(), kSmall * kLine}, .side = draw::Side::Left, .text = row[0], .size = kSmall + 1};
      w.bold = true;
      m_pages.back().shapes.emplace_back(std::move(w));
    }
    for (std::size_t k = 0; !title && k < std::min(row.size(), columns.size()); ++k) {
      if (!columns[k].tick) {
        cell(k, row[k], m_y, false, columns[k].mono);
        continue;
      }
      const draw::Rect box{x[k] + kPad, m_y + 1, kTick, kTick};
      m_pages.back().shapes.emplace_back(draw::Box{box, 0, hairline(0.9), {}});
      if (row[k].empty()) continue;
      const auto pen = hairline(1.2);
      m_pages.back().shapes.emplace_back(draw::Lines{
          {{{box.x + 1.5, box.y + 4.5}, {box.x + 3.5, box.y + 7}}, {{box.x + 3.5, box.y + 7}, {box.x + 7.5, box.y + 1.5}}}, pen});
    }
    m_y += high + 2;
    rule(0.3);
    m_y += 2;
  }
}

void PageMaker::place(const draw::Drawing& d, double x, double width, double height) {
  if (d.width <= 0 || d.height <= 0) return;
  const double by = std::min({1.0, width / d.width, height / d.height});
  auto shapes = draw::moved(d.shapes, by, x + (width - d.width * by) / 2, m_y);
  auto& page = m_pages.back().shapes;
  page.insert(page.end(), std::make_move_iterator(shapes.begin()), std::make_move_iterator(shapes.end()));
}

void PageMaker::drawing(const draw::Drawing& d, const std::string& text, double most) {
  const double whole = (m_paper.height - 2 * kMargin - kFoot) * most;
  const double by = std::min({1.0, wide() / d.width, whole / d.height});
  need(d.height * by + 2 * kText * kLine);
  if (!text.empty()) words(text, kMargin, wide(), kText, true);
  place(d, kMargin, wide(), whole);
  m_y += d.height * by + 4;
}

void PageMaker::drawings(const std::vector<std::pair<draw::Drawing, std::string>>& beside, double height) {
  if (beside.empty()) return;
  const double each = (wide() - 12 * static_cast<double>(beside.size() - 1)) / static_cast<double>(beside.size());
  double tallest = 0;
  for (const auto& [d, words] : beside)
    if (d.width > 0) tallest = std::max(tallest, d.height * std::min({1.0, each / d.width, height / d.height}));
  need(tallest + 2 * kText * kLine);
  const double top = m_y;
  double x = kMargin;
  double head = 0;
  for (const auto& [d, text] : beside) {
    m_y = top;
    words(text, x, each, kText, true);
    head = std::max(head, m_y - top);
    x += each + 12;
  }
  x = kMargin;
  for (const auto& [d, text] : beside) {
    m_y = top + head;
    place(d, x, each, height);
    x += each + 12;
  }
  m_y = top + head + tallest + 10;
}

std::vector<draw::Drawing> PageMaker::take() {
  if (m_pages.size() > 1 && m_pages.back().shapes.empty()) m_pages.pop_back();
  for (std::size_t k = 0; k < m_pages.size(); ++k) {
    const draw::Rect line{kMargin, m_paper.height - kMargin - 2, wide(), kSmall * kLine};
    draw::Words foot{.where = line, .side = draw::Side::Left, .text = m_foot, .size = kSmall};
    foot.cut = true;
    foot.where.w -= 60;
    draw::Words number{.where = line, .side = draw::Side::Right, .text = fmt::format("{} of {}", k + 1, m_pages.size()), .size = kSmall};
    m_pages[k].shapes.emplace_back(std::move(foot));
    m_pages[k].shapes.emplace_back(std::move(number));
  }
  return std::move(m_pages);
}

}  // namespace bold::sheet
