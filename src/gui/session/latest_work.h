#pragma once

#include <QObject>
#include <QThreadPool>
#include <atomic>
#include <functional>
#include <memory>

namespace bold::gui {

/// Work behind the window, in a thread of its own: what was begun last wins. What it replaces, and whatever runs when the window goes, is
/// asked to give up and is waited for; nothing of it is handed over any more.
class LatestWork {
 public:
  /// A piece of work as it sees itself, in its thread.
  class Run {
   public:
    /// Asked for often: whether it was replaced or stopped. What it works out then is thrown away.
    bool cancelled() const { return m_latest->load() != m_number; }
    /// Has something done in the window's thread, unless the work was replaced or stopped by then.
    void hand(std::function<void()> what) const;

   private:
    friend class LatestWork;
    Run(quint64 number, std::shared_ptr<std::atomic<quint64>> latest, QObject* window)
        : m_number(number), m_latest(std::move(latest)), m_window(window) {}

    quint64 m_number;
    std::shared_ptr<std::atomic<quint64>> m_latest;
    QObject* m_window;
  };

  LatestWork();
  ~LatestWork();
  LatestWork(const LatestWork&) = delete;
  LatestWork& operator=(const LatestWork&) = delete;

  /// @param work holds everything it needs by value; it runs once what it replaces has given up
  void begin(std::function<void(const Run&)> work);
  void stop();

 private:
  std::shared_ptr<std::atomic<quint64>> m_latest;
  QObject m_window;      // in whose thread things are handed over; what is still on its way goes with it
  QThreadPool m_thread;  // one thread; goes first, and waits
};

}  // namespace bold::gui
