#include "gui/session/latest_work.h"

#include <sys/resource.h>

#include <QMetaObject>

namespace bold::gui {
namespace {

constexpr int kBehindTheWindow = 10;  // nice: where both want the machine, the window has it

}  // namespace

void LatestWork::Run::hand(std::function<void()> what) const {
  if (cancelled()) return;
  QMetaObject::invokeMethod(
      m_window,
      [run = *this, what = std::move(what)] {
        if (!run.cancelled()) what();
      },
      Qt::QueuedConnection);
}

LatestWork::LatestWork() : m_latest(std::make_shared<std::atomic<quint64>>(0)) {
  m_thread.setMaxThreadCount(1);
}

LatestWork::~LatestWork() {
  stop();
  m_thread.waitForDone();
}

void LatestWork::begin(std::function<void(const Run&)> work) {
  stop();
  m_thread.start([run = Run(m_latest->load(), m_latest, &m_window), work = std::move(work)] {
    ::setpriority(PRIO_PROCESS, 0, kBehindTheWindow);  // of this thread, on Linux, and of those it begins
    if (!run.cancelled()) work(run);
  });
}

void LatestWork::stop() {
  ++*m_latest;
  m_thread.clear();  // what has not begun
}

}  // namespace bold::gui
