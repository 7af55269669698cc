#pragma once
#include "formula/proofs/proven_integral.h"

namespace coulter {

/// The jet of an integral whose limits and further operands run along one variable, by Leibniz' rule under the integral
/// sign: F' = g(b) b' − g(a) a' + ∫ ∂g, and once more for F''. The value at the middle is that of `ProvenIntegral`.
class IntegralJet {
public:
    /// The program must outlive this.
    explicit IntegralJet(const Program::Integral& integral);
    /// @param operands  the limits, then what the integrand takes from outside
    /// @param radius    of the variable's interval
    Jet<1> operator()(std::span<const Jet<1>> operands, double radius);

    /// Whether such an integral can have a jet at all.
    static bool fits(const Program::Integral& integral);

private:
    const Jet<2>& integrandOver(const Jet<1>& k, std::span<const Jet<1>> others, double radiusOfK, double radius);

    const Program& integrand_;
    JetEvaluator<2> slopes_;
    ProvenIntegral value_;
    Jet<2> last_;
};

} // namespace coulter
