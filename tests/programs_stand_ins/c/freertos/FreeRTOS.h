#pragma once
#include "recording.h"
#define pdMS_TO_TICKS(t) (t)
#define portTICK_PERIOD_MS 1
static inline void vTaskDelay(int t) {
  (void)t, waits();
}
static inline void xTaskCreate(void (*f)(void*), const char* n, int s, void* a, int p, void* h) {
  (void)n, (void)s, (void)p, (void)h, f(a);
}
