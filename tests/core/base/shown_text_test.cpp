#include "core/base/shown_text.h"

#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/base/json.h"

using namespace bold;

TEST_CASE("characters that act are spelt out, everything else stays") {
  CHECK(shownText("Wave paddle 4.7 Ω, 30 °C – “ok”") == "Wave paddle 4.7 Ω, 30 °C – “ok”");
  CHECK(shownText("a\x1b[2Jb") == "a\\u{1B}[2Jb");
  CHECK(shownText("a\nb\rc\td") == "a\\nb\\rc\\td");
  CHECK(shownText("S1\xE2\x80\xAE"
                  "1S") == "S1\\u{202E}1S");
  CHECK(shownText("\xC2\x9B"
                  "31m") == "\\u{9B}31m");
  CHECK(shownText("\xE2\x80\xA8") == "\\u{2028}");
  CHECK(shownText("a\xFF"
                  "b\xC3") == "a\\u{FFFD}b\\u{FFFD}");
  CHECK(shownLines("a\nb\x07") == "a\nb\\u{7}");
}

TEST_CASE("shown again it stays the same, and JSON says the same") {
  rc::prop("any bytes", [](const std::string& bytes) {
    const auto once = shownText(bytes);
    RC_ASSERT(shownText(once) == once);
    for (const char c : once) RC_ASSERT(static_cast<unsigned char>(c) >= 0x20);
  });
  const bold::Json name = "a\x7F\xE2\x80\xAE\xF3\xA0\x80\x81\x1b";
  const auto shown = shownJson(name.dump());
  CHECK(shown.find("\xE2\x80\xAE") == std::string::npos);
  CHECK(parsedJson(shown) == name);
}
