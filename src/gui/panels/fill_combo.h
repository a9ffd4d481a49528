#pragma once

#include <QString>
#include <QVariant>
#include <utility>
#include <vector>

class QComboBox;

namespace bold::gui {

/// Gives a combo box these items and chooses the one with this data. What is the same is left as it is: a list that is open stays open.
void fillCombo(QComboBox& box, const std::vector<std::pair<QString, QVariant>>& items, const QVariant& chosen);

}  // namespace bold::gui
