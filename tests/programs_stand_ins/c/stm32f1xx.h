#pragma once
#include "recording.h"
enum { GPIO_PIN_0 = 1, GPIO_PIN_1 = 2, GPIO_PIN_2 = 4, GPIO_PIN_SET = 1, GPIO_PIN_RESET = 0, GPIO_MODE_OUTPUT_PP = 1, GPIO_NOPULL = 0 };
typedef struct {
  volatile uint32_t ODR, BSRR, BRR, IDR;
} GPIO_TypeDef;
typedef struct {
  uint32_t Pin, Mode, Pull, Speed;
} GPIO_InitTypeDef;
static GPIO_TypeDef portA;
#define GPIOA (&portA)
static void levels(GPIO_TypeDef* p, uint32_t bits) {
  (void)p;
  for (int k = 0; k < 16; ++k)
    if (bits >> k & 1) drives("PA", k);
}
static inline void HAL_Init(void) {}
static inline void HAL_GPIO_Init(GPIO_TypeDef* p, const GPIO_InitTypeDef* i) {
  (void)p, (void)i;
}
static inline void HAL_GPIO_WritePin(GPIO_TypeDef* p, uint32_t pin, int v) {
  (void)v, levels(p, pin);
}
static inline void HAL_Delay(int t) {
  (void)t;
  levels(&portA, portA.ODR | portA.BSRR | portA.BRR);
  waits();
}
