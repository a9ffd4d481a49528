#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace bold::test {

/// Holds a JSON text against a JSON schema (draft 4). Empty: it meets it.
std::vector<std::string> againstSchema(std::string_view schema, std::string_view json);

}  // namespace bold::test
