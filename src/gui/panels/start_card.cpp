#include "gui/panels/start_card.h"

#include <QFileInfo>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include "gui/theme/plain_text.h"

namespace bold::gui {

StartCard::StartCard(QWidget* parent) : QWidget(parent) {
  setObjectName("start");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(28, 24, 28, 24);
  column->setSpacing(10);
  auto* head = plainLabel(tr("An empty bench"), this);
  QFont f = head->font();
  f.setPixelSize(20);
  f.setWeight(QFont::DemiBold);
  head->setFont(f);
  column->addWidget(head);
  auto* text = plainLabel(
      tr("Put on it what lies before you: controller, driver stages, motors, supplies. Or look at a bench that is wired already."), this);
  text->setWordWrap(true);
  column->addWidget(text);
  const auto button = [&](const QString& label, const QString& name) {
    auto* b = new QPushButton(label, this);
    b->setObjectName(name);
    column->addWidget(b);
    return b;
  };
  auto* part = button(tr("Add the first part"), "startPart");
  part->setProperty("primary", true);
  connect(part, &QPushButton::clicked, this, &StartCard::addPart);
  connect(button(tr("The wave tank, ready to switch on"), "startDemo"), &QPushButton::clicked, this,
          [this] { Q_EMIT demo("wave-tank.harness"); });
  connect(button(tr("The wave tank, as somebody wired it first"), "startFirstTry"), &QPushButton::clicked, this,
          [this] { Q_EMIT demo("wave-tank-first-try.harness"); });
  m_recent = new QVBoxLayout;
  column->addLayout(m_recent);
  setFixedWidth(420);
}

void StartCard::refresh(const QStringList& recent) {
  while (auto* item = m_recent->takeAt(0)) {
    delete item->widget();
    delete item;
  }
  for (const auto& path : recent.mid(0, 4)) {
    auto* b = new QPushButton(plainAction(QFileInfo(path).fileName()), this);
    b->setToolTip(plainTip(path));
    connect(b, &QPushButton::clicked, this, [this, path] { Q_EMIT file(path); });
    m_recent->addWidget(b);
  }
  adjustSize();
}

}  // namespace bold::gui
