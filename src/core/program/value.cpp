#include "core/program/value.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

namespace bold::program {
namespace {

// What things hold is let go of in a loop, however deep they hold each other.
template <class T>
void letGo(T* thing) {
  thread_local std::vector<T*>* waiting = nullptr;
  if (waiting) return waiting->push_back(thing);
  std::vector<T*> all{thing};
  waiting = &all;
  while (!all.empty()) {
    const std::unique_ptr<T> one(all.back());
    all.pop_back();
  }
  waiting = nullptr;
}

constexpr int kMostCompared = 200;  // of two lists and what they hold

}  // namespace

std::shared_ptr<Items> newItems(Items items) {
  return {new Items(std::move(items)), letGo<Items>};
}
std::shared_ptr<Object> newObject() {
  return {new Object, letGo<Object>};
}

Value number(double n, bool whole) {
  Value v;
  v.kind = Value::Kind::Number;
  v.number = n;
  v.whole = whole;
  return v;
}
Value words(std::string text) {
  Value v;
  v.kind = Value::Kind::Text;
  v.text = std::move(text);
  return v;
}
Value unknown(std::string why) {
  Value v;
  v.text = std::move(why);
  return v;
}
Value list(Items items) {
  Value v;
  v.kind = Value::Kind::List;
  v.items = newItems(std::move(items));
  return v;
}
Value publicName(std::string path) {
  Value v;
  v.kind = Value::Kind::Public;
  v.text = std::move(path);
  return v;
}

namespace {

// Lists that hold each other are compared as far as the budget goes: what is not seen to be the same is not.
bool sameWithin(const Value& a, const Value& b, int& budget, int depth) {
  if (a.kind != b.kind || --budget < 0 || depth > 64) return false;
  const auto each = [&] {
    return std::ranges::equal(*a.items, *b.items, [&](const Value& x, const Value& y) { return sameWithin(x, y, budget, depth + 1); });
  };
  switch (a.kind) {
    case Value::Kind::Number:
      return a.number == b.number && a.name == b.name;
    case Value::Kind::Text:
    case Value::Kind::Public:
      return a.text == b.text;
    case Value::Kind::List:
      return a.items == b.items || (a.items->size() == b.items->size() && a.items->size() <= kMostChoices && each());
    case Value::Kind::Either:
      return a.items == b.items || (a.items->size() == b.items->size() && each());
    case Value::Kind::Object:
      return a.object == b.object;
    case Value::Kind::Function:
    case Value::Kind::Deferred:
      return a.code == b.code && a.object == b.object && a.within == b.within;
    case Value::Kind::Class:
      return a.code == b.code;
    case Value::Kind::Bits:
      return a.text == b.text && a.set == b.set && a.cleared == b.cleared && a.flipped == b.flipped;
    case Value::Kind::None:
    case Value::Kind::Unknown:
      return true;
  }
  return false;
}

}  // namespace

bool same(const Value& a, const Value& b) {
  int budget = kMostCompared;
  return sameWithin(a, b, budget, 0);
}

std::vector<Value> choices(const Value& v) {
  return v.kind == Value::Kind::Either ? std::vector<Value>(v.items->begin(), v.items->end()) : std::vector<Value>{v};
}

Value either(const Value& a, const Value& b) {
  if (same(a, b)) return a;
  if (a.kind == Value::Kind::Unknown || b.kind == Value::Kind::Unknown) {
    // What may be known and may be not is what is known, and not for certain.
    if (a.kind == b.kind) return a;
  }
  Value out;
  out.kind = Value::Kind::Either;
  out.items = newItems();
  for (const auto* side : {&a, &b})
    for (auto& c : choices(*side))
      if (std::ranges::none_of(*out.items, [&](const Value& x) { return same(x, c); })) out.items->push_back(std::move(c));
  if (a.type == b.type) out.type = a.type;
  return out.items->size() > kMostChoices ? unknown("it may be very many things") : out;
}

std::optional<bool> truth(const Value& v) {
  switch (v.kind) {
    case Value::Kind::None:
      return false;
    case Value::Kind::Number:
      return v.number != 0;
    case Value::Kind::Text:
      return !v.text.empty();
    case Value::Kind::List:
      return !v.items->empty();
    case Value::Kind::Either: {
      std::optional<bool> out;
      for (const auto& c : *v.items) {
        const auto t = truth(c);
        if (!t || (out && *out != *t)) return std::nullopt;
        out = t;
      }
      return out;
    }
    case Value::Kind::Object:
    case Value::Kind::Function:
    case Value::Kind::Class:
      return true;
    default:
      return std::nullopt;
  }
}

std::string keyOf(const Value& v) {
  if (v.kind == Value::Kind::Number) return fmt::format("{:g}", v.number);
  if (v.kind == Value::Kind::Text || v.kind == Value::Kind::Public) return "'" + v.text;
  if (v.kind == Value::Kind::None) return "None";
  return {};
}

namespace {

constexpr double kMostWhole = 9e15;

std::optional<Value> onNumbers(std::string_view op, const Value& a, const Value& b, bool python) {
  const double x = a.number, y = b.number;
  const bool whole = a.whole && b.whole;
  const auto truthOf = [](bool t) { return number(t); };
  if (op == "+") return number(x + y, whole);
  if (op == "-") return number(x - y, whole);
  if (op == "*") return number(x * y, whole);
  if (op == "/") {
    if (y == 0) return std::nullopt;
    return whole && !python ? number(std::trunc(x / y)) : number(x / y, false);
  }
  if (op == "//") return y == 0 ? std::nullopt : std::optional(number(std::floor(x / y), whole));
  if (op == "%") {
    if (y == 0) return std::nullopt;
    const double r = std::fmod(x, y);
    return number(python && r != 0 && (r < 0) != (y < 0) ? r + y : r, whole);
  }
  if (op == "**") return number(std::pow(x, y), whole && y >= 0);
  if (op == "==") return truthOf(x == y);
  if (op == "!=") return truthOf(x != y);
  if (op == "<") return truthOf(x < y);
  if (op == ">") return truthOf(x > y);
  if (op == "<=") return truthOf(x <= y);
  if (op == ">=") return truthOf(x >= y);
  if (std::abs(x) > kMostWhole || std::abs(y) > kMostWhole || std::isnan(x) || std::isnan(y)) return std::nullopt;
  const auto i = static_cast<long long>(x), k = static_cast<long long>(y);
  if (op == "&") return number(static_cast<double>(i & k));
  if (op == "|") return number(static_cast<double>(i | k));
  if (op == "^") return number(static_cast<double>(i ^ k));
  if (op == "<<") return k >= 0 && k < 53 ? std::optional(number(x * std::pow(2, k))) : std::nullopt;
  if (op == ">>") return k >= 0 && k < 63 ? std::optional(number(static_cast<double>(i >> k))) : std::nullopt;
  return std::nullopt;
}

std::uint64_t bitsOf(const Value& v) {
  return v.number < 0 ? static_cast<std::uint64_t>(static_cast<std::int64_t>(v.number)) : static_cast<std::uint64_t>(v.number);
}

// A register with a mask: what becomes of its bits.
std::optional<Value> onBits(std::string_view op, Value bits, const Value& other) {
  if (!other.isNumber() || std::abs(other.number) > kMostWhole) return std::nullopt;
  const auto n = bitsOf(other);
  if (op == ">>" && other.number >= 0 && other.number < 32) {
    bits.shift += static_cast<int>(n);
    return bits;
  }
  if (op == "|") {
    bits.set |= n;
    bits.cleared &= ~n;
    bits.flipped &= ~n;
  } else if (op == "&") {
    bits.cleared |= ~n;
    bits.set &= n;
    bits.flipped &= n;
  } else if (op == "^")
    bits.flipped ^= n;
  else
    return std::nullopt;
  return bits;
}

}  // namespace

// Each once. Python does not say in which order a set is gone through.
Value setOf(std::vector<Value> all) {
  Items out;
  for (auto& v : all)
    if (std::ranges::none_of(out, [&](const Value& x) { return same(x, v) || (x.isNumber() && v.isNumber() && x.number == v.number); }))
      out.push_back(std::move(v));
  auto v = list(std::move(out));
  v.text = "set";
  return v;
}

Value inType(Value v, const NumberType& type) {
  if (!type.stated()) return v;
  if (v.kind == Value::Kind::Either) {
    std::optional<Value> out;
    for (auto& c : choices(v)) {
      const auto one = inType(std::move(c), type);
      out = out ? either(*out, one) : one;
    }
    v = std::move(*out);
  } else if (v.isNumber()) {
    const auto is = kept(v.number, type);
    if (is != v.number) v.digits = {};  // it stands nowhere in the source
    v.number = is;
    v.whole = !type.real;
  }
  v.type = type;
  return v;
}

Value operated(std::string_view op, const Value& a, const Value& b, bool python) {
  if (op == "&&" || op == "||") {
    const auto t = truth(a), u = truth(b);
    const bool decides = op == "||";
    if ((t && *t == decides) || (u && *u == decides)) return python ? (t && *t == decides ? a : b) : number(decides);
    if (t && u) return python ? b : number(!decides);
    return unknown("a condition that is not known");
  }
  if (a.kind == Value::Kind::Bits || b.kind == Value::Kind::Bits) {
    const auto out = a.kind == Value::Kind::Bits ? onBits(op, a, b) : onBits(op, b, a);
    return out ? *out : unknown("what a register holds");
  }
  if (a.isNumber() && b.isNumber()) {
    auto out = onNumbers(op, a, b, python);
    if (!out) return unknown("it can not be worked out");
    const bool compares = op == "==" || op == "!=" || op == "<" || op == ">" || op == "<=" || op == ">=";
    if (!python && !compares) *out = inType(*out, op == "<<" || op == ">>" ? calculatedIn(a.type, a.type) : calculatedIn(a.type, b.type));
    out->name = a.name.empty() ? b.name : a.name;
    return *out;
  }
  if (a.kind == Value::Kind::Either || b.kind == Value::Kind::Either) {
    const auto left = choices(a), right = choices(b);
    if (left.size() * right.size() > 4 * kMostChoices) return unknown("it may be very many things");
    std::optional<Value> out;
    for (const auto& x : left)
      for (const auto& y : right) {
        const auto one = operated(op, x, y, python);
        out = out ? either(*out, one) : one;
      }
    return *out;
  }
  if (op == "+" && a.kind == Value::Kind::Text && b.kind == Value::Kind::Text)
    return a.text.size() + b.text.size() > kLongest ? unknown("a text that is very long") : words(a.text + b.text);
  if (op == "+" && a.kind == Value::Kind::List && b.kind == Value::Kind::List) {
    if (a.items->size() + b.items->size() > kLongest) return unknown("a list that is very long");
    auto all = *a.items;
    all.insert(all.end(), b.items->begin(), b.items->end());
    return list(std::move(all));
  }
  if (op == "*" && a.kind == Value::Kind::List && b.isNumber() && b.number >= 0 &&
      b.number * static_cast<double>(a.items->size()) < kLongest) {
    Items all;
    for (int k = 0; k < static_cast<int>(b.number); ++k) all.insert(all.end(), a.items->begin(), a.items->end());
    return list(std::move(all));
  }
  if (!python && op == "+" && a.kind == Value::Kind::List && b.isNumber()) {  // a pointer into a list, for what is read through it
    const auto at = b.number;
    if (at < 0 || at >= static_cast<double>(a.items->size())) return unknown("it points outside of the list");
    return list(Items(a.items->begin() + static_cast<long>(at), a.items->end()));
  }
  if (op == "==" || op == "!=") {
    const bool comparable = a.known() && b.known() && a.kind != Value::Kind::Public && b.kind != Value::Kind::Public;
    if (comparable) return number(same(a, b) == (op == "=="));
  }
  if ((op == "in" || op == "not in") && b.kind == Value::Kind::List && a.known()) {
    if (std::ranges::all_of(*b.items, [](const Value& x) { return x.known(); }))
      return number(std::ranges::any_of(*b.items, [&](const Value& x) { return same(x, a); }) == (op == "in"));
  }
  if (a.kind == Value::Kind::Unknown) return a;
  if (b.kind == Value::Kind::Unknown) return b;
  return unknown("it can not be worked out");
}

Value negated(std::string_view op, const Value& v) {
  if (v.kind == Value::Kind::Either) {
    std::optional<Value> out;
    for (const auto& c : *v.items) {
      const auto one = negated(op, c);
      out = out ? either(*out, one) : one;
    }
    return *out;
  }
  if (op == "!") {
    const auto t = truth(v);
    return t ? number(!*t) : unknown("a condition that is not known");
  }
  if (!v.isNumber()) return v.kind == Value::Kind::Unknown ? v : unknown("it can not be worked out");
  const auto type = calculatedIn(v.type, v.type);
  if (op == "-") return inType(number(-v.number, v.whole), type);
  if (op == "~")
    return std::abs(v.number) < kMostWhole ? inType(number(static_cast<double>(~static_cast<long long>(v.number))), type)
                                           : unknown("a very large number");
  return v;
}

}  // namespace bold::program
