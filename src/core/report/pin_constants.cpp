#include "core/report/pin_constants.h"

#include <fmt/core.h>

#include <algorithm>
#include <cctype>
#include <set>
#include <vector>

#include "core/checks/wired_signals.h"
#include "core/harness/names.h"
#include "core/parts/roles.h"

namespace bold::report {
namespace {

struct Constant {
  std::vector<std::string> words;  // of its name, in lower case
  std::string value;               // empty: there is none
  std::string remark;
};
struct Board {
  std::string name;
  std::vector<Constant> constants;
};

bool letter(char c) {
  return std::isalnum(static_cast<unsigned char>(c)) != 0 && static_cast<unsigned char>(c) < 0x80U;
}

// "Wave paddle" -> wave, paddle. What is no letter of a name in any language is a gap.
void addWords(std::vector<std::string>& out, const std::string& text) {
  std::string word;
  const auto end = [&] {
    if (!word.empty()) out.push_back(std::move(word));
    word.clear();
  };
  for (const char c : text) {
    if (letter(c))
      word += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    else
      end();
  }
  end();
}

std::string nameOf(const Constant& c, Language language) {
  std::string out;
  for (const auto& w : c.words) {
    auto word = w;
    if (language == Language::Cpp) {
      if (!out.empty()) word[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(word[0])));
    } else {
      std::ranges::transform(word, word.begin(), [](unsigned char x) { return static_cast<char>(std::toupper(x)); });
      if (!out.empty()) out += '_';
    }
    out += word;
  }
  if (out.empty() || std::isdigit(static_cast<unsigned char>(out.front())) != 0) out.insert(0, language == Language::Cpp ? "pin" : "PIN_");
  return out;
}

bool isNumber(const std::string& text) {
  return !text.empty() && std::ranges::all_of(text, [](char c) { return c >= '0' && c <= '9'; });
}
bool isName(const std::string& text) {
  return !text.empty() && std::isdigit(static_cast<unsigned char>(text.front())) == 0 &&
         std::ranges::all_of(text, [](char c) { return letter(c) || c == '_'; });
}

// On one line, whatever people call their things.
std::string oneLine(std::string text) {
  std::ranges::replace_if(
      text, [](char c) { return static_cast<unsigned char>(c) < 0x20U || c == '\\' || c == '"'; }, ' ');
  for (auto at = text.find("??"); at != std::string::npos; at = text.find("??", at)) text.replace(at, 2, "? ?");  // C reads "??/" as "\\"
  return text;
}

class Collector {
 public:
  Collector(const harness::Harness& h, const bench::SolvedBench& s, places::Numbering numbering) : m_h(h), m_s(s), m_numbering(numbering) {}

  std::vector<Board> run() {
    for (const auto& d : m_s.bench.devices)
      if (d.part && parts::isController(*d.part)) m_boards.push_back({d.called(), {}});
    if (m_boards.empty()) m_boards.push_back({});
    for (const auto& m : m_s.motors) add(m.device, checks::wiredSignals(m_s, m));
    for (std::size_t k = 0; k < m_s.bench.devices.size(); ++k) {
      const auto& d = m_s.bench.devices[k];
      if (d.part && !d.unknown && parts::isPeripheral(*d.part)) add(static_cast<int>(k), checks::wiredReads(m_s, static_cast<int>(k)));
    }
    return std::move(m_boards);
  }

 private:
  const harness::Harness& m_h;
  const bench::SolvedBench& m_s;
  places::Numbering m_numbering;
  std::vector<Board> m_boards;

  std::string valueAt(const Address& pin, std::string& remark) const {
    const auto& d = m_s.bench.devices[m_s.bench.deviceIndex(pin.device)];
    const auto* t = d.part->find(pin.terminal);
    auto name = places::nameIn(*d.part, *t, m_numbering);
    if (!name.empty()) return name;
    remark += fmt::format("{}no number of that kind; as printed", remark.empty() ? "" : ", ");
    return t->label;
  }

  void add(int device, const std::vector<checks::WiredSignal>& signals) {
    const auto& d = m_s.bench.devices[device];
    const auto intent = harness::intentFor(m_h, d.doc.id);
    for (const auto& w : signals) {
      Constant c;
      addWords(c.words, d.called());
      addWords(c.words, w.role);
      const auto stated = std::ranges::find(intent.signals, w.role, &harness::Signal::role);
      auto* board = &m_boards.front();
      if (w.pin.device.empty()) {
        c.remark = w.tied.empty() ? "no pin reaches it" : "tied " + w.tied + ", no pin";
      } else {
        const auto t = m_s.bench.terminal(w.pin);
        const auto it = std::ranges::find(m_boards, m_s.bench.devices[m_s.bench.deviceOf(t)].called(), &Board::name);
        if (it != m_boards.end()) board = &*it;
        c.remark = m_s.bench.called(t);
        c.value = valueAt(w.pin, c.remark);
        if (stated != intent.signals.end() && stated->pin != w.pin)
          c.remark += ", stated as " + m_s.bench.called(m_s.bench.terminal(stated->pin));
      }
      board->constants.push_back(std::move(c));
    }
  }
};

}  // namespace

std::string pinConstants(const harness::Harness& h, const Analysis& a, Language language, places::Numbering numbering,
                         const std::string& file) {
  const auto* mark = language == Language::Python ? "#" : "//";
  auto out = fmt::format("{0} Pins of {1}, {2}: as wired, by {3} numbers.\n", mark, oneLine(h.title.empty() ? "a bench" : h.title),
                         oneLine(file), places::word(numbering));
  if (language == Language::C) out += "#ifndef PINS_H\n#define PINS_H\n";
  if (language == Language::Cpp) out += "#pragma once\n\nnamespace pins {\n";
  std::set<std::string> used;
  for (const auto& board : a.solved ? Collector(h, *a.solved, numbering).run() : std::vector<Board>{}) {
    if (!board.name.empty()) out += fmt::format("\n{} {}\n", mark, oneLine(board.name));
    for (const auto& c : board.constants) {
      auto name = nameOf(c, language);
      for (int n = 2; !used.insert(name).second; ++n)
        name = nameOf(c, language) + (language == Language::Cpp ? "" : "_") + std::to_string(n);
      const auto remark = oneLine(c.remark);
      if (c.value.empty()) {
        out += fmt::format("{} {}: {}\n", mark, name, remark);
        continue;
      }
      const bool plain = isNumber(c.value) || (language != Language::Python && isName(c.value));
      const auto value = plain ? c.value : "\"" + oneLine(c.value) + "\"";
      if (language == Language::C)
        out += fmt::format("#define {} {}  // {}\n", name, value, remark);
      else if (language == Language::Cpp)
        out += fmt::format("constexpr auto {} = {};  // {}\n", name, value, remark);
      else
        out += fmt::format("{} = {}  # {}\n", name, value, remark);
    }
  }
  if (language == Language::C) out += "\n#endif\n";
  if (language == Language::Cpp) out += "\n}  // namespace pins\n";
  return out;
}

}  // namespace bold::report
