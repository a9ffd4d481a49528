#pragma once

#include <QObject>

#include "core/choose/stock.h"

namespace bold::gui {

/// What lies in the drawer, kept between runs beside the user's own parts: one CSV file.
class Drawer : public QObject {
  Q_OBJECT
 public:
  explicit Drawer(const parts::Library& library, QObject* parent = nullptr);
  const choose::Stock& stock() const { return m_stock; }
  /// Kept at once. Empty: it was; else why not, in a sentence.
  QString set(choose::Stock stock);
  /// Where it is kept; empty where no folder is known.
  static std::string path();

 Q_SIGNALS:
  void changed();

 private:
  choose::Stock m_stock;
  std::vector<std::string> m_unread;  ///< lines of the file that stay as they are
  QString m_broken;                   ///< why the file that is there was not read: it is not written over
};

}  // namespace bold::gui
