#pragma once
#include "composition/figure.h"

#include <vector>

namespace coulter {

/// What figures of one recipe show, gathered one by one, so that all of them can show the same.
class HeldStill {
public:
    void add(const Figure& figure);
    /// The recipe with limits of scales and colours that hold what all figures showed, and legends where the first had
    /// them; what the recipe says itself stays.
    Document held(Document document) const;

private:
    struct OfPanel {
        std::array<std::optional<Limits>, 3> scales; ///< x, y, z
        std::vector<Limits> further;
        std::optional<Limits> colours;
        std::optional<LegendPlace> legend;
        double width = 0, height = 0; ///< of the frame
        bool isEqual = true;          ///< a millimetre meant the same both ways
    };
    std::vector<OfPanel> panels_;
};

} // namespace coulter
