#include "core/program/syntax.h"

#include <algorithm>
#include <array>

extern "C" {
const TSLanguage* tree_sitter_c();
const TSLanguage* tree_sitter_cpp();
const TSLanguage* tree_sitter_python();
}

namespace bold::program {
namespace {

constexpr std::size_t kFirstPart = 32'000;  // bytes: what is left of a text that takes too long

}  // namespace

const TSLanguage* grammarOf(Language l) {
  return l == Language::C ? tree_sitter_c() : l == Language::Cpp ? tree_sitter_cpp() : tree_sitter_python();
}

Language languageOf(std::string_view file) {
  if (file.ends_with(".py")) return Language::Python;
  return file.ends_with(".c") ? Language::C : Language::Cpp;
}

std::string_view word(Language language) {
  return language == Language::C ? "C" : language == Language::Cpp ? "C++" : "Python";
}

namespace {

// A text that is handed over piece by piece.
struct Pieces {
  std::string_view text;
  const std::function<bool()>& cancelled;

  static constexpr std::uint32_t kPiece = 16'384;  // bytes
  static const char* read(void* payload, std::uint32_t at, TSPoint, std::uint32_t* length) {
    const auto& p = *static_cast<const Pieces*>(payload);
    const bool over = at >= p.text.size() || (p.cancelled && p.cancelled());
    *length = over ? 0 : std::min(kPiece, static_cast<std::uint32_t>(p.text.size()) - at);
    return over ? "" : p.text.data() + at;
  }
};

}  // namespace

Parsed parse(Language language, std::string_view text, const std::function<bool()>& cancelled, std::uint64_t most) {
  const std::unique_ptr<TSParser, void (*)(TSParser*)> parser(ts_parser_new(), &ts_parser_delete);
  ts_parser_set_language(parser.get(), grammarOf(language));
  ts_parser_set_timeout_micros(parser.get(), most);
  for (auto size = text.size();; size = std::min(size / 4, kFirstPart)) {
    ts_parser_reset(parser.get());
    Pieces pieces{text.substr(0, size), cancelled};
    if (auto* tree = ts_parser_parse(parser.get(), nullptr, {&pieces, &Pieces::read, TSInputEncodingUTF8})) return {Tree(tree), size};
  }
}

std::vector<std::pair<std::uint32_t, std::uint32_t>> errorsOf(TSNode root) {
  std::vector<std::pair<std::uint32_t, std::uint32_t>> out;
  if (!ts_node_has_error(root)) return out;
  auto cursor = ts_tree_cursor_new(root);
  for (bool down = true; out.size() < 50;) {  // without recursion, however deep it is
    const auto node = ts_tree_cursor_current_node(&cursor);
    const bool wrong = down && (type(node) == "ERROR" || ts_node_is_missing(node));
    if (wrong) out.emplace_back(ts_node_start_byte(node), std::max(ts_node_end_byte(node), ts_node_start_byte(node) + 1));
    if (down && !wrong && ts_node_has_error(node) && ts_tree_cursor_goto_first_child(&cursor)) continue;
    down = ts_tree_cursor_goto_next_sibling(&cursor);
    if (!down && !ts_tree_cursor_goto_parent(&cursor)) break;
  }
  ts_tree_cursor_delete(&cursor);
  return out;
}

std::vector<TSNode> allChildren(TSNode node) {
  std::vector<TSNode> out;
  if (none(node)) return out;
  auto cursor = ts_tree_cursor_new(node);
  if (ts_tree_cursor_goto_first_child(&cursor)) do
      out.push_back(ts_tree_cursor_current_node(&cursor));
    while (ts_tree_cursor_goto_next_sibling(&cursor));
  ts_tree_cursor_delete(&cursor);
  return out;
}

std::vector<TSNode> namedChildren(TSNode node) {
  auto out = allChildren(node);
  std::erase_if(out, [](TSNode n) { return !ts_node_is_named(n) || type(n) == "comment"; });
  return out;
}

TSNode field(TSNode node, std::string_view name) {
  if (none(node)) return {};
  return ts_node_child_by_field_name(node, name.data(), static_cast<std::uint32_t>(name.size()));
}

}  // namespace bold::program
