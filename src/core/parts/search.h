#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/parts/part.h"

namespace bold::parts {

/// What was typed into a search box: words, and figures with their units ("nema 17 1.5 a", "12 v 2 a", "43a").
struct Query {
  std::vector<std::string> words;        ///< lower case
  std::vector<AnyQuantity> figures;      ///< V, A, ohm or H
  std::vector<std::string> figureWords;  ///< the word behind each figure, if one stands there ("stall"); same length
};
Query parseQuery(std::string_view text);

/// How well a part fits: every word has to be found; figures count by how near one of the part's is. 0: not at all.
double score(const Part& part, const Query& query);

/// Digits in the middle of words count as numbers: "5v" before "12v".
bool naturallyBefore(std::string_view a, std::string_view b);

}  // namespace bold::parts
