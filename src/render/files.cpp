#include "render/files.h"

#include <QBuffer>
#include <QByteArray>
#include <QImage>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <cmath>

#include "core/base/json.h"
#include "render/paint_shapes.h"

namespace bold::render {
namespace {

constexpr int kDotsPerInch = 1200;  // of a page's own grid: hairlines keep their width
constexpr double kPointsPerInch = 72;
constexpr double kMostPixels = 60e6;

// What the writer puts in of its own: when it was made, and a number by chance. Written over in place, so that nothing moves.
void sameEveryTime(QByteArray& bytes) {
  const auto over = [&](const QByteArray& before, auto changes, char with) {
    for (qsizetype at = bytes.indexOf(before); at >= 0; at = bytes.indexOf(before, at + 1))
      for (auto k = at + before.size(); k < bytes.size() && changes(bytes[k]); ++k)
        if (std::isxdigit(static_cast<unsigned char>(bytes[k])) != 0) bytes[k] = with;
  };
  const auto date = [](char c) { return c != ')' && c != '<' && c != '\n'; };
  over("/CreationDate (D:", date, '0');
  over("/ModDate (D:", date, '0');
  for (const char* tag :
       {"<xmp:CreateDate>", "<xmp:ModifyDate>", "<xmp:MetadataDate>", "<xmpMM:DocumentID>uuid:", "xmpMM:DocumentID=\"uuid:"})
    over(
        tag, [](char c) { return c != '<' && c != '"'; }, '0');
  over(
      "/ID [", [](char c) { return c != ']'; }, '0');
}

}  // namespace

std::string pdf(const std::vector<draw::Drawing>& pages, const std::string& title, const std::function<bool()>& cancelled) {
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  {
    QPdfWriter writer(&buffer);
    writer.setTitle(QString::fromStdString(title));
    writer.setCreator("Bold Harness");
    writer.setResolution(kDotsPerInch);
    QPainter painter;
    for (std::size_t k = 0; k < pages.size() && !(cancelled && cancelled()); ++k) {
      writer.setPageSize(QPageSize(QSizeF(pages[k].width, pages[k].height), QPageSize::Point, {}, QPageSize::ExactMatch));
      writer.setPageMargins({});
      if (k == 0)
        painter.begin(&writer);
      else
        writer.newPage();
      painter.resetTransform();
      painter.scale(kDotsPerInch / kPointsPerInch, kDotsPerInch / kPointsPerInch);
      paint(painter, pages[k].shapes, paper());
    }
  }
  sameEveryTime(bytes);
  return bytes.toStdString();
}

Result<std::string> png(const draw::Drawing& d, double by) {
  const double w = std::ceil(d.width * by);
  const double h = std::ceil(d.height * by);
  if (w < 1 || h < 1) return fail(std::string("There is nothing to draw."));
  if (w * h > kMostPixels) return fail(std::string("The picture would be too large: write it as SVG or PDF."));
  QImage image(static_cast<int>(w), static_cast<int>(h), QImage::Format_RGB32);
  image.fill(Qt::white);
  QPainter painter(&image);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.scale(by, by);
  paint(painter, d.shapes, paper());
  painter.end();
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  image.save(&buffer, "PNG");
  return bytes.toStdString();
}

}  // namespace bold::render
