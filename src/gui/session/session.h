#pragma once

#include <QObject>
#include <QString>
#include <QTimer>
#include <QUndoStack>
#include <atomic>
#include <memory>

#include "core/checks/analysis.h"
#include "core/harness/document_file.h"
#include "core/harness/edit.h"

namespace bold::gui {

/// The one object that panels and picture share: document, undo stack, file, and the analysis in the background (the
/// latest document wins). Panels read the document and the last analysis, and ask for edits.
class Session : public QObject {
  Q_OBJECT
 public:
  /// @param library shipped and own parts; @param disk outlives the session
  Session(parts::Library library, FileSystem& disk, QObject* parent = nullptr);
  ~Session() override;

  const harness::Harness& harness() const { return m_harness; }
  const parts::Library& library() const { return m_library; }  ///< with the parts that the document carries
  const Analysis& analysis() const { return m_analysis; }
  bool analysisCurrent() const { return m_analysedRevision == m_revision; }
  /// False from 200 ms after an edit that no analysis has caught up with.
  bool verdictFresh() const { return m_fresh; }
  QUndoStack& undoStack() { return m_undo; }
  QString path() const { return QString::fromStdString(m_file.path); }
  bool readOnly() const { return m_harness.newerFormat; }

  /// Replaces the document; nothing is asked. Problems of the file come by `problems`.
  bool open(const QString& path);
  void startEmpty();
  /// A bench that comes with the program; it has no file until it is saved.
  void openDemo(const QString& name);
  /// @return empty when saved, else what went wrong; `changedOnDisk` tells that overwriting has to be asked for
  QString save(const QString& path, harness::Overwrite overwrite, bool& changedOnDisk);

  /// Keeps a part of one's own and reads the library anew. @return empty when kept, else what went wrong
  QString keepOwnPart(const QString& text);

  /// The only road from the window into the document.
  void apply(const harness::Edit& edit);

  /// A device id, terminal address or connection id; empty: nothing.
  const QString& selection() const { return m_selection; }
  void select(const QString& subject);
  /// Identity of the finding that is looked at; empty: none.
  const QString& picked() const { return m_picked; }
  void pick(const QString& identity);

  /// The operating point that is looked at: a command (empty: the first that makes a motor run) and a supply state. Only
  /// remembered; what an analysis holds of it is shownPoint().
  void showCommand(const QString& command, circuit::Charge charge);
  circuit::Charge shownCharge() const { return m_shownCharge; }
  /// Nothing when the last analysis has no commands. Lives as long as analysis().solved.
  const circuit::OperatingPoint* shownPoint() const;

 Q_SIGNALS:
  void documentChanged();
  void documentReplaced();  ///< another file: views start over
  void analysisChanged();
  void verdictStale();
  void selectionChanged();
  void pickedChanged();
  void commandShown();
  void problems(const QStringList& sentences);

 private:
  friend class EditCommand;
  harness::Edit applyNow(const harness::Edit& edit);  ///< returns the inverse; used by the undo command only
  void replaced();
  void check();
  void finished(quint64 revision, Analysis analysis);

  parts::Library m_base, m_library;
  FileSystem& m_disk;
  harness::Harness m_harness;
  harness::OpenFile m_file;
  QUndoStack m_undo;
  Analysis m_analysis;
  quint64 m_revision = 1, m_analysedRevision = 0;
  std::shared_ptr<std::atomic<quint64>> m_latest;  // shared with the worker, which may outlive an edit
  QTimer m_staleTimer;
  bool m_fresh = false;
  QString m_selection, m_picked, m_shownCommand;
  circuit::Charge m_shownCharge = circuit::Charge::Full;
};

}  // namespace bold::gui
