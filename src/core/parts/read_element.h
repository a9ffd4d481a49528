#pragma once

#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/parts/element.h"

namespace bold {
class ObjectReader;
}

namespace bold::parts {

struct ElementContext {
  const std::map<std::string, Condition>& conditions;
  std::function<Figure(ObjectReader&, const std::string& key, Unit)> figure;
};

/// Reads one primitive element; problems go to the reader's list.
[[nodiscard]] std::optional<Element> readElement(ObjectReader& reader, const ElementContext& context);

/// Calls f with every node the element touches, inner ones included.
void eachNode(Element& element, const std::function<void(Node&)>& f);
std::vector<Node> nodesOf(const Element& element);

/// The terminals whose levels its condition reads.
std::vector<Node> inputsOf(const Element& element);

}  // namespace bold::parts
