#include "gui/panels/fill_combo.h"

#include <QComboBox>

namespace bold::gui {

void fillCombo(QComboBox& box, const std::vector<std::pair<QString, QVariant>>& items, const QVariant& chosen) {
  bool same = box.count() == static_cast<int>(items.size());
  for (int k = 0; same && k < box.count(); ++k) {
    const auto& [text, data] = items[k];
    same = box.itemText(k) == text && box.itemData(k) == data;
  }
  if (!same) {
    box.clear();
    for (const auto& [text, data] : items) box.addItem(text, data);
  }
  if (const int at = box.findData(chosen); at >= 0 && at != box.currentIndex()) box.setCurrentIndex(at);
}

}  // namespace bold::gui
