#pragma once
#include "pico/stdlib.h"
