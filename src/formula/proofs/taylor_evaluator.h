#pragma once
#include "formula/bounds/taylor_series.h"
#include "formula/program/program.h"

#include <memory>
#include <optional>
#include <span>

namespace coulter {

/// Bounds the Taylor coefficients of a program's first output by its first input, while the inputs run over intervals,
/// in arithmetic that is rounded outwards.
///
/// Method: recurrences of automatic differentiation (R. E. Moore, "Methods and Applications of Interval Analysis",
/// 1979, section 3.4) for arithmetic, powers and elementary functions; for an integral between finite limits those of
/// its integrand in both variables, integrated part by part. What has no recurrence here (special functions of the
/// first input, integrals in integrals in integrals, corners and jumps inside the interval) has no series.
class TaylorEvaluator {
public:
    /// The program must outlive this.
    explicit TaylorEvaluator(const Program& program);
    ~TaylorEvaluator();
    TaylorEvaluator(TaylorEvaluator&&) noexcept;
    /// @param k       the first input
    /// @param others  the further inputs; what the first output is by them is left aside
    std::optional<TaylorSeries> operator()(const Bounds& k, std::span<const Bounds> others);

private:
    struct Working;
    std::unique_ptr<Working> working_;
};

} // namespace coulter
