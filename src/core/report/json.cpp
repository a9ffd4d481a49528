#include "core/base/json.h"

#include "core/report/json_quantity.h"
#include "core/report/report.h"

namespace bold::report {
namespace {

Json one(const checks::Finding& f) {
  Json j;
  j["check"] = f.check;
  j["severity"] = word(f.severity);
  j["harm"] = f.severity == checks::Severity::Stop ? Json(word(f.harm)) : Json(nullptr);
  j["headline"] = f.headline;
  j["text"] = f.text;
  j["formula"] = f.formula;
  j["subjects"] = f.subjects;
  j["sources"] = f.sources;
  j["places"] = Json::array();
  for (const auto& s : f.spots) j["places"].push_back({{"file", s.file}, {"line", s.line}, {"column", s.column}, {"length", s.length}});
  j["values"] = Json::object();
  for (const auto& [name, q] : f.args) j["values"][name] = quantity(q);
  j["repair"] = f.repair ? Json(f.repair->text) : Json(nullptr);
  j["ways"] = Json::array();
  for (const auto& w : f.ways)
    j["ways"].push_back({{"text", w.text},
                         {"subject", w.field.subject.empty() ? Json(nullptr) : Json(w.field.subject)},
                         {"field", w.field.name.empty() ? Json(nullptr) : Json(w.field.name)}});
  j["number"] = f.number;
  j["explainedBy"] = f.explainedBy.empty() ? Json(nullptr) : Json(f.explainedBy);
  j["identity"] = f.identity();
  j["mendedAfter"] = f.mendedAfter;
  return j;
}

}  // namespace

std::string json(const std::string& file, const harness::Harness& harness, const Analysis& a, bool margins) {
  Json j;
  j["file"] = file;
  j["title"] = harness.title;
  j["verdict"] = headline(a.verdict);
  j["summary"] = summary(a);
  j["why"] = a.why;
  j["judged"] = {{"checks", a.checks},   {"commands", a.commands},       {"unknownFigures", a.unknownFigures},
                 {"unknown", a.unknown}, {"assumptions", a.assumptions}, {"leftOut", Json::array()}};
  for (const auto& u : a.unstated) j["judged"]["leftOut"].push_back(u.text);
  j["leftOut"] = Json::array();
  for (const auto& p : a.leftOut) j["leftOut"].push_back({{"what", p.what}, {"where", p.where}, {"kept", p.kept}});
  j["openChanges"] = a.openChanges;
  j["planned"] = nullptr;
  if (a.planned) {
    j["planned"] = {{"verdict", headline(a.planned->verdict)}, {"worse", Json::array()}};
    for (const auto& f : a.planned->worse) j["planned"]["worse"].push_back(one(f));
  }
  j["findings"] = Json::array();
  for (const auto& f : a.findings) j["findings"].push_back(one(f));
  if (margins) j.update(marginsJson(a));
  return jsonText(j);
}

}  // namespace bold::report
