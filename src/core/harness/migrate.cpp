#include "core/harness/migrate.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <nlohmann/json.hpp>
#include <set>
#include <utility>

#include "core/base/address.h"
#include "core/base/json_text.h"
#include "core/harness/harness.h"

namespace bold::harness {
namespace {

// Format 2 takes intents apart: what a motor shall do, which pins play which role, what the program does.
class IntentsApart {
 public:
  explicit IntentsApart(std::string text) : m_text(std::move(text)) {}

  std::string run() {
    const auto members = membersOf(m_text);
    const auto intents = std::ranges::find(members, "intents", &TextMember::key);
    if (intents == members.end()) return std::move(m_text);
    for (const auto& m : members)
      if ((m.key == "devices" || m.key == "connections") && m.value.starts_with('['))
        for (const auto e : elementsOf(m.value)) m_taken.insert(textOf(e, "id"));
    auto fresh = m_taken;
    for (const auto e : elementsOf(intents->value)) fresh.insert(textOf(e, "id"));
    for (const auto e : elementsOf(intents->value)) one(e, fresh);
    return replaced(intents->value);
  }

 private:
  static constexpr std::array<std::string_view, 6> kProgram{"pwm", "dutyCap", "ramp", "stepsPerTurn", "pulse", "sequence"};

  std::string m_text;
  std::set<std::string> m_taken;  // ids
  std::vector<std::string> m_goals, m_assignments, m_program;

  static std::string_view valueOf(std::string_view object, std::string_view key) {
    if (!object.starts_with('{')) return {};
    for (const auto& m : membersOf(object))
      if (m.key == key) return m.value;
    return {};
  }
  static std::string textOf(std::string_view object, std::string_view key) {
    std::vector<Problem> ignored;
    const auto value = valueOf(object, key);
    const auto json = value.starts_with('"') ? parseJson("[" + std::string(value) + "]", "", ignored) : Result<Json>(Json::array());
    return json && !json->empty() ? json->front().get<std::string>() : std::string();
  }

  static std::string freeId(std::set<std::string>& ids, const std::string& wanted) {
    if (ids.insert(wanted).second) return wanted;
    for (int n = 2;; ++n)
      if (auto id = wanted + std::to_string(n); ids.insert(id).second) return id;
  }

  // An object without the first member of a key. Those that repeat it stay: there they are named.
  static std::string taken(const std::string& object, std::string_view key) {
    std::string repeats;
    bool first = true;
    for (const auto& m : membersOf(object))
      if (m.key == key && !std::exchange(first, false)) repeats += fmt::format(", \"{}\": {}", key, m.value);
    auto out = withoutMember(object, key);
    out.insert(out.rfind('}'), repeats);
    return out;
  }

  void one(std::string_view text, std::set<std::string>& ids) {
    const auto id = textOf(text, "id");
    // What could not be used stays as it stands, and is named for what it is now.
    if (!isId(id) || !m_taken.insert(id).second) {
      m_goals.emplace_back(text);
      return;
    }
    const auto motor = valueOf(text, "motor");
    const auto about = [&](const std::string& own) {
      return fmt::format("\"id\": \"{}\"{}", own, motor.empty() ? "" : ", \"motor\": " + std::string(motor));
    };
    std::string goal(text);
    std::string facts;
    for (const auto key : kProgram)
      if (const auto value = valueOf(text, key); !value.empty()) {
        facts += fmt::format(", \"{}\": {}", key, value);
        goal = taken(goal, key);
      }
    const auto signals = valueOf(text, "signals");
    if (signals.starts_with('[')) {
      for (const auto s : elementsOf(signals)) assignment(s, id, about, ids);
      goal = taken(goal, "signals");
    }
    m_goals.push_back(std::move(goal));
    if (!facts.empty()) m_program.push_back("{" + about(freeId(ids, id + "-program")) + facts + "}");
  }

  void assignment(std::string_view signal, const std::string& intent, const auto& about, std::set<std::string>& ids) {
    if (!signal.starts_with('{')) {
      m_assignments.emplace_back(signal);
      return;
    }
    const auto role = textOf(signal, "role");
    const auto head = about(freeId(ids, intent + "-" + (isId(role) ? role : "pin")));
    const auto rest = signal.substr(1);
    m_assignments.push_back("{" + head + (membersOf(signal).empty() ? "" : ", ") +
                            std::string(rest.substr(std::min(rest.find_first_not_of(" \t\r\n"), rest.size()))));
  }

  static std::string listText(const std::vector<std::string>& entries) {
    std::string out = "[";
    for (const auto& e : entries) out += (out.size() > 1 ? ",\n    " : "\n    ") + e;
    return out + (entries.empty() ? "]" : "\n  ]");
  }

  std::string replaced(std::string_view value) {
    const auto from = static_cast<std::size_t>(value.data() - m_text.data());
    const auto length = value.size();
    const auto key = m_text.rfind("\"intents\"", from);
    auto lists = listText(m_goals) + ",\n  \"assignments\": " + listText(m_assignments);
    if (!m_program.empty()) lists += ",\n  \"program\": " + listText(m_program);
    if (key == std::string::npos) return withMember(withoutMember(m_text, "intents"), "goals", lists);  // written with escapes
    m_text.replace(from, length, lists);
    m_text.replace(key, std::string_view("\"intents\"").size(), "\"goals\"");
    return std::move(m_text);
  }
};

using Step = std::string (*)(std::string);
// steps[n] takes format n + 1 to format n + 2; samples of each older format are kept in tests/benches/format-1 and so on.
constexpr std::array<Step, kFormat - 1> kSteps{[](std::string text) { return IntentsApart(std::move(text)).run(); }};

}  // namespace

std::string migrate(std::string text, int format) {
  for (; format < kFormat; ++format)
    text = withFirstMember(kSteps[static_cast<std::size_t>(format) - 1](std::move(text)), "format", std::to_string(format + 1));
  return text;
}

}  // namespace bold::harness
