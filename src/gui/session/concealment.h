#pragma once

#include <QObject>

namespace bold::gui {

class Document;

/// For a class: what is found stays hidden until somebody has named the faults. Chosen once, it holds for every bench that is opened, until
/// that one is revealed. No lock: whoever switches it off sees everything.
class Concealment : public QObject {
  Q_OBJECT
 public:
  explicit Concealment(const Document& document, QObject* parent = nullptr);

  /// Of the bench that is open.
  bool hidden() const { return m_hidden; }
  /// For this and every bench to come.
  bool chosen() const { return m_chosen; }
  void choose(bool on);
  void reveal();

 Q_SIGNALS:
  void changed();

 private:
  bool m_chosen, m_hidden;
};

}  // namespace bold::gui
