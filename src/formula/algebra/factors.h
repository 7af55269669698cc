#pragma once
#include "formula/page/page.h"

namespace coulter {

/// Something that a function is zero with.
struct Factor {
    ExprPtr base;
    bool isRepeated = false; ///< it stands there more than once, as in a power
};

/// Expressions of which one is zero wherever `e` is, and with any of which `e` is zero if it is defined there: the
/// factors of what is left above the line once the fractions of `e` are brought to one. Roots and absolute values are
/// taken off.
std::vector<Factor> factorsOf(const Page& page, const ExprPtr& e);

} // namespace coulter
