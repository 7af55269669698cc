#pragma once
#include <string>

namespace coulter {

/// Text that people bring along, in the spelling of the notation, as far as that is a matter of signs alone:
///   TeX                    \frac{\sin x}{x}, \int_0^x e^{-k^2}\,dk, \sqrt[3]{x}, \alpha, \le, \left( … \right)
///   Unicode                ½ ¾ ⅓, superscript n and signs (x⁻ⁿ), ∙, primes
///   spreadsheets, programs a leading “=”, decimal commas between digits outside of brackets
///   intervals              0 <= x <= 10, x = 0..10, x from 0 to 10 as x in [0, 10]
/// Anything else stays as it is. What is respelled may still be wrong; the notation says so.
std::string respelled(const std::string& text);

} // namespace coulter
