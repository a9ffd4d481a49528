#include <fmt/core.h>

#include "core/parts/library.h"
#include "core/parts/part_card.h"
#include "core/parts/part_limits.h"
#include "core/places/words.h"
#include "json_figure.h"
#include "load.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::part {
namespace {

Json terminal(const parts::Part& p, const parts::Terminal& t) {
  Json out{{"id", t.id}, {"label", t.label}, {"aliases", t.aliases}};
  if (!t.place.connector.empty()) out["connector"] = t.place.connector;
  if (t.place.position > 0) out["position"] = t.place.position;
  out["contact"] = t.place.contact;
  out["place"] = places::fullPlace(p, t);
  if (t.ground) out["ground"] = true;
  if (t.output) out["output"] = true;
  if (t.input) out["input"] = true;
  if (t.supply) out["supply"] = parts::wordFor(parts::kSupplyWords, t.supply->purpose);
  if (t.pin)
    out["pin"] = {{"code", t.pin->code}, {"chip", t.pin->chip}, {"pwm", t.pin->pwm}, {"serial", t.pin->serial}, {"strap", t.pin->strap}};
  return out;
}

// Everything that the card says, for programs.
Json asJson(const parts::Part& p) {
  Json out{{"id", p.id}, {"name", p.name}, {"kind", p.kind}, {"summary", p.summary}, {"own", p.own}};
  for (const auto* list : {"terminals", "figures", "settings", "channels", "limits"}) out[list] = Json::array();
  for (const auto& t : p.terminals) out["terminals"].push_back(terminal(p, t));
  for (const auto& f : p.figures) out["figures"].push_back(figure(f));
  for (const auto& s : p.settings)
    out["settings"].push_back({{"id", s.id}, {"label", s.label}, {"values", s.values}, {"default", s.standard}});
  for (const auto& c : p.channels) out["channels"].push_back({{"id", c.id}, {"out", c.out}, {"signals", c.signals}});
  for (const auto& l : parts::limitsOf(p))
    out["limits"].push_back(
        {{"of", l.of}, {"what", l.what}, {"value", l.value}, {"under", l.under}, {"source", l.source}, {"confidence", l.confidence}});
  out["pitfalls"] = p.pitfalls;
  return out;
}

int print(const std::string& id, bool json) {
  Disk disk;
  const auto library = ownLibrary(disk);
  const auto part = library.find(id);
  if (!part) {
    complain(fmt::format("There is no part \"{}\". \"boldh parts WORD\" finds them.", id));
    return 2;
  }
  if (json)
    sayJson(jsonText(asJson(*part)));
  else
    say(parts::partCard(*part, library.json(id)));
  return 0;
}

Run declare(Arguments& takes) {
  struct Taken {
    std::string part;
    std::string format = "text";
  };
  const auto a = std::make_shared<Taken>();
  takes.positional("PART", a->part, "its id, such as l298n-module");
  takes.option("--format", a->format, "text or json", {"text", "json"});
  return [a] { return print(a->part, a->format == "json"); };
}

}  // namespace

Subcommand subcommand() {
  return {"part", "Print the card of a part: terminals, figures with sources, what its inputs do, pitfalls.", declare};
}

}  // namespace bold::cli::part
