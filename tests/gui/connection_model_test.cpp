#include "gui/wiring/connection_model.h"

#include <rapidcheck/catch.h>

#include <QAbstractItemModelTester>
#include <QItemSelectionModel>
#include <catch2/catch.hpp>
#include <set>

using namespace bold;
using gui::ConnectionModel;

namespace {

gui::WireRow rowOf(const std::string& id, const std::string& from) {
  gui::WireRow row;
  row.wire.id = id;
  row.wire.colour = "RD";
  row.wire.names = {from, "S1 IN1"};
  return row;
}

std::vector<gui::WireRow> rowsNamed(const std::vector<int>& ids) {
  std::vector<gui::WireRow> rows;
  for (const int id : ids) rows.push_back(rowOf("w" + std::to_string(id), "Uno D" + std::to_string(id)));
  return rows;
}

// Distinct ids in any order.
std::vector<int> anyIds() {
  const auto drawn = *rc::gen::container<std::vector<int>>(rc::gen::inRange(0, 12));
  std::vector<int> out;
  std::set<int> had;
  for (const int id : drawn)
    if (had.insert(id).second) out.push_back(id);
  return out;
}

}  // namespace

TEST_CASE("the list of connections follows any other bench row by row, and says so") {
  rc::prop("rows and signals agree", [] {
    ConnectionModel model;
    // Fails the test when a signal does not fit what the model then holds.
    QAbstractItemModelTester tester(&model, QAbstractItemModelTester::FailureReportingMode::Fatal);
    for (int i = 0; i < 4; ++i) {
      const auto ids = anyIds();
      model.show(rowsNamed(ids));
      RC_ASSERT(model.rowCount() == static_cast<int>(ids.size()));
      for (int r = 0; r < model.rowCount(); ++r) {
        RC_ASSERT(model.idOf(model.index(r, 0)) == QString("w%1").arg(ids[r]));
        RC_ASSERT(model.index(r, ConnectionModel::From).data().toString() == QString("Uno D%1").arg(ids[r]));
        RC_ASSERT(model.rowOf(QString("w%1").arg(ids[r])) == r);
      }
    }
  });
}

TEST_CASE("a picked connection stays picked while others come and go before and behind it") {
  ConnectionModel model;
  model.show(rowsNamed({1, 2, 3}));
  QItemSelectionModel picked(&model);
  picked.select(model.index(1, 0), QItemSelectionModel::Select | QItemSelectionModel::Rows);
  const auto now = [&] { return picked.hasSelection() ? model.idOf(picked.selectedIndexes().front()) : QString(); };
  model.show(rowsNamed({1, 2, 3, 4}));
  CHECK(now() == "w2");
  model.show(rowsNamed({2, 3, 4}));
  CHECK(now() == "w2");
  model.show(rowsNamed({7, 2, 3, 4}));
  CHECK(now() == "w2");
  model.show(rowsNamed({7, 3, 4}));
  CHECK(now() != "w2");
  CHECK(model.rowOf("w2") == -1);
}

TEST_CASE("a wire says its colour to a reader of the screen, a plug what it is") {
  ConnectionModel model;
  auto wire = rowOf("w1", "Uno D9");
  wire.wire.size = "22 AWG, 0.3 m";
  wire.wire.fitted = true;
  auto plug = rowOf("p1", "USB");
  plug.wire.kind = harness::ConnectionKind::Plug;
  plug.wire.state = harness::State::Planned;
  model.show({wire, plug, {{}, "S1"}});
  const auto at = [&](int row, int column, int role) { return model.index(row, column).data(role).toString(); };
  CHECK(at(0, ConnectionModel::Which, Qt::AccessibleTextRole) == "RD wire");
  CHECK(at(0, ConnectionModel::Which, Qt::DisplayRole).isEmpty());
  CHECK_FALSE(model.index(0, ConnectionModel::Which).data(Qt::DecorationRole).isNull());
  CHECK(at(0, ConnectionModel::Gauge, Qt::ToolTipRole).contains("22 AWG, 0.3 m"));
  CHECK(at(0, ConnectionModel::Looked, Qt::AccessibleTextRole) == "fitted");
  CHECK(at(1, ConnectionModel::Looked, Qt::AccessibleTextRole) == "to make");
  // A title is no connection, and nothing to pick.
  CHECK(at(2, ConnectionModel::From, Qt::DisplayRole) == "S1");
  CHECK(model.idOf(model.index(2, 0)).isEmpty());
  CHECK_FALSE(model.flags(model.index(2, 0)).testFlag(Qt::ItemIsSelectable));
  CHECK(model.rowOf("") == -1);
  CHECK(at(1, ConnectionModel::Which, Qt::DisplayRole) == "plug");
  CHECK(model.index(1, ConnectionModel::Which).data(Qt::DecorationRole).isNull());
  CHECK(at(1, ConnectionModel::Made, Qt::DisplayRole) == "to make");
}
