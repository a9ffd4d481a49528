#pragma once

#include <QWidget>

#include "core/wiring/program_rows.h"

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace bold::gui {

class Session;
class SourceView;

/// The program beside the wires: its source with what is said of each line, and a line a pin, disagreements first.
class ProgramPanel : public QWidget {
  Q_OBJECT
 public:
  ProgramPanel(Session& session, QWidget* parent);

  /// Asks for sources and reads them.
  void choose();
  /// The same for files that are known.
  void read(const QStringList& files);
  /// What the program tells of the motors' goals and pins, to be confirmed one by one.
  void plan();

 Q_SIGNALS:
  /// Something that cannot be done, and why.
  void refused(const QString& sentence);

 private:
  Session& m_session;
  QComboBox *m_controller, *m_file;
  QPushButton *m_read, *m_again, *m_forget, *m_plan, *m_elsewhere, *m_mend, *m_page;
  QLabel *m_told, *m_detail, *m_empty;
  SourceView* m_source;
  QTableWidget* m_pins;
  QWidget* m_body;
  std::vector<wiring::ProgramRow> m_rows;
  std::string m_picked;  ///< name of the row that is picked
  std::string m_lit;     ///< of the row whose line was last scrolled to
  bool m_filling = false;

  const harness::SourceRead* source() const;
  void refresh();
  void fillControllers();
  void fillFiles(const harness::SourceRead& source);
  void fillPins(const harness::SourceRead& source);
  void markSource();
  void pickRow(int row, bool scroll);
  void showDetail();
  void pickSubject();
  const checks::Finding* gravest() const;
  int current() const;
};

}  // namespace bold::gui
