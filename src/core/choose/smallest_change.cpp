#include "core/choose/smallest_change.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/checks/trial.h"
#include "core/choose/stage_questions.h"
#include "core/parts/roles.h"

namespace bold::choose {
namespace {

constexpr std::size_t kFew = 8;       // steps that are tried one by one
constexpr std::size_t kSamples = 6;   // of a longer row, to begin with
constexpr std::size_t kSupplies = 4;  // of the library that are tried

using Checks = std::set<std::string>;

class Search {
 public:
  Search(const harness::Harness& bench, const parts::Library& library, const std::string& motor, const Candidate& c, const Options& options,
         const Before& before)
      : m_library(library), m_motor(motor), m_candidate(c), m_options(options), m_before(before), m_bench(bench) {
    apply(m_bench, c.edit);
    m_grave = std::ranges::any_of(c.against, [](const auto& f) { return f.severity == checks::Severity::Stop; })
                  ? checks::Severity::Stop
                  : checks::Severity::Caution;
    for (const auto& f : c.against)
      if (f.severity == m_grave) m_base.insert(f.check);
  }

  const harness::Harness& bench() const { return m_bench; }

  std::optional<SmallestChange> run(const std::vector<ChangeRow>& rows) {
    std::vector<Sampled> useful;
    for (std::size_t r = 0; r < rows.size(); ++r) {
      Sampled one{r, {}};
      // What the most of it leaves as it was, less of it leaves too.
      const bool many = rows[r].size() > kFew;
      const auto most = many ? leftBy({&rows[r].back()}) : Checks{};
      if (many && std::ranges::includes(most, m_base)) continue;
      std::size_t before = 0;
      for (const auto s : samples(rows[r].size())) {
        const auto left = many && s + 1 == rows[r].size() ? most : leftBy({&rows[r][s]});
        if (m_stopped) return std::nullopt;
        if (left.empty()) return found(rows, {r}, {least(s, before, [&](std::size_t x) { return leftBy({&rows[r][x]}).empty(); })});
        before = s + 1;
        if (!std::ranges::includes(left, m_base)) one.left[s] = left;
      }
      if (!one.left.empty()) useful.push_back(std::move(one));
    }
    for (std::size_t i = 0; i < useful.size(); ++i)
      for (std::size_t k = i + 1; k < useful.size(); ++k)
        if (auto two = pair(rows, useful[i], useful[k])) return two;
    return std::nullopt;
  }

 private:
  const parts::Library& m_library;
  const std::string& m_motor;
  const Candidate& m_candidate;
  const Options& m_options;
  const Before& m_before;
  harness::Harness m_bench;  // with the stage on it
  checks::Severity m_grave;
  Checks m_base;
  bool m_stopped = false;

  // What some steps of a row leave, where that is less than there was.
  struct Sampled {
    std::size_t row;
    std::map<std::size_t, Checks> left;
  };

  std::optional<SmallestChange> pair(const std::vector<ChangeRow>& rows, const Sampled& one, const Sampled& other) {
    const auto& a = rows[one.row];
    const auto& b = rows[other.row];
    for (const auto& x : one.left)
      for (const auto& y : other.left) {
        if (m_stopped) return std::nullopt;
        if (sharesBase(x.second, y.second) || !leftBy({&a[x.first], &b[y.first]}).empty()) continue;
        const auto first = least(x.first, 0, [&](std::size_t s) { return leftBy({&a[s], &b[y.first]}).empty(); });
        const auto second = least(y.first, 0, [&](std::size_t s) { return leftBy({&a[first], &b[s]}).empty(); });
        return found(rows, {one.row, other.row}, {first, second});
      }
    return std::nullopt;
  }

  static std::vector<std::size_t> samples(std::size_t n) {
    std::vector<std::size_t> out;
    const auto count = n <= kFew ? n : kSamples;
    for (std::size_t k = 1; k <= count; ++k) out.push_back(k * n / count - 1);
    return out;
  }

  bool sharesBase(const Checks& a, const Checks& b) const {
    return std::ranges::any_of(m_base, [&](const auto& c) { return a.contains(c) && b.contains(c); });
  }

  // Checks that still say something as grave as what kept it out, and did not before there was a stage.
  Checks leftBy(const std::vector<const Change*>& changes) {
    auto h = m_bench;
    for (const auto* c : changes) apply(h, c->edit(h));
    const auto trial = tryOut(h, {}, m_library, m_options, m_before.now);
    if (!trial) {
      m_stopped = true;
      return m_base;
    }
    Checks out;
    for (const auto& f : blamed(m_before, *trial, m_library, m_motor, m_candidate.device, m_candidate.edit))
      if (f.severity == checks::Severity::Stop || f.severity == m_grave) out.insert(f.check);
    return out;
  }

  // The first step that passes between one before which all is known to fail and one that passes.
  static std::size_t least(std::size_t passes, std::size_t from, auto pass) {
    std::size_t low = from;
    while (low < passes) {
      const auto middle = low + (passes - low) / 2;
      if (pass(middle))
        passes = middle;
      else
        low = middle + 1;
    }
    return passes;
  }

  std::optional<SmallestChange> found(const std::vector<ChangeRow>& rows, std::vector<std::size_t> row, std::vector<std::size_t> step) {
    SmallestChange out;
    for (std::size_t k = 0; k < row.size(); ++k) {
      out.changes.push_back(rows[row[k]][step[k]]);
      const auto& text = out.changes.back().text;
      out.text += k == 0 ? text : " and " + (text.starts_with("with ") ? text.substr(5) : text);
      out.plannable = out.plannable && out.changes.back().plannable;
    }
    out.row = std::move(row);
    out.step = std::move(step);
    suggest(out);
    return out;
  }

  // A supply of the library in the place of the one that is asked for, the nearest that passes.
  void suggest(SmallestChange& change) {
    const auto it = std::ranges::find_if(change.changes, [](const Change& c) { return !c.supply.empty(); });
    if (it == change.changes.end()) return;
    const auto* device = m_bench.device(it->supply);
    const auto now = device ? nominalOf(*partOf(m_library, *device)) : std::nullopt;
    if (!now) return;
    const auto wired = [&](const parts::Part& p) {
      return std::ranges::all_of(m_bench.connections, [&](const auto& c) {
        return (c.a.device != device->id || p.find(c.a.terminal)) && (c.b.device != device->id || p.find(c.b.terminal));
      });
    };
    std::vector<std::pair<double, std::shared_ptr<const parts::Part>>> near;
    for (const auto& p : m_library.search(""))
      if (const auto v = parts::isSource(*p) && wired(*p) ? nominalOf(*p) : std::nullopt)
        if (it->volts < *now ? *v <= it->volts : *v >= it->volts) near.emplace_back(std::abs(*v - it->volts), p);
    std::ranges::stable_sort(near, {}, &std::pair<double, std::shared_ptr<const parts::Part>>::first);
    if (near.size() > kSupplies) near.resize(kSupplies);
    for (const auto& one : near) {
      Change other{{}, [id = device->id, part = one.second->id](const harness::Harness& h) {
                     harness::Edit edit;
                     auto d = *h.device(id);
                     d.part = part;
                     d.overrides.clear();
                     edit.changes.push_back(harness::Put<harness::Device>{std::move(d), {}});
                     return edit;
                   }};
      std::vector<const Change*> all;
      for (const auto& c : change.changes) all.push_back(&c == &*it ? &other : &c);
      if (m_stopped || !leftBy(all).empty()) continue;
      change.supply = one.second->id;
      change.text += ", such as " + one.second->name;
      return;
    }
  }

  static std::optional<double> nominalOf(const parts::Part& part) {
    const auto* f = part.figure("nominal");
    return f ? f->figure.typical() : std::nullopt;
  }
};

}  // namespace

std::optional<SmallestChange> smallestChange(const harness::Harness& bench, const parts::Library& library, const std::string& motor,
                                             const Candidate& candidate, const Options& options, const Before& before) {
  if (!candidate.excluded.empty() || candidate.against.empty()) return std::nullopt;
  Search search(bench, library, motor, candidate, options, before);
  return search.run(changeRows(search.bench(), library, motor, candidate.device));
}

}  // namespace bold::choose
