#include "gui/write_asking.h"

#include <QCoreApplication>
#include <QMessageBox>
#include <QPushButton>

#include "gui/qs.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

QString askingWords(const char* text) {
  return QCoreApplication::translate("WriteAsking", text);
}

}  // namespace

bool mayWriteTo(QWidget* window, FileSystem& disk, const QString& path, harness::Overwrite overwrite) {
  const auto why = harness::objection(disk, path.toStdString(), harness::Written::Export, overwrite);
  if (!why) return true;
  QMessageBox box(QMessageBox::Warning, askingWords("Write over it?"), qs(text(*why)), QMessageBox::Cancel, window);
  box.setObjectName("writeOver");
  auto* over = box.addButton(askingWords("Write over it"), QMessageBox::DestructiveRole);
  makePlain(box);
  box.exec();
  return box.clickedButton() == over;
}

bool writeAsking(QWidget* window, const QString& path, const std::string& bytes, harness::Overwrite overwrite) {
  Disk disk;
  if (!mayWriteTo(window, disk, path, overwrite)) return false;
  const auto written = harness::writeExport(disk, path.toStdString(), bytes, harness::Overwrite::Yes);
  if (!written) tell(window, askingWords("Nothing was written"), qs(text(written.error())));
  return written.has_value();
}

}  // namespace bold::gui
