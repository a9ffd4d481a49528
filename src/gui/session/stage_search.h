#pragma once

#include <QObject>
#include <QString>
#include <optional>
#include <vector>

#include "core/choose/smallest_change.h"
#include "gui/session/latest_work.h"

namespace bold::gui {

class Document;

/// Tries the stages of the library for a motor in the background: first all of them, then what would have to change for those that do not
/// fit. What was asked for last wins.
class StageSearch : public QObject {
  Q_OBJECT
 public:
  struct Row {
    choose::Candidate candidate;
    bool changeKnown = false;  ///< whether it was worked out yet
    std::optional<choose::SmallestChange> change{};
  };

  explicit StageSearch(const Document& document, QObject* parent = nullptr);

  /// @param supply device; empty: the first that is free
  /// @param now the bench as it is, where it is judged already: saves work
  void begin(const std::string& motor, const std::string& supply, std::optional<JudgedBench> now);
  void stop();

  const std::vector<Row>& rows() const { return m_rows; }  ///< best first
  int tried() const { return static_cast<int>(m_rows.size()); }
  int all() const { return m_all; }     ///< that are to be tried
  bool done() const { return m_done; }  ///< changes too
  const std::string& motor() const { return m_motor; }

 Q_SIGNALS:
  void changed();

 private:
  const Document& m_document;
  std::vector<Row> m_rows;
  std::string m_motor;
  int m_all = 0;
  bool m_done = false;
  LatestWork m_work;

  void take(std::vector<choose::Candidate> candidates, int all);
  void takeChange(const choose::Candidate& of, std::optional<choose::SmallestChange> change);
};

}  // namespace bold::gui
