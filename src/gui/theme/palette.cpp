#include "gui/theme/palette.h"

#include <QApplication>
#include <QFont>
#include <QPalette>
#include <QToolTip>
#include <cmath>

#include "core/harness/colour_codes.h"
#include "gui/theme/style.h"

namespace bold::gui {
namespace {

const Palette* g_current = nullptr;  // set once by applyTheme; painting code has no other road to it

Palette makeLight() {
  Palette p;
  p.paper = "#f5f1e8";
  p.panel = "#ffffff";
  p.rail = "#ece6d9";
  p.ink = "#1d2529";
  p.inkSoft = "#535d61";
  p.line = "#d9d2c3";
  p.strip = "#e3dccb";
  p.accent = "#0f5e63";
  p.accentSoft = "#dbeceb";
  p.accentInk = "#ffffff";
  p.stop = "#a3161c";
  p.stopSoft = "#f8e1df";
  p.stopInk = "#ffffff";
  p.caution = "#7d5200";
  p.cautionSoft = "#f8ecd0";
  p.cautionInk = "#ffffff";
  p.good = "#1c6536";
  p.goodSoft = "#dcefe0";
  p.goodInk = "#ffffff";
  p.note = "#4a5560";
  p.handle = "#878e90";
  p.casing = "#5a6468";
  p.ground = "#23303a";
  p.supply = "#a4501c";
  return p;
}

Palette makeDark() {
  Palette p;
  p.paper = "#191d1f";
  p.panel = "#23292c";
  p.rail = "#1e2426";
  p.ink = "#eef0ec";
  p.inkSoft = "#b2babb";
  p.line = "#3a4347";
  p.strip = "#343c40";
  p.accent = "#6fc7c4";
  p.accentSoft = "#214244";
  p.accentInk = "#0d1f20";
  p.stop = "#ff8d86";
  p.stopSoft = "#4a2322";
  p.stopInk = "#2a0807";
  p.caution = "#f0bd5a";
  p.cautionSoft = "#443414";
  p.cautionInk = "#261b02";
  p.good = "#7fcf95";
  p.goodSoft = "#1f3d29";
  p.goodInk = "#08210f";
  p.note = "#aab6bd";
  p.handle = "#78838a";
  p.casing = "#8d999e";
  p.ground = "#c9d2d6";
  p.supply = "#e79a66";
  p.dark = true;
  return p;
}

double luminance(const QColor& c) {
  const auto channel = [](double v) { return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
  return 0.2126 * channel(c.redF()) + 0.7152 * channel(c.greenF()) + 0.0722 * channel(c.blueF());
}

}  // namespace

const Palette& lightPalette() {
  static const Palette kLight = makeLight();
  return kLight;
}
const Palette& darkPalette() {
  static const Palette kDark = makeDark();
  return kDark;
}
const Palette& palette() {
  return g_current ? *g_current : lightPalette();
}

QColor between(const QColor& a, const QColor& b, double share) {
  const auto mix = [&](int x, int y) { return static_cast<int>(std::lround(share * x + (1 - share) * y)); };
  return {mix(a.red(), b.red()), mix(a.green(), b.green()), mix(a.blue(), b.blue())};
}

void applyTheme(QApplication& app, Theme theme) {
  g_current = theme == Theme::Dark ? &darkPalette() : &lightPalette();
  const auto& p = *g_current;
  QApplication::setStyle(new Style);
  QPalette q;
  q.setColor(QPalette::Window, p.panel);
  q.setColor(QPalette::WindowText, p.ink);
  q.setColor(QPalette::Base, p.panel);
  q.setColor(QPalette::AlternateBase, p.paper);
  q.setColor(QPalette::Text, p.ink);
  q.setColor(QPalette::PlaceholderText, p.inkSoft);
  q.setColor(QPalette::Button, p.rail);
  q.setColor(QPalette::ButtonText, p.ink);
  q.setColor(QPalette::Highlight, p.accent);
  q.setColor(QPalette::HighlightedText, p.accentInk);
  q.setColor(QPalette::ToolTipBase, p.panel);
  q.setColor(QPalette::ToolTipText, p.ink);
  q.setColor(QPalette::Link, p.accent);
  q.setColor(QPalette::Mid, p.line);
  q.setColor(QPalette::Dark, p.line);
  q.setColor(QPalette::Light, p.panel);
  for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText}) q.setColor(QPalette::Disabled, role, p.inkSoft);
  QApplication::setPalette(q);
  QToolTip::setPalette(q);
  QFont font("Inter");
  font.setStyleHint(QFont::SansSerif);
  font.setPixelSize(13);
  QApplication::setFont(font);
  app.setStyleSheet(
      QString(
          "QToolTip{border:1px solid %1;padding:4px}"
          "QPushButton,QToolButton,QComboBox,QLineEdit{min-height:26px}"
          "QPushButton{padding:2px 12px;border:1px solid %1;border-radius:6px;background:%2;color:%3}"
          "QPushButton:hover{border-color:%4}QPushButton:focus{border:2px solid %4}"
          "QPushButton:disabled{color:%5}QPushButton:checked{background:%8;border-color:%4}"
          "QToolButton{padding:0 8px;border:1px solid %1;border-radius:6px;background:%2;color:%3}QToolButton:focus{border:2px solid %4}"
          "QToolButton:checked{background:%8;border-color:%4}QLineEdit QToolButton{border:0;padding:0;background:transparent}"
          "QPushButton[tight=\"true\"]{padding:2px 4px}"
          "QProgressBar{border:1px solid %1;border-radius:5px;background:%2;color:%3;text-align:center}"
          "QProgressBar::chunk{border-radius:4px;background:%8}"
          "QPushButton[primary=\"true\"]{background:%4;color:%6;border-color:%4;font-weight:600}"
          "QPushButton[primary=\"true\"]:focus{border:2px solid %3}"
          "QLineEdit{border:1px solid %1;border-radius:6px;padding:1px 8px;background:%7;color:%3}"
          "QLineEdit:focus{border:2px solid %4}"
          "QHeaderView::section{background:%2;color:%5;border:0;padding:4px 6px}"
          "QListView::item{min-height:25px;padding:0 4px}QTreeView::item{min-height:22px}"
          "QTableView,QListView,QTreeView{border:1px solid %1;border-radius:6px;gridline-color:%1}"
          "QMenuBar{background:%2;color:%3}QMenuBar::item{padding:5px 10px}QMenuBar::item:selected{background:%8}"
          "QMenu{background:%7;color:%3;border:1px solid %1}QMenu::item{padding:5px 22px}QMenu::item:selected{background:%8;color:%3}"
          "QMenu::item:disabled{color:%5}"
          "QScrollBar:vertical{width:12px;background:transparent;border:0}QScrollBar:horizontal{height:12px;background:transparent;border:"
          "0}"
          "QScrollBar::handle{background:%9;border-radius:4px;margin:2px}"
          "QScrollBar::handle:vertical{min-height:28px}QScrollBar::handle:horizontal{min-width:28px}QScrollBar::handle:hover{background:%5}"
          "QScrollBar::add-line,QScrollBar::sub-line{width:0;height:0;border:0}QScrollBar::add-page,QScrollBar::sub-page{background:none}"
          "QAbstractScrollArea::corner{background:transparent;border:0}")
          .arg(p.line.name(), p.rail.name(), p.ink.name(), p.accent.name(), p.inkSoft.name(), p.accentInk.name(), p.panel.name(),
               p.accentSoft.name(), p.handle.name()));
}

const std::vector<std::pair<QString, QString>>& wireCodes() {
  static const auto kCodes = [] {
    std::vector<std::pair<QString, QString>> out;
    for (const auto& c : harness::kColourCodes) out.emplace_back(QString::fromLatin1(c.code), QString::fromLatin1(c.name));
    out.emplace_back("GNYE", QString::fromStdString(harness::colourName("GNYE")));
    return out;
  }();
  return kCodes;
}

QColor wireColour(const QString& code, QColor* stripe) {
  const auto bytes = code.toStdString();
  const auto shown = [&](int which) { return QColor(QLatin1String(harness::shownColour(bytes, which))); };
  if (stripe) *stripe = shown(1);
  return shown(0);
}

double contrast(const QColor& a, const QColor& b) {
  double x = luminance(a) + 0.05;
  double y = luminance(b) + 0.05;
  if (x < y) std::swap(x, y);
  return x / y;
}

}  // namespace bold::gui
