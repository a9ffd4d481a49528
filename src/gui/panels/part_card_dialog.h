#pragma once

#include <QDialog>

namespace bold::gui {

class Session;

/// The card of a part: where its terminals are, and everything the library knows of it.
class PartCardDialog : public QDialog {
  Q_OBJECT
 public:
  /// @param device whose part it is; empty: the part as such
  PartCardDialog(Session& session, const std::string& part, const std::string& device = {}, QWidget* parent = nullptr);
};

}  // namespace bold::gui
