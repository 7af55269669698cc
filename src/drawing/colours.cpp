#include "drawing/colours.h"

#include "drawing/oklab.h"

#include <array>

namespace coulter {

namespace {

Colour ofPlot(OkLab lab) {
    Colour colour = toColour(lab);
    colour.role = ColourRole::Plot;
    return colour;
}

} // namespace

Colour plotColour(std::size_t index) {
    static const std::array<Colour, plotColourCount> colours{
        ofPlot(fromHue(0.34, 0.12, 338)), // plum
        ofPlot(fromHue(0.62, 0.14, 55)),  // rust
        ofPlot(fromHue(0.48, 0.08, 195)), // pond
        ofPlot(fromHue(0.74, 0.13, 98)),  // straw
        ofPlot(fromHue(0.41, 0.14, 27)),  // oxide
        ofPlot(fromHue(0.68, 0.08, 150)), // sage
        ofPlot(fromHue(0.26, 0.05, 75)),  // peat
        ofPlot(fromHue(0.55, 0.10, 305)), // heather
    };
    return colours[index % plotColourCount];
}

namespace {

double placeInRun(std::size_t index, std::size_t count) {
    return count > 1 ? static_cast<double>(index) / static_cast<double>(count - 1) : 0.5;
}

} // namespace

Colour caseColour(std::size_t index, std::size_t count) {
    const double t = placeInRun(index, count);
    // Periwinkle, mauve, rose, clay, olive, dark moss: of the ways round the circle of hues with these lightnesses one
    // that stays farthest from the colours of plots.
    return ofPlot(fromHue(0.74 - 0.40 * t, 0.10 - 0.03 * t + 0.06 * t * (1 - t), 280 + 220 * t));
}

Colour firstCaseColour(std::size_t index, std::size_t count) {
    const double t = placeInRun(index, count);
    // Lightness falls and the hue turns steadily from ochre through red to violet.
    return ofPlot(fromHue(0.72 - 0.44 * t, 0.135 - 0.045 * t, 68 - 150 * t));
}

Colour loam(double t) {
    t = t < 0 ? 0 : t > 1 ? 1 : t;
    // Chroma swells in the middle; the hue turns from sand over clay to a violet brown.
    const double chroma = 0.03 + 0.36 * t * (1 - t) + 0.02 * t;
    return toColour(fromHue(0.965 - 0.765 * t, chroma, 98 - 88 * t));
}

} // namespace coulter
