#include "core/harness/document_file.h"

#include <fmt/core.h>

#include <nlohmann/json.hpp>
#include <set>

namespace bold::harness {
namespace {

std::string bytesDigest(const std::string& bytes) {
  return digest(Json(bytes));
}

}  // namespace

void carryParts(Harness& h, const parts::Library& library) {
  std::set<std::string> used;
  for (const auto& d : h.devices) used.insert(d.part);
  std::vector<Raw> copies;
  for (const auto& id : used) {
    if (const auto* json = library.json(id)) {
      copies.push_back(std::make_shared<const Json>(*json));
      continue;
    }
    for (const auto& old : h.parts)  // a part nobody knows any more: its copy is all there is
      if (old->is_object() && old->contains("id") && (*old)["id"] == id) copies.push_back(old);
  }
  h.parts = std::move(copies);
}

std::string digestOnDisk(FileSystem& disk, const std::string& path) {
  const auto text = disk.read(path);
  return text ? bytesDigest(*text) : kNoFile;
}

Result<Loaded> load(FileSystem& disk, const std::string& path) {
  auto text = disk.read(path);
  if (!text) return fail(text.error());
  auto reading = readHarness(*text, path);
  if (!reading) return fail(reading.error());
  return Loaded{std::move(reading->harness), {path, bytesDigest(*text)}, std::move(reading->problems)};
}

Result<OpenFile> save(FileSystem& disk, Harness& harness, const parts::Library& library, const OpenFile& file, const std::string& path,
                      Overwrite overwrite) {
  if (harness.newerFormat)
    return fail({"This bench comes from a newer version of the program and cannot be saved by this one.", path, "The file is untouched."});
  if (overwrite == Overwrite::Ask && path == file.path && disk.exists(path)) {
    auto now = disk.read(path);
    if (now && bytesDigest(*now) != file.digest)
      return fail({"The file was changed on disk by somebody else since it was opened.", path, kChangedOnDisk});
  }
  carryParts(harness, library);
  const auto text = writeHarness(harness);
  if (auto done = disk.replace(path, text); !done) return fail(done.error());
  return OpenFile{path, bytesDigest(text)};
}

namespace {

// What is only read by people changes nothing that is judged: nobody needs to be told.
Json judgedOf(Json part) {
  if (!part.is_object()) return part;
  for (const auto* key : {"notes", "needs", "pitfalls", "words", "summary"}) part.erase(key);
  if (part.contains("figures") && part["figures"].is_object())
    for (auto& figure : part["figures"]) {
      if (!figure.is_object() || !figure.contains("value") || !figure["value"].is_object()) continue;
      auto& value = figure["value"];
      value.erase("secondReading");
      if (value.size() == 1 && value.contains("typ")) value = Json(value["typ"]);
    }
  return part;
}

}  // namespace

parts::Library withDocumentParts(const parts::Library& library, const Harness& harness, const std::string& file,
                                 std::vector<Problem>& problems) {
  parts::Library out = library;
  for (std::size_t i = 0; i < harness.parts.size(); ++i) {
    const auto& copy = *harness.parts[i];
    const auto at = fmt::format("{}#/parts/{}", file, i);
    const bool named = copy.is_object() && copy.contains("id") && copy["id"].is_string();
    const auto id = named ? copy["id"].get<std::string>() : std::string();
    const auto known = library.find(id);
    if (known && !known->own) {
      const auto& shipped = *library.json(id);
      if (judgedOf(shipped) == judgedOf(copy)) continue;
      std::string changed;
      if (shipped.contains("figures") && copy.contains("figures") && copy["figures"].is_object())
        for (const auto& [name, value] : shipped["figures"].items())
          if (copy["figures"].contains(name) && judgedOf(copy)["figures"][name] != judgedOf(shipped)["figures"][name])
            changed += (changed.empty() ? "" : ", ") + name;
      problems.push_back(
          {fmt::format("The library's {} differs from the copy in this bench{}.", id, changed.empty() ? "" : " (" + changed + ")"), at,
           "The library's figures are used."});
      continue;
    }
    if (known && *library.json(id) != copy)
      problems.push_back(
          {fmt::format("Your own part {} differs from the copy in this bench.", id), at, "The bench's copy is used in this bench."});
    out.addFromDocument(copy, at, problems);
  }
  return out;
}

}  // namespace bold::harness
