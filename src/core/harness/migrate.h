#pragma once

#include <string>

/// Older formats of a bench file.
namespace bold::harness {

/// Brings a file of an older format to the newest, one step at a time. What a step does not concern stays to the byte, and nothing is
/// dropped: what could not be used before cannot be used after, and is named.
/// @param text whole JSON, an object with lists where lists belong
std::string migrate(std::string text, int format);

}  // namespace bold::harness
