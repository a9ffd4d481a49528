#include "core/harness/write_over.h"

#include <fmt/core.h>

#include <nlohmann/json.hpp>

#include "core/base/json.h"

namespace bold::harness {
namespace {

bool isBench(const std::string& text) {
  std::vector<Problem> ignored;
  const auto json = parseJson(text, "", ignored);
  return json && json->is_object() && json->contains("format") && (*json)["format"].is_number_integer();
}

// Sources that people write themselves have the endings that pin constants have: only what was written here is of that kind.
bool isExport(const std::string& path, const std::string& text) {
  const bool source = path.ends_with(".h") || path.ends_with(".hpp") || path.ends_with(".py");
  return !source || text.starts_with("// Pins of ") || text.starts_with("# Pins of ");
}

}  // namespace

std::optional<Problem> objection(FileSystem& disk, const std::string& path, Written what, Overwrite overwrite) {
  if (overwrite == Overwrite::Yes) return std::nullopt;
  const auto say = [&](std::string sentence) { return Problem{std::move(sentence), path, kAsk}; };
  const auto state = disk.state(path);
  if (!state.leadsTo.empty()) return say(fmt::format("This is a link to {}, which would be written to.", state.leadsTo));
  if (!state.exists || !state.regular) return std::nullopt;  // what is no file is refused by whoever writes
  if (state.readOnly) return say("The file is read-only.");
  const auto text = disk.read(path);
  if (what == Written::Bench && !(text && isBench(*text))) return say("There is a file here that is no bench.");
  if (what == Written::Export && !(text && isExport(path, *text))) return say("There is a file here that this program did not write.");
  if (overwrite == Overwrite::Ask) return say(what == Written::Bench ? "There is a bench here already." : "There is a file here already.");
  return std::nullopt;
}

Result<bool> writeExport(FileSystem& disk, const std::string& path, const std::string& bytes, Overwrite overwrite) {
  if (auto why = objection(disk, path, Written::Export, overwrite)) return fail(std::move(*why));
  return disk.replace(path, bytes);
}

}  // namespace bold::harness
