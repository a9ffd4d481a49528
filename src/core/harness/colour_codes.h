#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>

/// Wire colours by IEC 60757.
namespace bold::harness {

struct ColourCode {
  std::string_view code, name;
  std::string_view shown;  ///< "#c62828": as a thread of that colour is drawn
};
inline constexpr std::array<ColourCode, 14> kColourCodes{{{"BK", "black", "#20272b"},
                                                          {"BN", "brown", "#7a4a22"},
                                                          {"RD", "red", "#c62828"},
                                                          {"OG", "orange", "#e0761b"},
                                                          {"YE", "yellow", "#e3c112"},
                                                          {"GN", "green", "#2f8f3e"},
                                                          {"BU", "blue", "#2f6fc4"},
                                                          {"VT", "violet", "#7a46a8"},
                                                          {"GY", "grey", "#8a9296"},
                                                          {"WH", "white", "#f4f4f1"},
                                                          {"PK", "pink", "#e58ab0"},
                                                          {"TQ", "turquoise", "#2ca7a0"},
                                                          {"GD", "gold", "#c9a227"},
                                                          {"SR", "silver", "#b9c0c4"}}};

/// One code, or two: a colour and its stripe.
bool isColour(std::string_view text);
/// "GNYE" of "gnye", "green-yellow", "green and yellow", "green/yellow"; nothing where it is no colour.
std::optional<std::string> colourTyped(std::string_view text);
/// "red", "green and yellow"; the text itself where it is no code.
std::string colourName(std::string_view code);
/// How a thread is drawn that has the first (0) or second (1) colour of a code; grey where it has none, empty where there is no second.
std::string_view shownColour(std::string_view code, int which = 0);

}  // namespace bold::harness
