#include "core/harness/source_standing.h"

#include <fmt/core.h>

#include <filesystem>
#include <nlohmann/json.hpp>
#include <set>

#include "core/base/shown_text.h"

namespace bold::harness {

std::string sourceDigest(const std::string& bytes) {
  return digest(Json(bytes));
}

std::string sourcePath(const std::string& document, const std::string& file) {
  const auto slash = document.rfind('/');
  return file.starts_with('/') || slash == std::string::npos ? file : document.substr(0, slash + 1) + file;
}

bool mayOpen(FileSystem& disk, const std::string& document, const std::string& file, const AskedFor& askedFor) {
  const auto whole = disk.canonical(sourcePath(document, file));
  if (askedFor.contains(whole)) return true;
  if (document.empty()) return false;
  const auto own = disk.canonical(std::filesystem::path(disk.absolute(document)).parent_path().string());
  return whole.starts_with(own.ends_with('/') ? own : own + "/");
}

bool lookAtSources(FileSystem& disk, Harness& h, const std::string& document, const AskedFor& askedFor) {
  bool changed = false;
  for (auto& s : h.sources)
    for (auto& f : s.files) {
      const auto path = sourcePath(document, f.file);
      const bool open = mayOpen(disk, document, f.file, askedFor);
      auto now = open ? Standing::Missing : Standing::Elsewhere;
      if (open && disk.exists(path) && disk.state(path).regular)  // a pipe or device that a file names is never opened
        if (const auto bytes = disk.read(path)) now = sourceDigest(*bytes) == f.digest ? Standing::AsRead : Standing::Changed;
      changed = changed || now != f.standing;
      f.standing = now;
    }
  return changed;
}

void moveSources(Harness& h, const std::string& from, const std::string& to) {
  namespace fs = std::filesystem;
  const auto folder = [](const std::string& document) { return fs::path(document).parent_path(); };
  if (folder(from) == folder(to)) return;
  const auto moved = [&](std::string& file) {
    if (file.empty()) return;
    const auto whole = fs::path(sourcePath(from, file)).lexically_normal();
    if (!whole.is_absolute()) return;
    file = to.empty() ? whole.generic_string() : whole.lexically_relative(folder(to)).generic_string();
  };
  for (auto& s : h.sources) {
    std::set<std::string> own;
    for (auto& f : s.files) {
      own.insert(f.file);
      moved(f.file);
    }
    for (auto& a : h.assignments)
      if (own.contains(a.source.file)) moved(a.source.file);
    for (auto& u : s.pins) {
      moved(u.number.file);
      for (auto& [name, spot] : u.also) moved(spot.file);
      for (auto& p : u.places) moved(p.file);
    }
    for (auto& g : s.groups) moved(g.place.file);
    for (auto& u : s.untold) moved(u.place.file);
    if (s.console) moved(s.console->file);
    if (s.counted) moved(s.counted->file);
  }
}

std::vector<std::string> untoldOf(const Harness& h) {
  std::vector<std::string> out;
  for (const auto& s : h.sources) {
    const auto any = [](const Untold& u) { return u.reach == Untold::Reach::Every; };
    const auto count = std::ranges::count_if(s.untold, any);
    if (count == 0) continue;
    const auto& first = *std::ranges::find_if(s.untold, any);
    out.push_back(
        fmt::format("of the program of {} {} {} not told, which may be about any pin: {}{}{}", s.controller, count,
                    count == 1 ? "thing is" : "things are",
                    first.place.line > 0 ? fmt::format("{}, line {}: ", shownText(first.place.file), first.place.line) : std::string(),
                    shownText(first.what), count > 1 ? " …" : ""));
  }
  return out;
}

std::vector<std::string> staleSources(const Harness& h) {
  std::vector<std::string> out;
  for (const auto& s : h.sources) {
    if (s.files.empty()) out.push_back(fmt::format("no source is named of the program of {}", s.controller));
    for (const auto& f : s.files) {
      const auto file = shownText(f.file);
      if (f.standing == Standing::Missing)
        out.push_back(fmt::format("the program's source {} is not there: what it says of pins is not known", file));
      if (f.standing == Standing::Changed) out.push_back(fmt::format("the program's source {} was changed since it was read", file));
      if (f.standing == Standing::Elsewhere)
        out.push_back(
            fmt::format("the program's source {} lies outside the bench's folder: it is opened only when somebody asks for it", file));
      if (f.standing == Standing::Unlooked)
        out.push_back(fmt::format("nobody looked whether the program's source {} is still as it was read", file));
    }
  }
  return out;
}

}  // namespace bold::harness
