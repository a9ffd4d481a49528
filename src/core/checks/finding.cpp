#include "core/checks/finding.h"

#include <algorithm>

namespace bold::checks {

Finding::Finding() = default;
Finding::Finding(const Finding&) = default;
Finding::Finding(Finding&&) noexcept = default;
Finding& Finding::operator=(const Finding&) = default;
Finding& Finding::operator=(Finding&&) noexcept = default;
Finding::~Finding() = default;

std::string Finding::identity() const {
  auto sorted = subjects;
  std::ranges::sort(sorted);
  std::string id = check;
  for (const auto& s : sorted) id += " " + s;
  return id;
}

std::string_view word(Severity s) {
  switch (s) {
    case Severity::Stop:
      return "stop";
    case Severity::Caution:
      return "caution";
    case Severity::Note:
      return "note";
    case Severity::NotJudged:
      return "not judged";
  }
  return {};
}

std::string_view word(Harm h) {
  switch (h) {
    case Harm::Danger:
      return "danger";
    case Harm::Damage:
      return "damage";
    case Harm::WillNotWork:
      return "will not work";
  }
  return {};
}

}  // namespace bold::checks
