#include "core/parts/part_schema.h"

#include <algorithm>
#include <nlohmann/json.hpp>
#include <optional>

#include "core/base/embedded.h"
#include "core/base/number.h"

namespace bold::parts {
namespace {

const Json& root() {
  static const Json kSchema = [] {
    for (const auto& f : embedded::schemas())
      if (f.path.ends_with("part.schema.json")) return parsedJson(f.text);
    return Json::object();
  }();
  return kSchema;
}

const Json* followed(const Json* schema) {
  if (!schema || !schema->is_object() || !schema->contains("$ref")) return schema;
  const auto ref = (*schema)["$ref"].get<std::string>();  // "#/definitions/figure"
  const auto& definitions = root()["definitions"];
  const auto name = ref.substr(ref.rfind('/') + 1);
  return definitions.contains(name) ? &definitions[name] : nullptr;
}

std::string typeOf(const Json& value) {
  if (value.is_object()) return "object";
  if (value.is_array()) return "array";
  if (value.is_boolean()) return "boolean";
  if (value.is_number()) return "number";
  return "string";
}

bool hasRequired(const Json& option, const Json& value) {
  return !option.contains("required") || std::ranges::all_of(option["required"], [&](const Json& key) {
    return value.is_object() && value.contains(key.get<std::string>());
  });
}
bool knowsAll(const Json& option, const Json& value) {
  if (!value.is_object() || !option.contains("properties")) return true;
  return std::ranges::all_of(value.items(), [&](const auto& field) { return option["properties"].contains(field.key()); });
}

// Of several alternatives the one of the value's type that it fits best: all required fields there, and none unknown.
const Json* decided(const Json* schema, const Json& value) {
  schema = followed(schema);
  if (!schema || !schema->is_object() || !schema->contains("oneOf")) return schema;
  const Json* best = &(*schema)["oneOf"].front();
  int most = -1;
  for (const auto& one : (*schema)["oneOf"]) {
    const auto* option = followed(&one);
    if (!option || (option->contains("type") && (*option)["type"] != typeOf(value))) continue;
    const int fits = 2 * hasRequired(*option, value) + knowsAll(*option, value);
    if (fits <= most) continue;
    most = fits;
    best = option;
  }
  return best;
}

const Json* inside(const Json* schema, const std::string& key) {
  if (!schema) return nullptr;
  if (schema->contains("items")) {
    const auto& items = (*schema)["items"];
    if (!items.is_array()) return &items;
    const auto at = positionIn(key, items.size());  // each place has its own
    return at ? &items[*at] : nullptr;
  }
  if (schema->contains("properties") && (*schema)["properties"].contains(key)) return &(*schema)["properties"][key];
  if (schema->contains("additionalProperties") && (*schema)["additionalProperties"].is_object()) return &(*schema)["additionalProperties"];
  return nullptr;
}

const Json* valueIn(const Json& value, const std::string& key) {
  if (value.is_object()) return value.contains(key) ? &value[key] : nullptr;
  const auto at = value.is_array() ? positionIn(key, value.size()) : std::nullopt;
  return at ? &value[*at] : nullptr;
}

const Json* valueAt(const Json& part, const Path& path) {
  const Json* value = &part;
  for (const auto& key : path)
    if (value) value = valueIn(*value, key);
  return value;
}

Json blank(const Json* schema) {
  schema = followed(schema);
  if (!schema || !schema->is_object()) return "";
  if (schema->contains("oneOf")) return blank(&(*schema)["oneOf"].front());
  if (schema->contains("enum")) return (*schema)["enum"].front();
  if (schema->contains("const")) return (*schema)["const"];
  const std::string type = schema->contains("type") && (*schema)["type"].is_string() ? (*schema)["type"].get<std::string>() : "string";
  if (type == "boolean") return false;
  if (type == "number" || type == "integer") return 0;
  if (type == "array") {
    Json out = Json::array();
    for (int k = 0; k < schema->value("minItems", 0); ++k) out.push_back(blank(inside(schema, std::to_string(k))));
    return out;
  }
  if (type == "object") {
    Json out = Json::object();
    if (schema->contains("required"))
      for (const auto& key : (*schema)["required"]) out[key.get<std::string>()] = blank(inside(schema, key.get<std::string>()));
    return out;
  }
  return "";
}

// Alternatives of a list's items.
std::vector<const Json*> kinds(const Json* list) {
  std::vector<const Json*> out;
  if (!list || !list->contains("items") || (*list)["items"].is_array()) return out;
  const auto* items = followed(&(*list)["items"]);
  if (items && items->contains("oneOf") && (*items)["oneOf"].front().value("type", "") == "object") {
    for (const auto& one : (*items)["oneOf"]) out.push_back(&one);
  } else {
    out.push_back(items);
  }
  return out;
}

std::string kindName(const std::vector<const Json*>& all, const Json* one) {
  if (all.size() < 2 || !one->contains("required")) return {};
  const auto first = (*one)["required"].front().get<std::string>();
  return first == "id" ? std::string() : first;
}

}  // namespace

std::string pointer(const Path& path) {
  std::string out;
  for (const auto& key : path) out += "/" + key;
  return out;
}

const Json* schemaAt(const Json& part, const Path& path) {
  const Json* value = &part;
  const Json* schema = decided(&root(), part);
  for (const auto& key : path) {
    schema = inside(schema, key);
    value = value ? valueIn(*value, key) : nullptr;
    if (!schema || !value) return nullptr;
    schema = decided(schema, *value);
  }
  return schema;
}

std::vector<std::string> missingFields(const Json& part, const Path& path) {
  std::vector<std::string> out;
  const auto* schema = schemaAt(part, path);
  const auto* value = valueAt(part, path);
  if (!schema || !value || !value->is_object() || !schema->contains("properties")) return out;
  for (const auto& [key, ignored] : (*schema)["properties"].items())
    if (!value->contains(key)) out.push_back(key);
  return out;
}

bool freelyNamed(const Json& part, const Path& path) {
  const auto* schema = schemaAt(part, path);
  return schema && schema->contains("additionalProperties") && (*schema)["additionalProperties"].is_object();
}

std::vector<std::string> itemKinds(const Json& part, const Path& path) {
  std::vector<std::string> out;
  const auto all = kinds(schemaAt(part, path));
  for (const auto* k : all) out.push_back(kindName(all, k));
  return out;
}

Json blankItem(const Json& part, const Path& list, const std::string& kind) {
  const auto all = kinds(schemaAt(part, list));
  for (const auto* k : all)
    if (kindName(all, k) == kind) return blank(k);
  return "";
}

Json blankField(const Json& part, const Path& object, const std::string& field) {
  return blank(inside(schemaAt(part, object), field));
}

std::string nameOfItem(const Json& item) {
  if (!item.is_object() || item.empty()) return {};
  if (item.contains("id") && item["id"].is_string()) return item["id"].get<std::string>();
  if (item.contains("for")) return "several alike";
  // What it is, and between what: the first field that is not a condition.
  for (const auto& [key, value] : item.items()) {
    if (key == "when" || key == "as") continue;
    auto out = key;
    if (value.is_array())
      for (const auto& v : value)
        if (v.is_string()) out += " " + v.get<std::string>();
    return out;
  }
  return {};
}

}  // namespace bold::parts
