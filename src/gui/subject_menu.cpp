#include "gui/subject_menu.h"

#include <QCoreApplication>
#include <QMenu>
#include <functional>

#include "core/harness/mark_done.h"
#include "core/harness/names.h"
#include "core/harness/remove_device.h"
#include "core/harness/turn_round.h"
#include "core/parts/roles.h"
#include "gui/panels/part_card_dialog.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/sums/sums_dialog.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

QString tr(const char* text) {
  return QCoreApplication::translate("SubjectMenu", text);
}

void add(QMenu& menu, const QString& text, bool can, const std::function<void()>& then) {
  auto* action = menu.addAction(plainAction(text), &menu, then);
  action->setEnabled(can);
}

void ofConnection(QMenu& menu, Session& s, const harness::Connection& c) {
  const bool can = !s.document.readOnly();
  const auto id = c.id;
  for (const auto* end : {&c.a, &c.b})
    add(menu, tr("Go to %1").arg(qs(shownEnd(s.document.harness(), s.document.library(), *end))), true,
        [&s, text = qs(end->text())] { s.selection.select(text); });
  menu.addSeparator();
  if (c.kind == harness::ConnectionKind::Wire) {
    auto* colours = menu.addMenu(tr("Colour"));
    for (const auto& [code, name] : wireCodes())
      add(*colours, code + "  " + name, can, [&s, id, code = code] {
        const auto* now = s.document.harness().connection(id);
        if (!now || now->colour == code.toStdString()) return;
        auto changed = *now;
        changed.colour = code.toStdString();
        s.document.apply({"Recolour " + shownEnds(s.document.harness(), s.document.library(), changed),
                          {harness::Put<harness::Connection>{changed, {}}}});
      });
  }
  if (c.state != harness::State::OnBench)
    add(menu, tr("It is done"), can, [&s, id] { s.document.apply(harness::markDone(s.document.harness(), id)); });
  add(menu, c.kind == harness::ConnectionKind::Plug ? tr("Pull it out") : tr("Delete"), can, [&s, id] {
    if (const auto* now = s.document.harness().connection(id))
      s.document.apply({"Delete " + shownEnds(s.document.harness(), s.document.library(), *now), {harness::Drop<harness::Connection>{id}}});
  });
}

void ofDevice(QMenu& menu, Session& s, const harness::Device& d, QWidget* parent) {
  const bool can = !s.document.readOnly();
  const auto id = d.id;
  add(menu, tr("Its figures and settings"), true, [&s, id] { s.selection.jump({id, {}}); });
  if (s.document.library().find(d.part))
    add(menu, tr("About this part"), true,
        [&s, part = d.part, id = d.id, parent] { (new PartCardDialog(s, part, id, parent->window()))->show(); });
  if (const auto part = s.document.library().find(d.part); part && parts::isMotor(*part)) {
    add(menu, tr("Sums…"), true, [&s, id, parent] { (new SumsDialog(s, id, parent->window()))->show(); });
    add(menu, tr("Choose a stage…"), can, [&s, id] { s.selection.chooseStage(qs(id)); });
  }
  menu.addSeparator();
  if (auto edit = harness::turnRound(s.document.harness(), s.document.library(), id))
    add(menu, tr("Turn it round"), can, [&s, edit = std::move(*edit)] { s.document.apply(edit); });
  if (d.state != harness::State::OnBench)
    add(menu, tr("It is done"), can, [&s, id] { s.document.apply(harness::markDone(s.document.harness(), id)); });
  add(menu, tr("Take it off the bench"), can, [&s, id] {
    if (s.document.harness().device(id)) s.document.apply(harness::removeDevice(s.document.harness(), id));
  });
}

void ofPlace(QMenu& menu, Session& s, const Address& end, QWidget* parent) {
  int n = 0;
  for (const auto& c : s.document.harness().connections)
    if (c.a == end || c.b == end) {
      ++n;
      auto* sub = menu.addMenu(
          plainAction(tr("%1 to %2").arg(qs(c.id), qs(shownEnd(s.document.harness(), s.document.library(), c.a == end ? c.b : c.a)))));
      add(*sub, tr("Pick it"), true, [&s, id = qs(c.id)] { s.selection.select(id); });
      ofConnection(*sub, s, c);
    }
  if (n == 0) menu.addAction(tr("nothing is connected here"))->setEnabled(false);
  menu.addSeparator();
  if (const auto* d = s.document.harness().device(end.device))
    ofDevice(*menu.addMenu(plainAction(qs(shownName(s.document.harness(), *d)))), s, *d, parent);
}

}  // namespace

void showSubjectMenu(Session& s, const QString& subject, const QPoint& global, QWidget* parent) {
  QMenu menu(parent);
  menu.setObjectName("subjectMenu");
  const auto id = subject.toStdString();
  if (const auto* c = s.document.harness().connection(id))
    ofConnection(menu, s, *c);
  else if (const auto* d = s.document.harness().device(id))
    ofDevice(menu, s, *d, parent);
  else if (const auto end = parseAddress(id))
    ofPlace(menu, s, *end, parent);
  if (!menu.isEmpty()) menu.exec(global);
}

}  // namespace bold::gui
