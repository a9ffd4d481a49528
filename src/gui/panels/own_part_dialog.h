#pragma once

#include <QDialog>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/parts/part_schema.h"

class QLabel;
class QLineEdit;
class QPlainTextEdit;
class QPushButton;
class QTabWidget;
class QTableWidget;

namespace bold::gui {

class FieldTree;
class Session;

/// A part of one's own: its names and figures as a form, every field as a tree, the whole file as text; judged at every change.
class OwnPartDialog : public QDialog {
  Q_OBJECT
 public:
  /// @param text a part file to begin with
  OwnPartDialog(Session& session, const QString& text, QWidget* parent = nullptr);
  /// Shows every field, opened down to this one.
  void showField(const parts::Path& path);

 public Q_SLOTS:
  void reject() override;  ///< asks, where the part was changed and not kept

 private:
  Session& m_session;
  Json m_part;
  QLineEdit *m_id, *m_name, *m_summary, *m_source;
  QTabWidget* m_tabs;
  QTableWidget* m_figures;
  FieldTree* m_fields;
  QPlainTextEdit* m_text;
  QLabel* m_said;
  QPushButton *m_keep, *m_export;
  bool m_filling = false;

  void fillForm();
  void fillText();
  void formChanged();
  void fieldsChanged();
  void textChanged();
  void changed();
  void judge();
  void keep();
  void exportFile();
};

}  // namespace bold::gui
