#include "core/program/read_program.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <functional>
#include <set>

#include "core/program/lower.h"

namespace bold::program {
namespace {

constexpr std::size_t kMostFiles = 200;
constexpr std::string_view kSketch = ".ino";
constexpr int kLeastDepth = 2;  // folders from the root to one that holds a program

// What compilers understand besides the language, and what says nothing of pins.
constexpr std::array<std::pair<const char*, const char*>, 5> kOfEveryCompiler{
    {{"__attribute__(...)", ""}, {"__declspec(...)", ""}, {"__extension__", ""}, {"__inline", "inline"}, {"__volatile__", "volatile"}}};

std::string folderOf(const std::string& path) {
  const auto slash = path.rfind('/');
  return slash == std::string::npos ? std::string() : path.substr(0, slash);
}

// "a/../b" and "./b" as "b"; nothing where it leads out.
std::optional<std::string> plain(const std::string& path) {
  std::vector<std::string> parts;
  std::size_t at = 0;
  while (at <= path.size()) {
    const auto slash = std::min(path.find('/', at), path.size());
    const auto part = path.substr(at, slash - at);
    at = slash + 1;
    if (part.empty() || part == ".") continue;
    if (part == "..") {
      if (parts.empty()) return std::nullopt;
      parts.pop_back();
    } else
      parts.push_back(part);
  }
  std::string out;
  for (const auto& p : parts) out += (out.empty() ? "" : "/") + p;
  return out;
}

// Bytes of a file below the folder by its path from there; nothing where there is none that may be read.
using Bytes = std::function<std::optional<std::string>(const std::string&)>;

void importsOf(const Code& c, std::vector<std::string>& out) {
  if (c.kind == Code::Kind::Import) {
    out.push_back(c.text);
    for (std::size_t k = 0; k + 1 < c.names.size(); k += 2)
      if (!c.names[k].empty() && c.names[k] != "*") out.push_back(c.text + "." + c.names[k]);  // may be a module of a package
  }
  for (const auto& p : c.parts) importsOf(p, out);
}

class Gathering {
 public:
  Gathering(Bytes bytes, const std::string& board, const PublicCalls& calls, const std::function<bool()>& cancelled)
      : m_bytes(std::move(bytes)), m_calls(calls), m_cancelled(cancelled) {
    const auto it = calls.boards.find(board);
    if (it == calls.boards.end()) return;
    m_board = &it->second;
    m_out.sources.intBits = m_board->intBits;
  }

  ReadProgram run(const std::vector<std::string>& named) {
    m_named = named;
    for (const auto& f : named) (void)file(f);
    // Sketches of one folder are the tabs of one: what the first defines holds in the next.
    std::map<std::string, int> mains;
    for (std::size_t k = 0; k < m_out.sources.files.size(); ++k) {
      const auto& path = m_out.sources.files[k].file;
      const int f = static_cast<int>(k);
      const auto [main, first] = path.ends_with(kSketch) ? mains.try_emplace(folderOf(path), f) : std::pair(mains.end(), true);
      if (first)
        m_queue.push_back(f);
      else
        m_tabs[main->second].push_back(f);
    }
    // A header and the source of its name belong together; more come to the end as they are found.
    for (std::size_t k = 0; k < m_queue.size(); ++k) unit(m_queue[k]);
    std::erase_if(m_out.sources.units, [&](const Unit& u) { return !u.python && m_included.contains(u.file); });
    remarks();
    m_out.followed = follow(m_out.sources, m_calls, m_imports(), m_cancelled);
    m_out.followed.unread.insert(m_out.followed.unread.begin(), m_unread.begin(), m_unread.end());
    return std::move(m_out);
  }

 private:
  Bytes m_bytes;
  const PublicCalls& m_calls;
  const std::function<bool()>& m_cancelled;
  const BoardWords* m_board = nullptr;
  ReadProgram m_out;
  std::vector<std::string> m_named;
  std::vector<int> m_queue;
  std::set<int> m_included;
  std::map<int, std::vector<int>> m_tabs;  // by the first of a sketch
  std::vector<Unread> m_unread;
  std::vector<std::pair<Place, std::string>> m_missing;
  std::map<std::pair<int, std::string>, int> m_importedFiles;  // file and module -> file

  // Its index; -1: there is none that may be read.
  int file(const std::string& path) {
    auto& files = m_out.sources.files;
    const auto known = std::ranges::find(files, path, &SourceText::file);
    if (known != files.end()) return static_cast<int>(known - files.begin());
    if (files.size() >= kMostFiles) return -1;
    const auto bytes = m_bytes(path);
    if (!bytes) return -1;
    files.push_back(readSource(path, *bytes));
    return static_cast<int>(files.size()) - 1;
  }

  void queue(int f) {
    if (f >= 0 && std::ranges::count(m_queue, f) == 0) m_queue.push_back(f);
  }

  int include(int from, const std::string& name) {
    m_out.sources.headers.insert(name);
    const auto near = folderOf(m_out.sources.files[from].file);
    for (const auto& folder : {near, std::string(), std::string("include"), std::string("src")}) {
      const auto path = plain(folder.empty() ? name : fmt::format("{}/{}", folder, name));
      if (!path || path->empty()) continue;
      const int f = file(*path);
      if (f < 0) continue;
      if (std::ranges::count(m_named, *path) == 0) m_included.insert(f);
      const auto stem = path->substr(0, path->rfind('.'));
      for (const auto* ending : {".cpp", ".c", ".ino"})
        if (stem + ending != *path) queue(file(stem + ending));
      return f;
    }
    return -1;
  }

  void unit(int f) {
    const auto language = languageOf(m_out.sources.files[f].file);
    if (language == Language::Python) {
      const SourceText source = m_out.sources.files[f];  // the list grows meanwhile
      auto code = lowerPython(source, f, m_unread, m_cancelled);
      std::vector<std::string> modules;
      importsOf(code, modules);
      for (const auto& m : modules) imported(f, m);
      m_out.sources.headers.insert(modules.begin(), modules.end());
      m_out.sources.units.push_back({f, true, std::move(code)});
      return;
    }
    if (m_included.contains(f)) return;
    Toolchain toolchain;
    for (const auto& i : m_calls.interfaces) toolchain.macros.insert(i.macros.begin(), i.macros.end());
    for (const auto& [name, body] : kOfEveryCompiler) toolchain.macros[name] = body;
    if (m_board)
      for (const auto& d : m_board->defines) toolchain.macros[d] = "1";
    toolchain.defines = [this](std::string_view name) { return m_calls.defines(m_board, name); };
    toolchain.cancelled = m_cancelled;
    toolchain.include = [this](int from, const std::string& name) { return include(from, name); };
    const auto tabs = m_tabs.find(f);
    const auto expanded =
        preprocess(m_out.sources.files, f, tabs == m_tabs.end() ? std::vector<int>{} : tabs->second, toolchain, m_unread, m_missing);
    m_out.sources.units.push_back({f, false, lowerC(language, expanded, m_unread, m_cancelled)});
  }

  void imported(int from, std::string module) {
    auto near = folderOf(m_out.sources.files[from].file);
    const auto named = module;
    std::size_t dots = 0;
    while (dots < module.size() && module[dots] == '.') ++dots;
    for (std::size_t k = 1; k < dots; ++k) near = folderOf(near);
    module.erase(0, dots);
    std::ranges::replace(module, '.', '/');
    if (module.empty()) return;
    for (const auto& folder : {near, std::string()})
      for (const auto* ending : {".py", "/__init__.py"}) {
        const auto path = plain(fmt::format("{}/{}{}", folder, module, ending));
        if (!path) continue;
        const int f = file(*path);
        if (f < 0) continue;
        queue(f);
        m_importedFiles[{from, named}] = f;
        return;
      }
  }

  std::map<std::pair<int, std::string>, int> m_imports() const {
    std::map<std::pair<int, std::string>, int> out;
    for (const auto& [key, f] : m_importedFiles)
      for (std::size_t u = 0; u < m_out.sources.units.size(); ++u)
        if (m_out.sources.units[u].file == f && m_out.sources.units[u].python) out[key] = static_cast<int>(u);
    return out;
  }

  void remarks() {
    for (std::size_t k = 0; k < m_out.sources.files.size(); ++k)
      if (m_out.sources.files[k].cut) m_unread.push_back({{static_cast<int>(k), 0, 0}, "the source is too long: not all of it was read"});
    for (const auto& f : m_out.sources.files)
      for (const auto& r : f.remarks) m_out.problems.push_back({r + ".", f.file, "It was read all the same."});
    for (const auto& [place, name] : m_missing) {
      if (m_calls.knowsHeader(name)) continue;
      m_unread.push_back({place, fmt::format("\"{}\" is no file below the program's folder: what it defines is not known", name)});
      const auto& f = m_out.sources.files[place.file];
      m_out.problems.push_back({fmt::format("\"{}\" is no file below the program's folder: what it defines is not known.", name),
                                fmt::format("{}:{}", f.file, f.line(place.begin)), "The rest was read."});
    }
  }
};

}  // namespace

namespace {

// A sketch is its whole folder where one of its files is called as the folder is: that one comes first, the others by name.
std::vector<std::string> withTabs(FileSystem& disk, const std::vector<std::string>& files) {
  std::vector<std::string> out;
  for (const auto& f : files) {
    const auto folder = folderOf(disk.canonical(f));
    const auto main = folder + "/" + folder.substr(folder.rfind('/') + 1) + std::string(kSketch);
    std::vector<std::string> all{f};
    // A tab lies in the folder itself: nobody named what a link leads to.
    const auto liesThere = [&](const std::string& path) { return disk.exists(path) && folderOf(disk.canonical(path)) == folder; };
    if (f.ends_with(kSketch) && liesThere(main)) {
      std::set<std::string> others;
      for (const auto& [path, text] : disk.readFolder(folder, std::string(kSketch)).files)
        if (folderOf(path) == folder && liesThere(path)) others.insert(path);
      others.erase(main);
      all.assign(1, main);
      all.insert(all.end(), others.begin(), others.end());
    }
    for (auto& a : all)
      if (std::ranges::none_of(out, [&](const std::string& o) { return disk.canonical(o) == disk.canonical(a); }))
        out.push_back(std::move(a));
  }
  return out;
}

}  // namespace

std::string commonFolder(FileSystem& disk, const std::vector<std::string>& files) {
  std::string out;
  for (std::size_t k = 0; k < files.size(); ++k) {
    auto folder = folderOf(disk.canonical(files[k]));
    if (k == 0) {
      out = folder;
      continue;
    }
    while (!out.empty() && folder != out && !folder.starts_with(out + "/")) out = folderOf(out);
  }
  return out;
}

Result<ReadProgram> readProgram(FileSystem& disk, const std::vector<std::string>& asked, const std::string& board, const PublicCalls& calls,
                                const std::function<bool()>& cancelled) {
  const auto files = withTabs(disk, asked);
  const auto folder = commonFolder(disk, files);
  std::vector<Problem> problems;
  std::vector<std::string> named;
  for (const auto& f : files) {
    if (disk.exists(f) && !disk.state(f).regular) {
      problems.push_back({"This is no regular file.", f, "It was not read."});
      continue;
    }
    const auto bytes = disk.read(f);
    if (!bytes) {
      problems.push_back(bytes.error());
      continue;
    }
    if (!isText(*bytes)) {
      problems.push_back({"This is no text, and so no source.", f, "It was not read."});
      continue;
    }
    const auto path = disk.canonical(f);
    named.push_back(path.starts_with(folder + "/") ? path.substr(folder.size() + 1) : path);
  }
  if (named.empty()) return fail(problems.empty() ? Problem{"No source was named.", {}, {}} : problems.front());
  std::set<std::string> folders;  // that hold what may be included; not the root of a disk, which sources far apart have in common
  for (const auto& f : files) folders.insert(folderOf(disk.canonical(f)));
  if (std::ranges::count(folder, '/') >= kLeastDepth) folders.insert(folder);
  const auto bytes = [&](const std::string& path) -> std::optional<std::string> {
    const auto whole = folder + "/" + path;
    if (!disk.exists(whole)) return std::nullopt;
    const auto state = disk.state(whole);
    const auto leadsTo = disk.canonical(whole);
    if (!state.regular || std::ranges::none_of(folders, [&](const std::string& f) { return leadsTo.starts_with(f + "/"); }))
      return std::nullopt;
    auto text = disk.read(whole);
    return text ? std::optional(std::move(*text)) : std::nullopt;
  };
  auto out = Gathering(bytes, board, calls, cancelled).run(named);
  out.problems.insert(out.problems.begin(), problems.begin(), problems.end());
  return out;
}

ReadProgram readTexts(const std::vector<std::pair<std::string, std::string>>& texts, const std::string& board, const PublicCalls& calls) {
  const auto bytes = [&](const std::string& path) -> std::optional<std::string> {
    const auto it = std::ranges::find(texts, path, &std::pair<std::string, std::string>::first);
    return it == texts.end() ? std::nullopt : std::optional(it->second);
  };
  // The first is where the program begins; others that it does not include are sources of their own.
  std::vector<std::string> named;
  for (const auto& [name, text] : texts)
    if (!name.ends_with(".h") && !name.ends_with(".hpp")) named.push_back(name);
  if (named.empty() && !texts.empty()) named.push_back(texts.front().first);
  return Gathering(bytes, board, calls, {}).run(named);
}

}  // namespace bold::program
