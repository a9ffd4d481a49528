#include <QFileDialog>
#include <QFileInfo>
#include <QLabel>
#include <algorithm>

#include "core/harness/document_file.h"
#include "core/harness/exchange_part.h"
#include "core/harness/overlaid.h"
#include "core/parts/roles.h"
#include "gui/main_window.h"
#include "gui/panels/own_part_dialog.h"
#include "gui/picture/picture_view.h"
#include "gui/session/session.h"
#include "gui/sums/sums_dialog.h"
#include "gui/wiring/compare_dialog.h"
#include "gui/wiring/exchange_dialog.h"

/// What the window does with the part in hand, with a part that comes from outside, and with another bench.
namespace bold::gui {

std::string MainWindow::deviceInHand() const {
  const auto id = m_session.selection.subject().section('.', 0, 0).toStdString();
  return m_session.document.harness().device(id) ? id : std::string();
}

void MainWindow::exchangePicked() {
  const auto device = deviceInHand();
  if (device.empty()) return m_status->setText(tr("Pick a part first: it is the one that is exchanged."));
  (new ExchangeDialog(m_session, device, this))->show();
}

void MainWindow::duplicatePicked() {
  const auto device = deviceInHand();
  if (device.empty()) return m_status->setText(tr("Pick a part first: another one like it is put beside it."));
  const auto edit = harness::duplicate(m_session.document.harness(), device);
  if (!edit) return;
  m_session.document.apply(*edit);
  m_session.selection.select(QString::fromStdString(edit->changes.front().as<harness::Put<harness::Device>>()->value.id));
}

void MainWindow::compareWith() {
  const auto path = QFileDialog::getOpenFileName(this, tr("Compare with another bench"), QFileInfo(m_session.file.path()).path(),
                                                 tr("Benches (*.harness);;All files (*)"));
  if (!path.isEmpty()) compareWithFile(path);
}

void MainWindow::compareWithFile(const QString& path) {
  Disk disk;
  auto loaded = harness::load(disk, path.toStdString());
  if (!loaded) {
    Q_EMIT m_session.file.problems({QString::fromStdString(bold::text(loaded.error()))});
    return;
  }
  auto* dialog = new CompareDialog(m_session, std::move(loaded->harness), QFileInfo(path).fileName(), this);
  connect(dialog, &CompareDialog::overlay, this,
          [this](const std::optional<harness::Harness>& bench) { m_picture->picture().showInstead(bench); });
  dialog->show();
  m_picture->picture().showInstead(harness::overlaid(dialog->other(), m_session.document.harness()));
}

std::string MainWindow::motorInHand() const {
  const auto& h = m_session.document.harness();
  std::string first, open;
  for (const auto& d : h.devices) {
    const auto part = m_session.document.library().find(d.part);
    if (!part || !parts::isMotor(*part) || d.state == harness::State::ToBeRemoved) continue;
    if (d.id == m_session.selection.subject().toStdString()) return d.id;
    if (first.empty()) first = d.id;
    const bool hangs = std::ranges::any_of(h.connections, [&](const auto& c) { return c.a.device == d.id || c.b.device == d.id; });
    if (open.empty() && !hangs) open = d.id;
  }
  return open.empty() ? first : open;
}

void MainWindow::chooseStage() {
  const auto motor = motorInHand();
  if (motor.empty()) return m_status->setText(tr("There is no motor on this bench that could have a stage."));
  showStages(motor);
}

void MainWindow::showSums() {
  const auto motor = motorInHand();
  if (motor.empty()) return m_status->setText(tr("There is no motor on this bench to work anything out for."));
  (new SumsDialog(m_session, motor, this))->show();
}

// Looked over and named in the dialog before it is kept.
void MainWindow::importPart() {
  const auto path = QFileDialog::getOpenFileName(this, tr("Import a part"), QString(), tr("Parts (*.json);;All files (*)"));
  if (!path.isEmpty()) importPartFrom(path);
}

void MainWindow::importPartFrom(const QString& path) {
  Disk disk;
  const auto text = disk.read(path.toStdString());
  if (!text) {
    Q_EMIT m_session.file.problems({QString::fromStdString(bold::text(text.error()))});
    return;
  }
  (new OwnPartDialog(m_session, QString::fromStdString(*text), this))->show();
}

}  // namespace bold::gui
