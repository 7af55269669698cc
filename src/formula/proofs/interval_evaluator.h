#pragma once
#include "formula/bounds/enclosure.h"
#include "formula/program/program.h"

#include <vector>

namespace coulter {

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
