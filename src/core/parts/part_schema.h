#pragma once

#include <string>
#include <vector>

#include "core/base/json.h"

/// The published schema of part files (data/schema/part.schema.json), as a form reads it.
namespace bold::parts {

/// A place in a part file, from the outside in: {"terminals", "3", "contact"}.
using Path = std::vector<std::string>;

/// "/terminals/3/contact"
std::string pointer(const Path& path);

/// What the schema says of a place that is in the part, alternatives decided by what stands there; nullptr where the schema
/// knows no such place.
const Json* schemaAt(const Json& part, const Path& path);

/// Fields that the object at a place may have and has not, in the order of the schema. Empty for what is no object, and for
/// objects whose fields are named freely.
std::vector<std::string> missingFields(const Json& part, const Path& path);

/// Whether the fields of the object at a place are named freely (figures, levels, conditions, packages).
bool freelyNamed(const Json& part, const Path& path);

/// What can be added to the list at a place: the alternatives by the field that tells them apart ("resistor", "diode"), or one
/// without a name. Empty for what is no list.
std::vector<std::string> itemKinds(const Json& part, const Path& path);

/// An item of that kind, or a field of the object at a place, with all that it must have, empty.
Json blankItem(const Json& part, const Path& list, const std::string& kind);
Json blankField(const Json& part, const Path& object, const std::string& field);

/// What tells one item of a list from the others: its id, or what it is and between what ("resistor IN1 GND").
std::string nameOfItem(const Json& item);

}  // namespace bold::parts
