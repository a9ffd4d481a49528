#pragma once

#include <QDialog>

namespace bold::gui {

class Session;

/// The page of a check, below what it says about this bench with this bench's numbers.
class CheckPageDialog : public QDialog {
  Q_OBJECT
 public:
  CheckPageDialog(const Session& session, const QString& check, QWidget* parent);
};

}  // namespace bold::gui
