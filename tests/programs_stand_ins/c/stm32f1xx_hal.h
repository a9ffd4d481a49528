#pragma once
#include "stm32f1xx.h"
