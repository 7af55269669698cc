#include "formula/notation/matrix_functions.h"

#include <algorithm>

namespace coulter {
namespace {

constexpr MatrixFunction functions[] = {
    {"det(A)", "det", "determinant", 1},
    {"inverse(A)", "inverse", "the matrix whose product with A is the identity, also written A^(-1)", 1},
    {"transpose(A)", "transpose", "rows as columns; of a vector a matrix of one row", 1},
    {"trace(A)", "trace", "sum of the entries on the diagonal", 1},
    {"dot(a, b)", "dot", "dot product of two vectors", 2},
    {"cross(a, b)", "cross", "cross product of two vectors in space", 2},
    {"entrywise(A, B)", "entrywise", "product by elements (Hadamard product)", 2},
    {"solution(A, b)", "solution", "x with A x = b; b is a vector or a matrix", 2},
    {"identity(n)", "identity", "identity matrix of n rows", 1},
};

} // namespace

std::span<const MatrixFunction> matrixFunctions() { return functions; }

const MatrixFunction* findMatrixFunction(std::string_view name) {
    const auto* found = std::ranges::find(functions, name, &MatrixFunction::name);
    return found == std::end(functions) ? nullptr : found;
}

} // namespace coulter
