#include "gui/file_actions.h"

#include <QDateTime>
#include <QFileDialog>
#include <QFileInfo>
#include <QLocale>
#include <QMenu>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>

#include "gui/half_typed.h"
#include "gui/panels/notice_bar.h"
#include "gui/panels/plural.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {
constexpr int kMostRecent = 8;
constexpr int kMostDifferences = 3;

QString nameOf(const harness::OpenFile& file) {
  return file.path.empty() ? FileActions::tr("a bench that was never saved") : QFileInfo(QString::fromStdString(file.path)).fileName();
}
}  // namespace

FileActions::FileActions(Session& session, NoticeBar& notices, QWidget& window)
    : QObject(&window), m_session(session), m_notices(notices), m_window(window) {
  connect(&session.file, &BenchFile::problems, this, &FileActions::showProblems);
  // It is read whenever somebody saves it: said beside the work, not in its way.
  connect(&session.program, &ProgramReader::problems, this, [this](const QStringList& sentences) {
    auto text = sentences.mid(0, 2).join(" ");
    if (sentences.size() > 2) text += " " + tr("And %1 more.").arg(sentences.size() - 2);
    m_notices.say("program", text, {{tr("I know"), "programKnown", {}}});
  });
  connect(&session.program, &ProgramReader::changed, this, [this] {
    if (m_session.program.reading()) m_notices.withdraw("program");
  });
  connect(&session.file, &BenchFile::changedOnDisk, this, &FileActions::changedOnDisk);
  connect(&session.file, &BenchFile::openElsewhere, this, [this] {
    m_notices.say(
        "elsewhere",
        tr("%1 is open in another window as well. Whoever saves second is asked first.").arg(QFileInfo(m_session.file.path()).fileName()),
        {{tr("I know"), "elsewhereKnown", {}}});
  });
  connect(&session.file, &BenchFile::notKept, this, [this](const QString& sentence) {
    m_notices.say("notKept", tr("Changes are not kept for a recovery: save often. %1").arg(sentence), {{tr("I know"), "notKeptKnown", {}}});
  });
  connect(&session.document, &Document::replaced, this, [this] {
    for (const auto* key : {"elsewhere", "changedOnDisk", "program"}) m_notices.withdraw(key);
  });
}

void FileActions::open(const QString& path) {
  if (m_session.file.open(path)) remember(QFileInfo(path).absoluteFilePath());
}

void FileActions::chooseAndOpen() {
  const auto path = QFileDialog::getOpenFileName(&m_window, tr("Open a bench"), QFileInfo(m_session.file.path()).path(),
                                                 tr("Benches (*.harness);;All files (*)"));
  if (!path.isEmpty() && mayDiscard()) open(path);
}

bool FileActions::takeUpTyped() {
  const auto refused = takeUp(m_window);
  if (refused.isEmpty()) return true;
  QMessageBox box(QMessageBox::Warning, tr("Not taken up"), refused.join("\n"), QMessageBox::Cancel, &m_window);
  box.setObjectName("notTakenUp");
  box.button(QMessageBox::Cancel)->setText(tr("Go back"));
  auto* without = box.addButton(tr("Go on without it"), QMessageBox::DestructiveRole);
  box.setDefaultButton(QMessageBox::Cancel);
  makePlain(box);
  box.exec();
  return box.clickedButton() == without;
}

bool FileActions::mayDiscard() {
  if (!takeUpTyped() || !mayGiveUp(m_window)) return false;
  if (m_session.document.undoStack().isClean()) return true;
  QMessageBox ask(QMessageBox::Question, tr("Unsaved changes"), tr("This bench has changes that are not saved. Save them first?"),
                  QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, &m_window);
  ask.setDefaultButton(QMessageBox::Save);
  ask.setObjectName("unsaved");
  const int answer = ask.exec();
  if (answer == QMessageBox::Save) return save(false);
  if (answer == QMessageBox::Discard) m_session.file.giveUp();
  return answer == QMessageBox::Discard;
}

bool FileActions::save(bool as) {
  if (!takeUpTyped()) return false;
  auto path = m_session.file.path();
  bool named = false;
  if (as || path.isEmpty()) {
    path =
        QFileDialog::getSaveFileName(&m_window, tr("Save the bench"), path.isEmpty() ? "bench.harness" : path, tr("Benches (*.harness)"));
    if (path.isEmpty()) return false;
    named = !QFileInfo(path).suffix().isEmpty();
    if (!named) path += ".harness";
  }
  bool ask = false;
  // The dialog has asked about a file that is there; what it did not look at is asked about here.
  auto wrong = m_session.file.save(path, named ? harness::Overwrite::AskUnlessAlike : harness::Overwrite::Ask, ask);
  if (!wrong.isEmpty()) {
    QMessageBox box(QMessageBox::Warning, ask ? tr("Write over it?") : tr("Not saved"), wrong, QMessageBox::Cancel, &m_window);
    box.setObjectName("notSaved");
    auto* over = ask ? box.addButton(tr("Write over it"), QMessageBox::DestructiveRole) : nullptr;
    auto* other = box.addButton(tr("Save as…"), QMessageBox::AcceptRole);
    makePlain(box);
    box.exec();
    if (box.clickedButton() == other) return save(true);
    if (!over || box.clickedButton() != over) return false;
    wrong = m_session.file.save(path, harness::Overwrite::Yes, ask);
    if (!wrong.isEmpty()) {
      tell(&m_window, tr("Not saved"), wrong);
      return false;
    }
  }
  sayLinks(path);
  remember(path);
  m_notices.withdraw("changedOnDisk");
  m_notices.withdraw("notEntered");
  if (const auto waiting = waitingIn(m_window); !waiting.isEmpty())
    m_notices.say("notEntered", tr("Saved. Not in the file, since it is typed and not entered: %1.").arg(waiting.join("; ")),
                  {{tr("I know"), "notEnteredKnown", {}}});
  Q_EMIT saved();
  return true;
}

// What else was changed by writing there; once for each file.
void FileActions::sayLinks(const QString& path) {
  const auto state = m_session.file.stateOf(path);
  if ((state.leadsTo.empty() && state.names < 2) || m_saidLinks.contains(path)) return;
  m_saidLinks << path;
  const auto name = QFileInfo(path).fileName();
  m_notices.say("links",
                state.leadsTo.empty() ? tr("%1 has %2 names on this disk: all of them hold what you saved.").arg(name).arg(state.names)
                                      : tr("%1 is a link: what you saved stands in %2.").arg(name, QString::fromStdString(state.leadsTo)),
                {{tr("I know"), "linksKnown", {}}});
}

void FileActions::remember(const QString& path) {
  QSettings s;
  auto list = s.value("recent").toStringList();
  list.removeAll(path);
  list.prepend(path);
  s.setValue("recent", QStringList(list.mid(0, kMostRecent)));
}

void FileActions::fillRecent(QMenu& menu) {
  menu.clear();
  for (const auto& path : QSettings().value("recent").toStringList()) {
    auto* action = menu.addAction(plainAction(QFileInfo(path).fileName()));
    action->setToolTip(plainTip(path));
    connect(action, &QAction::triggered, this, [this, path] {
      if (mayDiscard()) open(path);
    });
  }
  if (menu.isEmpty()) menu.addAction(tr("nothing opened yet"))->setEnabled(false);
}

void FileActions::offerRecovery() {
  int n = 0;
  for (const auto& left : m_session.file.leftBehind()) {
    const auto key = QString("recovery%1").arg(++n);
    auto differences = m_session.file.differencesOf(*left);
    if (differences.isEmpty()) {  // what was kept is what is in the file
      m_session.file.discard(*left);
      continue;
    }
    const auto more = differences.size() - kMostDifferences;
    if (more > 0) differences = differences.mid(0, kMostDifferences) << tr("%1 more").arg(more);
    const auto when = QDateTime::fromString(QString::fromStdString(left->when), Qt::ISODate).toLocalTime();
    m_notices.say(key,
                  tr("The program ended on %1 before %2 was saved. Against the file: %3.")
                      .arg(QLocale::system().toString(when, QLocale::ShortFormat), nameOf(left->file), differences.join("; ")),
                  {{tr("&Take it up"), "recover",
                    [this, left] {
                      if (mayDiscard()) m_session.file.recover(left);
                    }},
                   {tr("Thro&w it away"), "discardLeft", [this, left] { m_session.file.discard(*left); }},
                   {tr("&Later"), "later", {}}});
  }
}

void FileActions::changedOnDisk(bool gone) {
  const auto name = QFileInfo(m_session.file.path()).fileName();
  if (gone) {
    m_notices.say("changedOnDisk",
                  tr("%1 is no longer where it was. What you see is still here: save it to have it on disk again.").arg(name),
                  {{tr("Save"), "saveAgain", [this] { save(false); }}, {tr("I know"), "goneKnown", {}}});
    return;
  }
  m_notices.say("changedOnDisk", tr("%1 was changed on disk by somebody else.").arg(name),
                {{tr("Load it"), "loadAgain",
                  [this, path = m_session.file.path()] {
                    if (mayDiscard()) open(path);
                  }},
                 {tr("Keep what I see"), "keepMine", {}}});
}

void FileActions::showProblems(const QStringList& sentences) {
  QMessageBox box(QMessageBox::Warning, tr("The file"),
                  sentences.size() == 1
                      ? sentences.front()
                      : tr("%1 about this file:").arg(plural(static_cast<int>(sentences.size()), tr("thing"), tr("things"))),
                  QMessageBox::Ok, &m_window);
  box.setTextFormat(Qt::PlainText);
  if (sentences.size() > 1) box.setInformativeText(sentences.mid(0, 8).join("\n\n"));
  if (sentences.size() > 8) box.setDetailedText(sentences.join("\n"));
  makePlain(box);
  box.exec();
}

}  // namespace bold::gui
