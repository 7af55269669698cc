#pragma once
#include "formula/page/page.h"

#include <cstddef>
#include <string>
#include <vector>

namespace coulter {

/// A small matrix, or a vector as its one column, or a number.
struct MatrixValue {
    std::size_t rows = 1, columns = 1;
    bool isVector = false;
    std::vector<double> values; ///< row by row
    std::vector<double> errors; ///< bounds of the errors of the values; inf where none is known
    std::string made;           ///< by what: "matrix product", "determinant"; empty: it is as it was written

    double at(std::size_t row, std::size_t column) const { return values[row * columns + column]; }
    bool isNumber() const { return rows == 1 && columns == 1 && !isVector; }
};

/// Whether an expression calls a function of matrices.
bool isMatrixCall(const Page& page, const Expr& expression);
/// Whether an expression is computed as one of matrices: it writes a matrix or a vector of more than three components,
/// names a line that is one, or calls a function of them.
bool usesMatrices(const Page& page, const Expr& expression);

} // namespace coulter
