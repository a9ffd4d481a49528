#include "core/base/figure.h"

#include <fmt/core.h>

#include <vector>

namespace bold {

Result<Figure> parseFigure(std::string_view text, Unit expected) {
  Figure f;
  f.unit = expected;
  if (text == "unknown") return f;
  std::vector<double> values;
  std::string_view rest = text;
  while (true) {
    const auto dots = rest.find("..");
    auto q = parseQuantity(rest.substr(0, dots), expected);
    if (!q) return fail(q.error());
    values.push_back(q->value);
    if (dots == std::string_view::npos) break;
    rest = rest.substr(dots + 2);
  }
  for (std::size_t i = 1; i < values.size(); ++i)
    if (values[i] < values[i - 1]) return fail(fmt::format("\"{}\" runs from the larger to the smaller value", text));
  if (values.size() == 1) {
    f.typ = values[0];
  } else if (values.size() == 2) {
    f.min = values[0];
    f.max = values[1];
  } else if (values.size() == 3) {
    f.min = values[0];
    f.typ = values[1];
    f.max = values[2];
  } else {
    return fail(fmt::format("\"{}\" has more than three values", text));
  }
  return f;
}

std::string displayText(const Figure& f) {
  const auto show = [&](double v) { return displayText(AnyQuantity{v, f.unit}); };
  if (!f.known()) return "unknown";
  if (f.min && f.max && f.typ) return fmt::format("{} ({} to {})", show(*f.typ), show(*f.min), show(*f.max));
  if (f.min && f.max) return fmt::format("{} to {}", show(*f.min), show(*f.max));
  if (f.typ) return show(*f.typ);
  return f.max ? fmt::format("at most {}", show(*f.max)) : fmt::format("at least {}", show(*f.min));
}

}  // namespace bold
