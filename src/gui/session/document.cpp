#include "gui/session/document.h"

#include <QUndoCommand>

#include "core/harness/document_file.h"
#include "core/harness/marks.h"

namespace bold::gui {

/// The one undo command: wraps any edit.
class Document::Change : public QUndoCommand {
 public:
  Change(Document& document, harness::Edit edit)
      : QUndoCommand(QString::fromStdString(edit.title)), m_document(document), m_forward(std::move(edit)) {}
  void redo() override { m_back = m_document.applyNow(m_forward); }
  void undo() override { m_document.applyNow(m_back); }

 private:
  Document& m_document;
  harness::Edit m_forward, m_back;
};

Document::Document(parts::Library library, QObject* parent) : QObject(parent), m_base(std::move(library)), m_library(m_base) {
  m_undo.setUndoLimit(0);
}

void Document::apply(const harness::Edit& edit) {
  if (edit.changes.empty() || readOnly()) return;
  m_undo.push(new Change(*this, edit));
}

harness::Edit Document::applyNow(const harness::Edit& edit) {
  const auto copies = m_harness.parts.size();
  auto inverse = harness::apply(m_harness, edit);
  if (m_harness.parts.size() != copies) {  // a copy less or more: another part may count
    std::vector<Problem> said;             // when the file was opened
    m_library = harness::withDocumentParts(m_base, m_harness, {}, said);
  }
  Q_EMIT edited();
  if (harness::onlyMarks(edit))
    Q_EMIT marked();
  else
    Q_EMIT changed();
  return inverse;
}

void Document::replace(harness::Harness harness, const std::string& path, std::vector<Problem>& problems) {
  m_harness = std::move(harness);
  m_library = harness::withDocumentParts(m_base, m_harness, path, problems);
  m_undo.clear();
  m_undo.setClean();
  Q_EMIT replaced();
  Q_EMIT changed();
}

void Document::lookAtSources(FileSystem& disk, const std::string& path, const harness::AskedFor& askedFor) {
  if (harness::lookAtSources(disk, m_harness, path, askedFor)) Q_EMIT changed();
}

void Document::useLibrary(parts::Library library) {
  m_base = std::move(library);
  std::vector<Problem> said;  // when the file was opened
  m_library = harness::withDocumentParts(m_base, m_harness, {}, said);
  Q_EMIT changed();
}

}  // namespace bold::gui
