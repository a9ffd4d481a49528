#pragma once

#include <QWidget>
#include <functional>

class QVBoxLayout;

namespace bold::gui {

/// Things the window has to say that can wait: each a line with what may be done about it, gone once answered.
class NoticeBar : public QWidget {
  Q_OBJECT
 public:
  struct Answer {
    QString text;
    QString name;  ///< object name
    std::function<void()> then;
  };

  explicit NoticeBar(QWidget* parent = nullptr);
  /// @param key a notice takes the place of one with the same key
  void say(const QString& key, const QString& text, const std::vector<Answer>& answers);
  void withdraw(const QString& key);
  /// The sentences that stand there now.
  QStringList said() const;

 private:
  QVBoxLayout* m_column;
};

}  // namespace bold::gui
