#pragma once

#include <QDialog>
#include <memory>

#include "core/sums/sum.h"

class QFormLayout;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace bold::gui {

class Session;

/// Sums for one motor, each with its fields filled in from the bench, its formula, and a button that uses what comes out. It stays open
/// beside the bench and follows it.
class SumsDialog : public QDialog {
  Q_OBJECT
 public:
  SumsDialog(Session& session, std::string motor, QWidget* parent);

 private:
  struct Field {
    QLineEdit* edit;
    QLabel* word;  ///< what is wrong with it
  };

  Session& m_session;
  std::string m_motor;
  std::shared_ptr<const bench::SolvedBench> m_solved;  ///< that the sums are of
  std::vector<sums::Sum> m_sums;
  QListWidget* m_list;
  QFormLayout* m_form;
  std::vector<Field> m_fields;
  QLabel *m_title, *m_text, *m_formula;
  QPushButton* m_use;
  harness::Edit m_edit;

  void collect();
  void showSum();
  void work();
};

}  // namespace bold::gui
