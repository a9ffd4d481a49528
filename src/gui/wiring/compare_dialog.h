#pragma once

#include <QDialog>

#include "core/report/comparison.h"

class QLabel;

namespace bold::gui {

class SecondOpinion;
class Session;

/// What sets the open bench apart from another one: in words here, and in the loom, where what only the other has is dotted and what only
/// this one has is hollow.
class CompareDialog : public QDialog {
  Q_OBJECT
 public:
  /// @param other the bench that it is held against
  /// @param name what that is called
  CompareDialog(Session& session, harness::Harness other, const QString& name, QWidget* parent = nullptr);
  const harness::Harness& other() const { return m_other; }

 Q_SIGNALS:
  /// A bench to be drawn in the place of the document; nothing: the document again.
  void overlay(const std::optional<bold::harness::Harness>& bench);

 protected:
  void done(int result) override;

 private:
  Session& m_session;
  harness::Harness m_other;
  QString m_name;
  QLabel* m_told;
  SecondOpinion* m_opinion;
  std::optional<Analysis> m_otherJudged;

  void refresh();
};

}  // namespace bold::gui
