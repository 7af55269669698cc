#pragma once
#include "formula/page/page.h"

#include <string>
#include <vector>

namespace coulter {

/// A name that could go on from what was typed.
struct Completion {
    std::string form;    ///< in the notation: "J_{n}(x)", "q_0"
    std::string meaning; ///< one line: the function's meaning, or the quantity's value
    std::string meant;   ///< the characters in `form` to type over first: the first operand; may be empty
};

/// Names of the page and of the catalogue that start with `prefix`, or whose meaning has a word that does; letter case
/// does not matter, Greek letters go by their names, too. The page's names come first, then the closest spelling.
std::vector<Completion> completions(const Page& page, std::string_view prefix, std::size_t most = 8);

/// The word that ends at this character of a line (from 0), as far as a name could start there.
std::string wordBefore(std::u32string_view line, std::size_t cursor);

} // namespace coulter
