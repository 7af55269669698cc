#pragma once
#include <map>
#include <set>
#include <string>
#include <string_view>
#include <vector>

namespace coulter {

/// What the names on a page stand for, as far as their spelling tells: enough to read an expression.
struct KnownNames {
    std::map<std::string, std::size_t> functions; ///< canonical name → number of parameters
    std::set<std::string> values;                 ///< quantities, variables and parameters in scope
    bool onlyNotation = false; ///< in words: formulas in TeX's spelling, and values within formulas, are not read
};

/// π, e or ∞ by canonical name, NaN if the name is no constant.
double constantValue(std::string_view canonical);

/// Whether a letter usually is a variable, and no number that is given: x, y, z, t, φ, θ.
bool isUsualVariable(std::string_view canonical);

/// Whether a name is one of grad, div and rot (ISO 80000-2).
bool isVectorCalculus(std::string_view name);

/// The name among `known` and the catalogue that differs only in letter case, or by one letter; empty if none does.
std::string nearName(std::string_view unknown, const KnownNames& known);

} // namespace coulter
