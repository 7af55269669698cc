#pragma once
#include "formula/algebra/exact_value.h"
#include "formula/notation/expr.h"

#include <optional>
#include <vector>

namespace coulter {

/// cosine · cos(rate t) + sine · sin(rate t) with a rate > 0; or cosine · e^(rate t + shift) with a rate that is not 0.
struct ExactMode {
    bool isWave = true;
    ExactValue rate, shift, cosine, sine;
};

/// A function of t made of a polynomial, sines and exponentials, with exact numbers.
struct ExactFunction {
    std::vector<ExactValue> polynomial; ///< coefficients from the constant one up; at least one
    std::vector<ExactMode> modes;       ///< of different rates and shifts

    bool isPolynomial() const { return modes.empty(); }
};

ExactFunction operator+(const ExactFunction& a, const ExactFunction& b);
ExactFunction operator-(ExactFunction a);
/// None where the product is no such function, or of too high a degree.
std::optional<ExactFunction> productOf(const ExactFunction& a, const ExactFunction& b);

/// sin or cos, and e to the power, of a polynomial of the first degree; none where an amplitude has no exact form.
std::optional<ExactFunction> waveOf(bool isSine, const ExactFunction& angle);
std::optional<ExactFunction> exponentialOf(const ExactFunction& exponent);

/// The value at t; none where it has no exact form.
std::optional<ExactValue> valueAt(const ExactFunction& f, const ExactValue& t);
ExactValue polynomialAt(const std::vector<ExactValue>& polynomial, const ExactValue& t);
/// Both parts of a wave at t, cosine and sine, where they are known exactly.
std::optional<ExactValue> exactWave(bool isSine, const ExactValue& angle);

/// The number as an expression.
ExprPtr exprOf(const ExactValue& value);

} // namespace coulter
