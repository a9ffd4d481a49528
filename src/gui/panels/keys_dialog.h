#pragma once

#include <QDialog>

class QMenuBar;

namespace bold::gui {

/// Every key the window knows: those of the menus as they are, and those that only act at one place.
class KeysDialog : public QDialog {
  Q_OBJECT
 public:
  KeysDialog(const QMenuBar& menus, QWidget* parent);
};

}  // namespace bold::gui
