#pragma once

#include <QLabel>
#include <QMessageBox>
#include <QString>
#include <QTextBrowser>

class QFormLayout;

/// Text is text: what comes from a document, a file's name or a message never acts as markup. Every label, tip and message of
/// the window is made here; a test walks all widgets.
namespace bold::gui {

/// A label that shows its text as it is.
QLabel* plainLabel(const QString& text, QWidget* parent = nullptr);
inline QLabel* plainLabel(QWidget* parent) {
  return plainLabel(QString(), parent);
}

/// A row of a form with such a label.
void plainRow(QFormLayout& form, const QString& label, QWidget* field, int at = -1);

/// For setToolTip and QToolTip, which take what looks like markup for markup.
QString plainTip(const QString& text);

/// For menus and buttons, which underline what stands behind an ampersand.
QString plainAction(const QString& text);

/// Shows our own pages with texts of others in them, escaped: it loads nothing and follows no link.
class PlainBrowser : public QTextBrowser {
 public:
  explicit PlainBrowser(QWidget* parent) : QTextBrowser(parent) { setOpenLinks(false); }
  QVariant loadResource(int, const QUrl&) override { return {}; }
};

/// Sets all texts of a message as they are. To be called last.
void makePlain(QMessageBox& box);
/// Says one thing and waits.
void tell(QWidget* parent, const QString& title, const QString& text);

}  // namespace bold::gui
