#pragma once

#include <string_view>
#include <vector>

#include "core/program/syntax.h"

/// What becomes of each kind of node of a grammar: a table that a test holds against the grammars themselves.
namespace bold::program {

enum class NodeKind {
  Followed,  ///< it becomes Code, by itself or as part of what it stands in
  NoEffect,  ///< it says nothing of pins
  Open       ///< it is not followed: what it does to the pins that it names is not known, which is said
};

/// Of a named kind of node; one that no table has is open.
NodeKind nodeKind(Language language, std::string_view type);
/// Every kind of node that a language's table has.
std::vector<std::string_view> tabledKinds(Language language);
/// Every named kind of node that a language's grammar has.
std::vector<std::string_view> grammarKinds(Language language);

}  // namespace bold::program
