#pragma once
#include "typeset/formula_math.h"

#include <string>
#include <vector>

namespace coulter {

struct MatrixValue;

// What the program has computed, as it is set on the page.

/// The unit behind a number, unless it is the unit one.
void appendUnit(std::vector<MathPtr>& parts, const std::string& unit);

/// A matrix by rows, with the answer's digits.
MathPtr matrixMath(const MatrixValue& matrix, Ink ink);

/// The answer to a question, with the digits that are certain.
MathPtr answerMath(const Line& line);

/// Each coefficient with its standard error, to two digits of that: (1.234 ± 0.012, 5.6 ± 1.1).
MathPtr coefficientsMath(const Line& line);

/// What the formula of a quantity is worth, to be set behind it, to four digits at most: "= 2.457 m"; null where the
/// line says it already.
/// @param error  bound of the error of the value; inf or NaN if none is known
MathPtr worthMath(const Line& line, double error);

/// What a column holds, to be set aside: "101 numbers from 0 to 10"; null of anything else, and where all of them are
/// written out.
MathPtr extentMath(const Line& line);

} // namespace coulter
