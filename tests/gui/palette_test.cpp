#include "gui/theme/palette.h"

#include <catch2/catch.hpp>

using namespace bold::gui;

TEST_CASE("every pair of text and ground in both themes has a contrast of 4.5") {
  for (const auto* p : {&lightPalette(), &darkPalette()}) {
    INFO((p->dark ? "dark" : "light"));
    struct Pair {
      const char* name;
      QColor text, ground;
    };
    const Pair pairs[]{{"ink on paper", p->ink, p->paper},
                       {"ink on panel", p->ink, p->panel},
                       {"ink on rail", p->ink, p->rail},
                       {"ink on strip", p->ink, p->strip},
                       {"soft on paper", p->inkSoft, p->paper},
                       {"soft on panel", p->inkSoft, p->panel},
                       {"soft on rail", p->inkSoft, p->rail},
                       {"soft on accent soft", p->inkSoft, p->accentSoft},
                       {"ink on accent soft", p->ink, p->accentSoft},
                       {"accent on panel", p->accent, p->panel},
                       {"accent on accent soft", p->accent, p->accentSoft},
                       {"accent ink on accent", p->accentInk, p->accent},
                       {"stop on panel", p->stop, p->panel},
                       {"stop on stop soft", p->stop, p->stopSoft},
                       {"stop ink on stop", p->stopInk, p->stop},
                       {"caution on panel", p->caution, p->panel},
                       {"caution on caution soft", p->caution, p->cautionSoft},
                       {"caution ink on caution", p->cautionInk, p->caution},
                       {"good on good soft", p->good, p->goodSoft},
                       {"good ink on good", p->goodInk, p->good},
                       {"panel on note", p->panel, p->note},
                       {"supply label on paper", p->supply, p->paper}};
    for (const auto& x : pairs) {
      INFO(x.name);
      CHECK(contrast(x.text, x.ground) >= 4.5);
    }
    CHECK(contrast(p->casing, p->paper) >= 3);
    CHECK(contrast(p->handle, p->panel) >= 3);
    CHECK(contrast(p->ground, p->paper) >= 3);
  }
}

TEST_CASE("contrast is that of the guideline") {
  CHECK(contrast(Qt::black, Qt::white) == Approx(21).epsilon(0.001));
  CHECK(contrast(Qt::white, Qt::white) == Approx(1));
  CHECK(contrast(QColor("#767676"), Qt::white) == Approx(4.54).epsilon(0.01));
}

TEST_CASE("each wire code has a colour of its own") {
  for (const auto& [code, name] : wireCodes())
    for (const auto& [other, otherName] : wireCodes())
      if (code.left(2) != other.left(2)) CHECK(wireColour(code) != wireColour(other));
  QColor stripe;
  wireColour("GNYE", &stripe);
  CHECK(stripe == wireColour("YE"));
  wireColour("RD", &stripe);
  CHECK_FALSE(stripe.isValid());
}
