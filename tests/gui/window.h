#pragma once

#include <QAction>
#include <QPushButton>
#include <QSignalSpy>
#include <QTest>
#include <utility>
#include <vector>

#include "core/base/file_system.h"
#include "gui/main_window.h"
#include "gui/panels/finding_card.h"
#include "gui/panels/step_rail.h"
#include "gui/picture/picture_view.h"
#include "gui/session/session.h"
#include "support/benches.h"
#include "support/process.h"

namespace bold::test {

/// Whether something comes about. A loaded machine is slow, not wrong: only what never comes is waited for this long.
template <class Condition>
bool eventually(Condition condition) {
  return QTest::qWaitFor(condition, 30000);
}

/// A window on a session of its own, shown.
struct Window {
  TemporaryFolder folder;
  Disk disk;
  gui::Session session;
  gui::MainWindow main{session};

  /// @param state where changes are kept; a folder of its own unless named
  explicit Window(const std::string& state = {}) : session(library(), disk, state.empty() ? folder.path("state") : state) {
    main.show();
    (void)QTest::qWaitForWindowExposed(&main);
  }
  ~Window() { session.document.undoStack().setClean(); }

  /// Opens a copy of a file below the source folder; returns the copy's path.
  std::string open(const std::string& source) {
    const auto path = folder.write("bench.harness", readFile(source));
    main.openFile(QString::fromStdString(path));
    settle();
    return path;
  }
  /// Waits until the analysis with its explanations is there.
  void settle() {
    (void)eventually([&] { return session.analyser.current() && session.analyser.analysis().explained; });
    // New cards are laid out, which takes several rounds: until a round moves nothing any more.
    std::vector<QRect> before;
    (void)eventually([&] {
      QTest::qWait(30);
      std::vector<QRect> now;
      for (const auto* c : main.findChildren<gui::FindingCard*>()) now.push_back(c->geometry());
      return std::exchange(before, now) == now;
    });
  }
  template <class W>
  W* find(const char* name) {
    auto* w = main.findChild<W*>(name);
    return w;
  }
  gui::Picture& picture() { return main.findChild<gui::PictureView*>("pictureView")->picture(); }
};

/// The card that speaks of a check, as far as one is shown; nullptr: none.
inline gui::FindingCard* card(Window& w, const QString& check) {
  for (auto* c : w.main.findChildren<gui::FindingCard*>())
    if (!c->isHidden() && c->identity().startsWith(check)) return c;
  return nullptr;
}

/// An action of the menus by its text, marks of keys left out; nullptr: none.
inline QAction* action(Window& w, QString text) {
  text.remove('&');
  for (auto* a : w.main.findChildren<QAction*>())
    if (QString(a->text()).remove('&') == text) return a;
  return nullptr;
}

}  // namespace bold::test
