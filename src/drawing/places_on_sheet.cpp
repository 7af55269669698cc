#include "drawing/places_on_sheet.h"

namespace coulter {

void placesOnSheet(const Frame& frame, std::span<const double> x, std::span<const double> y, std::span<Point> into) {
    const AxisMap across = frame.map.x, up = frame.map.y;
    const bool leftwards = frame.leftwards, downwards = frame.downwards;
    const double left = frame.rect.x, right = frame.rect.right(), top = frame.rect.y, bottom = frame.rect.bottom();
    for (std::size_t i = 0; i < into.size(); ++i) {
        const double mm = across.toSheet(x[i]);
        into[i].x = leftwards ? right - mm : left + mm;
    }
    for (std::size_t i = 0; i < into.size(); ++i) {
        const double mm = up.toSheet(y[i]);
        into[i].y = downwards ? top + mm : bottom - mm;
    }
}

} // namespace coulter
