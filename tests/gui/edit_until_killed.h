#pragma once

#include <QApplication>
#include <QTimer>
#include <cstdio>
#include <nlohmann/json.hpp>

#include "core/base/file_system.h"
#include "gui/session/session.h"
#include "support/benches.h"

namespace bold::test {

/// Tells on stdout which title a recovery file has once it is written.
class TellingDisk : public Disk {
 public:
  Result<bool> replace(const std::string& path, const std::string& text, Readers readers) override {
    auto done = Disk::replace(path, text, readers);
    if (done) tell("kept", std::stoi(parsedJson(parsedJson(text)["bench"].get<std::string>())["title"].get<std::string>()));
    return done;
  }
  static void tell(const char* what, int n) {
    std::printf("%s %d\n", what, n);
    std::fflush(stdout);
  }
};

/// A window's session that is edited every few milliseconds until somebody kills it. For the test that kills it: every edit
/// and every edit that is kept are told on stdout, by number.
inline int editUntilKilled(const char* file, const char* state) {
  TellingDisk disk;
  gui::Session session(library(), disk, state);
  if (!session.file.open(file)) return 2;
  int n = 0;
  QTimer timer;
  QObject::connect(&timer, &QTimer::timeout, [&] {
    session.document.apply({"title", {harness::SetTitle{std::to_string(++n)}}});
    TellingDisk::tell("done", n);
  });
  timer.start(7);
  return QApplication::exec();
}

}  // namespace bold::test
