#include <fmt/core.h>

#include <QGuiApplication>
#include <QHashSeed>
#include <ctime>
#include <filesystem>

#include "core/checks/analysis.h"
#include "load.h"
#include "output.h"
#include "render/bench_export.h"
#include "subcommand.h"

namespace bold::cli::export_file {
namespace {

struct Taken {
  std::string file, output, what, numbers = "program", paper = "a4", date;
  bool force = false;
};

std::string today() {
  const std::time_t now = std::time(nullptr);
  char text[16];
  std::strftime(text, sizeof text, "%Y-%m-%d", std::localtime(&now));
  return text;
}

// Fonts and pictures, without a screen.
class Renderer {
 public:
  Renderer() {
    QHashSeed::setDeterministicGlobalSeed();  // fonts of a PDF stand in the order of a table
    qputenv("QT_QPA_PLATFORM", "offscreen");
    qInstallMessageHandler([](QtMsgType, const QMessageLogContext&, const QString&) {});  // of a desktop that is not there
    m_application = std::make_unique<QGuiApplication>(m_count, m_arguments.data());
  }

 private:
  int m_count = 1;
  std::string m_name = "boldh";
  std::vector<char*> m_arguments{m_name.data(), nullptr};
  std::unique_ptr<QGuiApplication> m_application;
};

Result<std::string> made(const Loaded& bench, const Taken& a, std::string_view ending, std::string_view what) {
  const auto analysis = analyse(bench.harness, bench.library);
  const auto renderer = render::needsFonts(ending) ? std::make_unique<Renderer>() : nullptr;
  return render::exported(bench.harness, bench.library, analysis, ending, what,
                          {std::filesystem::path(a.file).filename().string(), a.date.empty() ? today() : a.date,
                           a.paper == "letter" ? sheet::kLetter : sheet::kA4, *places::numberingNamed(a.numbers)});
}

int write(const Taken& a) {
  const auto ending = std::filesystem::path(a.output).extension().string();
  const auto* kind = render::exportKind(ending);
  if (!kind) {
    bold::cli::complain(fmt::format("\"{}\": a file ends in .svg, .png, .pdf, .csv, .h, .hpp or .py.", a.output));
    return 2;
  }
  const std::string what = a.what.empty() ? std::string(kind->holds.front()) : a.what;
  if (std::ranges::count(kind->holds, what) == 0) {
    std::string can;
    for (const auto& w : kind->holds) can += (can.empty() ? "" : " or ") + std::string(w);
    bold::cli::complain(fmt::format("A file that ends in {} holds {}, not {}.", ending, can, what));
    return 2;
  }
  Disk disk;
  const auto bench = openBench(disk, a.file, false);
  if (!bench) return 2;
  const auto overwrite = a.force ? harness::Overwrite::Yes : harness::Overwrite::Ask;
  // Before the work is done.
  if (const auto why = harness::objection(disk, a.output, harness::Written::Export, overwrite)) {
    complainOfWriting(*why);
    return 2;
  }
  const auto bytes = made(*bench, a, ending, what);
  const auto done = bytes ? harness::writeExport(disk, a.output, *bytes, overwrite) : Result<bool>(fail(bytes.error()));
  if (!done) complainOfWriting(done.error());
  return done ? 0 : 2;
}

Run declare(Arguments& takes) {
  const auto a = std::make_shared<Taken>();
  takes.positional("FILE", a->file, "a bench");
  takes.option("--output", a->output, "the file to write: .svg, .png, .pdf, .csv, .h, .hpp or .py");
  takes.flag("--force", a->force, kForceHelp);
  takes.option("--what", a->what, "loom, sheet, wires, cuts, parts or pins; without it what such a file usually holds",
               {"loom", "sheet", "wires", "cuts", "parts", "pins"});
  takes.option("--numbers", a->numbers, "what pin constants are counted by", {"printed", "position", "chip", "program"});
  takes.option("--paper", a->paper, "a4 or letter", {"a4", "letter"});
  takes.option("--date", a->date, "what stands on the sheet as its date; today without it");
  return [a] { return write(*a); };
}

}  // namespace

Subcommand subcommand() {
  return {"export", "Write the loom, a sheet for the bench, lists or pin constants to a file.", declare};
}

}  // namespace bold::cli::export_file
