#include "core/program/node_kinds.h"

#include <algorithm>
#include <array>
#include <iterator>
#include <map>

namespace bold::program {
namespace {

// Words of what is followed, of what has no effect, of what is open.
using Table = std::array<std::string_view, 3>;

// What C and C++ have in common.
constexpr Table kBoth{
    "argument_list array_declarator assignment_expression attributed_declarator attributed_statement "
    "binary_expression break_statement call_expression case_statement cast_expression char_literal character "
    "comma_expression compound_literal_expression compound_statement concatenated_string conditional_expression "
    "continue_statement declaration declaration_list do_statement else_clause enum_specifier enumerator "
    "enumerator_list escape_sequence expression_statement extension_expression false field_declaration "
    "field_declaration_list field_designator field_expression field_identifier for_statement function_declarator "
    "function_definition identifier if_statement init_declarator initializer_list initializer_pair "
    "labeled_statement linkage_specification null number_literal parameter_declaration parameter_list "
    "parenthesized_declarator parenthesized_expression pointer_declarator pointer_expression preproc_elif "
    "preproc_elifdef preproc_else preproc_if preproc_ifdef primitive_type return_statement sized_type_specifier "
    "sizeof_expression string_content string_literal struct_specifier subscript_designator subscript_expression "
    "switch_statement translation_unit true type_definition type_descriptor type_identifier unary_expression "
    "union_specifier update_expression while_statement",
    "abstract_array_declarator abstract_function_declarator abstract_parenthesized_declarator "
    "abstract_pointer_declarator alignas_qualifier alignof_expression attribute attribute_declaration "
    "attribute_specifier bitfield_clause comment ms_based_modifier ms_call_modifier ms_declspec_modifier "
    "ms_pointer_modifier ms_restrict_modifier ms_signed_ptr_modifier ms_unaligned_ptr_modifier "
    "ms_unsigned_ptr_modifier preproc_arg preproc_call preproc_def preproc_defined preproc_directive "
    "preproc_function_def preproc_include preproc_params statement_identifier storage_class_specifier "
    "system_lib_string type_qualifier",
    "generic_expression gnu_asm_clobber_list gnu_asm_expression gnu_asm_goto_list gnu_asm_input_operand "
    "gnu_asm_input_operand_list gnu_asm_output_operand gnu_asm_output_operand_list gnu_asm_qualifier goto_statement "
    "offsetof_expression seh_except_clause seh_finally_clause seh_leave_statement seh_try_statement "
    "subscript_range_designator",
};

constexpr Table kC{
    "",
    "variadic_parameter",
    "macro_type_specifier",
};

constexpr Table kCpp{
    "alias_declaration base_class_clause catch_clause class_specifier condition_clause destructor_name "
    "field_initializer field_initializer_list for_range_loop lambda_expression namespace_definition "
    "namespace_identifier nested_namespace_specifier new_expression optional_parameter_declaration "
    "pointer_type_declarator qualified_identifier raw_string_content raw_string_delimiter raw_string_literal "
    "reference_declarator subscript_argument_list template_argument_list template_declaration template_function "
    "template_method template_type this throw_statement try_statement variadic_declarator "
    "variadic_parameter_declaration",
    "abstract_reference_declarator access_specifier auto compound_requirement concept_definition "
    "constraint_conjunction constraint_disjunction decltype default_method_clause delete_expression "
    "delete_method_clause dependent_type explicit_function_specifier friend_declaration lambda_capture_specifier "
    "lambda_default_capture namespace_alias_definition noexcept optional_type_parameter_declaration "
    "placeholder_type_specifier pure_virtual_clause ref_qualifier requirement_seq requires_clause "
    "requires_expression simple_requirement static_assert_declaration template_parameter_list "
    "template_template_parameter_declaration throw_specifier trailing_return_type type_parameter_declaration "
    "type_requirement using_declaration variadic_type_parameter_declaration virtual_specifier",
    "co_await_expression co_return_statement co_yield_statement dependent_name fold_expression init_statement "
    "lambda_capture_initializer literal_suffix new_declarator operator_cast operator_name parameter_pack_expansion "
    "structured_binding_declarator template_instantiation user_defined_literal",
};

constexpr Table kPython{
    "aliased_import argument_list as_pattern as_pattern_target assignment attribute augmented_assignment await binary_operator block "
    "boolean_operator break_statement call case_clause class_definition comparison_operator concatenated_string "
    "conditional_expression continue_statement decorated_definition decorator default_parameter dictionary "
    "dictionary_comprehension dictionary_splat dictionary_splat_pattern dotted_name elif_clause else_clause "
    "except_clause except_group_clause expression_list expression_statement false finally_clause float "
    "for_in_clause for_statement function_definition generator_expression global_statement identifier if_clause "
    "if_statement import_from_statement import_statement integer interpolation keyword_argument lambda "
    "lambda_parameters list list_comprehension list_pattern list_splat list_splat_pattern match_statement module "
    "named_expression none nonlocal_statement not_operator pair parameters parenthesized_expression pattern_list "
    "raise_statement relative_import return_statement set set_comprehension slice string string_content subscript "
    "true try_statement tuple tuple_pattern typed_default_parameter typed_parameter unary_operator while_statement "
    "wildcard_import with_clause with_item with_statement yield",
    "assert_statement comment constrained_type delete_statement ellipsis escape_interpolation escape_sequence "
    "format_specifier future_import_statement generic_type import_prefix keyword_separator line_continuation "
    "member_type pass_statement positional_separator print_statement splat_type string_end string_start type "
    "type_alias_statement type_conversion type_parameter union_type",
    "case_pattern chevron class_pattern complex_pattern dict_pattern exec_statement format_expression "
    "keyword_pattern parenthesized_list_splat splat_pattern union_pattern",
};

std::vector<std::string_view> wordsIn(std::string_view text) {
  std::vector<std::string_view> out;
  while (!text.empty()) {
    const auto blank = std::min(text.find(' '), text.size());
    if (blank > 0) out.push_back(text.substr(0, blank));
    text.remove_prefix(std::min(blank + 1, text.size()));
  }
  return out;
}

std::vector<const Table*> tablesOf(Language language) {
  if (language == Language::Python) return {&kPython};
  return {&kBoth, language == Language::C ? &kC : &kCpp};
}

}  // namespace

NodeKind nodeKind(Language language, std::string_view type) {
  static const auto kKinds = [] {  // asked at every comment of a source
    std::map<std::pair<Language, std::string_view>, NodeKind> out;
    for (const auto l : {Language::C, Language::Cpp, Language::Python})
      for (const auto* t : tablesOf(l))
        for (std::size_t k = 0; k < t->size(); ++k)
          for (const auto word : wordsIn((*t)[k])) out[{l, word}] = static_cast<NodeKind>(k);
    return out;
  }();
  const auto it = kKinds.find({language, type});
  return it == kKinds.end() ? NodeKind::Open : it->second;
}

std::vector<std::string_view> tabledKinds(Language language) {
  std::vector<std::string_view> out;
  for (const auto* t : tablesOf(language))
    for (const auto text : *t) std::ranges::copy(wordsIn(text), std::back_inserter(out));
  return out;
}

std::vector<std::string_view> grammarKinds(Language language) {
  const auto* grammar = grammarOf(language);
  std::vector<std::string_view> out;
  for (std::uint32_t k = 0; k < ts_language_symbol_count(grammar); ++k) {
    const auto symbol = static_cast<TSSymbol>(k);
    const std::string_view name = ts_language_symbol_name(grammar, symbol);
    if (ts_language_symbol_type(grammar, symbol) == TSSymbolTypeRegular && std::ranges::count(out, name) == 0) out.push_back(name);
  }
  return out;
}

}  // namespace bold::program
