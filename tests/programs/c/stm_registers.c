//! bench vnh5019
//! pin PA0 output write
//! pin PA1 output write
//! pin PA2 output write
//! says program-goal-unserved
#include "stm32f1xx.h"
static void set_up(void) {
  GPIO_InitTypeDef g = {.Pin = GPIO_PIN_0 | GPIO_PIN_1 | GPIO_PIN_2, .Mode = GPIO_MODE_OUTPUT_PP, .Pull = GPIO_NOPULL};
  HAL_GPIO_Init(GPIOA, &g);
}
int main(void) {
  set_up();
  for (;;) {
    GPIOA->BSRR = (1 << 0) | (1 << (1 + 16));
    GPIOA->BSRR = 1 << 2;
    HAL_Delay(100);
    GPIOA->BRR = 1 << 2;
    GPIOA->ODR &= ~(1 << 0);
    GPIOA->ODR |= 1 << 1;
    HAL_Delay(100);
  }
}
