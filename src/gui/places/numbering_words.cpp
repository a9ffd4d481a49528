#include "gui/places/numbering_words.h"

#include <QObject>

namespace bold::gui {

QString numberingWords(places::Numbering numbering) {
  switch (numbering) {
    case places::Numbering::Printed:
      return QObject::tr("as printed");
    case places::Numbering::Position:
      return QObject::tr("by position");
    case places::Numbering::Chip:
      return QObject::tr("by the chip");
    case places::Numbering::Program:
      return QObject::tr("by number in a program");
    case places::Numbering::Function:
      break;
  }
  return QObject::tr("by function");
}

}  // namespace bold::gui
