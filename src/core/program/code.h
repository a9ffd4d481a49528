#pragma once

#include <string>
#include <vector>

#include "core/program/source_text.h"

/// What a source says, in one form for all languages: only as much of it as matters for what becomes of pins.
namespace bold::program {

struct Code {
  enum class Kind {
    // Expressions
    Number,   ///< number, whole; text: its suffix ("UL"), "0" before it where it is written in another base than ten
    Text,     ///< text
    Name,     ///< text
    Member,   ///< parts[0] . text
    Item,     ///< parts[0] [ parts[1] ]
    Call,     ///< parts[0] ( the others ); a keyword argument is a Keyword
    Keyword,  ///< text = parts[0]
    Unary,    ///< text: + - ~ ! & *
    Step,     ///< ++ and --; text "+" or "-", whole: the value is the old one
    Binary,   ///< text
    Assign,   ///< parts[0] text parts[1]: text "", an operator, or "init": parts from [1] on are what a member is made of
    Choose,   ///< parts: condition, then, else
    List,     ///< also tuples and braces; text "tuple" where it can not change
    Pairs,    ///< keys and values in turn
    Fields,   ///< braces with names: text of each part (Keyword) is the field
    New,      ///< text: class; parts: arguments; also Class name(arguments)
    Lambda,   ///< names: parameters; parts[0]: body
    Each,     ///< comprehension: names[0..], parts: value, what is gone through, condition (or nothing)
    Cast,     ///< parts[0] as text: a type
    Await,    ///< parts[0], which runs now
    Yield,    ///< parts[0] goes to whoever asks for the next; text "from": each of them
    None,
    // Statements
    Block,
    Declare,  ///< names[0]; text: type; parts[0]: value where given; whole: static (keeps its value); number 1: only points to it
    Array,    ///< as Declare; parts: value (or None), sizes
    If,       ///< parts: condition, then, else (Block)
    While,    ///< parts: condition, body, step; whole: the body comes first
    For,      ///< names: what is set; parts: what is gone through, body
    Goto,     ///< text: where to
    Define,   ///< text: name; names: parameters, "@async", "@generator"; parts: body, then default values (None: no default)
    Class,    ///< text: name; names: bases; parts: members (Define, Declare)
    Return,   ///< parts[0] where given
    Break,
    Continue,
    Raise,
    Try,          ///< parts: body, handlers (Block; text: what is caught) …, then a Block with text "finally" or "else"
    With,         ///< parts: values, body last; names: what each is called ("" for none)
    Switch,       ///< parts: value, cases
    Case,         ///< parts: body, values; none of them: default
    Alternative,  ///< parts: Blocks of which one is compiled
    Import,       ///< text: module; names: pairs of what and how it is called; no pair: all of it ("*")
    Global,       ///< names
    Unread        ///< text: why
  };
  Kind kind = Kind::None;
  Place place;   ///< where it is written
  Place digits;  ///< of a number: where it is spelled, which for one out of a macro is another place
  std::string text;
  std::vector<std::string> names;
  std::vector<std::string> types;  ///< of a Define: of its parameters, then of what it returns
  std::vector<Code> parts;
  double number = 0;
  bool whole = false;
};

/// Something that was not understood where it stands.
struct Unread {
  Place place;
  std::string why;
  Place region{};      ///< whose pins it may change, where that is more than what stands at `place`; file -1: no more
  bool every = false;  ///< it may change any pin
};

}  // namespace bold::program
