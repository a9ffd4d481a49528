#pragma once

#include <variant>

#include "core/harness/edit.h"

namespace bold::harness {

/// What a change is. Whoever wants to know one kind asks `Change::as`; this is for those who deal with all of them.
struct AnyChange
    : std::variant<Put<Device>, Drop<Device>, Put<Connection>, Drop<Connection>, Put<Goal>, Drop<Goal>, Put<Assignment>, Drop<Assignment>,
                   Put<ProgramFacts>, Drop<ProgramFacts>, Put<SourceRead>, Drop<SourceRead>, Put<Mark>, Drop<Mark>, Put<Round>, Drop<Round>,
                   SetTitle, SetAmbient, SetNames, SetSource, DropUnread, PutUnread, DropCopy, PutCopy> {
  using variant::variant;
};

}  // namespace bold::harness
