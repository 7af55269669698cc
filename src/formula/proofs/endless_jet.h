#pragma once
#include "formula/proofs/integral_jet.h"

#include <memory>
#include <optional>

namespace coulter {

/// The jet of what `IntegralJet` has none of: an integral to infinity, or to an end at which its integrand is infinite,
/// and a sum or product without an end, while further operands run along one variable.
///
/// Method: the derivatives of the value are those under the sign, which are programs of their own (see tangent.h) and
/// converge by the same bounds as the value itself (see proven_limits.h, proven_series.h). Where one limit moves and
/// the other stays, the integral is divided at a place that stays.
class EndlessJet {
public:
    /// The program must outlive this.
    explicit EndlessJet(const Program::Integral& integral);
    /// @param operands  the limits, then what the integrand takes from outside
    /// @param radius    of the variable's interval
    /// @return none where no bounds are known
    std::optional<Jet<1>> operator()(std::span<const Jet<1>> operands, double radius);

    /// Whether such an integral can have a jet at all.
    static bool fits(const Program::Integral& integral);

private:
    /// The value, or its first or second derivative.
    struct Part {
        explicit Part(Program made) : program(std::move(made)), between(program) {}
        Program program;
        ProvenIntegral between;
    };
    using Others = std::span<const Jet<1>>;
    std::optional<Bounds> boundsOf(Part& part, const Bounds& low, const Bounds& high, std::span<const Bounds> others,
                                   const BoundsEffort& effort) const;
    std::optional<Jet<1>> betweenStill(const Bounds& low, const Bounds& high, Others others, double radius);
    std::optional<Jet<1>> product(double low, Others others, double radius);

    const Program::Integral& integral_;
    std::unique_ptr<Part> value_, first_, second_; ///< under the sign; of a product: of its logarithm
    std::unique_ptr<IntegralJet> moving_;          ///< up to a limit that moves
    std::unique_ptr<JetEvaluator<1>> factors_;     ///< of a product: what its first factors are more than 1
};

} // namespace coulter
