#include "gui/charts/curve_plot.h"

#include <qcustomplot.h>

#include <catch2/catch.hpp>

using namespace bold;

TEST_CASE("a curve's axis has the unit people read, and a limit far away is not drawn") {
  gui::CurvePlot w;
  charts::Curve curve;
  curve.title = "Switched off";
  curve.series = {{"as wired", {0, 5e-4, 1e-3}, {12, 13, 12}}, {"without the clamp", {0, 5e-4, 1e-3}, {12, 55, 12}}};
  curve.limits = {{"the switch gives way", 55}, {"far away", 900}};
  w.show(curve);
  w.resize(360, 280);
  w.setVisible(true);
  auto* plot = w.findChild<QCustomPlot*>();
  REQUIRE(plot);
  CHECK(plot->xAxis->label() == "time, µs");
  CHECK(plot->xAxis->range().upper == Approx(1000));
  CHECK(plot->graphCount() == 2);
  CHECK(plot->graph(1)->pen().style() != plot->graph(0)->pen().style());  // told apart without colour
  CHECK(plot->legend->visible());
  QStringList said;
  for (int k = 0; k < plot->itemCount(); ++k)
    if (const auto* text = qobject_cast<QCPItemText*>(plot->item(k))) said << text->text();
  CHECK(said == QStringList{"the switch gives way 55 V"});
  CHECK(plot->yAxis->range().upper > 55);

  curve.series = {{"", {0, 60, 180}, {30, 60, 80}}};
  curve.yUnit = Unit::Celsius;
  curve.limits.clear();
  w.show(curve);
  CHECK(plot->xAxis->label() == "time, s");
  CHECK(plot->yAxis->label() == "°C");
  CHECK_FALSE(plot->legend->visible());
  CHECK(plot->itemCount() == 0);  // nothing of the last curve is left
}
