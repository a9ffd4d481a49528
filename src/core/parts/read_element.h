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

/// The node itself, or of a point inside the part what a resistor of it leads to from there.
const Node& outside(const std::vector<Element>& elements, const Node& node);

}  // namespace bold::parts
