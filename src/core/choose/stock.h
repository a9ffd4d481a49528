#pragma once

#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "core/choose/candidates.h"

/// What lies in the drawer, and what has to be bought.
namespace bold::choose {

/// Part id -> how many.
using Stock = std::map<std::string, int>;

struct ReadStock {
  Stock stock;
  std::vector<std::string> unread;  ///< lines of which nothing could be used, as they stand
  std::vector<Problem> problems;    ///< one for each line that could not be used as it stands; `where` is "line 3"
};

/// "part,count" a line, quoted where it has to be; a first line without a number is a heading. Counts of one part add up. A part that no
/// library knows is kept, and said.
ReadStock readStock(std::string_view csv, const parts::Library& library);
/// With a heading; sorted by part; then lines that could not be read, as they stood.
std::string writeStock(const Stock& stock, const std::vector<std::string>& unread = {});

/// Parts that a candidate adds to the bench, its own first: part id -> how many.
std::vector<std::pair<std::string, int>> addedParts(const Candidate& candidate);

/// What one candidate needs beyond the stock for so many equal benches; in the order of addedParts.
std::vector<std::pair<std::string, int>> toBuy(const Candidate& candidate, const Stock& stock, int benches);

/// The stage itself lies in the drawer for so many benches, or stands on the bench; what goes with it may have to be bought.
bool inStock(const Candidate& candidate, const Stock& stock, int benches);

}  // namespace bold::choose
