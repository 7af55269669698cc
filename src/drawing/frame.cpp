#include "drawing/frame.h"

#include <cmath>
#include <numbers>

namespace coulter {

ViewAxes viewAxes(const View& view) {
    const double degree = std::numbers::pi / 180;
    const double ca = std::cos(view.azimuth * degree), sa = std::sin(view.azimuth * degree),
                 ce = std::cos(view.elevation * degree), se = std::sin(view.elevation * degree);
    return {{ca, sa, 0}, {-sa * se, ca * se, ce}};
}

Point Frame::onSheet(const Place& place) const {
    double right = 0, up = 0;
    for (std::size_t k = 0; k < 3; ++k) {
        right += space->axes.right[k] * place[k];
        up += space->axes.up[k] * place[k];
    }
    return onSheet(right, up);
}

} // namespace coulter
