#pragma once

#include <QDialog>

namespace bold::gui {

class Session;

/// The card of a part: its drawing with terminals, and everything the library knows of it.
class PartCardDialog : public QDialog {
  Q_OBJECT
 public:
  PartCardDialog(Session& session, const std::string& part, QWidget* parent = nullptr);
};

}  // namespace bold::gui
