#pragma once

#include <QColor>
#include <QString>
#include <vector>

class QApplication;

namespace bold::gui {

/// Every colour of the window, by what it means. Two sets; a test computes the contrast of every pair that is used.
struct Palette {
  QColor paper;         ///< behind the picture
  QColor panel;         ///< panels, boxes
  QColor rail;          ///< step rail, status line
  QColor ink, inkSoft;  ///< text
  QColor line;          ///< hairlines
  QColor strip;         ///< header strips, inactive bars
  QColor accent, accentSoft, accentInk;
  QColor stop, stopSoft, stopInk;
  QColor caution, cautionSoft, cautionInk;
  QColor good, goodSoft, goodInk;
  QColor note;
  QColor handle;  ///< of scroll bars
  QColor casing;  ///< around threads
  QColor ground;  ///< ground bars
  QColor supply;  ///< supply bars
  bool dark = false;
};

const Palette& lightPalette();
const Palette& darkPalette();

enum class Theme { Light, Dark };

/// Fusion, own palette, own fonts; no platform theme is needed.
void applyTheme(QApplication& app, Theme theme);
const Palette& palette();  ///< of the theme applied last

/// IEC 60757 code to the colour of the insulation; the stripe of a two-colour code is `stripe`.
QColor wireColour(const QString& code, QColor* stripe = nullptr);
/// The codes offered for a new wire, with their names.
const std::vector<std::pair<QString, QString>>& wireCodes();

/// WCAG 2 contrast ratio, 1 to 21.
double contrast(const QColor& a, const QColor& b);
/// A colour on the way from b (share 0) to a (share 1).
QColor between(const QColor& a, const QColor& b, double share);

}  // namespace bold::gui
