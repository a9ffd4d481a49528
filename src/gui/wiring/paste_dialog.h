#pragma once

#include <QDialog>

#include "core/wiring/wire_table.h"

class QLabel;
class QPlainTextEdit;
class QPushButton;
class QTableWidget;

namespace bold::gui {

class Session;

/// A wire list from a spreadsheet or a file: what each line would do stands there before anything is done.
class PasteDialog : public QDialog {
  Q_OBJECT
 public:
  PasteDialog(Session& session, const QString& text, QWidget* parent = nullptr);

 public Q_SLOTS:
  void reject() override;  ///< asks, where the list was typed here

 private:
  Session& m_session;
  QPlainTextEdit* m_text;
  QTableWidget* m_lines;
  QLabel* m_sum;
  QPushButton* m_take;
  wiring::ReadTable m_read;

  void read();
};

}  // namespace bold::gui
