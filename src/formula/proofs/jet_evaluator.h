#pragma once
#include "formula/bounds/jet.h"
#include "formula/program/program.h"

#include <memory>
#include <span>

namespace coulter {

/// Evaluates a program and its first and second derivatives over boxes: forward, register by register, so that the
/// cost is a small multiple of one evaluation over intervals, whatever the size of the formula.
///
/// Method: automatic differentiation, in interval arithmetic, of the Taylor coefficients up to order two (R. E. Moore,
/// "Methods and Applications of Interval Analysis", 1979, sections 3.3 and 3.4). Every register holds its own jet, and
/// each is the intersection of the plain enclosure with the mean value form and the Taylor form of second order about
/// the middle (same book, sections 3.2 and 6.4), so that widths go with the square of the box. Derivatives of
/// operations are those of `slopeRule`, of special functions those of the catalogue; what an integral makes of its
/// operands has a value, and no bounded derivative. Holds working memory, so each thread has its own; the program must
/// outlive it and have N inputs.
template <std::size_t N> class JetEvaluator {
public:
    explicit JetEvaluator(const Program& program);
    ~JetEvaluator();
    JetEvaluator(JetEvaluator&&) noexcept;

    /// A jet of each output, while input k runs over box[k].
    std::span<const Jet<N>> operator()(const std::array<Bounds, N>& box);
    /// The same by other variables, of which the inputs are functions, over a box of these half widths.
    std::span<const Jet<N>> operator()(std::span<const Jet<N>> inputs, const std::array<double, N>& radius);

private:
    struct Working;
    std::unique_ptr<Working> working_;
};

extern template class JetEvaluator<1>;
extern template class JetEvaluator<2>;

/// An operation of one operand, applied to a jet over a box of these half widths: to see a curve through a scale.
template <std::size_t N> Jet<N> applied(Kernel kernel, const Jet<N>& operand, const std::array<double, N>& radius);

extern template Jet<1> applied(Kernel, const Jet<1>&, const std::array<double, 1>&);
extern template Jet<2> applied(Kernel, const Jet<2>&, const std::array<double, 2>&);

/// The middle of an interval and what it reaches to both sides, at least.
struct MiddleAndRadius {
    double middle, radius;
};
MiddleAndRadius middleAndRadius(const Bounds& interval);

/// Whether every integral, sum and product of a program has a jet along one variable, as integrals in integrals have
/// not.
bool hasJets(const Program& program);

/// How dear a program is to evaluate over a box, in operations of arithmetic: effort is bounded by it.
double costOf(const Program& program);

} // namespace coulter
