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

Exporter::Exporter(Session& session, QWidget& window) : QObject(&window), m_session(session), m_window(window) {}

void Exporter::begin(const QString& path, const QString& what, harness::Overwrite overwrite) {
  const auto ending = "." + QFileInfo(path).suffix().toStdString();
  const auto* kind = render::exportKind(ending);
  if (!kind) return Q_EMIT done(tr("A file ends in .svg, .png, .pdf, .csv, .h, .hpp or .py."));
  const auto holds = what.isEmpty() ? std::string(kind->holds.front()) : what.toStdString();
  if (std::ranges::count(kind->holds, holds) == 0) return Q_EMIT done(tr("A file that ends in %1 does not hold that.").arg(qs(ending)));
  if (!m_session.analyser.current()) return Q_EMIT done(tr("The bench is still being judged: try again in a moment."));
  const auto file = m_session.file.path().isEmpty() ? std::string("not saved") : QFileInfo(m_session.file.path()).fileName().toStdString();
  const render::ExportOf of{file, QDate::currentDate().toString(Qt::ISODate).toStdString()};
  Q_EMIT said(tr("Writing %1…").arg(QFileInfo(path).fileName()));
  m_work.begin([this, h = m_session.document.harness(), library = m_session.document.library(), analysis = m_session.analyser.analysis(),
                ending, holds, of, path, overwrite](const auto& run) {
    const auto bytes = render::exported(h, library, analysis, ending, holds, of, [&] { return run.cancelled(); });
    if (run.cancelled()) return;
    Disk disk;
    const auto written = bytes ? harness::writeExport(disk, path.toStdString(), *bytes, overwrite) : Result<bool>(fail(bytes.error()));
    run.hand([this, path, why = written ? QString() : qs(bold::text(written.error()))] {
      Q_EMIT said(why.isEmpty() ? tr("Written: %1").arg(path) : QString());
      Q_EMIT done(why);
    });
  });
}

void Exporter::choose() {
  QStringList filters;
  for (const auto& o : kOffers) filters << filterOf(o);
  auto chosen = filters.front();
  const auto name = m_session.file.path().isEmpty() ? QString("bench") : QFileInfo(m_session.file.path()).completeBaseName();
  auto path = QFileDialog::getSaveFileName(&m_window, tr("Export the bench"), name + ".pdf", filters.join(";;"), &chosen);
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
  if (!mayWriteTo(&m_window, disk, path, overwrite)) return;
  begin(path, fits || QFileInfo(path).suffix() == offer.ending ? offer.what : QString(), harness::Overwrite::Yes);
}

}  // namespace bold::gui
