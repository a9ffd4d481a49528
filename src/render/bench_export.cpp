#include "render/bench_export.h"

#include <QFont>
#include <QRawFont>
#include <algorithm>

#include "core/draw/svg.h"
#include "core/picture/badges.h"
#include "core/picture/draw_loom.h"
#include "core/report/lists.h"
#include "core/report/pin_constants.h"
#include "core/sheet/bench_sheet.h"
#include "core/wiring/wire_table.h"
#include "render/files.h"

namespace bold::render {
namespace {
constexpr double kSharp = 2;  // pixels of a PNG for each of the drawing's
}

const std::vector<ExportKind>& exportKinds() {
  static const std::vector<ExportKind> kKinds{
      {".svg", {"loom"}}, {".png", {"loom"}}, {".pdf", {"sheet", "loom"}}, {".csv", {"wires", "cuts", "parts"}}, {".h", {"pins"}},
      {".hpp", {"pins"}}, {".py", {"pins"}}};
  return kKinds;
}

const ExportKind* exportKind(std::string_view ending) {
  const auto it = std::ranges::find(exportKinds(), ending, &ExportKind::ending);
  return it == exportKinds().end() ? nullptr : &*it;
}

bool fontsInstalled() {
  // Names tell nothing, and boxes count as letters: a real font has a table of the letters that it draws.
  return !QRawFont::fromFont(QFont("Inter")).fontTable("cmap").isEmpty();
}

bool needsFonts(std::string_view ending) {
  return ending == ".png" || ending == ".pdf";
}

Result<std::string> exported(const harness::Harness& h, const parts::Library& library, const Analysis& analysis, std::string_view ending,
                             std::string_view what, const ExportOf& of, const std::function<bool()>& cancelled) {
  if (needsFonts(ending) && !fontsInstalled())
    return fail(std::string("No fonts are installed: what is written would have no text in it."));
  const auto title = h.title.empty() ? of.file : h.title;
  if (what == "wires") return wiring::writeWireTable(h, library);
  if (what == "cuts") return report::cutList(h);
  if (what == "parts") return report::partsList(h, library);
  if (what == "pins") {
    const auto language = ending == ".py" ? report::Language::Python : ending == ".h" ? report::Language::C : report::Language::Cpp;
    return report::pinConstants(h, analysis, language, of.numbers, of.file);
  }
  if (what == "sheet") return pdf(sheet::benchSheet(h, library, analysis, {of.file, of.date, of.paper}), title, cancelled);
  const auto layout = picture::layOut(h, library);
  const auto loom = picture::loomDrawing(layout, picture::placeBadges(layout, analysis.findings), true);
  if (ending == ".svg") return draw::svgOf(loom, title);
  return ending == ".pdf" ? pdf({loom}, title) : png(loom, kSharp);
}

}  // namespace bold::render
