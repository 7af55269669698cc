#pragma once
#include "formula/notation/lexer.h"
#include "formula/notation/names.h"
#include "formula/page/line.h"

#include <string>
#include <string_view>

namespace coulter {

/// A line before its expressions are read: its kind, what it defines, and where its parts stand.
struct LineOutline {
    Line line;                    ///< kind, name, parameters, unit, label and problems are set
    std::vector<Token> body;      ///< right-hand side; for a variable the low end; for a search what it is in
    std::vector<Token> low, high; ///< ends of an interval
    std::vector<Token> from, to, count, step, seed, period, harmonics, where, weights;
    std::vector<Token> along;                  ///< of a transform: what follows “by”
    std::vector<std::vector<Token>> arguments; ///< of a distribution
    std::vector<std::vector<Token>> pitch, origin;
    std::vector<std::vector<Token>> equations; ///< of a solution or a fit
};

/// Longest line that is read, in characters.
inline constexpr std::size_t longestLine = 10'000;

/// What is said of a line that is no definition, question or the like.
inline constexpr std::string_view definesNothing = "This line defines nothing.";

/// First reading: needs nothing but the line itself.
LineOutline outlineLine(const std::string& source);

/// Second reading: parses the expressions, with the names of the whole page known.
Line readLine(LineOutline outline, const KnownNames& page);

} // namespace coulter
