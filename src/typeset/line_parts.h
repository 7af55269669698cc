#pragma once
#include "typeset/formula_math.h"

#include <string>
#include <vector>

namespace coulter {

// What lines of a page are made of, for the files that set some kinds of them.

/// (a, b), or one name alone: what a line defines.
MathPtr namesMath(const Line& line);

/// A word in the muted ink, with some space round it.
void appendWord(std::vector<MathPtr>& parts, const std::string& word);

/// What is looked for, along what, and each place that was found.
std::vector<MathPtr> searchTerms(const Line& line);

} // namespace coulter
