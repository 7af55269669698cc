#pragma once
#include "formula/page.h"

#include <span>
#include <string_view>

namespace coulter {

/// Most rows and columns of a matrix, and components of a vector outside formulas.
inline constexpr std::size_t largestMatrix = 12;

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

/// A function of vectors and matrices.
struct MatrixFunction {
    std::string_view form;    ///< "det(A)"
    std::string_view name;    ///< "det"
    std::string_view meaning; ///< one line for people
    std::size_t arguments = 1;
};

/// All of them, in the order of the manual's table.
std::span<const MatrixFunction> matrixFunctions();
/// By name; null if there is none.
const MatrixFunction* findMatrixFunction(std::string_view name);

/// Whether an expression is computed as one of matrices: it writes a matrix or a vector of more than three components,
/// names a line that is one, or calls a function of them.
bool usesMatrices(const Page& page, const Expr& expression);

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
