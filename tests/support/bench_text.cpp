#include "support/bench_text.h"

#include <algorithm>
#include <set>
#include <sstream>
#include <stdexcept>

#include "core/base/number.h"
#include "core/harness/add_part.h"
#include "core/harness/intent.h"
#include "core/harness/remove_device.h"
#include "core/program/pins_used.h"

namespace bold::test {
namespace {

using namespace harness;

void forget(Harness& h, const std::string& motor) {
  const auto mine = [&](const auto& statement) { return statement.motor == motor; };
  std::erase_if(h.goals, mine);
  std::erase_if(h.assignments, mine);
  std::erase_if(h.program, mine);
}

class BenchText {
 public:
  BenchText(const parts::Library& library, const std::function<std::string(const std::string&)>& find) : m_library(library), m_find(find) {}

  void read(std::string_view text) {
    std::istringstream in{std::string(text)};
    for (std::string line; std::getline(in, line);) {
      m_line = line;
      if (line.starts_with('|')) {
        m_source += line.size() > 2 ? line.substr(2) + "\n" : "\n";
        continue;
      }
      program();
      std::istringstream words(line);
      std::vector<std::string> w;
      for (std::string x; words >> x;) w.push_back(x);
      if (w.empty() || w[0].starts_with('#')) continue;
      one(w);
    }
    program();
  }
  Harness take() { return std::move(m_harness); }

 private:
  const parts::Library& m_library;
  const std::function<std::string(const std::string&)>& m_find;
  Harness m_harness;
  std::string m_line;
  bool m_planned = false;
  std::string m_controller, m_file, m_source;  // of the program whose lines are read

  [[noreturn]] void wrong(const std::string& why) const { throw std::runtime_error("\"" + m_line + "\": " + why); }
  Address address(const std::string& s) const {
    auto a = parseAddress(s);
    if (!a) wrong(a.error().what);
    return *a;
  }
  std::string rest(const std::vector<std::string>& w, std::size_t from) const {
    std::string out;
    for (std::size_t i = from; i < w.size(); ++i) out += (i > from ? " " : "") + w[i];
    return out;
  }

  void one(const std::vector<std::string>& w) {
    const auto& verb = w[0];
    if (verb == "from")
      read(m_find(w.at(1)));
    else if (verb == "title")
      m_harness.title = rest(w, 1);
    else if (verb == "plan")
      m_planned = true;
    else if (verb == "part")
      part(w);
    else if (verb == "wire" || verb == "plug" || verb == "jumper")
      connection(w);
    else if (verb == "unwire")
      unwire(address(w.at(1)), address(w.at(2)));
    else if (verb == "move" || verb == "exchange")
      exchange(address(w.at(1)), address(w.at(2)), verb == "exchange");
    else if (verb == "swap")
      swap(w);
    else if (verb == "remove")
      remove(w.at(1));
    else if (verb == "set" || verb == "figure")
      value(w);
    else if (verb == "intent")
      intent(w);
    else if (verb == "program") {
      m_controller = w.at(1);
      m_file = w.at(2);
    } else
      wrong("no such line");
  }
  void program() {
    if (m_file.empty() || m_source.empty()) return;
    const auto* d = m_harness.device(m_controller);
    const auto part = d ? m_library.find(d->part) : nullptr;
    if (!part) wrong("no such controller");
    const auto read = program::readTexts({{m_file, m_source}}, d->part, program::shippedCalls());
    auto s = program::pinsUsed(read, m_controller, *part, program::shippedCalls());
    std::erase_if(m_harness.sources, [&](const SourceRead& x) { return x.controller == m_controller; });
    s.id = m_harness.freeId("source");
    for (auto& f : s.files) f.standing = Standing::AsRead;
    m_harness.sources.push_back(std::move(s));
    m_file.clear();
    m_source.clear();
  }
  void part(const std::vector<std::string>& w) {
    auto e = addPart(m_harness, m_library, w.at(2), w.at(1), rest(w, 3));
    if (!e) wrong(e.error().what);
    apply(m_harness, *e);
    if (m_planned)
      for (auto& d : m_harness.devices)
        if (d.id == w[1]) d.state = State::Planned;
  }
  void connection(const std::vector<std::string>& w) {
    Connection c;
    c.kind = w[0] == "wire" ? ConnectionKind::Wire : w[0] == "plug" ? ConnectionKind::Plug : ConnectionKind::Jumper;
    c.id = m_harness.freeId(w[0].substr(0, 1));
    c.a = address(w.at(1));
    c.b = address(w.at(2));
    if (m_planned) c.state = State::Planned;
    for (std::size_t i = 3; i < w.size(); ++i) {
      if (w[i].ends_with("AWG"))
        c.gauge = std::stoi(w[i]);
      else if (auto l = parse<Metres>(w[i]))
        c.length = *l;
      else if (w[i] == "mirrored")
        c.mirrored = true;
      else
        c.colour = w[i];
    }
    m_harness.connections.push_back(c);
  }
  void unwire(const Address& a, const Address& b) {
    const auto n =
        std::erase_if(m_harness.connections, [&](const Connection& c) { return (c.a == a && c.b == b) || (c.a == b && c.b == a); });
    if (n != 1) wrong("there is not exactly one such connection");
  }
  void exchange(const Address& a, const Address& b, bool bothWays) {
    bool any = false;
    for (auto& c : m_harness.connections)
      for (auto* end : {&c.a, &c.b}) {
        if (*end == a) {
          *end = b;
          any = true;
        } else if (bothWays && *end == b) {
          *end = a;
          any = true;
        }
      }
    if (!any) wrong("nothing ends there");
  }
  void swap(const std::vector<std::string>& w) {
    for (auto& d : m_harness.devices)
      if (d.id == w.at(1)) {
        d.part = w.at(2);
        d.overrides.clear();
        d.settings.clear();
      }
    for (auto& c : m_harness.connections)
      for (auto* end : {&c.a, &c.b}) {
        if (end->device != w[1]) continue;
        for (std::size_t i = 3; i < w.size(); ++i) {
          const auto eq = w[i].find('=');
          if (end->terminal == w[i].substr(0, eq)) {
            end->terminal = w[i].substr(eq + 1);
            break;
          }
        }
      }
  }
  void remove(const std::string& id) {
    if (m_harness.device(id))
      apply(m_harness, removeDevice(m_harness, id));
    else if (std::erase_if(m_harness.connections, [&](const Connection& c) { return c.id == id; }) == 0)
      wrong("nothing has this id");
  }
  void value(const std::vector<std::string>& w) {
    const auto a = address(w.at(1));
    for (auto& d : m_harness.devices) {
      if (d.id != a.device) continue;
      if (w[0] == "figure")
        d.overrides[a.terminal] = rest(w, 2);
      else if (m_planned)
        d.settings[a.terminal].planned = rest(w, 2);
      else
        d.settings[a.terminal] = {rest(w, 2), {}};
      return;
    }
    wrong("no such device");
  }
  void intent(const std::vector<std::string>& w) {
    Intent i;
    i.motor = w.at(1);
    for (std::size_t k = 2; k < w.size(); ++k) {
      const auto eq = w[k].find('=');
      const auto key = w[k].substr(0, eq);
      const auto v = eq == std::string::npos ? std::string() : w[k].substr(eq + 1);
      if (w[k] == "both")
        i.bothDirections = true;
      else if (w[k] == "speed")
        i.speedControl = true;
      else if (w[k] == "hold")
        i.hold = true;
      else if (key == "pwm")
        i.pwm = *parse<Hertz>(v);
      else if (w[k] == "ramp")
        i.ramp = true;
      else if (w[k] == "together")
        i.together = true;
      else if (key == "switched")
        i.switched = v == "hand" ? Switched::ByHand : v == "always" ? Switched::AlwaysOn : Switched::ByProgram;
      else if (key == "rate")
        i.rate = *parse<Hertz>(v);
      else if (key == "steps")
        i.stepsPerTurn = std::stoi(v);
      else if (key == "length")
        i.pulse = *parse<Seconds>(v);
      else if (key == "duty")
        i.dutyCap = realOf(v).value_or(0);
      else if (key == "forward" && v.find('.') == std::string::npos)
        i.forwardLead = v;
      else if (key == "stage")
        i.stage = v;
      else if (key == "channel")
        i.channel = v;
      else if (key == "sequence")
        i.sequence = v;
      else if (!v.empty())
        i.signals.push_back({key, address(v.ends_with('!') || v.ends_with('^') || v.ends_with('?') ? v.substr(0, v.size() - 1) : v),
                             v.ends_with('?') ? "" : "label",
                             v.ends_with('!')   ? Active::Low
                             : v.ends_with('^') ? Active::High
                                                : Active::Unsaid});
      else
        wrong("an intent has no \"" + w[k] + "\"");
    }
    forget(m_harness, i.motor);
    apply(m_harness, stating(m_harness, i, ""));
  }
};

}  // namespace

Harness readBenchText(std::string_view text, const parts::Library& library, const std::function<std::string(const std::string&)>& find) {
  BenchText t(library, find);
  t.read(text);
  return t.take();
}

}  // namespace bold::test
