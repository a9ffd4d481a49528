// dump_findings OUT: everything that is said of every bench at hand (the good ones, their mutants, the examples of the check
// pages, the demos, benches wired at random), to be compared before and after a change that must not alter a judgement:
//   dump_findings before.txt; …; dump_findings after.txt; cmp before.txt after.txt
#include <fmt/core.h>

#include <cstdio>
#include <nlohmann/json.hpp>
#include <sstream>

#include "core/base/embedded.h"
#include "core/checks/planned.h"
#include "core/harness/entry_json.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"
#include "support/mutants.h"
#include "support/random_bench.h"

namespace {

using namespace bold;

std::string text(const AnyQuantity& q) {
  return fmt::format("{:.6g} {}", q.value, unitSign(q.unit));
}

std::string text(const harness::Change& change) {
  return std::visit(
      []<class C>(const C& c) -> std::string {
        if constexpr (requires { toJson(c.value); })
          return toJson(c.value).dump();
        else if constexpr (requires { c.id; })
          return "drop " + c.id;
        else
          return "other";
      },
      change);
}

class Dump {
 public:
  explicit Dump(std::FILE* out) : m_out(out) {}

  void bench(const std::string& name, const harness::Harness& h, bool explained) {
    Options options;
    options.explain = explained;
    auto a = analyse(h, test::library(), options);
    if (explained) judgePlanned(a, h, test::library(), options);
    line("== {}{}", name, explained ? ", explained" : "");
    line("{}: {}", headline(a.verdict), summary(a));
    for (const auto& w : a.why) line("why {}", w);
    for (const auto& s : a.assumptions) line("assumed {}", s);
    for (const auto& f : a.findings) finding(f);
  }

 private:
  std::FILE* m_out;

  template <class... Args>
  void line(fmt::format_string<Args...> format, Args&&... args) {
    const auto s = fmt::format(format, std::forward<Args>(args)...) + "\n";
    std::fputs(s.c_str(), m_out);
  }

  void finding(const checks::Finding& f) {
    line("{} {} {} #{} by [{}] after {}", f.identity(), word(f.severity), word(f.harm), f.number, f.explainedBy, f.mendedAfter);
    line("  {} | {} | {}", f.headline, f.text, f.formula);
    for (const auto& s : f.sources) line("  source {}", s);
    for (const auto& [name, q] : f.args) line("  {} = {}", name, text(q));
    if (f.bar)
      line("  bar {} {} [{}] {} {} {}", f.bar->label, text(f.bar->value), f.bar->inner ? text(*f.bar->inner) : "", text(f.bar->limit),
           f.bar->limitName, f.bar->floor);
    if (f.repair) line("  repair {}", f.repair->text);
    if (f.repair)
      for (const auto& c : f.repair->edit.changes) line("    {}", text(c));
  }
};

// The benches of a check's page.
void examples(Dump& dump, const embedded::File& page) {
  std::istringstream in{std::string(page.text)};
  std::string bench;
  bool inside = false;
  int n = 0;
  for (std::string l; std::getline(in, l);) {
    if (l == "```" && inside) dump.bench(fmt::format("{} {}", page.path, ++n), test::wiredBench(bench), true);
    if (l == "```bench") bench.clear();
    inside = l == "```bench" || (inside && l != "```");
    if (inside && l != "```bench") bench += l + "\n";
  }
}

// Every figure far below and far above what it is, one by one: what is only just right nowhere shows here.
void otherFigures(Dump& dump, const std::string& name, const harness::Harness& good) {
  for (std::size_t d = 0; d < good.devices.size(); ++d)
    for (const auto& f : test::library().find(good.devices[d].part)->figures)
      for (const double factor : {0.4, 2.5}) {
        const auto typical = f.figure.typical();
        if (!typical) continue;
        auto h = good;
        h.devices[d].overrides[f.id] = fmt::format("{:.4g} {}", *typical * factor, unitSign(f.figure.unit));
        dump.bench(fmt::format("{}: {}.{} {}", name, good.devices[d].id, f.id, h.devices[d].overrides[f.id]), h, false);
      }
}

constexpr int kExplainedEvery = 5;  // mutants: to explain them all takes long
constexpr unsigned kRandom = 1500;

}  // namespace

int main(int argc, char** argv) {
  std::FILE* out = argc > 1 ? std::fopen(argv[1], "w") : nullptr;
  if (!out) {
    std::fprintf(stderr, "usage: dump_findings OUT, a file that can be written\n");
    return 2;
  }
  Dump dump(out);
  for (const auto& f : embedded::demos())
    if (const auto read = harness::readHarness(f.text, std::string(f.path))) dump.bench(std::string(f.path), read->harness, true);
  for (const auto& f : embedded::pages()) examples(dump, f);
  for (unsigned seed = 0; seed < kRandom; ++seed) dump.bench(fmt::format("random {}", seed), test::randomBench(seed), false);
  int n = 0;
  for (const auto& name : test::goodNames()) {
    const auto good = test::good(name);
    dump.bench(name, good, true);
    otherFigures(dump, name, good);
    test::everyMutant(name, good, [&](const test::Mutant& m) { dump.bench(m.name, m.bench, ++n % kExplainedEvery == 0); });
  }
  std::fclose(out);
  return 0;
}
