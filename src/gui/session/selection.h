#pragma once

#include <QObject>
#include <QString>

#include "core/bench/command.h"
#include "core/checks/finding.h"

namespace bold::gui {

/// What is looked at: a subject of the bench, a finding, a command. Only remembered; nothing of it is kept in a file.
class Selection : public QObject {
  Q_OBJECT
 public:
  using QObject::QObject;

  /// A device id, terminal address or connection id; empty: nothing.
  const QString& subject() const { return m_subject; }
  void select(const QString& subject);
  /// Identity of the finding that is looked at; empty: none.
  const QString& picked() const { return m_picked; }
  void pick(const QString& identity);
  /// Goes to where something is stated: selects its subject, and asks for the field.
  void jump(const checks::Field& field);

  /// Goes to where a stage is chosen for a motor (device).
  void chooseStage(const QString& motor) { Q_EMIT stageWanted(motor); }

  /// The operating point that is looked at: a command (empty: the first that makes a motor run) and a supply state; what an
  /// analysis holds of it is Session::shownPoint().
  void showCommand(const QString& command, bench::Corner corner);
  const QString& shownCommand() const { return m_command; }
  bench::Corner shownCorner() const { return m_corner; }
  /// Back to nothing, and nothing is said: views start over with another bench.
  void clear();

 Q_SIGNALS:
  void changed();
  void pickedChanged();
  void commandShown();
  void stageWanted(const QString& motor);
  void fieldWanted(const QString& subject, const QString& name);

 private:
  QString m_subject, m_picked, m_command;
  bench::Corner m_corner = bench::Corner::Full;
};

}  // namespace bold::gui
