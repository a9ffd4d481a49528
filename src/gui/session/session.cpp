#include "gui/session/session.h"

#include <algorithm>

namespace bold::gui {

Session::Session(parts::Library library, FileSystem& disk, std::string stateFolder)
    : document(std::move(library)),
      file(document, disk, std::move(stateFolder)),
      analyser(document),
      concealment(document),
      program(document, file) {
  QObject::connect(&document, &Document::replaced, &selection, &Selection::clear);
}

const bench::OperatingPoint* Session::shownPoint() const {
  const auto& solved = analyser.analysis().solved;
  if (!solved) return nullptr;
  const auto& points = solved->points;
  // The very point; else the same command at another supply state; else the first at which a motor is asked to run.
  const auto pick = [&](const auto& fits) -> const bench::OperatingPoint* {
    const auto it = std::ranges::find_if(points, [&](const auto& point) { return fits(*point); });
    return it == points.end() ? nullptr : it->get();
  };
  const auto id = selection.shownCommand().toStdString();
  if (const auto* p = pick([&](const auto& o) { return o.command().id == id && o.corner() == selection.shownCorner(); })) return p;
  if (const auto* p = pick([&](const auto& o) { return o.command().id == id; })) return p;
  if (const auto* p = pick([](const auto& o) { return o.command().motor >= 0 && o.command().moment == bench::Moment::Running; })) return p;
  return points.empty() ? nullptr : points.front().get();
}

}  // namespace bold::gui
