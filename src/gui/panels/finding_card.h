#pragma once

#include <QFrame>

#include "core/checks/analysis.h"

class QLabel;
class QPushButton;

namespace bold::gui {

/// One finding, of the bench as it stands or (`oncePlanned`) as everything planned will make it: badge, headline and harm; when picked also
/// the sentence, the bar, the formula and what to do.
class FindingCard : public QFrame {
  Q_OBJECT
 public:
  FindingCard(const checks::Finding& finding, const std::vector<const checks::Finding*>& explained, bool readOnly, bool oncePlanned,
              QWidget* parent = nullptr);
  void setPicked(bool picked);
  const QString& identity() const { return m_identity; }
  QPushButton* repairButton() const { return m_repair; }

 Q_SIGNALS:
  void pressed(const QString& identity);
  void repair(const QString& identity);
  void explain(const QString& check);

 protected:
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void paintEvent(QPaintEvent* event) override;

 private:
  QString m_identity;
  int m_number;
  checks::Severity m_severity;
  bool m_picked = false;
  QWidget* m_more = nullptr;
  QPushButton* m_repair = nullptr;
};

}  // namespace bold::gui
