#include "gui/session/concealment.h"

#include <QSettings>

#include "gui/session/document.h"

namespace bold::gui {

Concealment::Concealment(const Document& document, QObject* parent)
    : QObject(parent), m_chosen(QSettings().value("nameFirst").toBool()), m_hidden(m_chosen) {
  connect(&document, &Document::replaced, this, [this] {
    if (m_hidden == m_chosen) return;
    m_hidden = m_chosen;
    Q_EMIT changed();
  });
}

void Concealment::choose(bool on) {
  m_chosen = m_hidden = on;
  QSettings().setValue("nameFirst", on);
  Q_EMIT changed();
}

void Concealment::reveal() {
  if (!m_hidden) return;
  m_hidden = false;
  Q_EMIT changed();
}

}  // namespace bold::gui
