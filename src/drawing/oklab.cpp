#include "drawing/oklab.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace coulter {
namespace {

double encoded(double linear) {
    linear = std::clamp(linear, 0.0, 1.0);
    return linear <= 0.0031308 ? 12.92 * linear : 1.055 * std::pow(linear, 1 / 2.4) - 0.055;
}
double decoded(double value) { return value <= 0.04045 ? value / 12.92 : std::pow((value + 0.055) / 1.055, 2.4); }
std::uint8_t byte(double linear) { return static_cast<std::uint8_t>(std::lround(255 * encoded(linear))); }

} // namespace

Colour toColour(OkLab lab) {
    const double l = std::pow(lab.lightness + 0.3963377774 * lab.a + 0.2158037573 * lab.b, 3);
    const double m = std::pow(lab.lightness - 0.1055613458 * lab.a - 0.0638541728 * lab.b, 3);
    const double s = std::pow(lab.lightness - 0.0894841775 * lab.a - 1.2914855480 * lab.b, 3);
    return {byte(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s),
            byte(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s),
            byte(-0.0041960863 * l - 0.7034186147 * m + 1.7076147010 * s)};
}

OkLab toOkLab(Colour colour) {
    const double r = decoded(colour.red / 255.0), g = decoded(colour.green / 255.0), b = decoded(colour.blue / 255.0);
    const double l = std::cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
    const double m = std::cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
    const double s = std::cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
    return {0.2104542553 * l + 0.7936177850 * m - 0.0040720468 * s,
            1.9779984951 * l - 2.4285922050 * m + 0.4505937099 * s,
            0.0259040371 * l + 0.7827717662 * m - 0.8086757660 * s};
}

OkLab fromHue(double lightness, double chroma, double hueDegrees) {
    const double angle = hueDegrees * std::numbers::pi / 180;
    return {lightness, chroma * std::cos(angle), chroma * std::sin(angle)};
}

} // namespace coulter
