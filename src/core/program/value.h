#pragma once

#include <deque>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/program/code.h"
#include "core/program/number_type.h"

/// What is known of a value while a program is followed. What is not known says why.
namespace bold::program {

struct Value;
struct Object;

/// A list's members keep their places in memory while it grows.
using Items = std::deque<Value>;

struct Value {
  enum class Kind {
    Unknown,  ///< text: why
    None,
    Number,
    Text,
    List,
    Object,    ///< made of a class, or a mapping
    Function,  ///< of the program; object: whose method it is
    Class,     ///< of the program
    Public,    ///< text: a name that the program uses and does not define
    Either,    ///< one of the items, nobody knows which
    Bits,      ///< a register as it is, with some bits set, cleared or turned
    Deferred   ///< a call that is made once somebody waits for it; code: the function; object: what it is given
  };
  Kind kind = Kind::Unknown;
  bool whole = false;  ///< of a number: divides as whole numbers do
  double number = 0;
  NumberType type{};  ///< of a number, or of what is not known and would be one
  std::string text;
  std::shared_ptr<Items> items;
  std::shared_ptr<Object> object;
  const Code* code = nullptr;
  std::uint64_t set = 0, cleared = 0, flipped = 0;  ///< of Bits
  int shift = 0;
  int within = -1;   ///< of a function: the run of another that it stands in, whose names it sees; -1: none
  Place digits;      ///< of a number that stands in the source as it is: where
  std::string name;  ///< what the source calls it

  bool known() const { return kind != Kind::Unknown && kind != Kind::Either; }
  bool isNumber() const { return kind == Kind::Number; }
};

struct Object {
  std::string type;            ///< class of the program, or a public name; empty: a mapping
  const Code* code = nullptr;  ///< its class in the program
  std::map<std::string, Value> fields;
  std::map<std::string, Value> facts;  ///< of a public class: what it was made with, by role
  int number = 0;                      ///< of its making
  Place place;
  bool gone = false;  ///< released
};

std::shared_ptr<Items> newItems(Items items = {});
std::shared_ptr<Object> newObject();
Value number(double n, bool whole = true);
Value words(std::string text);
Value unknown(std::string why);
Value list(Items items);
Value publicName(std::string path);
/// One of the two; the one where they are equal. More than kMostChoices: unknown.
Value either(const Value& a, const Value& b);
inline constexpr std::size_t kMostChoices = 64;
inline constexpr std::size_t kLongest = 4096;  ///< of lists and texts: longer ones are not known

bool same(const Value& a, const Value& b);
/// Nothing where it is not known, or several choices disagree.
std::optional<bool> truth(const Value& v);
/// Every value that it may be: one, or the choices.
std::vector<Value> choices(const Value& v);
/// How much there is to look at where it is held against another.
inline long costOf(const Value& v) {
  return v.kind == Value::Kind::Either ? static_cast<long>(v.items->size()) : 1;
}
/// As the key of a mapping.
std::string keyOf(const Value& v);

/// The operators of C ("+", "<<", "&&"), and of Python ("//", "**", "in"); floor: division as Python does it.
Value operated(std::string_view op, const Value& a, const Value& b, bool python);
Value negated(std::string_view op, const Value& v);
/// What a set holds, in an order that is not known: text "set".
Value setOf(std::vector<Value> all);
/// As a variable of that type keeps it: numbers wrap round, what is not known stays so.
Value inType(Value v, const NumberType& type);

}  // namespace bold::program
