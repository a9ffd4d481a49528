#include "fuzz/targets.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <cstdlib>

#include "core/base/address.h"
#include "core/bench/bench.h"
#include "core/checks/analysis.h"
#include "core/choose/stock.h"
#include "core/harness/differences.h"
#include "core/harness/document_file.h"
#include "core/harness/edit_maker.h"
#include "core/harness/join.h"
#include "core/harness/left_out.h"
#include "core/harness/read_harness.h"
#include "core/harness/typed_end.h"
#include "core/harness/wire_colour.h"
#include "core/parts/own_parts.h"
#include "core/parts/part_card.h"
#include "core/parts/search.h"
#include "core/parts/truth_table.h"
#include "core/parts/typed_part.h"
#include "core/program/pins_used.h"
#include "core/wiring/wire_table.h"

namespace bold::fuzz {
namespace {

void promise(bool kept, const char* what) {
  if (kept) return;
  std::fprintf(stderr, "broken promise: %s\n", what);
  std::abort();
}

const parts::Library& library() {
  static const auto shipped = parts::Library::shipped();
  return shipped;
}

void oneSentence(const Problem& p) {
  promise(!p.what.empty(), "a problem says what is wrong");
  promise(p.what.ends_with('.'), "a problem is a sentence");
}

// Small enough to be worked out many thousand times.
bool small(const harness::Harness& h) {
  return h.devices.size() <= 12 && h.connections.size() <= 60 && h.goals.size() <= 8 && h.assignments.size() <= 40;
}

void judge(const harness::Harness& h, const parts::Library& parts) {
  Options fast;
  fast.explain = false;
  const auto a = analyse(h, parts, fast);
  promise(a.solved != nullptr, "the engine ends");
  promise(a.verdict == Verdict::Clear || !a.findings.empty() || !a.why.empty(), "a verdict other than Clear has a reason");
  const bool held = a.verdict == Verdict::NotJudged || a.verdict == Verdict::DoNotSwitchOn;
  promise(held || harness::leftOut(h).empty(), "what was left out keeps a bench from Clear");
  for (const auto& f : a.findings) {
    promise(!f.headline.empty() && !f.text.empty(), "a finding has words");
    if (!f.repair) continue;
    auto mended = h;
    const auto back = harness::apply(mended, f.repair->edit);
    harness::apply(mended, back);
    promise(harness::writeHarness(mended) == harness::writeHarness(h), "a repair can be taken back");
  }
}

}  // namespace

void harnessFile(std::string_view bytes) {
  const auto reading = harness::readHarness(bytes, "file");
  if (!reading) return oneSentence(reading.error());
  for (const auto& p : reading->problems) oneSentence(p);
  const auto& h = reading->harness;
  const auto text = harness::writeHarness(h);
  const auto whole = [&](const char* list) { return bytes.find(list) != std::string_view::npos; };
  if (whole("\"devices\"") && whole("\"connections\"") && whole("\"goals\"") && reading->problems.size() == harness::leftOut(h).size())
    promise(text == bytes, "what nobody changed is written as it was read");
  const auto again = harness::readHarness(text, "again");
  promise(again.has_value(), "what was written can be read");
  promise(harness::writeHarness(again->harness) == text, "reading and writing changes nothing");
  promise(harness::differences(h, again->harness).empty(), "reading and writing loses nothing");
  if (!small(h)) return;
  std::vector<Problem> problems;
  const auto parts = harness::withDocumentParts(library(), h, "file", problems);
  for (const auto& p : problems) oneSentence(p);
  judge(h, parts);
  judge(harness::asPlanned(h), parts);
}

void partFile(std::string_view bytes) {
  auto mine = library();
  std::vector<Problem> problems;
  mine.addOwn({{"file", std::string(bytes)}}, problems);
  for (const auto& p : problems) oneSentence(p);
  for (const auto& part : mine.search({})) {
    if (!part->own) continue;
    promise(!parts::partCard(*part, mine.json(part->id)).empty(), "a part has a card");
    for (const auto& c : part->channels) (void)parts::truthTable(*part, c);
    harness::Harness h;
    h.devices.push_back({.id = "x", .part = part->id});
    if (part->terminals.size() > 1) {
      harness::Connection wire;
      wire.id = "w1";
      wire.a = {"x", part->terminals.front().id};
      wire.b = {"x", part->terminals.back().id};
      h.connections.push_back(wire);
    }
    if (part->terminals.size() < 60 && part->elements.size() < 60) judge(h, mine);
  }
}

void typedText(std::string_view bytes) {
  static const auto demo = [] {
    harness::Harness h;
    h.devices = {{.id = "uno", .part = "board-uno-atmega328p"}, {.id = "s1", .part = "l298n-module"}, {.id = "d9", .part = "diode-1n4001"}};
    return h;
  }();
  const auto wire = harness::parseTypedWire(demo, library(), bytes);
  if (wire) {
    const auto edit = harness::EditMaker(demo).wire(wire->a, wire->b, harness::colourOf(demo, library(), wire->a, wire->b)).take("wire");
    promise(!edit.changes.empty(), "a typed wire is a wire");
  } else {
    promise(!wire.error().what.empty(), "an answer says what was not understood");
  }
  const auto joined = harness::typedJoin(demo, library(), bytes);
  promise(joined ? !joined->changes.empty() : !joined.error().what.empty(), "what is typed joins something, or it is said why not");
  if (const auto a = parseAddress(bytes)) promise(parseAddress(a->text()).has_value(), "an address is written as it is read");
  for (const auto unit : {Unit::Volt, Unit::Amp, Unit::Ohm, Unit::Farad, Unit::Second, Unit::Hertz, Unit::Metre, Unit::Celsius, Unit::Watt})
    if (const auto q = parseQuantity(bytes, unit)) promise(std::isfinite(q->value), "a quantity is a number");
  for (const auto& p : parts::typedParts(bytes)) promise(!p.text.empty() && library().find(p.part) != nullptr, "a typed part is a part");
  const auto query = parts::parseQuery(bytes);
  for (const auto& p : library().search({})) promise(parts::score(*p, query) >= 0, "a score is no debt");
}

void lists(std::string_view bytes) {
  const auto read = choose::readStock(bytes, library());
  for (const auto& p : read.problems) oneSentence(p);
  for (const auto& [part, n] : read.stock) promise(!part.empty() && n >= 0, "a count is a count of something");
  // What the drawer writes it reads: the counts, and the lines that it could not read.
  const auto written = choose::writeStock(read.stock, read.unread);
  const auto again = choose::readStock(written, library());
  promise(again.stock == read.stock, "what lies in the drawer is read as it was written");
  promise(again.unread == read.unread, "and no line of it is lost");
  promise(choose::writeStock(again.stock, again.unread) == written, "and written again it is the same");
  static const auto demo = [] {
    harness::Harness h;
    h.devices = {{.id = "uno", .part = "board-uno-atmega328p"}, {.id = "s1", .part = "l298n-module"}};
    return h;
  }();
  const auto table = wiring::readWireTable(demo, library(), bytes);
  int last = 0;
  for (const auto& line : table.lines) {
    promise(line.number > last, "lines come in their order");
    last = line.number;
    promise(!line.does.empty() || !line.why.empty(), "a line does something, or it is said why not");
  }
}

void program(std::string_view bytes) {
  if (bytes.empty()) return;
  const char language = bytes.front();
  const std::string file = language == 'p' ? "main.py" : language == 'c' ? "main.c" : "main.ino";
  const auto read = bold::program::readTexts({{file, std::string(bytes.substr(1))}}, "board-uno-atmega328p", bold::program::shippedCalls());
  for (const auto& p : read.problems) oneSentence(p);
  const auto part = library().find("board-uno-atmega328p");
  const auto s = bold::program::pinsUsed(read, "uno", *part, bold::program::shippedCalls());
  promise(s.told <= s.asked, "no more is told than was asked");
  promise(s.asked == s.told || !s.untold.empty(), "what is not told is said");
  promise(s.files.size() == 1 && s.files.front().file == file, "no other file is read");
  const auto& text = read.sources.files.front();
  const auto inside = [&](const harness::Spot& at) {
    return at.line == 0 || (at.file == file && at.line <= static_cast<int>(text.lines.size()) && at.column >= 1);
  };
  for (const auto& u : s.pins) {
    promise(!u.word.empty(), "a pin has a word");
    promise(inside(u.number) && std::ranges::all_of(u.places, inside), "a place lies in the source");
    promise(!u.scale || *u.scale > 0, "a scale is above nothing");
  }
  for (const auto& u : s.untold) promise(inside(u.place) && !u.what.empty(), "what is not told has a place");
  // It survives the file.
  harness::Harness h;
  h.devices.push_back({.id = "uno", .part = "board-uno-atmega328p"});
  h.sources.push_back(s);
  h.sources.front().id = "source1";
  const auto again = harness::readHarness(harness::writeHarness(h), "x");
  promise(again && again->harness.sources.size() == 1, "what was read is kept");
  auto kept = again->harness.sources.front();
  kept.raw = nullptr;
  promise(harness::leftOut(again->harness).empty(), "and nothing of it is left out");
  promise(kept.pins == h.sources.front().pins && kept.groups == h.sources.front().groups && kept.untold == s.untold, "to the last word");
}

}  // namespace bold::fuzz
