#include "gui/stages/drawer.h"

#include <filesystem>

#include "core/base/file_system.h"
#include "core/parts/own_parts.h"
#include "gui/qs.h"

namespace bold::gui {

std::string Drawer::path() {
  const auto parts = parts::ownFolder();
  return parts.empty() ? std::string() : (std::filesystem::path(parts).parent_path() / "drawer.csv").string();
}

Drawer::Drawer(const parts::Library& library, QObject* parent) : QObject(parent) {
  Disk disk;
  // What cannot be used of it is kept in the file until the drawer is changed; a file that is not there is an empty drawer.
  if (const auto text = path().empty() ? Result<std::string>(fail("")) : disk.read(path()))
    m_stock = choose::readStock(*text, library).stock;
}

QString Drawer::set(choose::Stock stock) {
  std::erase_if(stock, [](const auto& p) { return p.second == 0; });
  m_stock = std::move(stock);
  Q_EMIT changed();
  Disk disk;
  if (path().empty()) return tr("There is no folder to keep the drawer in: it is forgotten when the window closes.");
  if (const auto folder = disk.makeFolder(std::filesystem::path(path()).parent_path().string()); !folder) return qs(text(folder.error()));
  const auto written = disk.replace(path(), choose::writeStock(m_stock));
  return written ? QString() : qs(text(written.error()));
}

}  // namespace bold::gui
