#pragma once
#include "special/kernels.h"
#include "special/scalar_functions.h"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace coulter {

/// What computes a function: a kernel that runs over blocks, or a special function taken point by point.
struct Implementation {
    Kernel kernel = Kernel::Count; ///< for more than two operands it is applied from the left: min(min(a, b), c)
    ScalarFunction scalar = nullptr;
};

/// One function of the catalogue: everything that is known about it stands here.
struct FunctionEntry {
    std::string_view form;           ///< in the notation, with the names of its operands: "P_{n}^{m}(x)"
    std::string_view name;           ///< "P"; Greek letters as characters
    std::vector<std::string> below;  ///< names of the indices below
    std::vector<std::string> above;  ///< names of the indices above
    std::vector<std::string> inside; ///< names of the arguments
    bool anyCount = false;           ///< takes any number of arguments from `inside.size()` on
    Implementation implementation;
    std::string_view meaning; ///< one line for people
    std::string_view domain;  ///< where it is defined, and its poles, in print
    /// Partial derivative by each operand (below, above, inside), in the notation; empty where none is known.
    std::vector<std::string> derivatives;
    std::string_view plotted;  ///< what to plot as its picture, over x, in the notation
    std::string_view interval; ///< over which x
    std::string_view source;   ///< section of the NIST Digital Library of Mathematical Functions (DLMF) or ISO 80000-2

    /// Number of operands, at least.
    std::size_t operandCount() const { return below.size() + above.size() + inside.size(); }
    bool isSpecial() const { return implementation.scalar != nullptr; }
};

/// All functions, in the order of the manual's table.
std::span<const FunctionEntry> catalogue();

/// The entry with this canonical name, these numbers of indices, and so many arguments (any if negative);
/// null if there is none.
const FunctionEntry* findFunction(std::string_view name, int below, int above, int arguments);

/// The ways in which a name of the catalogue can be written: "J_{n}(x)" or "P(a, x), P_{n}(x)".
std::string formsOf(std::string_view name);

/// The entries whose meaning has this word, in either case of its letters: “bessel” finds J, Y, I, K and more.
std::vector<const FunctionEntry*> functionsAbout(std::string_view word);

/// Whether any entry has this name.
bool isFunctionName(std::string_view name);

} // namespace coulter
