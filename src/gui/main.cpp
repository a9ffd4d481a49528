#include <QApplication>
#include <QBuffer>
#include <QCommandLineParser>
#include <QIcon>
#include <QLocale>
#include <QPdfWriter>
#include <QPixmap>
#include <QSettings>
#include <QTimer>
#include <csignal>
#include <cstdio>

#include "core/parts/own_parts.h"
#include "gui/field_manners.h"
#include "gui/main_window.h"
#include "gui/panels/own_part_dialog.h"
#include "gui/panels/part_card_dialog.h"
#include "gui/panels/step_rail.h"
#include "gui/report_actions.h"
#include "gui/session/session.h"
#include "gui/steps.h"
#include "gui/theme/palette.h"
#include "render/bench_export.h"

using namespace bold;
using namespace bold::gui;

int main(int argc, char** argv) {
  // For completion, where there may be no display.
  if (argc == 2 && std::string_view(argv[1]) == "--steps") {
    for (const auto& row : steps()) std::puts(row.id);
    return 0;
  }
  std::signal(SIGXFSZ, SIG_IGN);  // a file that may grow no further is a sentence, not the end
  QApplication app(argc, argv);
  QLocale::setDefault(QLocale::c());  // numbers have a decimal point, as in files and reports
  QApplication::setApplicationName("bold-harness");
  QApplication::setOrganizationName("bold-harness");
  QApplication::setApplicationVersion(BOLD_VERSION);
  QApplication::setDesktopFileName("bold-harness");
  QApplication::setWindowIcon(QIcon::fromTheme("bold-harness"));
  QCommandLineParser options;
  options.setApplicationDescription("Looks a motor bench over before power-up. Judges DC benches up to 60 V.");
  options.addHelpOption();
  options.addVersionOption();
  options.addOption({"picture", "Write a picture of the window to FILE (PNG) and end.", "FILE"});
  options.addOption({"report", "Write the report to FILE (PDF) and end.", "FILE"});
  options.addOption({"force", "With --picture or --report: write over what stands there."});
  options.addOption({"step", QString("Begin with this step: %1.").arg(stepIds()), "STEP", "limits"});
  options.addOption({"steps", "Print the names of the steps and end."});
  options.addOption({"command", "Show the currents of this command, such as \"Wave paddle forward\".", "COMMAND"});
  options.addOption({"card", "Show the card of this part.", "PART"});
  options.addOption({"stages", "Try the stages of the library for this motor.", "MOTOR"});
  options.addOption({"look-over", "Begin looking the wires over."});
  options.addOption({"read-back", "Begin a round of reading the wiring back, by this reader.", "READER"});
  options.addOption({"change", "Make a part of your own from this part.", "PART"});
  options.addOption({"fields", "With --change: show every field, down to this one (terminals/0).", "PATH"});
  options.addOption({"pick", "Pick the finding with this number.", "N"});
  options.addOption({"select", "Select a device, terminal or connection.", "ID"});
  options.addOption({"theme", "light or dark.", "THEME"});
  options.addOption({"first-paint", "End as soon as the window has been painted: to measure the start."});
  options.addOption({"size", "Size of the window, such as 1024x700.", "SIZE"});
  options.addPositionalArgument("FILE", "A bench to open.");
  options.process(app);
  if (!render::fontsInstalled()) {
    std::fprintf(stderr, "bold-harness: no fonts are installed, and nothing could be read: install one, such as fonts-inter.\n");
    return 2;
  }

  const auto theme = options.isSet("theme") ? options.value("theme") : QSettings().value("theme", "light").toString();
  applyTheme(app, theme == "dark" ? Theme::Dark : Theme::Light);

  app.installEventFilter(new FieldManners(&app));
  Disk disk;
  auto library = parts::Library::shipped();
  std::vector<Problem> problems;
  parts::addOwn(library, disk, problems);
  for (const auto& p : problems) std::fprintf(stderr, "bold-harness: %s\n", text(p).c_str());

  Session session(std::move(library), disk);
  MainWindow window(session);
  if (const auto size = options.value("size").split('x'); size.size() == 2) window.resize(size[0].toInt(), size[1].toInt());
  const auto* step = stepById(options.value("step"));
  if (!step) {
    std::fprintf(stderr, "bold-harness: there is no step \"%s\": it is %s.\n", qPrintable(options.value("step")), qPrintable(stepIds()));
    return 2;
  }
  const auto showStep = [&] { window.rail().setStep(step->step); };
  showStep();
  window.show();
  // Nobody is there to close a message.
  const bool alone = options.isSet("picture") || options.isSet("report");
  if (alone) {
    QObject::disconnect(&session.file, &BenchFile::problems, nullptr, nullptr);
    QObject::connect(&session.file, &BenchFile::problems, [](const QStringList& list) {
      for (const auto& p : list) std::fprintf(stderr, "bold-harness: %s\n", qPrintable(p));
    });
  }
  if (options.positionalArguments().isEmpty() && !options.isSet("step")) window.rail().setStep(Step::Bench);
  if (!options.positionalArguments().isEmpty()) window.openFile(options.positionalArguments().front());
  if (options.isSet("step")) showStep();  // what is opened begins with its limits
  if (!alone) window.offerRecovery();

  if (options.isSet("select")) session.selection.select(options.value("select"));
  if (options.isSet("command")) session.selection.showCommand(options.value("command"), session.selection.shownCorner());

  QWidget* shown = &window;
  if (options.isSet("card")) {
    auto* card = new PartCardDialog(session, options.value("card").toStdString(), {}, &window);
    card->show();
    shown = card;
  }

  if (options.isSet("stages")) window.showStages(options.value("stages").toStdString());

  if (options.isSet("look-over")) window.lookOver();
  if (options.isSet("read-back")) window.readBack(options.value("read-back"), 7);  // always in one order: for pictures
  if (options.isSet("change")) {
    const auto id = options.value("change").toStdString();
    if (const auto copy = parts::copyOf(session.document.library(), id, "my-" + id, "My part")) {
      auto* dialog = new OwnPartDialog(session, QString::fromStdString(*copy), &window);
      dialog->show();
      if (options.isSet("fields")) {
        parts::Path path;
        for (const auto& key : options.value("fields").split('/', Qt::SkipEmptyParts)) path.push_back(key.toStdString());
        dialog->showField(path);
      }
      shown = dialog;
    }
  }

  if (options.isSet("first-paint")) {
    window.grab();
    return 0;
  }

  if (alone) {
    // The explained analysis is the last that comes for a document that nobody edits; then one moment to lay out.
    auto* settle = new QTimer(&app);
    settle->setSingleShot(true);
    settle->setInterval(options.isSet("stages") ? 4000 : 150);  // all stages are tried by then
    QObject::connect(&session.analyser, &Analyser::changed, settle, [&session, settle, &options] {
      if (!session.analyser.analysis().explained) return;
      for (const auto& f : session.analyser.analysis().findings)
        if (options.isSet("pick") && f.explainedBy.empty() && f.number == options.value("pick").toInt())
          session.selection.pick(QString::fromStdString(f.identity()));
      settle->start();
    });
    // What was judged before anybody listened does not change any more: an empty bench is.
    if (session.analyser.current() && session.analyser.analysis().explained) settle->start();
    QObject::connect(settle, &QTimer::timeout, &app, [shown, &options, &session] {
      const auto written = [&](const QString& file, const QByteArray& bytes) {
        const auto done = harness::writeExport(session.file.disk(), file.toStdString(), bytes.toStdString(),
                                               options.isSet("force") ? harness::Overwrite::Yes : harness::Overwrite::Ask);
        if (!done)
          std::fprintf(stderr, "bold-harness: %s%s\n", text(done.error()).c_str(),
                       done.error().kept == harness::kAsk ? " --force insists." : "");
        return done.has_value();
      };
      bool all = true;
      if (const auto file = options.value("picture"); !file.isEmpty()) {
        QBuffer png;
        png.open(QIODevice::WriteOnly);
        shown->grab().save(&png, "PNG");
        all = written(file, png.data());
      }
      if (const auto file = options.value("report"); !file.isEmpty()) {
        QBuffer pdf;
        pdf.open(QIODevice::WriteOnly);
        {
          QPdfWriter pages(&pdf);
          paintReport(session, pages);
        }
        all = written(file, pdf.data()) && all;
      }
      QApplication::exit(all ? 0 : 2);
    });
  }
  return QApplication::exec();
}
