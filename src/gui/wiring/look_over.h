#pragma once

#include <QWidget>
#include <array>

#include "core/harness/marks.h"

class QLabel;
class QLineEdit;
class QPushButton;

namespace bold::gui {

class SecondOpinion;
class Session;

/// The picked connection as somebody goes through it with a probe in hand: what to measure, what was seen of it, what was found instead.
class LookOver : public QWidget {
  Q_OBJECT
 public:
  explicit LookOver(Session& session, QWidget* parent = nullptr);
  /// Marks the picked connection, or takes that mark off. Wrong asks what is there instead.
  void mark(harness::Marked what);
  /// @param readBy who read the picked wire back as it is
  void refresh(const std::vector<std::string>& readBy);
  void refresh() { refresh(std::vector<std::string>(m_readBy)); }

 Q_SIGNALS:
  /// What there was to do is done: the list may have the keys again.
  void done();

 private:
  Session& m_session;
  QLabel* m_expected;
  std::array<QPushButton*, 4> m_marks;  // in the order of Marked
  QLineEdit* m_initials;
  QWidget* m_otherwise;
  QLineEdit* m_found;
  QLabel* m_judged;
  QPushButton *m_benchIsRight, *m_putRight;
  SecondOpinion* m_opinion;
  std::vector<std::string> m_readBy;
  QString m_asked;           ///< the connection whose wrong end is being typed
  std::string m_askedAbout;  ///< the mark that the last opinion is about

  const harness::Connection* picked() const;
  harness::Witness witness() const;
  void takeFound();
};

}  // namespace bold::gui
