#include "gui/report_actions.h"

#include <QClipboard>
#include <QFileInfo>
#include <QGuiApplication>
#include <QPrintDialog>
#include <QPrinter>
#include <QTextDocument>

#include "core/report/report.h"
#include "gui/session/session.h"
#include "gui/write_asking.h"

namespace bold::gui {
namespace {

std::string fileOf(const Session& session) {
  return session.file.path().isEmpty() ? "not saved" : QFileInfo(session.file.path()).fileName().toStdString();
}

}  // namespace

void copyReport(const Session& session) {
  QGuiApplication::clipboard()->setText(
      QString::fromStdString(report::text(fileOf(session), session.document.harness(), session.analyser.analysis())));
}

void paintReport(const Session& session, QPagedPaintDevice& pages) {
  QTextDocument document;
  document.setDefaultFont(QFont("Inter", 10));
  document.setDefaultStyleSheet(
      "h1{font-size:16pt} h2{font-size:13pt} h3{font-size:11pt} code{font-family:'DejaVu Sans Mono'} "
      "body{color:black}");
  document.setHtml(QString::fromStdString(report::html(fileOf(session), session.document.harness(), session.analyser.analysis())));
  document.print(&pages);
}

void printReport(const Session& session, QWidget* window) {
  QPrinter printer(QPrinter::HighResolution);
  printer.setDocName(QString::fromStdString(session.document.harness().title));
  QPrintDialog dialog(&printer, window);
  if (dialog.exec() != QDialog::Accepted) return;
  Disk disk;
  const auto file = printer.outputFileName();  // of who prints into a file, which the dialog has asked about
  if (file.isEmpty() || mayWriteTo(window, disk, file, harness::Overwrite::AskUnlessAlike)) paintReport(session, printer);
}

}  // namespace bold::gui
