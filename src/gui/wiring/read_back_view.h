#pragma once

#include <QWidget>
#include <optional>

#include "core/wiring/read_back.h"

class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;
class QProgressBar;
class QPushButton;
class QScrollArea;
class QSpinBox;
class QStackedWidget;

namespace bold::gui {

class EndsView;
class PlaceView;
class SecondOpinion;
class Session;

/// A second person says where each wire goes. It takes the whole window: while it is asked nothing in it tells the answer. It is a way to
/// look twice, no examination: whoever wants to can read the file.
class ReadBackView : public QWidget {
  Q_OBJECT
 public:
  explicit ReadBackView(Session& session, QWidget* parent = nullptr);
  /// Shows the rounds there are, and asks for a reader.
  void begin();
  /// A new round at once.
  /// @param shuffle what its order follows from
  void startRound(const QString& reader, int shuffle);

 Q_SIGNALS:
  void closed();
  void wireWanted(const QString& id);

 private:
  enum Page { Start, Ask, Count, Result };
  Session& m_session;
  QStackedWidget* m_pages;
  // Start
  QLabel* m_rounds;
  QLineEdit* m_reader;
  QPushButton *m_start, *m_goOn, *m_showLast;
  // Ask
  QLabel *m_which, *m_understood;
  QProgressBar* m_progress;
  EndsView* m_named;
  QLineEdit* m_answer;
  QComboBox* m_device;
  PlaceView* m_place;
  // Count
  QFormLayout* m_counts;
  // Result
  QLabel* m_summary;
  QWidget* m_list;
  SecondOpinion* m_opinion;
  QLabel* m_asRead;

  std::string m_round;  ///< id of the one that is going on
  std::optional<wiring::Question> m_question;

  QWidget* startPage();
  QWidget* askPage();
  QWidget* countPage();
  QWidget* resultPage();
  const harness::Round* round() const;
  void put(harness::Round round);
  void startTyped();
  void ask();
  void understand();
  void showPart();
  void take(const QString& said);
  void askCounts();
  void takeCounts();
  void showResult();
};

}  // namespace bold::gui
