#pragma once

#include <QDialog>
#include <memory>
#include <vector>

#include "core/choose/candidates.h"

class QComboBox;
class QLabel;
class QPushButton;
class QTreeWidget;

namespace bold::gui {

class Session;

/// Every stage of the library, tried for one motor as the planned bench that it would be, best first; one of them is put on the plan with
/// every wire. One is tried each time the window has nothing else to do: it never waits.
class StagesDialog : public QDialog {
  Q_OBJECT
 public:
  StagesDialog(Session& session, std::string motor, QWidget* parent = nullptr);

 private:
  Session& m_session;
  std::string m_motor;
  QComboBox* m_supply;
  QTreeWidget* m_list;
  QLabel *m_said, *m_why;
  QPushButton* m_put;
  std::optional<JudgedBench> m_now;
  std::vector<choose::Offer> m_stages;  ///< to be tried
  std::size_t m_next = 0;
  std::vector<choose::Candidate> m_tried;  ///< best first

  void begin();
  void tryNext();
  void insert(choose::Candidate candidate);
  void showChosen();
  void put();
};

}  // namespace bold::gui
