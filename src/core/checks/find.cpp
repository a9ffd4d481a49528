#include "core/checks/find.h"

#include <algorithm>

#include "core/base/lower.h"
#include "core/harness/names.h"
#include "core/harness/typed_end.h"

namespace bold::checks {
std::vector<Found> find(const harness::Harness& h, const parts::Library& library, const Findings& findings, std::string_view text,
                        std::size_t most) {
  const auto words = harness::typedWords(text);
  std::vector<Found> out;
  if (words.empty()) return out;
  const auto take = [&](Found f, const std::string& also) {
    const auto all = lower(f.text + " " + f.besides + " " + also);
    if (std::ranges::all_of(words, [&](const std::string& w) { return all.find(w) != std::string::npos; })) out.push_back(std::move(f));
  };
  for (const auto& d : h.devices) {
    const auto part = library.find(d.part);
    take({Found::Kind::Device, d.id, shownName(h, d), part ? part->name : d.part}, d.id);
  }
  for (const auto& c : h.connections)
    take({Found::Kind::Wire, c.id, shownEnds(h, library, c), c.colour}, c.id + " " + c.a.text() + " " + c.b.text());
  for (const auto& f : findings) take({Found::Kind::Finding, f.identity(), f.headline, f.check}, f.text);
  for (const auto& d : h.devices)
    if (const auto part = library.find(d.part))
      for (const auto& t : part->terminals) {
        const Address end{d.id, t.id};
        std::string besides;
        for (const auto& c : h.connections)
          if (c.a == end || c.b == end) besides += (besides.empty() ? "to " : ", ") + shownEnd(h, library, c.a == end ? c.b : c.a);
        std::string names = end.text();
        for (const auto& a : t.aliases) names += " " + a;
        if (t.pin) names += " " + t.pin->code + " " + t.pin->chip;
        take({Found::Kind::Terminal, end.text(), shownEnd(h, library, end), besides}, names);
      }
  const auto whole = lower(text);
  std::ranges::stable_sort(out, {}, [&](const Found& f) {
    const auto name = lower(f.text);
    return name == whole || lower(f.subject) == whole ? 0 : name.starts_with(whole) ? 1 : name.find(whole) != std::string::npos ? 2 : 3;
  });
  if (out.size() > most) out.resize(most);
  return out;
}

}  // namespace bold::checks
