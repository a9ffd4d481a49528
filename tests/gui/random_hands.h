#pragma once

#include <QElapsedTimer>
#include <random>
#include <string>
#include <vector>

#include "window.h"

namespace bold::test {

/// Hands that know nothing of the program: keys, clicks, drags, wheel, half-typed text, themes, sizes and menus over every control that
/// is in sight, from a seed. A message or dialog that waits is answered as blindly. Files are neither chosen nor written.
class RandomHands {
 public:
  RandomHands(Window& window, unsigned seed);
  ~RandomHands();
  /// So many events, one after the other, with what follows from each.
  void move(int events);
  /// The last of what was done, for whoever has to find out why something broke.
  std::string lastDone() const;

 private:
  Window& m_window;
  std::mt19937 m_random;
  std::vector<std::string> m_done;
  QObject m_alive;  ///< no answer outlives these hands

  int below(int n) { return static_cast<int>(m_random() % static_cast<unsigned>(std::max(1, n))); }
  template <class List>
  const auto& anyOf(const List& list) {
    return list[below(static_cast<int>(std::size(list)))];
  }
  void note(const std::string& what) { m_done.push_back(what); }
  QWidget* anyWidget(QWidget* top);
  QPoint anyPlace(const QWidget& w);
  void one(QWidget* top);
  void answerLater();
  void answer();
  void pickSomething();
  void halfDone(QWidget* top);
  void type(QWidget& w);
  void drag(QWidget& w);
  void turnWheel(QWidget& w);
  void trigger();
};

}  // namespace bold::test
