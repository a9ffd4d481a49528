#include <algorithm>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
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
  Json physical{{"artifactLocation", {{"uri", file}}}};
  if (!f.subjects.empty())
    if (const int line = lineOf(text, f.subjects.front()); line > 0) physical["region"] = {{"startLine", line}};
  Json logical = Json::array();
  for (const auto& s : f.subjects)
    logical.push_back({{"fullyQualifiedName", s}, {"kind", s.find('.') == std::string::npos ? "resource" : "member"}});
  return {{"physicalLocation", physical}, {"logicalLocations", logical}};
}

Json result(const std::string& file, std::string_view text, const checks::Finding& f) {
  Json j;
  j["ruleId"] = f.check;
  j["level"] = level(f.severity);
  auto message = f.headline + ". " + f.text;
  if (f.repair) message += " To do: " + f.repair->text;
  j["message"] = {{"text", message}};
  j["locations"] = Json::array({location(file, text, f)});
  j["partialFingerprints"] = {{"boldHarnessIdentity/v1", f.identity()}};
  j["properties"] = {{"severity", word(f.severity)}, {"formula", f.formula}};
  if (f.severity == checks::Severity::Stop) j["properties"]["harm"] = word(f.harm);
  return j;
}

}  // namespace

std::string sarif(const std::vector<Judged>& benches, const std::string& version) {
  Json rules = Json::array();
  for (const auto& c : checks::registry())
    rules.push_back({{"id", c.id},
                     {"name", c.id},
                     {"shortDescription", {{"text", c.title}}},
                     {"help", {{"text", checks::page(c.id)}, {"markdown", checks::page(c.id)}}},
                     {"properties", {{"family", c.family}, {"harm", word(c.harm)}}}});
  Json run;
  run["tool"]["driver"] = {{"name", "Bold Harness"}, {"version", version}, {"rules", rules}};
  run["artifacts"] = Json::array();
  run["results"] = Json::array();
  Json verdicts = Json::object();
  for (const auto& b : benches) {
    run["artifacts"].push_back({{"location", {{"uri", b.file}}}});
    for (const auto& f : b.analysis->findings) run["results"].push_back(result(b.file, b.source, f));
    verdicts[b.file] = headline(b.analysis->verdict);
  }
  run["properties"] = {{"verdicts", verdicts}};
  Json j;
  j["$schema"] = "https://docs.oasis-open.org/sarif/sarif/v2.1.0/os/schemas/sarif-schema-2.1.0.json";
  j["version"] = "2.1.0";
  j["runs"] = Json::array({run});
  return jsonText(j);
}

}  // namespace bold::report
