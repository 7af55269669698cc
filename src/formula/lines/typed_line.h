#pragma once
#include "formula/page/page.h"

#include <string>
#include <vector>

namespace coulter {

/// What somebody typed as one line, as a page takes it: in the notation, with a name where the notation wants one.
///
///   y = x^2 - 2x + 3       y(x) = …, and an interval of x is assumed; other letters become numbers: a = 1
///   sin x / x              f(x) = …, under a letter that is free
///   r = 1 + cos(phi)       r(φ) = …, round an angle
///   (cos t, sin t)         c(t) = …; x = cos t, y = sin 2t is the same
///   x^2 + y^2 = 1          stays as it is, without a name, and is drawn
///   {1, 2.5, 3}            y = {…}
///   {(1, 2), (3, 5)}       x = {1, 3}, y = {2, 5}: points; (t, s) = {…} under these names
///   2 + 3, x^2 = 2         2 + 3 = ?, x^2 = 2 for x in [-10, 10]
///   y' = ?, max of y       y'(x) = ?, maximum of y(x) for x
///   … for x in [0, 1]      the formula, and the interval as a line of its own; … for 0 < x < 1, and … , x in [0, 1]
struct TypedLine {
    std::string text; ///< of the line; as it was typed where that is the notation, or where nothing is known better
    std::vector<std::string> given;   ///< lines that were said with it: intervals behind “for”
    std::vector<std::string> assumed; ///< lines that it needs, and nobody said: intervals, and values of parameters
    bool isRoundAngle = false;        ///< it is drawn as a radius round an angle
    std::string drawn = {};           ///< what is drawn of all of them together: (x, y)
};

/// @param page  all other lines
TypedLine readTyped(const Page& page, const std::string& typed);

} // namespace coulter
