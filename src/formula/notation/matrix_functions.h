#pragma once
#include <cstddef>
#include <span>
#include <string_view>

namespace coulter {

/// Most rows and columns of a matrix, and components of a vector outside formulas.
inline constexpr std::size_t largestMatrix = 12;

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

} // namespace coulter
