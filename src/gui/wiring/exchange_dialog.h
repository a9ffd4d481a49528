#pragma once

#include <QDialog>
#include <optional>

#include "core/harness/exchange_part.h"

class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace bold::gui {

class Session;

/// Another part in the place of one, with its wires; what becomes of each stands there first.
class ExchangeDialog : public QDialog {
  Q_OBJECT
 public:
  ExchangeDialog(Session& session, std::string device, QWidget* parent = nullptr);

 private:
  Session& m_session;
  std::string m_device;
  QLineEdit* m_search;
  QListWidget* m_parts;
  QLabel* m_what;
  QPushButton* m_take;
  std::optional<harness::Exchange> m_exchange;

  void search();
  void preview();
};

}  // namespace bold::gui
