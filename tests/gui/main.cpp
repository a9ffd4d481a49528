#include <QApplication>
#include <string_view>

#include "edit_until_killed.h"
#include "gui/theme/palette.h"
#include "support/process.h"
#include "support/run_tests.h"

// A home of its own, so that the user's settings and parts are neither read nor written.
int main(int argc, char** argv) {
  const bold::test::TemporaryFolder home;
  qputenv("HOME", home.path().c_str());
  for (const auto* name : {"XDG_DATA_HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME"}) qputenv(name, home.path().c_str());
  if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  QApplication app(argc, argv);
  if (argc == 4 && std::string_view(argv[1]) == "--edit-until-killed") return bold::test::editUntilKilled(argv[2], argv[3]);
  QApplication::setOrganizationName("bold-harness-test");
  bold::gui::applyTheme(app, bold::gui::Theme::Light);
  return bold::test::runTests(argc, argv);
}
