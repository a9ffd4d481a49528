#include <fmt/core.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/harness/source_standing.h"
#include "core/report/report.h"

namespace bold::report {
namespace {

std::string_view level(checks::Severity s) {
  switch (s) {
    case checks::Severity::Stop:
    case checks::Severity::NotJudged:
      return "error";
    case checks::Severity::Caution:
      return "warning";
    case checks::Severity::Note:
      return "note";
  }
  return "none";
}

// A file name as a URI reference (RFC 3986): all but unreserved characters and the slash are escaped.
std::string uriOf(std::string_view path) {
  std::string out;
  for (const char c : path) {
    const bool plain = (c >= 'A' && c <= 'Z') || (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') ||
                       std::string_view("-._~/").find(c) != std::string_view::npos;
    out += plain ? std::string(1, c) : fmt::format("%{:02X}", static_cast<unsigned char>(c));
  }
  return out;
}

// The line on which a device or connection is written; 0 when it cannot be found.
int lineOf(std::string_view text, const std::string& subject) {
  const auto id = subject.substr(0, subject.find('.'));
  for (const auto* form : {"\"id\": \"", "\"id\":\""}) {
    const auto at = text.find(form + id + "\"");
    if (at != std::string_view::npos) return 1 + static_cast<int>(std::ranges::count(text.substr(0, at), '\n'));
  }
  return 0;
}

Json location(const std::string& file, std::string_view text, const checks::Finding& f) {
  Json physical{{"artifactLocation", {{"uri", uriOf(file)}}}};
  if (!f.subjects.empty())
    if (const int line = lineOf(text, f.subjects.front()); line > 0) physical["region"] = {{"startLine", line}};
  Json logical = Json::array();
  for (const auto& s : f.subjects)
    logical.push_back({{"fullyQualifiedName", s}, {"kind", s.find('.') == std::string::npos ? "resource" : "member"}});
  return {{"physicalLocation", physical}, {"logicalLocations", logical}};
}

// A place in a source, which lies relative to the bench.
Json spot(const std::string& file, const harness::Spot& s) {
  Json j{{"artifactLocation", {{"uri", uriOf(harness::sourcePath(file, s.file))}}}};
  if (s.line > 0) j["region"] = {{"startLine", s.line}};
  if (s.line > 0 && s.column > 0) {
    j["region"]["startColumn"] = s.column;
    j["region"]["endColumn"] = s.column + std::max(s.length, 1);
  }
  return {{"physicalLocation", j}};
}

Json result(const std::string& file, std::string_view text, const checks::Finding& f) {
  Json j;
  j["ruleId"] = f.check;
  j["level"] = level(f.severity);
  auto message = f.headline + ". " + f.text;
  if (f.repair) message += " To do: " + f.repair->text;
  j["message"] = {{"text", message}};
  // What is said of a program stands at its line; where that is on the bench comes after.
  j["locations"] = Json::array();
  for (const auto& s : f.spots) j["locations"].push_back(spot(file, s));
  if (j["locations"].empty())
    j["locations"].push_back(location(file, text, f));
  else
    j["relatedLocations"] = Json::array({location(file, text, f)});
  j["partialFingerprints"] = {{"boldHarnessIdentity/v1", f.identity()}};
  j["properties"] = {{"severity", word(f.severity)}, {"formula", f.formula}};
  if (f.severity == checks::Severity::Stop) j["properties"]["harm"] = word(f.harm);
  return j;
}

}  // namespace

std::string sarifBegin(const std::string& version) {
  Json rules = Json::array();
  for (const auto& c : checks::registry())
    rules.push_back({{"id", c.id},
                     {"name", c.id},
                     {"shortDescription", {{"text", c.title}}},
                     {"help", {{"text", checks::page(c.id)}, {"markdown", checks::page(c.id)}}},
                     {"properties", {{"family", c.family}, {"harm", word(c.harm)}}}});
  const Json tool{{"driver", {{"name", "Bold Harness"}, {"version", version}, {"rules", rules}}}};
  return fmt::format(
      "{{\n  \"$schema\": \"{}\",\n  \"version\": \"2.1.0\",\n  \"runs\": [\n    {{\n      \"columnKind\": \"unicodeCodePoints\",\n      "
      "\"tool\": {},\n      \"results\": [",
      "https://docs.oasis-open.org/sarif/sarif/v2.1.0/os/schemas/sarif-schema-2.1.0.json", nestedText(tool, 6));
}

std::string sarifResults(const FileAnalysis& b) {
  std::string out;
  for (const auto& f : b.analysis->findings)
    if (f.check.starts_with(b.checks)) out += (out.empty() ? "\n        " : ",\n        ") + nestedText(result(b.file, b.source, f), 8);
  return out;
}

std::string sarifEnd(const std::vector<SarifFile>& files) {
  Json artifacts = Json::array();
  Json notes = Json::array();
  Json verdicts = Json::object();
  bool all = true;
  for (const auto& f : files) {
    artifacts.push_back({{"location", {{"uri", uriOf(f.file)}}}});
    if (f.verdict.empty())
      all = false;
    else
      verdicts[f.file] = f.verdict;
    for (const auto& p : f.problems) {
      Json location{{"physicalLocation", {{"artifactLocation", {{"uri", uriOf(f.file)}}}}}};
      if (p.where.starts_with('#')) location["logicalLocations"] = {{{"fullyQualifiedName", p.where}, {"kind", "element"}}};
      notes.push_back({{"level", "error"}, {"message", {{"text", text(p)}}}, {"locations", Json::array({location})}});
    }
    const Json file{{"physicalLocation", {{"artifactLocation", {{"uri", uriOf(f.file)}}}}}};
    for (const auto& [level, list] : {std::pair{"warning", &f.why}, {"note", &f.taken}})
      for (const auto& s : *list) notes.push_back({{"level", level}, {"message", {{"text", s + "."}}}, {"locations", Json::array({file})}});
  }
  Json invocation{{"executionSuccessful", all}};
  if (!notes.empty()) invocation["toolExecutionNotifications"] = notes;
  return fmt::format("\n      ],\n      \"artifacts\": {},\n      \"invocations\": {},\n      \"properties\": {}\n    }}\n  ]\n}}\n",
                     nestedText(artifacts, 6), nestedText(Json::array({invocation}), 6), nestedText(Json{{"verdicts", verdicts}}, 6));
}

}  // namespace bold::report
