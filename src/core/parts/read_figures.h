#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/base/json.h"
#include "core/parts/part.h"

namespace bold {
class ObjectReader;
}

namespace bold::parts {

/// Reads the figures of a part: named ones, and those written in place or taken over by "@name".
class FigureReader {
 public:
  /// @param source of figures that state none
  explicit FigureReader(std::string source) : m_source(std::move(source)) {}

  const std::string& source() const { return m_source; }

  /// The part's named figures, in order, with what follows from others worked out.
  std::vector<NamedFigure> named(ObjectReader& part);

  /// The figure at a key, in this unit; unknown when it is not stated.
  Figure at(ObjectReader& o, const std::string& key, Unit unit) const;

 private:
  std::string m_source;
  std::map<std::string, Figure> m_named;

  Figure read(const Json& value, Unit unit, ObjectReader& o, const std::string& key) const;
};

}  // namespace bold::parts
