#pragma once

#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"
#include "core/checks/analysis.h"
#include "core/places/numbering.h"
#include "core/sheet/page_maker.h"

/// A bench as the bytes of a file that goes to others. Command line and window write the same.
namespace bold::render {

/// What a file may hold by what its name ends in; the first is meant when nothing else is said.
struct ExportKind {
  std::string_view ending;              ///< ".pdf"
  std::vector<std::string_view> holds;  ///< "sheet", "loom", "wires", "cuts", "parts", "pins"
};
const std::vector<ExportKind>& exportKinds();
/// nullptr: no such file is written.
const ExportKind* exportKind(std::string_view ending);

struct ExportOf {
  std::string file;  ///< the bench's own, without its folder
  std::string date;  ///< of the sheet, as it is printed
  sheet::Paper paper = sheet::kA4;
  places::Numbering numbers = places::Numbering::Program;
};
/// Pictures and pages need a QGuiApplication.
/// @param analysis of this bench, explained
/// @param cancelled asked now and then; where it says yes what comes back is of no use
/// Errors: what is asked for cannot be made; no fonts are installed, and it needs them.
[[nodiscard]] Result<std::string> exported(const harness::Harness& harness, const parts::Library& library, const Analysis& analysis,
                                           std::string_view ending, std::string_view what, const ExportOf& of,
                                           const std::function<bool()>& cancelled = {});

/// Whether any text can be drawn on this machine. Needs a QGuiApplication.
bool fontsInstalled();

/// Whether fonts are needed for it.
bool needsFonts(std::string_view ending);

}  // namespace bold::render
