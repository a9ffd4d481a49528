#include "gui/export_actions.h"

#include <QCoreApplication>
#include <QDate>
#include <QFileDialog>
#include <QFileInfo>

#include "core/base/file_system.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"
#include "gui/write_asking.h"
#include "render/bench_export.h"

namespace bold::gui {
namespace {

QString worded(const char* text) {
  return QCoreApplication::translate("ExportActions", text);
}

struct Offer {
  const char* name;
  const char* ending;
  const char* what;
};
constexpr Offer kOffers[]{{QT_TRANSLATE_NOOP("ExportActions", "Sheet for the bench"), "pdf", "sheet"},
                          {QT_TRANSLATE_NOOP("ExportActions", "Loom, SVG"), "svg", "loom"},
                          {QT_TRANSLATE_NOOP("ExportActions", "Loom, PNG"), "png", "loom"},
                          {QT_TRANSLATE_NOOP("ExportActions", "Loom, PDF"), "pdf", "loom"},
                          {QT_TRANSLATE_NOOP("ExportActions", "Wire list"), "csv", "wires"},
                          {QT_TRANSLATE_NOOP("ExportActions", "Wires to cut"), "csv", "cuts"},
                          {QT_TRANSLATE_NOOP("ExportActions", "Parts"), "csv", "parts"},
                          {QT_TRANSLATE_NOOP("ExportActions", "Pins for C"), "h", "pins"},
                          {QT_TRANSLATE_NOOP("ExportActions", "Pins for C++"), "hpp", "pins"},
                          {QT_TRANSLATE_NOOP("ExportActions", "Pins for Python"), "py", "pins"}};

QString filterOf(const Offer& o) {
  return QString("%1 (*.%2)").arg(worded(o.name), o.ending);
}

}  // namespace

QString exportTo(const Session& s, const QString& path, const QString& what, harness::Overwrite overwrite) {
  const auto ending = "." + QFileInfo(path).suffix().toStdString();
  const auto* kind = render::exportKind(ending);
  if (!kind) return worded("A file ends in .svg, .png, .pdf, .csv, .h, .hpp or .py.");
  const auto holds = what.isEmpty() ? std::string(kind->holds.front()) : what.toStdString();
  if (std::ranges::count(kind->holds, holds) == 0) return worded("A file that ends in %1 does not hold that.").arg(qs(ending));
  if (!s.analyser.current()) return worded("The bench is still being judged: try again in a moment.");
  const auto file = s.file.path().isEmpty() ? std::string("not saved") : QFileInfo(s.file.path()).fileName().toStdString();
  const auto bytes = render::exported(s.document.harness(), s.document.library(), s.analyser.analysis(), ending, holds,
                                      {file, QDate::currentDate().toString(Qt::ISODate).toStdString()});
  if (!bytes) return qs(bold::text(bytes.error()));
  Disk disk;
  const auto done = harness::writeExport(disk, path.toStdString(), *bytes, overwrite);
  return done ? QString() : qs(bold::text(done.error()));
}

void chooseAndExport(Session& s, QWidget* window) {
  QStringList filters;
  for (const auto& o : kOffers) filters << filterOf(o);
  auto chosen = filters.front();
  const auto name = s.file.path().isEmpty() ? QString("bench") : QFileInfo(s.file.path()).completeBaseName();
  auto path = QFileDialog::getSaveFileName(window, worded("Export the bench"), name + ".pdf", filters.join(";;"), &chosen);
  if (path.isEmpty()) return;
  const auto& offer = kOffers[std::max<qsizetype>(0, filters.indexOf(chosen))];
  // A name that ends otherwise says what is meant.
  const bool fits = QFileInfo(path).suffix() == offer.ending;
  auto overwrite = harness::Overwrite::AskUnlessAlike;
  if (QFileInfo(path).suffix().isEmpty()) {
    path += QString(".") + offer.ending;  // which the dialog did not look at
    overwrite = harness::Overwrite::Ask;
  }
  Disk disk;
  if (!mayWriteTo(window, disk, path, overwrite)) return;
  const auto why =
      exportTo(s, path, fits || QFileInfo(path).suffix() == offer.ending ? offer.what : QString(), harness::Overwrite::Yes);
  if (!why.isEmpty()) tell(window, worded("Nothing was written"), why);
}

}  // namespace bold::gui
