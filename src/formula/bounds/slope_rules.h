#pragma once
#include "special/bounds.h"
#include "special/kernels.h"

namespace coulter {

/// Bounds of a function's first and second derivative.
struct Slopes {
    Bounds first, second;
};

/// Bounds of the derivatives of an operation of one operand: `value` holds all its values while the operand runs over
/// `at`, where it is defined and continuous. What is not bounded there is ±inf.
using SlopeRule = Slopes (*)(const Bounds& value, const Bounds& at);

/// The rule of an operation, from one table; null for those of two operands and for those that are made of pieces
/// (|·|, sgn, floor, ceil), which a jet takes piece by piece.
SlopeRule slopeRule(Kernel kernel);

} // namespace coulter
