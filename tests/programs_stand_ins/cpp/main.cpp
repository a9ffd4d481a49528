#include "Arduino.h"
int main() {
  setup();
  for (int k = 0; k < 2000; ++k) loop();
}
