#include "core/wiring/program_edit.h"

#include <fmt/core.h>

#include <algorithm>
#include <filesystem>

#include "core/checks/program/on_bench.h"
#include "core/harness/names.h"
#include "core/harness/source_standing.h"
#include "core/parts/roles.h"
#include "core/program/pins_used.h"

namespace bold::wiring {

using namespace harness;

namespace {

bool ofProgram(const SourceRead& s, const Origin& o) {
  return !o.typed() && std::ranges::any_of(s.files, [&](const SourceFile& f) { return f.file == o.file; });
}

void dropStated(const Harness& h, const SourceRead& s, Edit& edit) {
  for (const auto& a : h.assignments)
    if (ofProgram(s, a.source) && a.pin.device == s.controller) edit.changes.emplace_back(Drop<Assignment>{a.id});
}

}  // namespace

std::vector<std::string> controllersFor(const Harness& h, const parts::Library& library, const std::vector<std::string>& sources) {
  std::vector<std::string> fitting, others;
  for (const auto& d : h.devices) {
    const auto part = library.find(d.part);
    if (!part || !parts::isController(*part)) continue;
    const auto& boards = program::shippedCalls().boards;
    const auto it = boards.find(d.part);
    const bool fits = std::ranges::any_of(sources, [&](const std::string& s) {
      const auto language = s.ends_with(".py") ? "python" : s.ends_with(".c") ? "c" : "c++";
      return it == boards.end() ? language == std::string_view("python") : std::ranges::count(it->second.languages, language) > 0;
    });
    (fits ? fitting : others).push_back(d.id);
  }
  fitting.insert(fitting.end(), others.begin(), others.end());
  return fitting;
}

Edit programEdit(const Harness& h, const parts::Library& library, const program::ReadProgram& read, const std::string& controller,
                 const std::string& prefix) {
  const auto* device = h.device(controller);
  const auto part = device ? library.find(device->part) : nullptr;
  if (!part) return {};
  auto source = program::pinsUsed(read, controller, *part, program::shippedCalls(), prefix);
  for (auto& f : source.files) f.standing = Standing::AsRead;
  Edit edit{fmt::format("Read the program of {}", shownName(h, *device)), {}};
  const auto before = std::ranges::find(h.sources, controller, &SourceRead::controller);
  if (before != h.sources.end()) dropStated(h, *before, edit);
  source.id = before != h.sources.end() ? before->id : h.freeId("source");
  edit.changes.emplace_back(Put<SourceRead>{source, {}});
  Harness with = h;
  apply(with, edit);
  const bench::SolvedBench solved(bench::makeBench(with, library), {});
  const checks::ProgramOnBench program(solved);
  auto ids = with.ids();
  for (const auto& r : program.roles()) {
    const auto* u = program.at(r.pin);
    const auto& motor = checks::idOf(solved.bench, solved.motors[r.motor].device);
    if (!u || u->source->controller != controller || !checks::drives(*u->use)) continue;
    if (std::ranges::any_of(with.assignments, [&](const Assignment& a) { return a.motor == motor && a.role == r.role; })) continue;
    Assignment a;
    for (int n = 1; a.id.empty(); ++n)
      if (auto id = "pin" + std::to_string(n); ids.insert(id).second) a.id = id;
    a.motor = motor;
    a.role = r.role;
    a.pin = solved.bench.place(r.pin);
    a.numbering = numberingOfPlan(u->use->numbering);
    const auto spots = checks::spotsOf(*u->use);
    if (!spots.empty())
      a.source = {spots.front().file, spots.front().line};
    else if (!source.files.empty())
      a.source = {source.files.front().file, 0};
    edit.changes.emplace_back(Put<Assignment>{a, {}});
  }
  return edit;
}

Edit forgetProgram(const Harness& h, const std::string& controller) {
  const auto* device = h.device(controller);
  Edit edit{fmt::format("Forget the program of {}", device ? shownName(h, *device) : controller), {}};
  for (const auto& s : h.sources)
    if (s.controller == controller) {
      dropStated(h, s, edit);
      edit.changes.emplace_back(Drop<SourceRead>{s.id});
    }
  return edit;
}

std::string prefixTo(const std::string& documentFolder, const std::string& sourceFolder) {
  auto out = std::filesystem::path(sourceFolder).lexically_relative(documentFolder).generic_string();
  return out.empty() || out == "." ? std::string() : out + "/";
}

Result<ProgramRead> readProgramFor(FileSystem& disk, const Harness& h, const parts::Library& library, const std::string& controller,
                                   const std::vector<std::string>& sources, const std::string& documentFolder) {
  const auto* device = h.device(controller);
  const auto part = device ? library.find(device->part) : nullptr;
  if (!part || !parts::isController(*part))
    return fail(Problem{device ? fmt::format("{} has no pins that a program drives.", shownName(h, *device))
                               : fmt::format("There is no \"{}\" on the bench.", controller),
                        {},
                        {}});
  auto read = program::readProgram(disk, sources, device->part, program::shippedCalls());
  if (!read) return fail(read.error());
  const auto prefix = prefixTo(disk.canonical(documentFolder), program::commonFolder(disk, sources));
  auto edit = programEdit(h, library, *read, controller, prefix);
  return ProgramRead{std::move(edit), std::move(read->problems), std::move(read->sources.files)};
}

}  // namespace bold::wiring
