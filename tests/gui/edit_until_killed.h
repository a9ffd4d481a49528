#pragma once

#include <QApplication>
#include <QTimer>
#include <cstdio>

#include "core/harness/file_system.h"
#include "gui/session/session.h"
#include "support/benches.h"

namespace bold::test {

/// A window's session that is edited every few milliseconds until somebody kills it; each edit is told on stdout with the
/// time since the first in ms. For the test that kills it.
inline int editUntilKilled(const char* file, const char* state) {
  Disk disk;
  gui::Session session(library(), disk, state);
  if (!session.open(file)) return 2;
  int n = 0;
  QElapsedTimer clock;
  clock.start();
  QTimer timer;
  QObject::connect(&timer, &QTimer::timeout, [&] {
    session.apply({"title", {harness::SetTitle{std::to_string(++n)}}});
    std::printf("%d %lld\n", n, static_cast<long long>(clock.elapsed()));
    std::fflush(stdout);
  });
  timer.start(7);
  return QApplication::exec();
}

}  // namespace bold::test
