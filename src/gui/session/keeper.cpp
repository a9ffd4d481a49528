#include "gui/session/keeper.h"

#include <QPointer>
#include <mutex>

namespace bold::gui {
namespace {
constexpr int kWithin = 300;  // ms
}

// Touched by the keeper's thread only.
struct Keeper::Files {
  std::optional<harness::Recovery> mine;
  std::shared_ptr<const harness::Left> recoveredFrom;
  bool complained = false;
};

// A document on its way to the disk. Until the thread takes it, a newer one takes its place: on a slow disk old documents
// must not queue up before the one that counts.
struct Keeper::Waiting {
  explicit Waiting(Document d) : document(std::move(d)) {}

  std::optional<Document> take() {
    const std::lock_guard lock(mutex);
    return std::exchange(document, std::nullopt);
  }
  bool replace(Document& newer) {
    const std::lock_guard lock(mutex);
    if (!document) return false;
    document = std::move(newer);
    return true;
  }

 private:
  std::mutex mutex;
  std::optional<Document> document;
};

Keeper::Keeper(FileSystem& disk, std::string folder, std::function<Document()> document, QObject* parent)
    : QObject(parent), m_disk(disk), m_folder(std::move(folder)), m_document(std::move(document)), m_files(std::make_shared<Files>()) {
  m_thread.setMaxThreadCount(1);
  m_soon.setSingleShot(true);
  m_soon.setInterval(kWithin);
  connect(&m_soon, &QTimer::timeout, this, &Keeper::keep);
}

Keeper::~Keeper() {
  m_thread.waitForDone();
}

// Not put off by further changes: typing without a pause is kept as well.
void Keeper::changed() {
  if (!m_soon.isActive()) m_soon.start();
}

void Keeper::keep() {
  auto newest = m_document();
  if (m_waiting && m_waiting->replace(newest)) return;
  m_waiting = std::make_shared<Waiting>(std::move(newest));
  m_thread.start([this, self = QPointer<Keeper>(this), files = m_files, waiting = m_waiting] {
    const auto document = waiting->take();
    if (!document) return;
    const auto done = [&]() -> Result<bool> {
      if (!files->mine) {
        auto begun = harness::Recovery::begin(m_disk, m_folder);
        if (!begun) return fail(begun.error());
        files->mine = std::move(*begun);
      }
      auto kept = files->mine->keep(document->harness, document->library, document->file);
      if (!kept || !files->recoveredFrom) return kept;
      auto gone = harness::discard(m_disk, *files->recoveredFrom);
      if (gone) files->recoveredFrom.reset();
      return gone;
    }();
    if (done || files->complained) return;
    files->complained = true;
    const auto sentence = QString::fromStdString(text(done.error()));
    QMetaObject::invokeMethod(
        self.data(),
        [self, sentence] {
          if (self) Q_EMIT self->failed(sentence);
        },
        Qt::QueuedConnection);
  });
}

void Keeper::forget() {
  m_soon.stop();
  if (m_waiting) m_waiting->take();  // what is changed from here on waits behind the forgetting
  m_thread.start([this, files = m_files] {
    if (files->mine) (void)files->mine->forget();
    if (files->recoveredFrom && harness::discard(m_disk, *files->recoveredFrom)) files->recoveredFrom.reset();
  });
}

void Keeper::takeOver(std::shared_ptr<const harness::Left> left) {
  m_thread.start([files = m_files, left = std::move(left)] { files->recoveredFrom = left; });
}

void Keeper::wait() {
  if (m_soon.isActive()) {
    m_soon.stop();
    keep();
  }
  m_thread.waitForDone();
}

}  // namespace bold::gui
