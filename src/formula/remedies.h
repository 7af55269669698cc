#pragma once
#include "formula/page.h"
#include "special/catalogue.h"

namespace coulter {

/// Adds remedies that need the whole page: a bare expression becomes a function, and so does a quantity whose formula
/// depends on a variable.
void addRemedies(Page& page);

/// How functions are written that are known elsewhere by this word, if need be without its last letters; four at most:
/// “besselj” gives "J_{n}(x), Y_{n}(x), I_{n}(x), K_{n}(x)". Empty if there is none.
std::string formsAbout(std::string_view unknown);
/// How the function is written, and what goes by the same word with so many arguments: of γ with one "γ(a, x), or
/// Γ(x)".
std::string formsAbout(const FunctionEntry& function, std::size_t arguments);

} // namespace coulter
