#pragma once

#include <QWidget>
#include <string>

#include "core/harness/edit.h"
#include "core/wiring/wire_list.h"

class QButtonGroup;
class QComboBox;
class QLabel;
class QLineEdit;
class QProgressBar;
class QPushButton;
class QShortcut;

namespace bold::gui {

class EndList;
class EndsView;
class LookOver;
class Session;
class WireEditor;
class WireTable;

/// The plain list of connections and terminals beside the picture: everything the picture can do, by keys.
class WiringPanel : public QWidget {
  Q_OBJECT
 public:
  explicit WiringPanel(Session& session, QWidget* parent = nullptr);
  void focusEntry();
  /// Wires are made and changed, or gone through one by one and marked.
  enum class Mode { Make, LookOver };
  void setMode(Mode mode);
  Mode mode() const { return m_mode; }
  /// To the next connection of the list that is not complete; from the last on to the first.
  void stepOn();
  /// A wire or plug between two places, as it was drawn in the picture; what stands in the way comes by `refused`.
  void join(const QString& from, const QString& to);
  /// An end of a connection, drawn to another place.
  void moveEnd(const QString& connection, bool second, const QString& to);
  /// Gives a field of the picked connection the focus, by its name (checks::Field).
  bool focusField(const QString& name);
  void removeSelected();
  void markSelectedDone();

 Q_SIGNALS:
  void refused(const QString& sentence);
  void readBackWanted();

 protected:
  void resizeEvent(QResizeEvent* event) override;

 private:
  Session& m_session;
  Mode m_mode = Mode::Make;
  QButtonGroup* m_modes;
  QProgressBar* m_progress;
  QLineEdit *m_entry, *m_filter;
  QComboBox* m_grouping;
  QPushButton* m_more;
  LookOver* m_look;
  WireEditor* m_editor;
  std::vector<QShortcut*> m_keys;  ///< single letters, of looking over
  std::vector<wiring::ListedWire> m_list;
  std::string m_kept;  ///< is in the list only because it is picked
  QLabel *m_said, *m_ends;
  EndsView* m_places;
  WireTable* m_table;
  QPushButton* m_allDone;
  EndList* m_offers;
  std::vector<std::string> m_moving;  ///< wires that wait for the terminals they are to go to

  void refresh();
  QWidget* buildHead();
  QWidget* buildFilter();
  void fillTable();
  void remark();
  /// Those that are picked in the list, in its order, or what is picked anywhere.
  std::vector<std::string> pickedWires() const;
  /// Applies, or says why not.
  bool take(const Result<harness::Edit>& edit);
  void moveTyped();
  void showSelection();
  void addTyped();
  /// Lights the places of what is typed so far.
  void followTyped(const QString& text);
  void put(const harness::Edit& edit);
  void say(const QString& sentence);
};

}  // namespace bold::gui
