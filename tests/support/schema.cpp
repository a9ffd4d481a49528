#include "support/schema.h"

#include <nlohmann/json.hpp>
#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validation_results.hpp>
#include <valijson/validator.hpp>

namespace bold::test {

std::vector<std::string> againstSchema(std::string_view schemaText, std::string_view json) {
  using valijson::adapters::NlohmannJsonAdapter;
  const auto schemaJson = nlohmann::json::parse(schemaText);
  const auto target = nlohmann::json::parse(json);
  valijson::Schema schema;
  valijson::SchemaParser(valijson::SchemaParser::kDraft4).populateSchema(NlohmannJsonAdapter(schemaJson), schema);
  valijson::Validator validator;
  valijson::ValidationResults results;
  std::vector<std::string> out;
  if (validator.validate(schema, NlohmannJsonAdapter(target), &results)) return out;
  for (valijson::ValidationResults::Error error; results.popError(error);) {
    std::string at;
    for (const auto& step : error.context) at += step;
    out.push_back(at + ": " + error.description);
  }
  if (out.empty()) out.emplace_back("it does not meet the schema");
  return out;
}

}  // namespace bold::test
