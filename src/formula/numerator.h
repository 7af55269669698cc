#pragma once
#include "formula/page.h"

namespace coulter {

/// An expression that is zero wherever `e` is, and that stays bounded at poles which `e` has as a quotient: what is
/// left above the line once its fractions are brought to one, and roots and absolute values are taken off. Null where
/// `e` has none of these.
ExprPtr numeratorOf(const Page& page, const ExprPtr& e);

} // namespace coulter
