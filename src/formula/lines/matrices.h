#pragma once
#include "formula/page/matrix_value.h"
#include "formula/page/page.h"

namespace coulter {

/// What an expression with matrices is worth. Bounds of errors are those of interval arithmetic over all operations;
/// systems are solved by elimination with pivots (Gauss and Jordan), values and bounds side by side.
struct MatrixAnswer {
    std::shared_ptr<const MatrixValue> value;
    Problems problems; ///< without a value at least one
};
MatrixAnswer matrixOf(const Page& page, const ExprPtr& expression);

/// ((1, 2), (3, 4)); a vector (1, 2).
std::string spelled(const MatrixValue& matrix);

} // namespace coulter
