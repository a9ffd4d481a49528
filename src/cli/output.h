#pragma once

#include <string_view>

/// Everything that boldh prints goes through here: what comes from files shows itself and never acts on the terminal, and
/// an output that cannot be written is noticed.
namespace bold::cli {

void say(std::string_view lines);           ///< our own lines with data in them, to standard output
void sayJson(std::string_view json);        ///< to standard output
void sayColoured(std::string_view report);  ///< to standard output, as it is: a report shows its data by itself
void complain(std::string_view line);       ///< "boldh: " and the line, to standard error

/// At the end. @return whether everything was written; if not, the reason has gone to standard error
bool finishOutput();

}  // namespace bold::cli
