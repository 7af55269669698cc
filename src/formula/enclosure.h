#pragma once
#include "formula/program.h"

#include <vector>

namespace coulter {

/// What is known of a formula's values while its inputs run over intervals.
struct Enclosure {
    double low = 0;
    double high = 0;         ///< every value it takes lies in [low, high]; low > high: it is nowhere defined
    bool known = true;       ///< the bounds hold; else nothing is known of the values
    bool defined = true;     ///< certainly defined everywhere
    bool continuous = true;  ///< certainly continuous everywhere
    bool estimated = false;  ///< the bounds rest on an error estimate of an integral, not on a proof
    bool mayBeUnset = false; ///< pieces: some places belong to none of those looked at so far
    bool isUnset = false;    ///< pieces: no place belongs to any of those looked at so far

    static Enclosure point(double x) { return {x, x}; }
    static Enclosure unknown();
    bool isPoint() const { return low == high; }
    double width() const { return high - low; }
    /// Bounds that are finite and hold, of a function that is defined and continuous throughout.
    bool isProof() const;
};

class ProvenIntegral;

/// Evaluates a program over intervals. Arithmetic is rounded outwards exactly (error-free transformations); elementary
/// functions come from the same kernels as points do, with a margin of 4 units in the last place, four times the error
/// that SLEEF documents; special functions have the bounds of `boundsOver`. What has no bound is unknown, never a
/// guess. Holds working memory, so each thread has its own; the program must outlive it.
class IntervalEvaluator {
public:
    explicit IntervalEvaluator(const Program& program);
    /// The outputs, while input k runs over inputs[k].
    std::span<const Enclosure> operator()(std::span<const Enclosure> inputs);

private:
    Enclosure integral(const Program::Integral& integral);
    Enclosure thinIntegral(const Program::Integral& integral);
    Enclosure provenBounds(const Program::Integral& integral);

    const Program& program_;
    std::vector<Enclosure> registers_;
    std::vector<Enclosure> outputs_;
    std::vector<std::unique_ptr<IntervalEvaluator>> inner_; ///< of each integral
    std::vector<std::shared_ptr<ProvenIntegral>> proven_;   ///< the same, made when it is first asked for
};

} // namespace coulter
