#pragma once
#include "plots/source.h"

#include <array>
#include <span>
#include <string>
#include <vector>

namespace coulter {

/// How an area is estimated by figures with straight edges, one for each of equal parts of its interval.
enum class AreaRule : std::uint8_t {
    None,
    LeftRectangles,   ///< as high as the curve at the beginning of each part
    MiddleRectangles, ///< in its middle
    RightRectangles,  ///< at its end
    Trapezoids,       ///< from the curve at its beginning to the curve at its end
    Triangles,        ///< with the tip where the curve is farthest from the other edge, and both feet on that
};
/// Their words, in this order.
inline constexpr const char* areaRuleWords[] = {
    "none", "left rectangles", "middle rectangles", "right rectangles", "trapezoids", "triangles"};

struct AreaEstimate {
    double value = 0;                                         ///< of all parts together
    std::vector<std::vector<std::array<double, 2>>> outlines; ///< corners in the user's coordinates
};
/// @param upper, lower  y = f(x) along the same variable and interval, which is that of `upper`
AreaEstimate estimateArea(const Curve& upper, const Curve& lower, AreaRule rule, int parts);

/// "8 trapezoids: 3.185; 16: 3.209; 32: 3.2148", by which it is seen how fast they approach the area; of triangles,
/// which do not, the first alone.
std::string estimateWords(const Curve& upper, const Curve& lower, AreaRule rule, int parts);

} // namespace coulter
