#include "gui/panels/check_page_dialog.h"

#include <QDialogButtonBox>
#include <QTextBrowser>
#include <QVBoxLayout>

#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

// What stands in a finding is text, not markup.
QString plain(const std::string& s) {
  return QString::fromStdString(s).toHtmlEscaped();
}

// The examples are wired in the notation of the tests: they are for those who change the check.
QString withoutExamples(std::string_view page) {
  QStringList kept;
  for (const auto& section : QString::fromUtf8(page.data(), static_cast<qsizetype>(page.size())).split("\n## "))
    if (!section.startsWith("Flagged") && !section.startsWith("Accepted")) kept << section;
  return kept.join("\n## ");
}

QString onThisBench(const Analysis& a, const std::string& check) {
  QString out;
  for (const auto& f : a.findings) {
    if (f.check != check) continue;
    out += QString("<p><b>%1</b><br>%2<br><code>%3</code>").arg(plain(f.headline), plain(f.text), plain(f.formula));
    QStringList sources;
    for (const auto& s : f.sources) sources << plain(s);
    if (!sources.isEmpty()) out += "<br><small>" + CheckPageDialog::tr("Figures: %1").arg(sources.join("; ")) + "</small>";
    out += "</p>";
  }
  return out.isEmpty() ? "<p>" + CheckPageDialog::tr("It has nothing to say about this bench.") + "</p>" : out;
}

}  // namespace

CheckPageDialog::CheckPageDialog(const Session& session, const QString& check, QWidget* parent) : QDialog(parent) {
  setAttribute(Qt::WA_DeleteOnClose);
  setObjectName("page");
  setWindowTitle(tr("About the check %1").arg(check));
  resize(620, 600);
  auto* column = new QVBoxLayout(this);
  auto* text = new PlainBrowser(this);
  text->setAccessibleName(windowTitle());
  text->setMarkdown(withoutExamples(checks::page(check.toStdString())));
  QTextCursor end(text->document());
  end.movePosition(QTextCursor::End);
  end.insertBlock();
  end.insertHtml("<h2>" + tr("On this bench") + "</h2>" + onThisBench(session.analyser.analysis(), check.toStdString()));
  text->moveCursor(QTextCursor::Start);
  column->addWidget(text);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  column->addWidget(buttons);
}

}  // namespace bold::gui
