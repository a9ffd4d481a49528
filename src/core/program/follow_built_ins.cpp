#include <algorithm>
#include <cmath>

#include "core/base/number.h"
#include "core/program/follower.h"

namespace bold::program {
namespace {
constexpr double kMostRange = 8192;  // of range(): longer ones are not gone through

// By numbers or by texts; a list in an order that cannot be told where it is by anything else.
Value sorted(std::vector<Value> all, const std::vector<Argument>& given) {
  bool backwards = false, by = false;
  for (const auto& g : given) {
    if (g.keyword == "reverse") backwards = truth(g.value).value_or(false);
    if (g.keyword == "key") by = true;
  }
  const bool numbers = std::ranges::all_of(all, [](const Value& v) { return v.isNumber(); });
  const bool texts = std::ranges::all_of(all, [](const Value& v) { return v.kind == Value::Kind::Text; });
  if (!by && numbers) std::ranges::stable_sort(all, {}, &Value::number);
  if (!by && texts) std::ranges::stable_sort(all, {}, &Value::text);
  if (backwards) std::ranges::reverse(all);
  auto out = list(Items(all.begin(), all.end()));
  if (by || (!numbers && !texts)) out.text = "set";
  return out;
}

}  // namespace

std::optional<Value> Follower::listMethod(const Value& of, std::string_view name, const std::vector<Argument>& given) {
  if (of.kind == Value::Kind::List) {
    if (name == "size" || name == "length") return number(static_cast<double>(of.items->size()));
    if (name == "append" || name == "push_back" || name == "emplace_back" || name == "add") {
      if (!given.empty() && of.items->size() < 4096) of.items->push_back(given.front().value);
      return Value{};
    }
    if (name == "extend" && !given.empty()) {
      if (const auto more = gone(given.front().value))
        for (const auto& m : *more)
          if (of.items->size() < 4096) of.items->push_back(m);
      return Value{};
    }
    if (name == "sort") {
      const auto in = sorted({of.items->begin(), of.items->end()}, given);
      *of.items = *in.items;
      return Value{};
    }
    if (name == "index" && !given.empty())
      for (std::size_t k = 0; k < of.items->size(); ++k)
        if (same((*of.items)[k], given.front().value)) return number(static_cast<double>(k));
    if (name == "reverse") {
      std::ranges::reverse(*of.items);
      return Value{};
    }
    if (name == "begin" || name == "copy" || name == "data") return of;
    if (name == "at" && given.size() == 1) return item(of, given.front().value);
    return std::nullopt;
  }
  if (of.kind == Value::Kind::Object && of.object->type.empty()) {
    if (name == "items" || name == "values" || name == "keys") {
      Items out;
      for (const auto& [key, v] : of.object->fields) {
        const auto k = key.starts_with('\'') ? words(key.substr(1)) : number(realOf(key).value_or(0));
        out.push_back(name == "keys" ? k : name == "values" ? v : list({k, v}));
      }
      return list(std::move(out));
    }
    if (name == "get" && !given.empty()) {
      const auto it = of.object->fields.find(keyOf(given.front().value));
      if (it != of.object->fields.end()) return it->second;
      return given.size() > 1 ? given[1].value : unknown("the mapping may have no such key");
    }
  }
  return std::nullopt;
}

// What every language of these brings along.
std::optional<Value> Follower::builtIn(std::string_view name, const std::vector<Argument>& given, Scope& scope) {
  const auto n = [&](std::size_t k) {
    return k < given.size() && given[k].value.isNumber() ? std::optional(given[k].value.number) : std::nullopt;
  };
  const auto first = [&] { return given.empty() ? Value{} : given.front().value; };
  if (scope.intBits > 0 && given.size() == 1 && (first().isNumber() || first().kind == Value::Kind::Either))
    if (const auto type = numberType(name, scope.intBits)) return inType(first(), *type);
  if (name == "int" || name == "long" || name == "float" || name == "double" || name == "bool" || name == "byte" || name == "round" ||
      name == "uint8_t" || name == "uint16_t" || name == "uint32_t" || name == "floor" || name == "math.floor") {
    if (given.empty()) return number(0);
    auto v = first();
    if (v.kind == Value::Kind::Text && name == "int") {
      const auto parsed = wholeOf(v.text);
      return parsed ? number(static_cast<double>(*parsed)) : unknown("a text that is no whole number");
    }
    if (!v.isNumber()) return v;
    const bool real = name == "float" || name == "double";
    if (real) v.whole = false;
    if (!real && v.number != std::floor(v.number)) {
      v.number = name == "round" ? std::round(v.number) : name.ends_with("floor") ? std::floor(v.number) : std::trunc(v.number);
      v.digits = {};
    }
    if (!real) v.whole = true;
    return v;
  }
  if (name == "abs" || name == "fabs") return n(0) ? number(std::abs(*n(0)), first().whole) : first();
  if (name == "min" || name == "max") {
    std::vector<Value> all;
    for (const auto& g : given) all.push_back(g.value);
    if (all.size() == 1)
      if (const auto inside = gone(all.front())) all = *inside;
    std::optional<double> out;
    for (const auto& v : all) {
      if (!v.isNumber()) return unknown("the least or greatest of what is not known");
      out = !out ? v.number : name == "min" ? std::min(*out, v.number) : std::max(*out, v.number);
    }
    return out ? number(*out, false) : unknown("the least or greatest of nothing");
  }
  if (name == "constrain" && given.size() == 3) {
    if (n(0) && n(1) && n(2)) return number(std::clamp(*n(0), std::min(*n(1), *n(2)), std::max(*n(1), *n(2))), first().whole);
    return n(1) && n(2) ? either(given[1].value, given[2].value) : Value(unknown("a value that is kept within bounds"));
  }
  if (name == "map" && given.size() == 5 && !scope.python) {
    if (n(0) && n(1) && n(2) && n(3) && n(4) && *n(1) != *n(2))
      return number(std::trunc((*n(0) - *n(1)) * (*n(4) - *n(3)) / (*n(2) - *n(1)) + *n(3)));
    return n(3) && n(4) ? either(given[3].value, given[4].value) : Value(unknown("a value that is scaled"));
  }
  if (name == "pow" && n(0) && n(1)) return number(std::pow(*n(0), *n(1)), first().whole);
  if (!scope.python) return std::nullopt;
  if (name == "getattr" && given.size() >= 2 && given[1].value.kind == Value::Kind::Text && first().kind == Value::Kind::Object &&
      first().object->code) {  // of a thing of the program's own, by a name that is known
    Code called;
    called.text = given[1].value.text;
    return member(first(), called, scope);
  }
  if (name == "range") {
    if (given.empty() || given.size() > 3) return unknown("how far it goes is not known");
    const double from = given.size() > 1 ? n(0).value_or(NAN) : 0, to = n(given.size() > 1 ? 1 : 0).value_or(NAN),
                 by = given.size() > 2 ? n(2).value_or(NAN) : 1;
    if (std::isnan(from + to + by) || by == 0 || std::abs((to - from) / by) > kMostRange) return unknown("how far it goes is not known");
    Items out;
    for (int k = 0; by > 0 ? from + k * by < to : from + k * by > to; ++k) out.push_back(number(from + k * by));
    m_steps += static_cast<long>(out.size()) / kMembersAStep;
    return list(std::move(out));
  }
  if (name == "len") {
    const auto inside = gone(first());
    if (first().kind == Value::Kind::Text) return number(static_cast<double>(first().text.size()));
    return inside ? number(static_cast<double>(inside->size())) : unknown("how long it is is not known");
  }
  if (name == "list" || name == "tuple" || name == "sorted" || name == "set" || name == "frozenset" || name == "reversed" ||
      name == "iter" || name == "cycle" || name == "itertools.cycle") {
    if (given.empty()) return list({});
    auto inside = gone(first());
    if (!inside) return unknown("what is gone through is not known");
    if (name == "reversed") std::ranges::reverse(*inside);
    if (name == "sorted") return sorted(std::move(*inside), given);
    if (name.ends_with("set")) return setOf(std::move(*inside));
    auto out = list(Items(inside->begin(), inside->end()));
    if (first().text == "set" || first().text == "endless") out.text = first().text;
    return out;
  }
  if (name == "dict") {
    if (!given.empty() && given.front().keyword.empty()) return first();
    Value v;
    v.kind = Value::Kind::Object;
    v.object = newObject();
    for (const auto& g : given) v.object->fields["'" + g.keyword] = g.value;
    return v;
  }
  if (name == "enumerate") {
    const auto inside = gone(first());
    if (!inside) return unknown("what is gone through is not known");
    Items out;
    double k = n(1).value_or(0);
    for (const auto& v : *inside) out.push_back(list({number(k++), v}));
    return list(std::move(out));
  }
  if (name == "zip") {
    std::vector<std::vector<Value>> columns;
    for (const auto& g : given) {
      auto inside = gone(g.value);
      if (!inside) return unknown("what is gone through is not known");
      columns.push_back(std::move(*inside));
    }
    const auto shortest = std::ranges::min_element(columns, {}, &std::vector<Value>::size);
    Items out;
    for (std::size_t k = 0; shortest != columns.end() && k < shortest->size(); ++k) {
      Items row;
      for (const auto& c : columns) row.push_back(c[k]);
      out.push_back(list(std::move(row)));
    }
    return list(std::move(out));
  }
  if (name == "sum") {
    const auto inside = gone(first());
    double sum = 0;
    if (!inside) return unknown("what is added is not known");
    for (const auto& v : *inside) {
      if (!v.isNumber()) return unknown("what is added is not known");
      sum += v.number;
    }
    return number(sum);
  }
  if (name == "exit" || name == "quit" || name == "sys.exit" || name == "os._exit") {
    m_pending = Flow::Exit;
    return Value{};
  }
  if (name == "map" && given.size() == 2) {
    const auto inside = gone(given[1].value);
    if (!inside) return unknown("what is gone through is not known");
    Items out;
    Code at;
    for (const auto& v : *inside) out.push_back(callValue(given[0].value, {{"", v}}, at, scope));
    return list(std::move(out));
  }
  if (name == "print" || name == "input" || name == "str" || name == "isinstance" || name == "type" || name == "open")
    return unknown("what it gives is not known");
  return std::nullopt;
}

}  // namespace bold::program
