#pragma once
#include "formula/page/page.h"

namespace coulter {

/// What S(x) interpolates (t, s) is: linear between the pairs, which are sorted by their places; rows without a value
/// do not count.
struct InterpolationAnswer {
    std::shared_ptr<const Interpolation> points; ///< null if there is a problem
    Problems problems;
};
InterpolationAnswer interpolationLine(const Page& page, const Line& line);

} // namespace coulter
