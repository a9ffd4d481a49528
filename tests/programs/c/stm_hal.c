//! bench vnh5019
//! pin PA0 output write
//! pin PA1 output write
//! pin PA2 output write
//! says program-goal-unserved
//! note full speed only: its speed is never chopped
#include "stm32f1xx_hal.h"
#define PORT GPIOA
#define INA GPIO_PIN_0
#define INB GPIO_PIN_1
#define PWM GPIO_PIN_2
int main(void) {
  HAL_Init();
  GPIO_InitTypeDef init = {0};
  init.Pin = INA | INB | PWM;
  init.Mode = GPIO_MODE_OUTPUT_PP;
  init.Pull = GPIO_NOPULL;
  HAL_GPIO_Init(PORT, &init);
  while (1) {
    HAL_GPIO_WritePin(PORT, INA, GPIO_PIN_SET);
    HAL_GPIO_WritePin(PORT, INB, GPIO_PIN_RESET);
    HAL_GPIO_WritePin(PORT, PWM, GPIO_PIN_SET);
    HAL_Delay(800);
    HAL_GPIO_WritePin(PORT, PWM, GPIO_PIN_RESET);
    HAL_GPIO_WritePin(PORT, INA, GPIO_PIN_RESET);
    HAL_GPIO_WritePin(PORT, INB, GPIO_PIN_SET);
    HAL_GPIO_WritePin(PORT, PWM, GPIO_PIN_SET);
    HAL_Delay(800);
    HAL_GPIO_WritePin(PORT, PWM, GPIO_PIN_RESET);
  }
}
