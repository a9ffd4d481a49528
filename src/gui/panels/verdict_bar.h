#pragma once

#include <QAbstractButton>

namespace bold::gui {

class Session;

/// The verdict, always in view, in words, shape and colour. Pressing it goes to the first open matter.
class VerdictBar : public QAbstractButton {
  Q_OBJECT
 public:
  explicit VerdictBar(Session& session, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {430, 52}; }
  QSize minimumSizeHint() const override { return {250, 52}; }

 Q_SIGNALS:
  /// The verdict is another one; a screen reader was told.
  void announced(const QString& words);
  void firstMatter(const QString& identity);

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  Session& m_session;
  QString m_head, m_detail, m_judged;
  QString m_spoken;  ///< the verdict that was last announced
  void refresh();
};

}  // namespace bold::gui
