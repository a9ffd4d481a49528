#pragma once

#include <QFrame>

class QVBoxLayout;

namespace bold::gui {

class Session;

/// What the file says and could not be used, with a button that takes it out of the file; and parts of the file that stand in
/// the place of the user's own. Hidden when there is nothing of the kind.
class LeftOutCard : public QFrame {
  Q_OBJECT
 public:
  explicit LeftOutCard(Session& session, QWidget* parent = nullptr);
  void refresh();

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  Session& m_session;
  QVBoxLayout* m_column;
  QStringList m_shown;  // sentences, so that the same ones are not made anew under a finger

  void row(const QString& sentence, const QString& name, const QString& button, const std::function<void()>& then);
};

}  // namespace bold::gui
