#pragma once
#include "formula/page/page.h"

#include <optional>

namespace coulter {

/// The integral that a line such as L = length of f(x) for x in [0, 1] means: ∫ √(1 + f'²) dx, of a vector ∫ |c'| dt;
/// of a mean the integral by the interval's length; of an area ∫ |f| dx; of a volume ∫∫ |f| dy dx, whose inner limits
/// may depend on x. A clause such as “where x^2 + y^2 < 1” leaves out what lies elsewhere. Null, and a problem, if
/// there is none.
struct MeasureFormula {
    ExprPtr formula;
    Problems problems;
};
MeasureFormula measureFormula(const Page& page, const Line& line);

/// The same for text; none if the text does not ask for a measure.
std::optional<MeasureFormula> measureText(const Page& page, std::string_view text);

} // namespace coulter
