#pragma once

#include <span>
#include <string_view>

/// Files compiled into the program by cmake/Embed.cmake.
namespace bold::embedded {

struct File {
  std::string_view path;
  std::string_view text;
};

std::span<const File> parts();         ///< data/parts
std::span<const File> pages();         ///< docs/checks
std::span<const File> schemas();       ///< data/schema
std::span<const File> programCalls();  ///< data/program
std::span<const File> licences();      ///< third_party/licences
std::span<const File> demos();         ///< demo/*.harness

}  // namespace bold::embedded
