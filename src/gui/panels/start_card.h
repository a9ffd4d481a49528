#pragma once

#include <QWidget>

class QVBoxLayout;

namespace bold::gui {

/// What an empty bench offers: the demo benches, recent ones, or a first part.
class StartCard : public QWidget {
  Q_OBJECT
 public:
  explicit StartCard(QWidget* parent = nullptr);
  void refresh(const QStringList& recent);

 Q_SIGNALS:
  void demo(const QString& name);
  void file(const QString& path);
  void addPart();

 private:
  QVBoxLayout* m_recent;
};

}  // namespace bold::gui
