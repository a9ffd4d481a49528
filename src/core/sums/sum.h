#pragma once

#include <functional>
#include <optional>
#include <string>
#include <vector>

#include "core/bench/solved_bench.h"
#include "core/harness/edit.h"
#include "core/parts/library.h"

/// Sums that are worked out on paper beside a bench: of its own figures, shown with their formula. One file each; a new one is entered in
/// sums.cpp.
namespace bold::sums {

/// What a sum is worked out of.
struct SumBench {
  const harness::Harness& document;  ///< what is used goes into it
  const parts::Library& library;
  const bench::SolvedBench& solved;  ///< with the motor in it
  const bench::Motor& motor;
  int motorIndex = 0;

  const std::string& motorId() const { return solved.bench.devices[static_cast<std::size_t>(motor.device)].doc.id; }
  const parts::Winding* winding() const;  ///< the first; nullptr: it has none
  /// A figure of the motor by id: "steps".
  std::optional<double> motorFigure(const std::string& id) const;
  /// A through its winding while it runs, supply full; nothing while it does not.
  std::optional<Amps> running() const;
  std::optional<Amps> stalled() const;
  /// V across its winding while it runs, supply nominal.
  std::optional<Volts> voltage() const;
  const parts::Part* stage() const;  ///< of the channel it hangs on; nullptr: none
  std::string stageId() const;
};

/// A field of a sum, filled in from the bench.
struct SumInput {
  std::string id, label;
  Unit unit = Unit::One;
  std::string value;  ///< "0.6 A"
  double least = 0, most = 1e6;
};

struct SumResult {
  std::string text;     ///< "Trim the reference to 1.14 V."
  std::string formula;  ///< with this bench's numbers
  std::string use;      ///< on the button: "Set the gauge of its wires"; empty: there is nothing to use
  harness::Edit edit{};
};

/// A field that cannot be used, and why; or what comes out.
struct SumProblem {
  std::string input, what;
};

struct Sum {
  std::string id, title;
  std::vector<SumInput> inputs;
  std::function<Result<SumResult>(const std::vector<double>&)> work;

  /// @param values in the order of the inputs, as typed
  /// @return what comes out, or one word for each field that cannot be used (its input empty where it is of none)
  std::variant<SumResult, std::vector<SumProblem>> of(const std::vector<std::string>& values) const;
};

/// Those that make sense for a motor, in a fixed order.
std::vector<Sum> sumsFor(const SumBench& bench);

/// The bench of a motor; nothing where the solved one does not have it. What it refers to has to outlive it.
std::optional<SumBench> sumBench(const harness::Harness& document, const parts::Library& library, const bench::SolvedBench& solved,
                                 const std::string& motor);

}  // namespace bold::sums
