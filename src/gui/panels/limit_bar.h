#pragma once

#include <QWidget>

#include "core/checks/finding.h"

namespace bold::gui {

/// A number against its limit on one line: the value as a bar, the limit as a tick with its name. The same everywhere.
class LimitBar : public QWidget {
  Q_OBJECT
 public:
  LimitBar(const checks::Bar& bar, checks::Severity severity, QWidget* parent = nullptr);
  QSize sizeHint() const override { return {280, 40}; }

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  checks::Bar m_bar;
  checks::Severity m_severity;
};

}  // namespace bold::gui
