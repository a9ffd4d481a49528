#include <unistd.h>

#include <algorithm>
#include <cstdio>
#include <set>

#include "core/base/parallel.h"
#include "core/checks/planned.h"
#include "core/report/report.h"
#include "load.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::check {
namespace {

struct CheckArguments {
  std::vector<std::string> files, sources;
  std::string format = "text";
  bool summary = false;
  bool margins = false;
};

// Colour only where a person reads.
bool onTerminal() {
  return ::isatty(STDOUT_FILENO) == 1;
}

constexpr std::size_t kAtOnce = 16;  // benches between two looks at the output: all that is ever in memory

// What is to be said of one file.
struct Piece {
  int code = 2;
  std::string out;
  std::vector<Problem> complaints;
  report::SarifFile file;
  Analysis analysis;
};

Piece pieceOf(FileSystem& disk, const parts::Library& library, const CheckArguments& arguments, const std::string& file,
              const Analysis* reference) {
  Piece piece;
  piece.file.file = file;
  auto loaded = load(disk, library, file, arguments.sources);
  piece.complaints = std::move(loaded.problems);
  const auto& format = arguments.format;
  if (!loaded.bench) {
    piece.file.problems = piece.complaints;
    if (format == "junit" && !piece.complaints.empty()) piece.out = report::junitUnreadable(file, piece.complaints.back());
    return piece;
  }
  const auto& bench = *loaded.bench;
  piece.analysis = analyse(bench.harness, bench.library, {}, reference);
  judgePlanned(piece.analysis, bench.harness, bench.library);
  const auto& analysis = piece.analysis;
  piece.code = analysis.verdict == Verdict::DoNotSwitchOn || analysis.verdict == Verdict::NotJudged ? 1 : 0;
  piece.file.verdict = headline(analysis.verdict);
  piece.file.problems = analysis.leftOut;
  piece.file.why = analysis.why;
  piece.file.taken = analysis.assumptions;
  const report::FileAnalysis judged{file, bench.text, &analysis};
  if (arguments.summary)
    piece.out = report::summaryLine(file, analysis);
  else if (format == "json")
    piece.out = report::json(file, bench.harness, analysis, arguments.margins);
  else if (format == "sarif")
    piece.out = report::sarifResults(judged);
  else if (format == "junit")
    piece.out = report::junitSuite(judged);
  else
    piece.out = report::text(file, bench.harness, analysis, {onTerminal(), 80, arguments.margins});
  // The report names what was left out.
  if (format == "text" && !arguments.summary) {
    std::set<std::pair<std::string, std::string>> named;  // a file may hold very many
    for (const auto& l : analysis.leftOut) named.emplace(l.what, l.where);
    std::erase_if(piece.complaints, [&](const Problem& p) {
      const auto hash = p.where.find('#');
      return named.contains({p.what, hash == std::string::npos ? p.where : p.where.substr(hash)});
    });
  }
  return piece;
}

class Printer {
 public:
  explicit Printer(const CheckArguments& arguments) : m_a(arguments) {
    if (m_a.format == "sarif") sayJson(report::sarifBegin(BOLD_VERSION));
    if (m_a.format == "junit") say(report::junitBegin());
  }
  void print(Piece piece) {
    complain(piece.complaints);
    if (m_a.format == "sarif") {
      if (!piece.out.empty()) sayJson((m_first ? "" : ",") + piece.out);
      m_files.push_back(std::move(piece.file));
    } else if (m_a.format == "json") {
      sayJson(piece.out);
    } else if (m_a.format == "junit" || m_a.summary) {
      say(piece.out);
    } else if (!piece.out.empty()) {
      sayColoured((m_first ? "" : "\n") + piece.out);
    }
    m_first = m_first && piece.out.empty();
  }
  void end() {
    if (m_a.format == "sarif") sayJson(report::sarifEnd(m_files));
    if (m_a.format == "junit") say(report::junitEnd());
  }

 private:
  const CheckArguments& m_a;
  bool m_first = true;
  std::vector<report::SarifFile> m_files;
};

// Where the benches themselves are not seen going by.
void showProgress(std::size_t done, std::size_t all) {
  if (all <= kAtOnce || ::isatty(STDERR_FILENO) == 0 || ::isatty(STDOUT_FILENO) != 0) return;
  std::fprintf(stderr, "\rboldh: %zu of %zu benches%s", done, all, done == all ? "\n" : "");
}

int judge(const CheckArguments& arguments) {
  if (arguments.margins && (arguments.summary || (arguments.format != "text" && arguments.format != "json"))) {
    complain("--margins goes with --format text or json.");
    return 2;
  }
  Disk disk(Feed::PipesToo);
  const auto library = ownLibrary(disk);
  const auto& files = arguments.files;
  Printer printer(arguments);
  int code = 0;
  // The benches of a course are much alike: what the first one has too is not judged again.
  Analysis first;
  for (std::size_t from = 0; from < files.size();) {
    std::vector<Piece> pieces(from == 0 ? 1 : std::min(kAtOnce, files.size() - from));
    inParallel(pieces.size(), [&](std::size_t k) { pieces[k] = pieceOf(disk, library, arguments, files[from + k], &first); });
    if (from == 0) first = std::move(pieces.front().analysis);
    for (auto& piece : pieces) {
      code = std::max(code, piece.code);
      printer.print(std::move(piece));
    }
    from += pieces.size();
    showProgress(from, files.size());
  }
  printer.end();
  return code;
}

Run declare(Arguments& takes) {
  const auto a = std::make_shared<CheckArguments>();
  takes.positionals("FILE", a->files, "bench files (.harness)", true);
  takes.option("--format", a->format, "text, json, sarif or junit", {"text", "json", "sarif", "junit"});
  takes.flag("--summary", a->summary, "one line a bench, as text");
  takes.flag("--margins", a->margins, "and how near everything comes to its limits, the tightest first (text, json)");
  takes.options("--source", a->sources, "a source of a program that lies outside its bench's folder and may be opened; once for each");
  takes.either("--summary", "--format");
  return [a] { return judge(*a); };
}

}  // namespace

Subcommand subcommand() {
  return {
      "check",
      "Judge bench files. Ends 0 when nothing stops power-up, 1 when something does\nor the verdict is Not judged, 2 when a file cannot "
      "be used.",
      declare};
}

}  // namespace bold::cli::check
