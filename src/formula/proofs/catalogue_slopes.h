#pragma once
#include "formula/bounds/slope_rules.h"
#include "formula/proofs/interval_evaluator.h"

#include <memory>
#include <span>

namespace coulter {

/// Bounds of the first and second derivative of a special function by one of its operands, the others being fixed
/// numbers. They come from the function's row in the catalogue: its derivative there, and the derivative of that, are
/// compiled and evaluated over intervals. ζ, whose derivative has no formula there, is bounded by differences. Holds
/// working memory, so each thread has its own.
class CatalogueSlopes {
public:
    /// @param operands  the values of the fixed operands; that of `varying` is not looked at
    CatalogueSlopes(ScalarFunction function, std::span<const double> operands, std::size_t varying);
    /// Over an interval of the varying operand; ±inf where the catalogue knows no derivative, or where it is not
    /// bounded.
    Slopes operator()(const Bounds& at);
    Bounds first(const Bounds& at);

private:
    struct Part {
        std::shared_ptr<const Program> program; ///< null: none is known
        std::unique_ptr<IntervalEvaluator> evaluator;
    };
    static Bounds over(Part& part, const Bounds& at);
    bool isZeta_ = false;
    Part first_, second_;
};

} // namespace coulter
