#include "gui/panels/about_dialog.h"

#include <QApplication>
#include <QDialogButtonBox>
#include <QFontDatabase>
#include <QLabel>
#include <QPlainTextEdit>
#include <QVBoxLayout>

#include "core/base/embedded.h"
#include "gui/qs.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

AboutDialog::AboutDialog(QWidget* parent) : QDialog(parent) {
  setAttribute(Qt::WA_DeleteOnClose);
  setObjectName("about");
  setWindowTitle(tr("About Bold Harness"));
  resize(620, 560);
  auto* column = new QVBoxLayout(this);
  auto* name = plainLabel(tr("Bold Harness %1").arg(QApplication::applicationVersion()), this);
  auto bold = name->font();
  bold.setBold(true);
  name->setFont(bold);
  column->addWidget(name);
  for (const auto& text :
       {tr("Looks a motor bench over before power-up: controller, driver stages, motors, supplies and every wire between them."),
        tr("It judges direct-current benches up to 60 V from the wires and parts you enter. It does not see your bench: a wire that is not "
           "as drawn, a damaged part or a figure that is wrong stays unseen. Most figures are recalled and not re-read from data sheets; "
           "each says so. It does not replace a fuse, a current limit, or a second pair of eyes."),
        tr("Free software under the GNU General Public License, version 3 or later. No warranty."),
        tr("These are compiled into it, under licences of their own:")}) {
    auto* line = plainLabel(text, this);
    line->setWordWrap(true);
    column->addWidget(line);
  }
  auto* licences = new QPlainTextEdit(this);
  licences->setObjectName("licences");
  licences->setAccessibleName(tr("Licences of what is compiled in"));
  licences->setReadOnly(true);
  licences->setFont(QFontDatabase::systemFont(QFontDatabase::FixedFont));
  QStringList all;
  for (const auto& f : embedded::licences()) all << qs(std::string(f.text)).trimmed();
  licences->setPlainText(all.join("\n\n\n"));
  column->addWidget(licences, 1);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  column->addWidget(buttons);
}

}  // namespace bold::gui
