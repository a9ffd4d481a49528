#include "core/harness/read_harness.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <set>

#include "core/base/json_text.h"
#include "core/harness/entry_json.h"
#include "core/harness/left_out.h"
#include "core/harness/migrate.h"

namespace bold::harness {
namespace {

// Far beyond any bench, and still worked out in seconds.
constexpr std::size_t kMostDevices = 2000;
constexpr std::size_t kMostConnections = 20000;
constexpr std::size_t kMostMarks = 4 * kMostConnections;
constexpr std::array kMost{std::pair{Section::Devices, kMostDevices}, std::pair{Section::Connections, kMostConnections},
                           std::pair{Section::Goals, kMostDevices},   std::pair{Section::Assignments, kMostConnections},
                           std::pair{Section::Program, kMostDevices}, std::pair{Section::Sources, kMostDevices},
                           std::pair{Section::Marks, kMostMarks},     std::pair{Section::Rounds, kMostDevices},
                           std::pair{Section::Parts, kMostDevices}};

class HarnessReader {
 public:
  /// @param repeats keys that stand there twice; `where` is "#" and a JSON pointer
  HarnessReader(Json json, std::string text, std::vector<Problem> repeats) : m_json(std::move(json)), m_text(std::move(text)) {
    for (auto& p : repeats) {
      const auto keys = pointerKeys(p.where);
      const bool entry = keys.size() > 2 && std::ranges::any_of(kMost, [&](const auto& m) { return keys[0] == word(m.first); });
      m_repeats[entry ? "/" + keys[0] + "/" + keys[1] : std::string()].push_back(std::move(p));
    }
  }

  Harness read() {
    auto head = readHead(m_json);
    Harness h = std::move(*head.value);
    const auto members = membersOf(m_text);
    std::map<std::string_view, std::string_view> lists;
    for (const auto& m : members) lists.emplace(m.key, m.value);
    each(h, Section::Devices, lists, [&](const Json& j, const std::string& at) { return take(readDevice(j, at), h.devices, at); });
    each(h, Section::Connections, lists,
         [&](const Json& j, const std::string& at) { return take(readConnection(j, at), h.connections, at); });
    each(h, Section::Goals, lists, [&](const Json& j, const std::string& at) { return take(readGoal(j, at), h.goals, at); });
    each(h, Section::Assignments, lists,
         [&](const Json& j, const std::string& at) { return take(readAssignment(j, at), h.assignments, at); });
    each(h, Section::Program, lists, [&](const Json& j, const std::string& at) { return take(readProgramFacts(j, at), h.program, at); });
    each(h, Section::Sources, lists, [&](const Json& j, const std::string& at) { return take(readSourceRead(j, at), h.sources, at); });
    m_ids.clear();  // what people saw has ids of its own
    each(h, Section::Marks, lists, [&](const Json& j, const std::string& at) { return take(readMark(j, at), h.marks, at); });
    each(h, Section::Rounds, lists, [&](const Json& j, const std::string& at) { return take(readRound(j, at), h.rounds, at); });
    each(h, Section::Parts, lists, [&](Json& j, const std::string& at) { return part(h, j, at); });
    h.raw = source(std::move(m_text), 0, "", std::move(head.problems));
    return h;
  }

 private:
  // Why an entry is left out; or what of it is doubtful, to be put beside its text.
  struct Taken {
    std::optional<Problem> why;
    std::vector<Problem> doubts;
    Raw* raw = nullptr;  // of the entry that was taken
  };

  Json m_json;
  std::string m_text;
  std::map<std::string, std::vector<Problem>> m_repeats;  // by the entry they stand in; "": beside the lists
  std::set<std::string> m_ids, m_copies;

  Raw source(std::string text, std::size_t index, const std::string& at, std::vector<Problem> problems) {
    auto repeats = m_repeats.extract(at);
    return sourceOf(std::move(text), index, at.empty() ? 0 : 2, std::move(problems),
                    repeats ? std::move(repeats.mapped()) : std::vector<Problem>{});
  }

  void each(Harness& h, Section section, const std::map<std::string_view, std::string_view>& lists, const auto& one) {
    if (!m_json.contains(word(section))) return;
    auto& list = m_json[word(section)];
    const auto texts = elementsOf(lists.at(word(section)));
    for (std::size_t i = 0; i < list.size(); ++i) {
      const auto at = fmt::format("/{}/{}", word(section), i);
      auto taken = one(list[i], at);
      auto raw = source(std::string(texts[i]), i, at, std::move(taken.doubts));
      if (taken.why)
        h.unread.push_back({section, std::move(raw), std::move(*taken.why)});
      else
        *taken.raw = std::move(raw);
    }
  }

  template <class T>
  Taken take(ReadEntry<T> entry, std::vector<T>& list, const std::string& at) {
    if (!entry.value) return {entry.problems.front(), {}};
    if (!m_ids.insert(entry.value->id).second)
      return {Problem{fmt::format("The id \"{}\" is used twice.", entry.value->id), "#" + at + "/id", "The first one was kept."}, {}};
    list.push_back(std::move(*entry.value));
    return {std::nullopt, std::move(entry.problems), &list.back().raw};
  }

  Taken part(Harness& h, Json& j, const std::string& at) {
    if (!j.is_object() || !j.contains("id") || !j["id"].is_string())
      return {Problem{"This is not a part: it has no \"id\".", "#" + at, "The copy was left out."}, {}};
    const auto id = j["id"].get<std::string>();
    if (!m_copies.insert(id).second)
      return {Problem{fmt::format("The part \"{}\" is there twice.", id), "#" + at + "/id", "The first one was kept."}, {}};
    h.parts.push_back({id, std::make_shared<const Json>(std::move(j)), nullptr});
    return {std::nullopt, {}, &h.parts.back().raw};
  }
};

}  // namespace

namespace {

// What keeps the lists from being read at all.
std::optional<Problem> listsOf(const Json& json, const std::string& file) {
  const auto look = [&](const std::string& key, std::size_t most) -> std::optional<Problem> {
    if (!json.contains(key)) return std::nullopt;
    const auto& list = json[key];
    if (!list.is_array()) return Problem{fmt::format("\"{}\" is not a list.", key), file + "#/" + key, {}};
    if (list.size() > most)
      return Problem{fmt::format("The file holds {} {}; at most {} can be judged.", list.size(), key, most), file, {}};
    return std::nullopt;
  };
  for (const auto& [section, most] : kMost)
    if (auto wrong = look(word(section), most)) return wrong;
  return json["format"] == 1 ? look("intents", kMostDevices) : std::nullopt;
}

}  // namespace

Result<Reading> readHarness(std::string_view text, const std::string& file) {
  std::vector<Problem> repeats;
  auto json = parseJson(text, "", repeats);
  if (!json) {
    auto p = json.error();
    p.where = file;
    return fail(std::move(p));
  }
  if (!json->is_object() || !json->contains("format") || !(*json)["format"].is_number_integer())
    return fail({"The file is JSON, but not a bench: it has no whole number \"format\".", file, {}});
  if (auto wrong = listsOf(*json, file)) return fail(std::move(*wrong));
  const auto format = (*json)["format"].get<long long>();
  if (format < 1) return fail({fmt::format("The file says bench format {}, which never existed.", format), file + "#/format", {}});
  Reading reading;
  std::string now(text);
  if (format > kFormat) {
    reading.problems.push_back({fmt::format("The file has bench format {}; this program knows formats up to {}.", format, kFormat),
                                file + "#/format", "It was opened read-only and is not judged."});
  } else if (format < kFormat) {
    now = migrate(std::move(now), static_cast<int>(format));
    repeats.clear();
    json = parseJson(now, "", repeats);
    if (!json) return fail(json.error());  // what a step writes is whole
  }
  reading.harness = HarnessReader(std::move(*json), std::move(now), std::move(repeats)).read();
  reading.harness.newerFormat = format > kFormat;
  for (const auto& list : missingLists(reading.harness))
    reading.problems.push_back({fmt::format("This has no \"{}\".", list), file + "#", "It was taken as empty."});
  for (auto p : leftOut(reading.harness)) {
    p.where = file + p.where;
    reading.problems.push_back(std::move(p));
  }
  return reading;
}

}  // namespace bold::harness
