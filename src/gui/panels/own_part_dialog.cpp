#include "gui/panels/own_part_dialog.h"

#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMessageBox>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTabWidget>
#include <QTableWidget>
#include <QVBoxLayout>

#include "core/parts/own_parts.h"
#include "gui/half_typed.h"
#include "gui/panels/field_tree.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"
#include "gui/write_asking.h"

namespace bold::gui {
namespace {

QString textOf(const Json& j, const char* key) {
  return j.is_object() && j.contains(key) && j[key].is_string() ? qs(j[key].get<std::string>()) : QString();
}

// A figure as people write it: "2 A", "4.5 V .. 5.5 V", "4 V .. 5 V .. 6 V", "unknown".
QString valueOf(const Json& figure) {
  if (!figure.contains("value")) return figure.contains("derived") ? "= " + textOf(figure, "derived") : QString();
  const auto& v = figure["value"];
  if (v.is_string()) return qs(v.get<std::string>());
  QStringList ends;
  for (const auto* key : {"min", "typ", "max"})
    if (!textOf(v, key).isEmpty()) ends << textOf(v, key);
  return ends.join(" .. ");
}

QString conditionOf(const Json& figure) {
  return figure.contains("value") ? textOf(figure["value"], "condition") : QString();
}

Json valueFrom(const QString& value, const QString& condition) {
  if (condition.isEmpty()) return value.toStdString();
  Json out;
  const auto ends = value.split("..");
  const char* const keys[3][3] = {{"typ", nullptr, nullptr}, {"min", "max", nullptr}, {"min", "typ", "max"}};
  for (int k = 0; k < ends.size() && k < 3; ++k) out[keys[std::min<qsizetype>(ends.size(), 3) - 1][k]] = ends[k].trimmed().toStdString();
  out["condition"] = condition.toStdString();
  return out;
}

}  // namespace

OwnPartDialog::OwnPartDialog(Session& session, const QString& text, QWidget* parent) : QDialog(parent), m_session(session) {
  setObjectName("ownPart");
  setWindowTitle(tr("A part of your own"));
  setAttribute(Qt::WA_DeleteOnClose);
  resize(680, 620);
  auto* column = new QVBoxLayout(this);
  m_tabs = new QTabWidget(this);
  auto* page = new QWidget(m_tabs);
  auto* inside = new QVBoxLayout(page);
  auto* form = new QFormLayout;
  const auto line = [&](const QString& label, const char* name) {
    auto* edit = new QLineEdit(page);
    declareField(edit, FieldKind::Search);  // taken letter by letter
    edit->setObjectName(name);
    edit->setAccessibleName(label);
    connect(edit, &QLineEdit::textEdited, this, &OwnPartDialog::formChanged);
    plainRow(*form, label, edit);
    return edit;
  };
  m_id = line(tr("Id"), "ownId");
  m_name = line(tr("Name"), "ownName");
  m_summary = line(tr("In a few words"), "ownSummary");
  m_source = line(tr("Figures are from"), "ownSource");
  m_source->setPlaceholderText(tr("data sheet, page; or measured"));
  inside->addLayout(form);
  m_figures = new QTableWidget(0, 3, page);
  m_figures->setObjectName("ownFigures");
  m_figures->setAccessibleName(tr("Figures with their units"));
  m_figures->setHorizontalHeaderLabels({tr("Figure"), tr("Value"), tr("Under")});
  m_figures->verticalHeader()->hide();
  m_figures->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  connect(m_figures, &QTableWidget::cellChanged, this, &OwnPartDialog::formChanged);
  inside->addWidget(m_figures, 1);
  m_tabs->addTab(page, tr("Names and figures"));
  m_fields = new FieldTree(m_tabs);
  connect(m_fields, &FieldTree::edited, this, &OwnPartDialog::fieldsChanged);
  m_tabs->addTab(m_fields, tr("Every field"));
  m_text = new QPlainTextEdit(m_tabs);
  declareField(m_text, FieldKind::Search);  // the dialog itself holds the part
  m_text->setObjectName("ownText");
  m_text->setAccessibleName(tr("The whole file"));
  QFont mono("DejaVu Sans Mono");
  mono.setPixelSize(12);
  m_text->setFont(mono);
  connect(m_text, &QPlainTextEdit::textChanged, this, &OwnPartDialog::textChanged);
  m_tabs->addTab(m_text, tr("The whole file"));
  column->addWidget(m_tabs, 1);
  m_said = plainLabel(this);
  m_said->setObjectName("ownSaid");
  m_said->setWordWrap(true);
  column->addWidget(m_said);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Cancel, this);
  m_export = buttons->addButton(tr("Export…"), QDialogButtonBox::ActionRole);
  m_keep = buttons->addButton(tr("Keep it"), QDialogButtonBox::AcceptRole);
  m_keep->setObjectName("ownKeep");
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(m_keep, &QPushButton::clicked, this, &OwnPartDialog::keep);
  connect(m_export, &QPushButton::clicked, this, &OwnPartDialog::exportFile);
  column->addWidget(buttons);
  m_text->setPlainText(text);
  holdWork(this, {});  // nobody has changed it yet
}

void OwnPartDialog::showField(const parts::Path& path) {
  m_tabs->setCurrentWidget(m_fields);
  m_fields->go(path);
}

void OwnPartDialog::fillForm() {
  m_filling = true;
  const auto set = [](QLineEdit* edit, const QString& text) {
    if (edit->text() != text) edit->setText(text);
  };
  set(m_id, textOf(m_part, "id"));
  set(m_name, textOf(m_part, "name"));
  set(m_summary, textOf(m_part, "summary"));
  set(m_source, textOf(m_part, "source"));
  const bool any = m_part.is_object() && m_part.contains("figures") && m_part["figures"].is_object();
  m_figures->setRowCount(any ? static_cast<int>(m_part["figures"].size()) : 0);
  int row = 0;
  if (any)
    for (const auto& [id, f] : m_part["figures"].items()) {
      auto* label = new QTableWidgetItem(f.is_object() ? textOf(f, "label") : QString());
      label->setFlags(Qt::ItemIsEnabled);
      label->setData(Qt::UserRole, qs(id));
      m_figures->setItem(row, 0, label);
      auto* value = new QTableWidgetItem(f.is_object() ? valueOf(f) : QString());
      // What follows from other figures is not typed.
      if (f.is_object() && f.contains("derived")) value->setFlags(Qt::ItemIsEnabled);
      m_figures->setItem(row, 1, value);
      m_figures->setItem(row, 2, new QTableWidgetItem(f.is_object() ? conditionOf(f) : QString()));
      ++row;
    }
  m_filling = false;
}

void OwnPartDialog::fillText() {
  m_filling = true;
  m_text->setPlainText(qs(jsonText(m_part)));
  m_filling = false;
}

void OwnPartDialog::formChanged() {
  if (m_filling || !m_part.is_object()) return;
  for (const auto& [edit, key] : {std::pair{m_id, "id"}, {m_name, "name"}, {m_summary, "summary"}, {m_source, "source"}})
    m_part[key] = edit->text().trimmed().toStdString();
  for (int row = 0; row < m_figures->rowCount(); ++row) {
    if (!m_figures->item(row, 0) || !m_figures->item(row, 1) || !m_figures->item(row, 2)) return;
    auto& f = m_part["figures"][m_figures->item(row, 0)->data(Qt::UserRole).toString().toStdString()];
    const auto value = m_figures->item(row, 1)->text().trimmed();
    const auto condition = m_figures->item(row, 2)->text().trimmed();
    // Only what was typed is written anew: spreads and confidence of the others stay.
    if (f.contains("derived") || (value == valueOf(f) && condition == conditionOf(f))) continue;
    if (value.isEmpty())
      f.erase("value");
    else
      f["value"] = valueFrom(value, condition);
  }
  m_fields->setPart(m_part);
  fillText();
  changed();
}

void OwnPartDialog::fieldsChanged() {
  m_part = m_fields->part();
  fillForm();
  fillText();
  changed();
}

void OwnPartDialog::textChanged() {
  if (m_filling) return;
  std::vector<Problem> ignored;
  if (auto json = parseJson(m_text->toPlainText().toStdString(), "the part", ignored)) {
    m_part = std::move(*json);
    fillForm();
    m_fields->setPart(m_part);
  }
  changed();
}

void OwnPartDialog::changed() {
  holdWork(this, tr("the part \"%1\", which is not kept").arg(m_name->text()));
  judge();
}

void OwnPartDialog::reject() {
  (void)takeUp(*this);
  if (mayGiveUp(*this)) QDialog::reject();
}

void OwnPartDialog::judge() {
  const auto problems = parts::problemsOfOwn(m_text->toPlainText().toStdString());
  QStringList lines;
  for (const auto& p : problems) lines << qs(p.where.empty() ? p.what : p.where + ": " + p.what);
  if (lines.size() > 4) lines = lines.mid(0, 4) << tr("and %1 more").arg(problems.size() - 4);
  m_fields->mark(problems);
  m_said->setText(lines.isEmpty() ? tr("A sound part.") : lines.join("\n"));
  m_keep->setEnabled(problems.empty());
  m_export->setEnabled(problems.empty());
}

void OwnPartDialog::keep() {
  (void)takeUp(*this);
  const auto wrong = m_session.file.keepOwnPart(m_text->toPlainText());
  if (!wrong.isEmpty()) {
    m_said->setText(wrong);
    return;
  }
  holdWork(this, {});
  accept();
}

void OwnPartDialog::exportFile() {
  (void)takeUp(*this);
  const auto path = QFileDialog::getSaveFileName(this, tr("Export the part"), m_id->text() + ".json", tr("Parts (*.json)"));
  if (path.isEmpty()) return;
  (void)writeAsking(this, path, m_text->toPlainText().toStdString(), harness::Overwrite::AskUnlessAlike);
}

}  // namespace bold::gui
