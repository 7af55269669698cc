#pragma once
#include "drawing/oklab.h"
#include "sampling/panel_map.h"

#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace coulter {

/// What the colours of a map say.
enum class MapOrder : std::uint8_t {
    Sequential,  ///< more and less: lightness falls or rises all the way
    Diverging,   ///< two sides of a middle, alike in lightness
    Cyclic,      ///< ends where it begins
    Categorical, ///< sorts, without an order
};

/// Colours by a place in [0, 1].
struct ColourMap {
    const char* name; ///< in recipes
    const char* meaning;
    MapOrder order;
    std::span<const OkLab> points; ///< an even distance apart; of a categorical map its colours. Empty: the map “loam”
};

inline constexpr std::size_t colourMapPoints = 33;
std::span<const ColourMap> colourMaps();
/// By name; the first if there is none.
const ColourMap& colourMapNamed(std::string_view name);

/// A colour of a map, straight between its points in OKLab; places outside [0, 1] have those of the ends.
Colour colourAt(const ColourMap& map, double place);

/// What values of a field look like, whatever shows them.
struct ColourRun {
    const ColourMap* map = nullptr; ///< null: the first
    bool turned = false;            ///< the map the other way round
    double from = 0, to = 1;        ///< part of the map that is used
    std::vector<double> steps;      ///< between these ascending values one colour each; empty: a colour for every value
    std::optional<Colour> under, over, undefined; ///< none: those of the ends; undefined values are left clear

    /// The colour of a place in [0, 1] of a scale; what is beyond has the ends'.
    Colour at(double place) const;
    /// The colour of a value on a scale; none where it is undefined and that has no colour.
    /// On a logarithmic scale what is not positive lies under it.
    std::optional<Colour> of(double value, const AxisMap& scale) const;
    /// The colour between the steps before and after one of them; `step` 0 is below the first.
    Colour ofStep(std::size_t step, const AxisMap& scale) const;
};

} // namespace coulter
