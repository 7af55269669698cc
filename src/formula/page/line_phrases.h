#pragma once
#include "formula/page/line_parser.h"

namespace coulter {

// Lines that are told by a word in their middle; each reads the tokens of its line into the outline.

/// (a, b) solves 2a + b = 5, a - 4b = 1
void outlineSolution(LineOutline& out, const std::vector<Token>& tokens);
/// (a, b) fits s = a + b t
void outlineFit(LineOutline& out, const std::vector<Token>& tokens);
/// (t, s) from "readings.csv"
void outlineTable(LineOutline& out, const std::vector<Token>& tokens);
/// f(x) = 0 for x in [0, 20]; maximum of f(x) for x
void outlineSearch(LineOutline& out, const std::vector<Token>& tokens);

/// p(x, y) from "slice.tif"; p(x, y) interpolates "slice.tif"
void outlineMeasured(LineOutline& out, const std::vector<Token>& tokens, std::string_view word);
/// S(x) interpolates (t, s); h(x, y) interpolates (X, Y, H) on (a, b, c)
void outlineInterpolation(LineOutline& out, const std::vector<Token>& tokens);
/// (n, a, b) = Fourier coefficients of r(t); w = spectral derivative of u by t; (k, A) = spectrum of u by t
void outlineFourier(LineOutline& out, const std::vector<Token>& tokens);
/// Whether “Fourier sum of” stands here: the right-hand side of a function.
bool isFourierSum(const std::vector<Token>& tokens, std::size_t at);

/// [a, b) and the like from token `at` to the end, for a variable of this name; whether it is one.
bool outlineInterval(LineOutline& out, const std::vector<Token>& tokens, const std::string& name, std::size_t at);

void report(Line& line, Span span, std::string sentence, std::string suggestion = "");
/// Tokens [begin, end), and an End token where they stop.
std::vector<Token> slice(const std::vector<Token>& tokens, std::size_t begin, std::size_t end);
/// Where a word stands outside of all brackets; the number of tokens if nowhere.
std::size_t wordOutside(const std::vector<Token>& tokens, std::string_view word);
/// By how much this token opens or closes brackets.
int deeper(const Token& token);

} // namespace coulter
