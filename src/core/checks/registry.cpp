#include <algorithm>
#include <vector>

#include "core/base/embedded.h"
#include "core/checks/check.h"

// A name a check, causes before consequences: its file is <family>/<name>.cpp, its page and examples docs/checks/<family>/<name>.md.
#define BOLD_CHECKS(X)           \
  X(outside_scope)               \
  X(not_solved)                  \
  X(supply_short)                \
  X(contacts_short)              \
  X(supply_reversed)             \
  X(regulator_reversed)          \
  X(controller_unpowered)        \
  X(rails_joined)                \
  X(terminal_unknown)            \
  X(output_short)                \
  X(paralleled_channels)         \
  X(shoot_through)               \
  X(motor_on_pin)                \
  X(rail_dead)                   \
  X(rail_broken)                 \
  X(isolated_common)             \
  X(ground_not_shared)           \
  X(supply_return_missing)       \
  X(ground_through_board)        \
  X(motor_across_channels)       \
  X(motor_to_ground)             \
  X(transistor_orientation)      \
  X(high_side_n)                 \
  X(high_side_p_stays_on)        \
  X(grounded_case_motor)         \
  X(coil_interrupted)            \
  X(brushless_leads)             \
  X(open_lead)                   \
  X(regulator_input)             \
  X(converter_output)            \
  X(back_feed)                   \
  X(capacitor_rating)            \
  X(capacitor_on_output)         \
  X(bulk_capacitor_missing)      \
  X(lead_spike)                  \
  X(regeneration)                \
  X(gate_overvoltage)            \
  X(servo_supply)                \
  X(polarity_sensitive_load)     \
  X(motor_supply_too_high)       \
  X(motor_supply_too_low)        \
  X(motor_overvoltage)           \
  X(motor_undervoltage)          \
  X(module_regulator_setting)    \
  X(brown_out)                   \
  X(logic_supply_out_of_range)   \
  X(phase_current_unlimited)     \
  X(diode_on_reversible_motor)   \
  X(flyback_reversed)            \
  X(array_common_open)           \
  X(bridge_diodes_missing)       \
  X(flyback_missing)             \
  X(flyback_misplaced)           \
  X(stage_undersized)            \
  X(flyback_rating)              \
  X(running_current)             \
  X(stall_current)               \
  X(reversal_current)            \
  X(brake_current)               \
  X(current_limit_vs_protection) \
  X(shared_channel)              \
  X(board_rail_current)          \
  X(vin_as_output)               \
  X(supply_current)              \
  X(low_load_cut_off)            \
  X(junction_temperature)        \
  X(regulator_heat)              \
  X(heat_sink_needed)            \
  X(resistor_power)              \
  X(motor_heat)                  \
  X(pin_current)                 \
  X(pin_total_current)           \
  X(current_limit_setting)       \
  X(run_time)                    \
  X(pack_over_discharge)         \
  X(no_cut_off)                  \
  X(fuse)                        \
  X(diode_current)               \
  X(wire_current)                \
  X(contact_current)             \
  X(snubber_note)                \
  X(wire_to_itself)              \
  X(switch_rating)               \
  X(supply_sequence)             \
  X(base_drive)                  \
  X(gate_drive)                  \
  X(pin_boot_state)              \
  X(pin_cannot_drive)            \
  X(sensor_pin)                  \
  X(pin_no_analog)               \
  X(bus_lines)                   \
  X(pin_conflict)                \
  X(pin_tied)                    \
  X(pin_strapping)               \
  X(pin_serial)                  \
  X(static_direction_pwm)        \
  X(pin_numbering)               \
  X(pwm_channel_shared)          \
  X(pin_no_pwm)                  \
  X(pwm_frequency)               \
  X(step_rate)                   \
  X(level_high)                  \
  X(level_low)                   \
  X(input_overvoltage)           \
  X(input_unpowered)             \
  X(held_off)                    \
  X(open_drain_without_pull_up)  \
  X(opto_input_current)          \
  X(opto_never_off)              \
  X(darlington_input)            \
  X(active_level)                \
  X(never_driven)                \
  X(switched_otherwise)          \
  X(never_switched_on)           \
  X(touched_input)               \
  X(input_floating)              \
  X(sensor_level)                \
  X(lead_count)                  \
  X(phase_order)                 \
  X(microstep_setting)           \
  X(step_timing)                 \
  X(stage_not_awake)             \
  X(coil_pairs)                  \
  X(program_no_such_pin)         \
  X(program_numbering)           \
  X(program_pin_slip)            \
  X(program_pin_undriven)        \
  X(program_open_effect)         \
  X(program_pin_mode)            \
  X(program_pins_exchanged)      \
  X(program_console_pin)         \
  X(program_no_pwm)              \
  X(program_timer_taken)         \
  X(program_enable_inverted)     \
  X(program_coil_order)          \
  X(program_step_timing)         \
  X(program_channel_shared)      \
  X(program_both_high)           \
  X(program_on_at_start)         \
  X(program_duty_cap)            \
  X(program_duty_scale)          \
  X(program_steps_per_turn)      \
  X(program_goal_unserved)       \
  X(program_read_slip)           \
  X(program_read_floats)         \
  X(program_left_on)             \
  X(program_pin_unwired)         \
  X(end_switch)                  \
  X(setting_unstated)            \
  X(command_outcome)

namespace bold::checks {

#define BOLD_DECLARE(name) \
  namespace name {         \
  Check check();           \
  }
BOLD_CHECKS(BOLD_DECLARE)
#undef BOLD_DECLARE

Said Check::run(const bench::SolvedBench& solved, const ProgramOnBench& program) const {
  if (const auto* measuring = std::get_if<Measuring>(&judge)) return (*measuring)(solved);
  if (const auto* ofProgram = std::get_if<OfProgram>(&judge)) return {(*ofProgram)(program), {}};
  if (const auto* deciding = std::get_if<Deciding>(&judge)) return {(*deciding)(solved), {}};
  return {};  // supposed (suppose.h)
}

std::span<const Check> registry() {
#define BOLD_ENTRY(name) name::check(),
  static const std::vector<Check> all{BOLD_CHECKS(BOLD_ENTRY)};
#undef BOLD_ENTRY
  return all;
}

const Check* findCheck(std::string_view id) {
  const auto it = std::ranges::find(registry(), id, &Check::id);
  return it == registry().end() ? nullptr : &*it;
}

std::string_view page(std::string_view id) {
  const auto* c = findCheck(id);
  if (!c) return {};
  const auto path = std::string(c->family) + "/" + std::string(id) + ".md";
  for (const auto& f : embedded::pages())
    if (f.path == path) return f.text;
  return {};
}

std::string_view howToMend(std::string_view id) {
  constexpr std::string_view kHead = "## How to mend\n";
  const auto all = page(id);
  const auto at = all.find(kHead);
  if (at == std::string_view::npos) return {};
  auto text = all.substr(at + kHead.size());
  text = text.substr(0, text.find("\n## "));
  while (!text.empty() && text.front() == '\n') text.remove_prefix(1);
  while (!text.empty() && text.back() == '\n') text.remove_suffix(1);
  return text;
}

}  // namespace bold::checks
