#pragma once

#include <QWidget>
#include <string>

class QFormLayout;
class QLabel;
class QTableWidget;

namespace bold::gui {

class Session;

/// One device: name, settings, figures with their sources, and for a motor what it is meant to do.
class DeviceDetails : public QWidget {
  Q_OBJECT
 public:
  DeviceDetails(Session& session, std::string device, QWidget* parent = nullptr);
  const std::string& device() const { return m_device; }
  void refresh();

 private:
  Session& m_session;
  std::string m_device;
  QTableWidget* m_figures = nullptr;
  QLabel *m_said = nullptr, *m_how = nullptr;
  bool m_filling = false;

  void buildSettings(QFormLayout* form);
  void replaceFigure(int row);
  void sayHowToMeasure();
  void say(const QString& sentence);
};

}  // namespace bold::gui
