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
  if (path().empty() || !disk.exists(path())) return;
  const auto csv = disk.read(path());
  if (!csv) {
    m_broken = qs(text(csv.error()));
    return;
  }
  auto read = choose::readStock(*csv, library);
  m_stock = std::move(read.stock);
  m_unread = std::move(read.unread);
}

QString Drawer::set(choose::Stock stock) {
  std::erase_if(stock, [](const auto& p) { return p.second == 0; });
  m_stock = std::move(stock);
  Q_EMIT changed();
  Disk disk;
  if (path().empty()) return tr("There is no folder to keep the drawer in: it is forgotten when the window closes.");
  if (!m_broken.isEmpty()) return tr("%1 The drawer is not written over it.").arg(m_broken);
  if (const auto folder = disk.makeFolder(std::filesystem::path(path()).parent_path().string()); !folder) return qs(text(folder.error()));
  const auto written = disk.replace(path(), choose::writeStock(m_stock, m_unread));
  return written ? QString() : qs(text(written.error()));
}

}  // namespace bold::gui
