#pragma once

#include <QWidget>
#include <string>
#include <vector>

#include "core/harness/harness.h"

class QFormLayout;
class QLabel;
class QPushButton;
class QTableWidget;

namespace bold::gui {

class IntentEditor;
class Session;

/// One device: name, settings, figures with their sources, and for a motor what it is meant to do.
class DeviceDetails : public QWidget {
  Q_OBJECT
 public:
  DeviceDetails(Session& session, std::string device, QWidget* parent = nullptr);
  /// True while its rows are those of the part that `device` is; an exchanged part needs new ones.
  bool isFor(const harness::Device& device) const;
  void refresh();
  /// Gives a field by its name (checks::Field) the focus; false when there is no such field.
  bool focusField(const QString& name);

 private:
  Session& m_session;
  std::string m_device;
  std::vector<std::string> m_rows;  // what it was laid out for
  QTableWidget* m_figures = nullptr;
  QLabel *m_said = nullptr, *m_how = nullptr;
  QPushButton *m_turn = nullptr, *m_done = nullptr;
  IntentEditor* m_intent = nullptr;
  bool m_filling = false;

  void buildSettings(QFormLayout* form);
  void showFigures(const harness::Device& device);
  void replaceFigure(int row);
  void sayHowToMeasure();
  void say(const QString& sentence);
};

}  // namespace bold::gui
