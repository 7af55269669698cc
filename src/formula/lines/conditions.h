#pragma once
#include "formula/page/page.h"

namespace coulter {

/// The unknowns of a line “(a, b) solves …”, or what keeps them from being found.
struct Solved {
    std::vector<double> values;
    Problems problems;
};

/// Solves linear conditions: their coefficients are symbolic derivatives by the unknowns, the system is solved by LU
/// decomposition with complete pivoting. Conditions may ask for functions of the page that use the unknowns.
Solved solveConditions(const Page& page, const Line& line);

/// "a, b and c".
std::string listOf(const std::vector<std::string>& names);

} // namespace coulter
