#pragma once
#include "special/catalogue.h"

#include <optional>
#include <string>
#include <string_view>

namespace coulter {

/// The printed spelling of a function that people bring along from elsewhere: "asin" is "arcsin". None if the word is
/// no such spelling.
std::optional<std::string_view> printedSpelling(std::string_view word);

/// How functions are written that are known elsewhere by this word, if need be without its last letters; four at most:
/// “besselj” gives "J_{n}(x), Y_{n}(x), I_{n}(x), K_{n}(x)". Empty if there is none.
std::string formsAbout(std::string_view unknown);
/// How the function is written, and what goes by the same word with so many arguments: of γ with one "γ(a, x), or
/// Γ(x)".
std::string formsAbout(const FunctionEntry& function, std::size_t arguments);

} // namespace coulter
