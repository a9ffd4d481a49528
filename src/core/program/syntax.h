#pragma once

#include <tree_sitter/api.h>

#include <functional>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

/// The syntax tree of a text. For the files that lower it to Code only: nothing else knows how a language is parsed.
namespace bold::program {

enum class Language { C, Cpp, Python };

/// By the ending of a file's name: ".ino", ".cpp", ".h" and so on are C++, ".c" is C, ".py" is Python; any other: C++.
Language languageOf(std::string_view file);
const TSLanguage* grammarOf(Language language);
/// "C", "C++", "Python"
std::string_view word(Language language);

class Tree {
 public:
  explicit Tree(TSTree* tree) : m_tree(tree, &ts_tree_delete) {}
  TSNode root() const { return ts_tree_root_node(m_tree.get()); }

 private:
  std::unique_ptr<TSTree, void (*)(TSTree*)> m_tree;
};

struct Parsed {
  Tree tree;
  std::size_t read = 0;  ///< bytes from the beginning that were parsed: less than all where it took too long
};

/// Never fails: what is broken stands in the tree as an error. A text that takes longer than `most` is parsed as far as a first part of it.
/// @param cancelled asked now and then; where it says yes the rest of the text counts as not there
Parsed parse(Language language, std::string_view text, const std::function<bool()>& cancelled = {},
             std::uint64_t mostMicroseconds = 3'000'000);

/// What could not be read: the outermost errors and what is missing, as bytes of the text. At most 50.
std::vector<std::pair<std::uint32_t, std::uint32_t>> errorsOf(TSNode root);

/// Children that are not mere punctuation; with a cursor, so that a list of 100,000 takes no longer than its length.
std::vector<TSNode> namedChildren(TSNode node);
/// All children.
std::vector<TSNode> allChildren(TSNode node);
TSNode field(TSNode node, std::string_view name);
inline bool none(TSNode node) {
  return ts_node_is_null(node);
}
inline std::string_view type(TSNode node) {
  return none(node) ? std::string_view() : std::string_view(ts_node_type(node));
}
inline std::string_view textOf(TSNode node, std::string_view source) {
  return none(node) ? std::string_view() : source.substr(ts_node_start_byte(node), ts_node_end_byte(node) - ts_node_start_byte(node));
}

}  // namespace bold::program
