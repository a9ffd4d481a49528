#include "core/sheet/bench_sheet.h"

#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>

#include "core/checks/margin_words.h"
#include "core/harness/colour_codes.h"
#include "core/harness/connection_table.h"
#include "core/harness/end_place.h"
#include "core/harness/names.h"
#include "core/harness/seen_part.h"
#include "core/picture/badges.h"
#include "core/picture/draw_loom.h"
#include "core/places/drawing.h"
#include "core/places/words.h"
#include "core/report/plan_lines.h"
#include "core/sheet/place_shapes.h"
#include "core/wiring/wire_list.h"

namespace bold::sheet {
namespace {

constexpr std::size_t kMostMargins = 14;
constexpr double kPlacePitch = 12;
constexpr double kPlaceHigh = 330;  // of a drawing of terminals, at most
constexpr double kSmallPart = 170;  // narrower than that, drawings stand side by side

class SheetWriter {
 public:
  SheetWriter(const harness::Harness& h, const parts::Library& library, const Analysis& a, const SheetOf& of)
      : m_h(h),
        m_library(library),
        m_a(a),
        m_of(of),
        m_pages(of.paper, fmt::format("{} · {}", m_h.title.empty() ? of.file : m_h.title, of.date)) {}

  std::vector<draw::Drawing> write() {
    head();
    loom();
    m_pages.heading("Looked over");
    for (int k = 0; k < 2; ++k) m_pages.blank("Name, time:");
    wires();
    places();
    settings();
    margins();
    return m_pages.take();
  }

 private:
  const harness::Harness& m_h;
  const parts::Library& m_library;
  const Analysis& m_a;
  const SheetOf& m_of;
  PageMaker m_pages;

  void head() {
    m_pages.title(m_h.title.empty() ? m_of.file : m_h.title);
    m_pages.text(fmt::format("{} · {}", m_of.file, m_of.date));
    m_pages.heading(std::string(headline(m_a.verdict)));
    m_pages.text(summary(m_a) + ".");
    for (const auto& w : m_a.why) m_pages.text("– " + w);
    m_pages.gap(4);
    for (const auto& f : m_a.findings) {
      if (!f.explainedBy.empty() || f.severity == checks::Severity::Note) continue;
      m_pages.toDo(fmt::format("{}{} {}", f.number > 0 ? fmt::format("{}. ", f.number) : std::string(), f.headline,
                               f.repair ? f.repair->text : std::string()));
    }
    const auto plan = report::planLines(m_h);
    if (plan.empty()) return;
    m_pages.heading("To make on the bench");
    for (const auto& l : plan) m_pages.toDo(l.verb + " " + l.what);
  }

  void loom() {
    if (m_h.devices.empty()) return;
    const auto layout = picture::layOut(m_h, m_library);
    m_pages.gap(8);
    m_pages.drawing(picture::loomDrawing(layout, picture::placeBadges(layout, m_a.findings), true), {}, 0.74);
  }

  static std::string remarks(const wiring::ListedWire& w) {
    if (w.wrong) return "found: " + w.otherwise;
    if (w.state != harness::State::OnBench) return std::string(word(w.state));
    std::string out;
    for (const auto& r : w.readBy) out += (out.empty() ? "read by " : ", ") + r;
    return out;
  }

  void wires() {
    if (m_h.connections.empty()) return;
    m_pages.heading("Every wire, end by end");
    const auto list = wiring::wireList(m_h, m_library);
    std::optional<wiring::ExpectedVoltages> voltages;
    if (m_a.solved) voltages.emplace(*m_a.solved, list.size());
    if (voltages && voltages->tooMany()) m_pages.text("The bench is too large to say what to measure at each wire.");
    std::vector<std::vector<std::string>> rows;
    for (const auto& g : wiring::grouped(list, m_h, m_library, wiring::By::Stage)) {
      rows.push_back({g.title});
      for (const int i : g.wires) {
        const auto& w = list[i];
        const auto end = [&](int k) {
          const auto place = fullEndPlace(m_h, m_library, w.ends[k]);
          return place.empty() ? w.names[k] : w.names[k] + "\n" + place;
        };
        const auto ticked = [](bool on) { return std::string(on ? "x" : ""); };
        const auto what =
            w.colour.empty() ? std::string(harness::word(w.kind)) : fmt::format("{} {}", w.colour, harness::colourName(w.colour));
        rows.push_back({ticked(w.fitted), ticked(w.tugged), ticked(w.seen), w.id, what, end(0), end(1),
                        voltages ? voltages->at(w.ends[0]) : std::string(), remarks(w)});
      }
    }
    m_pages.table({{"made", 6.5, false, true},
                   {"pulled", 7.5, false, true},
                   {"seen", 6.5, false, true},
                   {"no.", 6},
                   {"colour", 9},
                   {"one end", 24},
                   {"other end", 24},
                   {"power on", 13},
                   {"remarks", 10}},
                  rows);
  }

  // Each board and part that wires end on, with those terminals marked.
  void places() {
    std::map<std::string, std::set<int>> used;
    for (const auto& c : m_h.connections)
      for (const auto* end : {&c.a, &c.b})
        if (const auto* d = m_h.device(end->device))
          if (const auto part = m_library.find(d->part))
            if (const int index = part->find(end->terminal) ? part->indexOf(end->terminal) : -1; index >= 0) used[d->id].insert(index);
    std::vector<std::pair<draw::Drawing, std::string>> waiting;
    bool begun = false;
    const auto put = [&](bool all) {
      if (waiting.size() == 3 || (all && !waiting.empty())) {
        m_pages.drawings(waiting, kPlaceHigh);
        waiting.clear();
      }
    };
    for (const auto& d : m_h.devices) {
      const auto part = harness::seenPart(m_library.find(d.part), d, m_h);
      if (!part || !part->layoutKnown || !used.contains(d.id) || part->terminals.size() < 4) continue;
      places::Wish wish;
      wish.lie = d.lie;
      wish.pitch = kPlacePitch;
      wish.many = true;
      wish.wanted = {used[d.id].begin(), used[d.id].end()};
      auto drawing = placeShapes(places::drawingOf(*part, wish));
      if (drawing.shapes.empty()) continue;
      if (!begun) m_pages.heading("Where the terminals are", std::min(drawing.height, kPlaceHigh) + 40);
      begun = true;
      const auto held = places::holdWords(*part, d.lie);
      auto words = fmt::format("{}{}", shownName(m_h, d), held.empty() ? std::string() : " (" + held + ")");
      if (drawing.width <= kSmallPart) {
        waiting.emplace_back(std::move(drawing), std::move(words));
        put(false);
      } else {
        m_pages.drawings({{std::move(drawing), std::move(words)}}, kPlaceHigh);
      }
    }
    put(true);
  }

  void settings() {
    std::vector<std::vector<std::string>> rows;
    for (const auto& d : m_h.devices) {
      const auto part = m_library.find(d.part);
      for (std::size_t k = 0; part && k < part->settings.size(); ++k) {
        const auto& s = part->settings[k];
        const auto given = d.settings.find(s.id);
        const auto value = given == d.settings.end() ? s.standard : given->second.value;
        const auto planned =
            given == d.settings.end() || given->second.planned.empty() ? std::string() : ", to be " + given->second.planned;
        rows.push_back({"", shownName(m_h, d), s.label, (value.empty() ? "not known" : value) + planned});
      }
      for (const auto& [figure, value] : d.overrides)
        rows.push_back({"", shownName(m_h, d), figure, value + " (measured or replaced here)"});
    }
    if (rows.empty()) return;
    m_pages.heading("Settings and figures of this bench");
    m_pages.table({{"set", 5, false, true}, {"part", 22}, {"what", 33}, {"is", 40}}, rows);
  }

  void margins() {
    if (!m_a.solved) return;
    const auto all = m_a.margins();
    std::vector<std::vector<std::string>> rows;
    for (const auto& m : all) {
      if (rows.size() == kMostMargins || !m.value || !m.judged()) break;
      if (m.onlyNotes()) continue;
      rows.push_back({checks::placeOf(m_a.solved->bench, m), m.quantity, checks::shown(*m.value, m.unit),
                      checks::bounds(*m.judged(), m.unit), checks::percentUsed(m)});
    }
    if (rows.empty()) return;
    m_pages.heading("How near it comes to its limits");
    m_pages.table({{"where", 28}, {"what", 28}, {"value", 14}, {"limit", 20}, {"used", 10}}, rows);
  }
};

}  // namespace

std::vector<draw::Drawing> benchSheet(const harness::Harness& h, const parts::Library& library, const Analysis& a, const SheetOf& of) {
  return SheetWriter(h, library, a, of).write();
}

}  // namespace bold::sheet
