#pragma once

#include <QDialog>

namespace bold::gui {

/// What the program is and is not, and the licences of everything that is compiled into it.
class AboutDialog : public QDialog {
  Q_OBJECT
 public:
  explicit AboutDialog(QWidget* parent = nullptr);
};

}  // namespace bold::gui
