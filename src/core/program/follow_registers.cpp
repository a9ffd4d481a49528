#include <algorithm>

#include "core/program/follower.h"

namespace bold::program {
namespace {

struct Match {
  char letter = 0;
  int n = -1;
};

// "PORT{P}bits.R{P}{n}" against a path; "->" and "." are one.
std::optional<Match> matched(const std::string& pattern, const std::string& path) {
  Match out;
  std::size_t at = 0;
  for (std::size_t k = 0; k < pattern.size(); ++k) {
    if (pattern.compare(k, 3, "{P}") == 0) {
      if (at >= path.size() || !std::isupper(static_cast<unsigned char>(path[at])) || (out.letter && out.letter != path[at]))
        return std::nullopt;
      out.letter = path[at++];
      k += 2;
    } else if (pattern.compare(k, 3, "{n}") == 0) {
      if (at >= path.size() || !std::isdigit(static_cast<unsigned char>(path[at]))) return std::nullopt;
      out.n = 0;
      while (at < path.size() && std::isdigit(static_cast<unsigned char>(path[at])) && out.n < 1000)
        out.n = out.n * 10 + (path[at++] - '0');
      k += 2;
    } else if (at >= path.size() || path[at++] != pattern[k])
      return std::nullopt;
  }
  return at == path.size() ? std::optional(out) : std::nullopt;
}

std::string pinName(const std::string& pattern, char letter, int n) {
  std::string out;
  for (std::size_t k = 0; k < pattern.size(); ++k) {
    if (pattern.compare(k, 3, "{P}") == 0) {
      out += letter;
      k += 2;
    } else if (pattern.compare(k, 3, "{n}") == 0) {
      out += std::to_string(n);
      k += 2;
    } else
      out += pattern[k];
  }
  return out;
}

}  // namespace

// Of a timer that never lets a compare register have its pin, as those that only count.
void Follower::dropOwnless() {
  for (auto& e : m_out.events)
    for (const auto& i : m_calls.interfaces)
      for (const auto& c : i.compares) {
        const auto set = m_everSet.find(c.control);
        if (!e.call && e.does == "pwm" && c.name == e.called && set != m_everSet.end() && (set->second & c.bits) == 0) e.pins.clear();
      }
}

std::optional<Value> Follower::readRegister(const std::string& path) {
  if (m_everSet.contains(path))
    if (const auto it = m_units.find("register " + path); it != m_units.end()) return it->second["value"];
  if (m_noRegister.contains(path)) return std::nullopt;
  for (const auto& i : m_calls.interfaces)
    for (const auto& r : i.registers) {
      const auto m = matched(r.pattern, path);
      if (!m || r.is == "set" || r.is == "clear") continue;
      if (m->n >= 0) continue;  // one bit: a plain name
      Value v;
      v.kind = Value::Kind::Bits;
      v.text = path;
      return v;
    }
  m_noRegister.insert(path);
  return std::nullopt;
}

// One pin of a register takes a level, a direction, or is turned over.
void Follower::bit(const Register& r, char letter, int n, const std::string& path, const Value& value, const Code& at, bool turned) {
  Event e;
  e.called = path;
  e.place = at.place;
  const auto pin = pinName(r.pin, letter, n);
  const bool number_ = !pin.empty() && std::ranges::all_of(pin, [](unsigned char c) { return std::isdigit(c); });
  e.pins = {{pin, number_ ? "program" : "name", "", "", {}, "", false}};
  if (r.is == "direction") {
    const auto out = truth(value);
    e.does = "mode";
    e.facts["mode"] = out ? words((*out ? 1 : 0) == r.output ? "output" : "input") : unknown("its direction is not known");
  } else if (turned || r.is == "toggle") {
    e.does = "toggle";
  } else {
    e.does = "write";
    e.facts["level"] = value;
  }
  const auto t = truth(value);
  if (r.is != "direction" || !t || (*t ? 1 : 0) == r.output)
    m_registersSeen.insert(pin);  // an input stays one, whatever is written to its port
  happens(std::move(e));
}

bool Follower::setRegister(const std::string& path, const Value& value, const Code& at) {
  for (const auto& i : m_calls.interfaces) {
    for (const auto& c : i.compares) {
      if (c.name != path) continue;
      Event e;
      e.does = "pwm";
      e.called = path;
      e.place = at.place;
      e.pins = {{path, "register", "", "", {}, "", false}};
      e.facts["duty"] = value;
      const auto top = m_units.find("register ICR" + path.substr(3, 1));
      if (top != m_units.end())
        e.facts["scale"] = top->second["value"];
      else if (c.scale > 0)
        e.facts["scale"] = number(c.scale);
      happens(std::move(e));
      return true;
    }
    for (const auto& r : i.registers) {
      const auto m = matched(r.pattern, path);
      if (!m) continue;
      if (m->n >= 0) {
        bit(r, m->letter, m->n, path, value, at);
        return true;
      }
      const bool own = value.kind == Value::Kind::Bits && value.text == path;
      if (!own && (!value.isNumber() || value.number > 9e15 || value.number < -9e15)) {
        std::vector<Value> all = choices(value);
        if (all.size() > 1 && std::ranges::all_of(all, [](const Value& v) { return v.isNumber(); })) {
          ++m_unsure;
          for (const auto& v : all) (void)setRegister(path, v, at);
          --m_unsure;
          return true;
        }
        if (known(at.place)) return true;
        m_seen.emplace(at.place.file, at.place.begin);
        m_out.unknown.push_back(
            {path, at.place, {{"", "name", value.text.empty() ? "what is put into it is not known" : value.text, "", {}, "", false}}});
        return true;
      }
      const auto bits = own ? value.set : static_cast<std::uint64_t>(static_cast<std::int64_t>(value.number));
      for (int n = 0; n < r.bits; ++n) {
        const bool set = bits >> n & 1;
        const bool cleared = own ? value.cleared >> n & 1 : !set;
        const bool turned = own && (value.flipped >> n & 1);
        const auto pin = pinName(r.pin, m->letter, n);
        if (r.is == "clear-set") {  // sets by the lower half, clears by the upper
          Register level = r;
          level.is = "level";
          if (set) bit(level, m->letter, n, path, number(1), at);
          if (!set && (bits >> (n + r.bits) & 1)) bit(level, m->letter, n, path, number(0), at);
        } else if (r.is == "set" || r.is == "clear") {
          Register level = r;
          level.is = "level";
          if (set) bit(level, m->letter, n, path, number(r.is == "set"), at);
        } else if (r.is == "toggle" || r.is == "input") {
          Register level = r;
          level.is = "toggle";
          if (set) bit(level, m->letter, n, path, number(1), at);
        } else if (turned) {
          bit(r, m->letter, n, path, number(1), at, true);
        } else if (set) {
          bit(r, m->letter, n, path, number(1), at);
        } else if (cleared && (own || m_registersSeen.contains(pin) || (r.is == "direction" && r.output == 0))) {
          bit(r, m->letter, n, path, number(0), at);
        }
      }
      return true;
    }
  }
  if (path.size() > 3 && path.size() < 12) {  // ICR1 and the like
    m_units["register " + path]["value"] = value;
    auto& all = m_everSet[path];
    all |= value.isNumber() && value.number >= 0 && value.number < 9e15 ? static_cast<std::uint64_t>(value.number) : ~std::uint64_t{0};
  }
  return false;
}

// Which bits of a register are asked for.
void Follower::readBits(const Value& v, const Code& at) {
  if (v.kind != Value::Kind::Bits) return;
  for (const auto& i : m_calls.interfaces)
    for (const auto& r : i.registers) {
      const auto m = matched(r.pattern, v.text);
      if (!m || m->n >= 0 || (r.is != "input" && !r.reads)) continue;
      const auto mask = ~v.cleared << v.shift;
      if (v.cleared == 0) continue;  // all of it: none in particular
      for (int n = 0; n < r.bits; ++n) {
        if (!(mask >> n & 1)) continue;
        Event e;
        e.does = "read";
        e.called = v.text;
        e.place = at.place;
        e.pins = {{pinName(r.pin, m->letter, n), "name", "", "", {}, "", false}};
        happens(std::move(e));
      }
    }
}

}  // namespace bold::program
