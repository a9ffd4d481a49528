#include "core/parts/part_card.h"

#include <fmt/core.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "core/parts/part_limits.h"
#include "core/parts/roles.h"
#include "core/parts/truth_table.h"

namespace bold::parts {
namespace {

constexpr std::size_t kMostTerminals = 100;  // a breadboard is not listed hole by hole
constexpr std::size_t kMostShownRows = 32;   // of a truth table

// How what the part says becomes part of the card.
struct Say {
  CardFor reader;

  // Between the bars of a table.
  std::string cell(std::string_view text) const { return reader == CardFor::Window ? escaped(text, kMarks) : escaped(text, "|"); }
  std::string line(std::string_view text) const { return reader == CardFor::Window ? escaped(text, kMarks) : std::string(text); }

 private:
  static constexpr std::string_view kMarks = "\\`*_{}[]()<>#+-.!|~&:";  // all that Markdown may take for markup

  static std::string escaped(std::string_view text, std::string_view marks) {
    std::string out;
    for (const char c : text) {
      if (marks.find(c) != std::string_view::npos) out += '\\';
      out += c;
    }
    return out;
  }
};

std::string whatItIs(const Terminal& t) {
  std::vector<std::string> is;
  if (t.ground) is.emplace_back("ground");
  if (t.supply) {
    auto s = fmt::format("{} supply", wordFor(kSupplyWords, t.supply->purpose));
    if (t.supply->recommended.known()) s += " " + displayText(t.supply->recommended);
    if (t.supply->absolute.known()) s += ", at most " + displayText(t.supply->absolute);
    if (t.supply->feeds.known()) s += ", gives " + displayText(t.supply->feeds);
    is.push_back(s);
  }
  if (t.output) is.emplace_back("output");
  if (t.input) is.push_back(t.input->absolute.known() ? "input, at most " + displayText(t.input->absolute) : "input");
  if (t.limit) {
    if (t.limit->absolute.known()) is.push_back("at most " + displayText(t.limit->absolute));
    if (t.limit->above.known()) is.push_back(fmt::format("at most {} above {}", displayText(t.limit->above), std::string(t.limit->of)));
    if (!t.limit->low.empty()) is.push_back(t.limit->low + " while it is low");
    if (!t.limit->high.empty()) is.push_back(t.limit->high + " while it is high");
  }
  if (t.pin) {
    std::string s = t.pin->output ? "pin" : "input pin";
    if (!t.pin->code.empty() && t.pin->code != t.label) s += " " + t.pin->code;
    if (!t.pin->chip.empty() && t.pin->chip != t.label) s += ", " + t.pin->chip;
    if (!t.pin->pwm.empty()) s += ", PWM of " + t.pin->pwm;
    if (t.pin->softPwm && t.pin->pwm.empty()) s += ", PWM in software";
    if (!t.pin->serial.empty()) s += ", " + t.pin->serial;
    if (t.pin->boot != Boot::Float) s += fmt::format(", at boot {}", wordFor(kBootWords, t.pin->boot));
    if (!t.pin->strap.empty()) s += ", must be " + t.pin->strap + " at the start";
    if (!t.pin->reserved.empty()) s += ", leave alone: " + t.pin->reserved;
    is.push_back(s);
  }
  if (t.openDrain) is.emplace_back("only pulls low");
  if (t.edges) is.emplace_back("wants a pin with an interrupt");
  std::string out;
  for (const auto& s : is) out += (out.empty() ? "" : "; ") + s;
  return out;
}

void terminals(const Part& p, const Say& say, std::string& out) {
  if (p.terminals.size() > kMostTerminals) {
    out += fmt::format("\n## Terminals\n\n{} of them.\n", p.terminals.size());
    return;
  }
  out += "\n## Terminals\n";
  if (!p.layoutKnown)
    out += p.layout.empty() ? "\nTheir order on the part is not known: look at the print.\n"
                            : "\nTheir order is the usual one and not certain: look at the print.\n";
  for (const auto& [what, text] : {std::pair{"Of", p.layout.variant}, std::pair{"By", p.layout.source}})
    if (!text.empty()) out += fmt::format("\n{}: {}.\n", what, say.line(text));
  out += "\n| where | id | terminal | what it is |\n|---|---|---|---|\n";
  for (const auto& t : p.terminals) {
    auto where = t.place.connector;
    if (t.place.position > 0 && p.layoutKnown) where += fmt::format(": {}", t.place.position);
    auto name = t.label;
    for (const auto& a : t.aliases) name += ", " + a;
    if (!t.colour.empty()) name += ", " + t.colour;
    out += fmt::format("| {} | {} | {} | {} |\n", say.cell(where), say.cell(t.id), say.cell(name), say.cell(whatItIs(t)));
  }
}

void figures(const Part& p, const Say& say, std::string& out) {
  if (p.figures.empty()) return;
  out += "\n## Figures\n\n| figure | id | value | under | source |\n|---|---|---|---|---|\n";
  for (const auto& f : p.figures) {
    auto value = displayText(f.figure);
    if (f.figure.spreadMin && f.figure.spreadMax)
      value += fmt::format(", of this kind {} to {}", displayText(AnyQuantity{*f.figure.spreadMin, f.figure.unit}),
                           displayText(AnyQuantity{*f.figure.spreadMax, f.figure.unit}));
    auto source = f.figure.source;
    if (!f.figure.confidence.empty()) source += ", confidence " + f.figure.confidence;
    if (!f.derivedFrom.empty()) source = fmt::format("{} / {}", f.derivedFrom, f.derivedOver);
    out += fmt::format("| {} | {} | {} | {} | {} |\n", say.cell(f.label), say.cell(f.id), say.cell(value), say.cell(f.figure.condition),
                       say.cell(source));
  }
}

void settings(const Part& p, const Say& say, std::string& out) {
  if (p.settings.empty()) return;
  out += "\n## Settings\n\n| setting | id | values | as it comes |\n|---|---|---|---|\n";
  for (const auto& s : p.settings) {
    std::string values;
    for (const auto& v : s.values) values += (values.empty() ? "" : ", ") + v;
    out += fmt::format("| {} | {} | {} | {} |\n", say.cell(s.label), say.cell(s.id), say.cell(values),
                       say.cell(s.standard.empty() ? "unknown" : s.standard));
  }
}

void limits(const Part& p, const Say& say, std::string& out) {
  const auto all = limitsOf(p);
  if (all.empty()) return;
  out += "\n## What it is judged by\n\n| of | what | value | under | source |\n|---|---|---|---|---|\n";
  for (const auto& l : all) {
    auto source = l.source;
    if (!l.confidence.empty()) source += (source.empty() ? "" : ", ") + ("confidence " + l.confidence);
    out += fmt::format("| {} | {} | {} | {} | {} |\n", say.cell(l.of), say.cell(l.what), say.cell(l.value), say.cell(l.under),
                       say.cell(source));
  }
}

// "in1 = IN1, speed = ENA": what an intent calls the inputs of a channel.
void roles(const Part& p, const Say& say, std::string& out) {
  if (p.channels.empty()) return;
  out += "\n## Channels\n\n";
  for (const auto& c : p.channels) {
    std::string outs;
    for (const auto& o : c.out) outs += (outs.empty() ? "" : ", ") + o;
    std::string signals;
    for (const auto& [role, t] : c.signals) signals += fmt::format("{}{} = {}", signals.empty() ? "" : ", ", role, t);
    out += fmt::format("- {}: outputs {}; signals {}\n", say.line(c.id), say.line(outs), say.line(signals));
  }
}

std::string_view word(Drive d) {
  switch (d) {
    case Drive::Open:
      return "open";
    case Drive::Low:
      return "low";
    case Drive::High:
      return "high";
    case Drive::Short:
      return "short through";
  }
  return {};
}

void channels(const Part& p, const Say& say, std::string& out) {
  for (const auto& c : p.channels) {
    const auto rows = truthTable(p, c);
    if (rows.empty() || rows.size() > kMostShownRows || rows.front().inputs.empty()) continue;
    out += fmt::format("\n## {}\n\n|", p.channels.size() > 1 ? "Channel " + say.line(c.id) : "What its inputs do");
    for (const auto& [input, level] : rows.front().inputs) {
      const auto* t = p.find(input);
      out += fmt::format(" {} |", say.cell(t ? t->label : input));
    }
    for (const auto& o : c.out) out += fmt::format(" {} |", say.cell(p.find(o) ? p.find(o)->label : o));
    out += " motor |\n|";
    for (std::size_t k = 0; k < rows.front().inputs.size() + c.out.size() + 1; ++k) out += "---|";
    out += "\n";
    for (const auto& row : rows) {
      out += "|";
      for (const auto& [input, level] : row.inputs) out += level == Level::High ? " high |" : " low |";
      for (const auto d : row.outputs) out += fmt::format(" {} |", word(d));
      std::string does;
      if (row.outputs.size() == 2) {
        static constexpr std::string_view kWords[] = {"coasts", "forward", "reverse", "brakes", "short through"};
        does = kWords[static_cast<int>(bridgeAction(row.outputs[0], row.outputs[1]))];
      } else if (row.outputs.size() == 1) {
        does = row.outputs[0] == Drive::Low ? "on" : "off";
      }
      out += fmt::format(" {} |\n", does);
    }
  }
}

std::vector<std::string> lines(const Json* file, const char* field) {
  std::vector<std::string> out;
  if (file && file->contains(field) && (*file)[field].is_array())
    for (const auto& n : (*file)[field])
      if (n.is_string()) out.push_back(shownText(n.get_ref<const std::string&>()));
  return out;
}

void lists(const Part& p, const Json* file, const Say& say, std::string& out) {
  const auto list = [&](const char* title, const std::vector<std::string>& lines) {
    if (lines.empty()) return;
    out += fmt::format("\n## {}\n\n", title);
    for (const auto& l : lines) out += "- " + say.line(l) + "\n";
  };
  auto needs = lines(file, "needs");
  for (const auto& r : p.requirements) needs.push_back(words(r));
  list("It also needs", needs);
  list("Mind", p.pitfalls);
  std::vector<std::string> measure;
  for (const auto& f : p.figures)
    if (const auto how = howToMeasure(f.id, p); !how.empty()) measure.push_back(fmt::format("{}: {}", f.label, how));
  list("To measure", measure);
  // A second reading is kept in the file for who edits it; nothing is judged by it.
  auto notes = lines(file, "notes");
  std::erase_if(notes, [](const std::string& n) { return n.starts_with("Second reading"); });
  list("Notes", notes);
}

// Its one winding, of a part with two leads.
const Winding* twoLeadLoad(const Part& p) {
  for (const auto& e : p.elements)
    if (const auto* w = std::get_if<Winding>(&e.body); w && (w->still || w->brushed)) return w;
  return nullptr;
}

}  // namespace

std::string_view howToMeasure(std::string_view figure, const Part& p) {
  const auto* load = twoLeadLoad(p);
  if (figure == "winding" && load && load->directional)
    return "rated voltage over the current it draws: an ohmmeter sees only its electronics or diodes.";
  if (figure == "winding" && load && load->still) return "ohmmeter across the leads.";
  if (figure == "winding" && isMotor(p))
    return "ohmmeter across the leads, shaft turned to three positions, the lowest reading counts; below 1 ohm with four leads, or voltage "
           "over current with the shaft held for a moment.";
  if (figure == "stall" && isMotor(p)) return "rated voltage over winding resistance; no need to hold the shaft.";
  if (figure == "run" && isMotor(p)) return "ammeter in one lead while it drives its usual load.";
  if (figure == "idle" && isMotor(p)) return "ammeter in one lead, shaft free.";
  if (figure == "phase" && isMotor(p)) return "printed on it; it cannot be measured.";
  if (figure == "resistance" && isSource(p))
    return "voltage without load and with a known one: the difference over the current. A lamp or a power resistor will do.";
  if (figure == "full" && isSource(p)) return "voltmeter, nothing connected, freshly charged.";
  if (figure == "reference") return "voltmeter from the trimmer's wiper (or its test point) to logic ground, logic supply on.";
  if (figure == "sense") return "printed on the two largest resistors beside the chip: R100 is 0.1 ohm, R050 is 0.05 ohm.";
  return {};
}

std::string partCard(const Part& p, const Json* file, CardFor reader) {
  const Say say{reader};
  auto out = fmt::format("# {}\n\n{}: {}.\n", say.line(p.name), say.line(p.kind), say.line(p.summary));
  if (!p.hold.empty()) out += fmt::format("\nHeld like this: {}.\n", say.line(p.hold));
  figures(p, say, out);
  settings(p, say, out);
  lists(p, file, say, out);  // what to mind comes before the long table of what it is judged by
  limits(p, say, out);
  roles(p, say, out);
  channels(p, say, out);
  terminals(p, say, out);
  out += fmt::format("\nIts id is `{}`{}.\n", p.id, p.own ? ", a part of your own" : "");
  return out;
}

}  // namespace bold::parts
