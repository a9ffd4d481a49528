#pragma once
namespace pins {
constexpr uint8_t kPaddleEn = 9;
constexpr uint8_t kPaddleA = kPaddleEn - 1;
constexpr uint8_t kPaddleB = 7;
enum Gate : uint8_t { kGateEn = 6, kGateA = A0, kGateB = A1 };
}  // namespace pins
