#pragma once

#include <QPoint>
#include <QString>

class QWidget;

namespace bold::gui {

class Session;

/// The menu of a device, terminal, connection or wire, wherever it is shown: what can be done with it.
void showSubjectMenu(Session& session, const QString& subject, const QPoint& global, QWidget* parent);

}  // namespace bold::gui
