#include "core/parts/named_figures.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/base/plausible.h"
#include "core/parts/each_figure.h"
#include "core/parts/verify_part.h"

namespace bold::parts {
namespace {

void give(NamedFigure& figure, const std::string& text) {
  const auto given = parseFigure(text, figure.figure.unit);
  if (!given) return;
  // A measured value keeps the relative cold-to-hot spread of what it replaces.
  const auto& stated = figure.stated;
  Figure measured = *given;
  if (measured.typ && !measured.min && stated.min && stated.max && stated.typical() && *stated.typical() > 0) {
    measured.min = *measured.typ * *stated.min / *stated.typical();
    measured.max = *measured.typ * *stated.max / *stated.typical();
  }
  measured.source = "given for this bench";
  measured.overridden = true;
  figure.figure = measured;
}

// c = a / b. Giving c works out b; otherwise c follows from a and b.
void derive(std::vector<NamedFigure>& figures) {
  for (auto& c : figures) {
    if (c.derivedFrom.empty()) continue;
    const auto a = std::ranges::find(figures, c.derivedFrom, &NamedFigure::id);
    const auto b = std::ranges::find(figures, c.derivedOver, &NamedFigure::id);
    if (a == figures.end() || b == figures.end() || !a->figure.typical()) continue;
    NamedFigure& target = c.figure.overridden && !b->figure.overridden ? *b : c;
    const NamedFigure& divisor = &target == &c ? *b : c;
    if (&target == &c && c.figure.overridden) continue;
    if (!divisor.figure.typical() || *divisor.figure.typical() <= 0) continue;
    Figure f;
    f.unit = target.figure.unit;
    f.typ = *a->figure.typical() / *divisor.figure.typical();
    f.source = "follows from " + a->label + " and " + divisor.label;
    f.overridden = divisor.figure.overridden;
    target.figure = f;
  }
}

// Why a text cannot be this figure of a part; empty: it can.
std::string unusable(const NamedFigure& figure, const std::string& text) {
  const auto parsed = parseFigure(text, figure.figure.unit);
  if (!parsed) return fmt::format("The figure \"{}\" cannot be replaced: {}.", figure.id, parsed.error().what);
  for (const auto& x : {parsed->min, parsed->typ, parsed->max})
    if (x && !plausible({*x, figure.figure.unit}))
      return fmt::format("The figure \"{}\" cannot be replaced by {}: {}.", figure.id, text, plausibleWords(figure.figure.unit));
  const bool nothing = !parsed->known() && text.find("unknown") == std::string::npos;
  return nothing ? fmt::format("The figure \"{}\" cannot be replaced by \"{}\".", figure.id, text) : std::string();
}

}  // namespace

void workOut(std::vector<NamedFigure>& figures, const Overrides& overrides) {
  for (auto& f : figures) {
    f.figure = f.stated;
    if (const auto given = overrides.find(f.id); given != overrides.end()) give(f, given->second);
  }
  derive(figures);
}

Part replaceFigures(const Part& plain, const Overrides& overrides, std::vector<Problem>& problems) {
  Overrides usable;
  for (const auto& [id, text] : overrides) {
    const auto* f = plain.figure(id);
    if (!f)
      problems.push_back({fmt::format("The part {} has no figure \"{}\".", plain.id, id), {}, "The replacement was kept but is not used."});
    else if (auto why = unusable(*f, text); !why.empty())
      problems.push_back({std::move(why), {}, "The library's figure was kept."});
    else
      usable.emplace(id, text);
  }
  Part part = plain;
  workOut(part.figures, usable);
  eachFigure(part, [&](Figure& figure) {
    if (figure.named < 0) return;
    const int which = figure.named;
    figure = part.figures[which].figure;
    figure.named = which;
  });
  if (const auto against = contradiction(part); !against.empty()) {
    problems.push_back(
        {fmt::format("The figures given for {} contradict the part: it {}.", plain.name, against), {}, "The library's figures were kept."});
    return plain;
  }
  return part;
}

}  // namespace bold::parts
