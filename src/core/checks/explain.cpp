#include "core/checks/explain.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/checks/near_repairs.h"
#include "core/checks/queries.h"
#include "core/checks/trial.h"
#include "core/checks/way_edit.h"

namespace bold {
namespace {

using checks::Finding;
using checks::Findings;
using checks::Severity;

std::set<std::string> identities(const Findings& findings) {
  std::set<std::string> out;
  for (const auto& f : findings) out.insert(f.identity());
  return out;
}

const Finding* findIn(const Findings& findings, const std::string& identity) {
  const auto it = std::ranges::find_if(findings, [&](const Finding& f) { return f.identity() == identity; });
  return it == findings.end() ? nullptr : &*it;
}

constexpr int kFarMore = 2;
constexpr int kFew = 4;                 // causes that one wrong wire may have
constexpr std::size_t kMostTried = 60;  // wires that are tried for it

// What may be spent on trying repairs, by bench::SolvedBench::effort: some two seconds on two cores. Counted, not timed, so
// that the same bench is always told the same.
constexpr std::size_t kBudget = 3'000'000;
constexpr std::size_t kOneTrial = 20'000;  // what any trial takes besides
constexpr std::size_t kLargest = 520'000;  // a larger bench twice in memory is too much

// Whether `after` lacks the finding, and has no stop or caution that was not there `before`, or not as grave.
bool mends(const Findings& before, const Findings& after, const std::string& identity) {
  std::map<std::string, Severity> known;
  for (const auto& f : before) known.emplace(f.identity(), f.severity);
  return std::ranges::all_of(after, [&](const Finding& f) {
    const auto id = f.identity();
    const auto it = known.find(id);
    return id != identity && (f.severity == Severity::Note || (it != known.end() && f.severity >= it->second));
  });
}

int gravity(const Finding& f) {
  if (f.severity == Severity::Caution) return 1;
  if (f.severity != Severity::Stop) return f.severity == Severity::NotJudged ? 2 : 0;
  return f.harm == checks::Harm::Danger ? 8 : f.harm == checks::Harm::Damage ? 4 : 2;
}

// On a bench with several faults one hides the other: a repair may then bring to light what was there all along. It is
// trusted when far more goes than comes, and nothing comes that would destroy what was safe.
bool clears(const Findings& before, const Findings& after, const std::string& identity) {
  if (findIn(after, identity)) return false;
  const auto destroying = [](const Finding& f) { return f.severity == Severity::Stop && f.harm != checks::Harm::WillNotWork; };
  std::set<std::string> there;  // what is destroyed as it stands: more of that may have been hidden
  for (const auto& f : before)
    if (destroying(f)) there.insert(f.subjects.begin(), f.subjects.end());
  const bool destroys = std::ranges::any_of(after, [&](const Finding& f) {
    return destroying(f) && std::ranges::none_of(f.subjects, [&](const std::string& s) { return there.contains(s); });
  });
  if (destroys) return false;
  const auto only = [](const Findings& list, const Findings& other) {
    const auto known = identities(other);
    int sum = 0;
    for (const auto& f : list) sum += known.contains(f.identity()) ? 0 : gravity(f);
    return sum;
  };
  return only(before, after) >= kFarMore * only(after, before);
}

// Motors and loads that carry current when they are asked to.
std::set<std::string> working(const JudgedBench& judged) {
  constexpr double kCarries = 2e-3;  // A
  std::set<std::string> out;
  for (const auto& cell : judged.cells) {
    const auto& s = *cell->solved;
    for (std::size_t k = 0; k < s.motors.size(); ++k) {
      const auto& m = s.motors[k];
      const auto* p = s.running(static_cast<int>(k), bench::Corner::Nominal);
      if (p && std::ranges::any_of(m.windings, [&](int w) { return std::abs(p->element(m.device, w).value) > kCarries; }))
        out.insert(checks::idOf(s.bench, m.device));
    }
  }
  return out;
}

// Those whose pins are known: their commands are held against the wires.
std::set<std::string> stated(const JudgedBench& judged) {
  std::set<std::string> out;
  for (const auto& cell : judged.cells)
    for (std::size_t k = 0; k < cell->solved->motors.size(); ++k)
      if (bench::stated(cell->solved->motors, static_cast<int>(k)))
        out.insert(checks::idOf(cell->solved->bench, cell->solved->motors[k].device));
  return out;
}

// What mends a fault by leaving a motor dead, or unjudged, mends nothing.
bool keepsAllWorking(const JudgedBench& before, const JudgedBench& after) {
  return std::ranges::includes(working(after), working(before)) && std::ranges::includes(stated(after), stated(before));
}

class Explaining {
 public:
  Explaining(Analysis& a, const harness::Harness& h, const parts::Library& library, const Options& options)
      : m_a(a), m_stands(asItStands(h)), m_library(library), m_options(options) {
    for (const auto& c : a.judged.cells) m_cost = std::max(m_cost, kOneTrial + c->solved->effort());
  }

  void run() {
    if (!tryEach()) return;
    flatten();
    for (auto& f : m_a.findings)
      if (!f.explainedBy.empty()) f.repair.reset();
    std::erase_if(m_doubtful, [&](const std::string& id) { return !m_a.find(id)->repair; });
    if (!m_doubtful.empty()) tryTogether();
    if (!tryWays()) return;
    search();
  }

 private:
  Analysis& m_a;
  const harness::Harness m_stands;  // a repair alone: what else is planned must not be credited to it
  const parts::Library& m_library;
  const Options& m_options;
  std::vector<std::string> m_sound, m_doubtful;  // identities of causes, by what their repair does when made alone

  std::size_t m_cost = kOneTrial, m_spent = 0;

  bool spent() const { return m_cost > kLargest || m_spent + m_cost > kBudget; }

  std::optional<Trial> repaired(const harness::Harness& h, const Finding& f) {
    m_spent += m_cost;
    return tryOut(h, f.repair ? f.repair->edit : *f.supposing, m_library, m_options, m_a.judged);
  }

  // B is explained by A when B vanishes once A's repair has been made. Sound repairs speak first: a doubtful one must not
  // hide the finding whose repair is right. False when it was given up.
  bool tryEach() {
    std::map<std::string, std::set<std::string>> afterDoubtful;  // what is left when it has been made
    std::size_t untried = 0;
    for (auto& cause : m_a.findings) {
      if ((!cause.repair && !cause.supposing) || !cause.explainedBy.empty() || cause.severity == Severity::Note) continue;
      if (spent()) {  // a repair that nobody has tried is none
        cause.repair.reset();
        ++untried;
        continue;
      }
      const auto after = repaired(m_stands, cause);
      if (!after) return false;
      const auto id = cause.identity();
      const auto left = identities(after->findings);
      if (!cause.repair) {
        if (clears(m_a.findings, after->findings, id)) explains(cause, left);
      } else if (mends(m_a.findings, after->findings, id)) {
        m_sound.push_back(id);
        explains(cause, left);
      } else {
        m_doubtful.push_back(id);
        afterDoubtful.emplace(id, left);
      }
    }
    for (auto& cause : m_a.findings)
      if (const auto it = afterDoubtful.find(cause.identity()); it != afterDoubtful.end() && cause.explainedBy.empty())
        explains(cause, it->second);
    if (untried > 0)
      m_a.assumptions.push_back(
          fmt::format("the bench is large: {} repair{} not tried and so not offered", untried, untried == 1 ? " was" : "s were"));
    return true;
  }

  void explains(const Finding& cause, const std::set<std::string>& left) {
    const auto id = cause.identity();
    if (left.contains(id) || cause.severity == Severity::Note) return;  // the repair does not even mend its own finding here
    for (auto& f : m_a.findings)
      if (&f != &cause && f.explainedBy.empty() && f.severity >= cause.severity && f.severity != Severity::NotJudged &&
          !left.contains(f.identity()))
        f.explainedBy = id;
  }

  // A cause may have turned out to follow from a later one: everything points at the first cause.
  void flatten() {
    for (auto& f : m_a.findings)
      for (std::size_t hops = 0; hops < m_a.findings.size() && !f.explainedBy.empty(); ++hops) {
        const auto* cause = m_a.find(f.explainedBy);
        if (!cause || cause->explainedBy.empty() || cause->explainedBy == f.identity()) break;
        f.explainedBy = cause->explainedBy;
      }
  }

  // What a way names is put into its field: one under which the fault stays, or something else comes up, is not said. False when it was
  // given up.
  bool tryWays() {
    for (auto& cause : m_a.findings) {
      if (!cause.explainedBy.empty() || cause.severity == Severity::Note) continue;
      const auto id = cause.identity();
      const auto had = cause.ways.size();
      bool gaveUp = false;
      std::erase_if(cause.ways, [&](checks::Way& way) {
        const auto edit = checks::wayEdit(m_stands, way);
        if (!edit || gaveUp || spent()) return false;
        m_spent += m_cost;
        const auto after = tryOut(m_stands, *edit, m_library, m_options, m_a.judged);
        gaveUp = !after;
        if (gaveUp) return false;
        if (!keepsAllWorking(m_a.judged, after->judged)) return true;
        if (mends(m_a.findings, after->findings, id) || clears(m_a.findings, after->findings, id)) return false;
        return !way.unhides || !saysThen(way, cause, after->findings);
      });
      if (gaveUp) return false;
      if (cause.ways.empty() && had > 0 && !cause.repair)
        cause.ways = {{fmt::format("No single change mends it: {} comes right by several together.",
                                   cause.formula.empty() ? cause.headline : cause.formula)}};
      if (!cause.ways.empty() && cause.ways.size() < had && !cause.repair) first(cause.ways.front());
    }
    return true;
  }

  // What was said after another way now stands first.
  static void first(checks::Way& way) {
    if (!way.text.starts_with("Or ") || way.text.size() < 4) return;
    way.text.erase(0, 3);
    way.text[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(way.text[0])));
  }

  // Repairs that bring something else up when made alone get a second chance after the sound ones, each as it reads there.
  void tryTogether() {
    Trial now{m_stands, m_a.judged, m_a.findings};
    for (const auto* list : {&m_sound, &m_doubtful})
      for (const auto& id : *list) {
        const auto* f = findIn(now.findings, id);
        const bool doubtful = list == &m_doubtful;
        std::optional<Trial> after;
        if (f && f->repair && !spent()) {
          after = repaired(now.harness, *f);
          if (!after) return;
        }
        const bool holds = after && (doubtful ? clears(now.findings, after->findings, id) : mends(now.findings, after->findings, id));
        if (holds) now = std::move(*after);
        if (doubtful && !holds) withhold(id);
      }
  }

  // The gravest cause has no repair of its own, and little else is wrong: one wrong wire near it may be all there is. Found when the bench
  // without it has no stop at all, and no caution that was not there before.
  void search() {
    const auto stops = m_a.causes(Severity::Stop);
    if (stops == 0 || stops > kFew) return;
    // Where something is not judged a wire to it silences what was found, and mends nothing.
    if (!m_a.solved->bench.problems.empty() || m_a.count(Severity::NotJudged) > 0) return;
    Finding* cause = nullptr;
    for (auto& f : m_a.findings) {
      if (f.severity != Severity::Stop || !f.explainedBy.empty()) continue;
      if (f.repair) return;
      if (!cause || gravity(f) > gravity(*cause)) cause = &f;
    }
    for (auto& repair : checks::nearRepairs(*m_a.solved, m_a.findings, kMostTried)) {
      if (spent()) return;
      m_spent += m_cost;
      const auto after = tryOut(m_stands, repair.edit, m_library, m_options, m_a.judged);
      if (!after) return;
      const bool stopped = std::ranges::any_of(after->findings, [](const Finding& f) { return f.severity == Severity::Stop; });
      if (stopped || !mends(m_a.findings, after->findings, cause->identity()) || !keepsAllWorking(m_a.judged, after->judged)) continue;
      cause->repair = std::move(repair);
      instead(*cause);
      explains(*cause, identities(after->findings));
      for (auto& f : m_a.findings)
        if (!f.explainedBy.empty()) f.repair.reset();
      return;
    }
  }

  // What the check says stays beside a repair that is not its own.
  static void instead(Finding& f) {
    for (auto& w : f.ways) {
      if (w.text.starts_with("Or ")) continue;
      const bool word = w.text.size() > 1 && std::islower(static_cast<unsigned char>(w.text[1])) != 0;
      if (word) w.text[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(w.text[0])));
      w.text.insert(0, "Or ");
    }
  }

  // What a limit had hidden is said with the way that raises it, unless it is as grave as what the way mends. False: it is.
  bool saysThen(checks::Way& way, const Finding& cause, const Findings& after) const {
    if (findIn(after, cause.identity())) return false;
    std::vector<std::string> then;
    for (const auto& f : after) {
      const auto* had = m_a.find(f.identity());
      if (f.severity == Severity::Note || (had && had->severity <= f.severity)) continue;
      if (f.severity == Severity::Stop || cause.severity == Severity::Stop) return false;
      if (std::ranges::count(then, f.headline) == 0) then.push_back(f.headline);
    }
    for (std::size_t k = 0; k < then.size(); ++k) way.text += (k == 0 ? " Then: " : "; ") + then[k];
    if (!then.empty()) way.text += ".";
    return true;
  }

  void withhold(const std::string& id) {
    for (auto& f : m_a.findings)
      if (f.identity() == id) f.repair.reset();
  }
};

}  // namespace

void explain(Analysis& analysis, const harness::Harness& harness, const parts::Library& library, const Options& options) {
  Explaining(analysis, harness, library, options).run();
}

}  // namespace bold
