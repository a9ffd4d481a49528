#include "core/harness/differences.h"

#include <fmt/core.h>

#include <nlohmann/json.hpp>

#include "core/base/by_id.h"
#include "core/harness/write_entry.h"

namespace bold::harness {
namespace {

std::string called(const Harness&, const Device& d) {
  return fmt::format("{} ({})", d.called(), d.part);
}
std::string called(const Harness&, const Connection& c) {
  const auto* kind = c.kind == ConnectionKind::Wire ? "wire" : c.kind == ConnectionKind::Plug ? "plug" : "jumper";
  return fmt::format("the {} {} – {}", kind, c.a.text(), c.b.text());
}
std::string motorOf(const Harness& h, const std::string& id) {
  const auto* motor = h.device(id);
  return motor ? motor->called() : id;
}
std::string called(const Harness& h, const Goal& g) {
  return fmt::format("what {} is meant to do", motorOf(h, g.motor));
}
std::string called(const Harness& h, const Assignment& a) {
  return fmt::format("the pin for {} of {}", a.role, motorOf(h, a.motor));
}
std::string called(const Harness& h, const ProgramFacts& p) {
  return fmt::format("what the program does with {}", motorOf(h, p.motor));
}

std::string called(const Harness& h, const SourceRead& s) {
  return fmt::format("what was read of the program of {}", motorOf(h, s.controller));
}

std::string called(const Harness& h, const Mark& m) {
  const auto* c = h.connection(m.wire);
  return fmt::format("the mark \"{}\" on {}", word(m.what), c ? called(h, *c) : m.wire);
}
std::string called(const Harness&, const Round& r) {
  return fmt::format("the read-back of {}", r.reader.empty() ? r.id : r.reader);
}

// By what would be written: the one form in which no field can be forgotten.
template <class T>
std::map<std::string, Json> written(const std::vector<T>& entries) {
  std::map<std::string, Json> out;
  for (const auto& e : entries) out.emplace(e.id, parsedJson(entryText(e, 0)));
  return out;
}

void say(std::string& out, const std::string& what, const std::string& now, const std::string& was) {
  if (now != was)
    out += fmt::format("{}{}{}, was {}", out.empty() ? ": " : "; ", what, now.empty() ? "not given" : now, was.empty() ? "not given" : was);
}

// What it is now and was before, as far as a line can say it; empty: something else.
std::string how(const Connection& was, const Connection& is) {
  std::string out;
  if (is.a != was.a || is.b != was.b) out = fmt::format(": it was {} – {}", was.a.text(), was.b.text());
  say(out, "", is.colour, was.colour);
  const auto gauge = [](const Connection& c) { return c.gauge ? fmt::format("{} AWG", *c.gauge) : std::string(); };
  const auto length = [](const Connection& c) { return c.length ? fileText(*c.length) : std::string(); };
  say(out, "", gauge(is), gauge(was));
  say(out, "", length(is), length(was));
  return out;
}
std::string how(const Device& was, const Device& is) {
  std::string out;
  if (is.part != was.part) out = fmt::format(": it was {}", was.part);
  say(out, "called ", is.name, was.name);
  const auto each = [&](const auto& now, const auto& before, auto text) {
    for (const auto& [id, value] : now) {
      const auto it = before.find(id);
      say(out, id + " ", text(value), it == before.end() ? std::string() : text(it->second));
    }
    for (const auto& [id, value] : before)
      if (!now.contains(id)) say(out, id + " ", {}, text(value));
  };
  each(is.settings, was.settings, [](const SettingValue& s) { return s.planned.empty() ? s.value : s.value + ", to be " + s.planned; });
  each(is.overrides, was.overrides, [](const std::string& s) { return s; });
  return out;
}
template <class T>
std::string how(const T&, const T&) {
  return {};
}

// How often each text stands among what could not be read.
std::map<std::string, int> unread(const Harness& h) {
  std::map<std::string, int> out;
  for (const auto& u : h.unread) ++out[u.raw->text];
  return out;
}

class Comparing {
 public:
  Comparing(const Harness& from, const Harness& to) : m_from(from), m_to(to) {}

  std::vector<std::string> run() {
    if (m_from.title != m_to.title) m_out.push_back(fmt::format("the title is \"{}\"", m_to.title));
    if (m_from.names != m_to.names) m_out.emplace_back("pins are shown in another numbering");
    if (m_from.ambient != m_to.ambient) m_out.emplace_back("the ambient temperature is changed");
    compare(m_from.devices, m_to.devices);
    compare(m_from.connections, m_to.connections);
    compare(m_from.goals, m_to.goals);
    compare(m_from.assignments, m_to.assignments);
    compare(m_from.program, m_to.program);
    compare(m_from.sources, m_to.sources);
    compare(m_from.marks, m_to.marks);
    compare(m_from.rounds, m_to.rounds);
    if (unread(m_from) != unread(m_to)) m_out.emplace_back("what could not be read is changed");
    return std::move(m_out);
  }

 private:
  const Harness &m_from, &m_to;
  std::vector<std::string> m_out;

  template <class T>
  void compare(const std::vector<T>& from, const std::vector<T>& to) {
    const auto before = written(from);
    const auto after = written(to);
    for (const auto& x : to) {
      const auto old = before.find(x.id);
      if (old == before.end())
        m_out.push_back(called(m_to, x) + " is new");
      else if (old->second != after.at(x.id))
        m_out.push_back(called(m_to, x) + " is changed" + how(*byId(from, x.id), x));
    }
    for (const auto& x : from)
      if (!byId(to, x.id)) m_out.push_back(called(m_from, x) + " is gone");
  }
};

}  // namespace

std::vector<std::string> differences(const Harness& from, const Harness& to) {
  return Comparing(from, to).run();
}

}  // namespace bold::harness
