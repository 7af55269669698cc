#pragma once
#include "special/kernels.h"

#include <span>
#include <string_view>

namespace coulter {

/// One function of the catalogue: everything that is known about it stands here.
struct FunctionEntry {
    std::string_view name;    ///< as written on the page, in canonical spelling (Greek letters as characters)
    int fewest = 1;           ///< least number of arguments
    int most = 1;             ///< greatest number of arguments; −1 for any
    Kernel kernel;            ///< for more than two arguments the kernel is applied from the left: min(min(a, b), c)
    bool hasBase = false;     ///< written with a subscript that is the kernel's first operand: log_{b}(x)
    std::string_view meaning; ///< one line for people
    std::string_view domain;  ///< where it is defined, in print
    std::string_view source;  ///< section of the NIST Digital Library of Mathematical Functions (DLMF) or ISO 80000-2
};

/// All functions, in the order of the manual's table.
std::span<const FunctionEntry> catalogue();

/// The entry with this canonical name, that takes this many arguments if `arguments` ≥ 0; null if there is none.
const FunctionEntry* findFunction(std::string_view name, int arguments = -1);

} // namespace coulter
