#pragma once

#include <QFrame>

#include "core/checks/analysis.h"

class QLabel;
class QPushButton;
class QVBoxLayout;

namespace bold::gui {

/// One finding, of the bench as it stands or (`oncePlanned`) as everything planned will make it: badge, headline and harm; when picked also
/// the sentence, the bar, the formula and what to do.
class FindingCard : public QFrame {
  Q_OBJECT
 public:
  struct Shown {
    checks::Finding finding;
    QStringList explained{};  ///< headlines of what follows from it
    bool readOnly = false;    ///< its repair cannot be made now
    bool oncePlanned = false;
  };
  explicit FindingCard(QWidget* parent = nullptr);
  /// Shows this finding from now on. What looks the same stays the widgets it was, so that nobody loses the place.
  void show(const Shown& shown);
  void setPicked(bool picked);
  const QString& identity() const { return m_identity; }
  QPushButton* repairButton() const { return m_repair; }

 Q_SIGNALS:
  void pressed(const QString& identity);
  void repair(const QString& identity);
  void explain(const QString& check);
  void jump(const bold::checks::Field& field);

 protected:
  void mousePressEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void paintEvent(QPaintEvent* event) override;

 private:
  QString m_identity, m_content;
  int m_number = 0;
  checks::Severity m_severity = checks::Severity::Note;
  bool m_picked = false;
  QWidget *m_always = nullptr, *m_more = nullptr;
  QVBoxLayout* m_column;
  QPushButton* m_repair = nullptr;

  void build(const Shown& shown);
  QWidget* whatToDo(const Shown& shown);
};

}  // namespace bold::gui
