#include "gui/panels/name_faults.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include "core/report/named_faults.h"
#include "gui/half_typed.h"
#include "gui/panels/plural.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

NameFaults::NameFaults(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
  setObjectName("nameFaults");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 4, 6, 4);
  m_how = plainLabel(
      tr("What is found stays hidden until you have named it. Write what is wrong with this bench, a line for each fault: where, and "
         "what. S1 IN4 is open. C1 the wrong way round."),
      this);
  m_how->setWordWrap(true);
  column->addWidget(m_how);
  m_lines = new QPlainTextEdit(this);
  declareField(m_lines, FieldKind::Entry, tr("the faults that were named"));
  m_lines->setObjectName("namedFaults");
  m_lines->setAccessibleName(tr("Faults, a line each"));
  m_lines->setTabChangesFocus(true);
  m_lines->setPlaceholderText(tr("s1 in4 is open"));
  column->addWidget(m_lines, 1);
  m_result = plainLabel(this);
  m_result->setObjectName("namedResult");
  m_result->setWordWrap(true);
  m_result->setTextInteractionFlags(Qt::TextSelectableByKeyboard | Qt::TextSelectableByMouse);
  column->addWidget(m_result);
  auto* row = new QHBoxLayout;
  m_compare = new QPushButton(tr("That is all I see"), this);
  m_compare->setObjectName("compareFaults");
  m_compare->setProperty("primary", true);
  m_close = new QPushButton(tr("Put this away"), this);
  m_close->setObjectName("closeNamed");
  row->addWidget(m_compare);
  row->addWidget(m_close);
  row->addStretch();
  column->addLayout(row);
  connect(m_compare, &QPushButton::clicked, this, &NameFaults::compare);
  connect(m_close, &QPushButton::clicked, this, &QWidget::hide);
  connect(&session.document, &Document::replaced, this, [this] {
    m_lines->clear();
    m_result->clear();
    refresh();
  });
  connect(&session.concealment, &Concealment::changed, this, &NameFaults::refresh);
  connect(&session.analyser, &Analyser::changed, this, &NameFaults::refresh);
  refresh();
}

void NameFaults::refresh() {
  const bool hidden = m_session.concealment.hidden();
  if (hidden) m_result->clear();
  setVisible(hidden || !m_result->text().isEmpty());
  m_how->setVisible(hidden);
  m_lines->setReadOnly(!hidden);
  m_compare->setVisible(hidden);
  m_compare->setEnabled(m_session.analyser.current());
  m_close->setVisible(!hidden);
  m_result->setVisible(!hidden);
}

void NameFaults::compare() {
  m_lines->document()->setModified(false);
  const auto& a = m_session.analyser.analysis();
  std::vector<std::string> lines;
  for (const auto& line : m_lines->toPlainText().split('\n')) lines.push_back(line.toStdString());
  const auto out = report::compareNamed(m_session.document.harness(), m_session.document.library(), a, lines);
  const auto headline = [&](const std::string& identity) {
    const auto* f = a.find(identity);
    return f ? qs(f->headline) : QString();
  };
  QStringList told;
  int hits = 0;
  for (const auto& n : out.named) {
    QStringList means;
    for (const auto& id : n.means) means << headline(id);
    hits += !n.means.empty();
    told << (n.means.empty() ? tr("– %1: nothing of that is found").arg(qs(n.text)) : tr("+ %1: %2").arg(qs(n.text), means.join("; ")));
  }
  told.prepend(tr("%1 of %2 named are found; %3 not named.")
                   .arg(hits)
                   .arg(out.named.size())
                   .arg(plural(static_cast<int>(out.missed.size()), tr("is"), tr("are"))));
  for (const auto& id : out.missed) told << tr("! not named: %1").arg(headline(id));
  m_result->setText(told.join("\n"));
  m_session.concealment.reveal();
}

}  // namespace bold::gui
