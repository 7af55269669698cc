#pragma once
#include "formula/program/program.h"

#include <optional>
#include <utility>

namespace oracle {

/// A compiled formula of one or more inputs in high precision, instruction by instruction. Without integrals.
struct ProgramReference {
    const coulter::Program& program;

    /// Two doubles between which the first output lies at these inputs; none where it is undefined or not known well.
    std::optional<std::pair<double, double>> at(const std::vector<double>& inputs) const;
    /// The derivative of the first output by the first input, from a central difference over 2^−100.
    std::optional<double> slope(const std::vector<double>& inputs) const;
    /// Two doubles between which the second derivative by two inputs lies (or, without `k`, the first derivative by
    /// one), from central differences over 2^−60 and 2^−61; none where both do not agree, as at a border.
    std::optional<std::pair<double, double>> derivative(const std::vector<double>& inputs, std::size_t j,
                                                        std::optional<std::size_t> k = {}) const;
};

} // namespace oracle
