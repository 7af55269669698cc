#include "drawing/colour_vision.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

double linear(std::uint8_t value) {
    const double v = value / 255.0;
    return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
}
std::uint8_t encoded(double v) {
    v = std::clamp(v, 0.0, 1.0);
    return static_cast<std::uint8_t>(
        std::lround(255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * std::pow(v, 1 / 2.4) - 0.055)));
}

using Matrix = std::array<std::array<double, 3>, 3>;
constexpr std::array<Matrix, 3> matrices{{
    {{{0.152286, 1.052583, -0.204868}, {0.114503, 0.786281, 0.099216}, {-0.003882, -0.048116, 1.051998}}},
    {{{0.367322, 0.860646, -0.227968}, {0.280085, 0.672501, 0.047413}, {-0.011820, 0.042940, 0.968881}}},
    {{{1.255528, -0.076749, -0.178779}, {-0.078411, 0.930809, 0.147602}, {0.004733, 0.691367, 0.303900}}},
}};

} // namespace

Colour asSeen(Colour c, ColourVision vision) {
    const Matrix& m = matrices[static_cast<std::size_t>(vision)];
    const double rgb[] = {linear(c.red), linear(c.green), linear(c.blue)};
    std::array<std::uint8_t, 3> out{};
    for (std::size_t i = 0; i < 3; ++i) out[i] = encoded(m[i][0] * rgb[0] + m[i][1] * rgb[1] + m[i][2] * rgb[2]);
    return {out[0], out[1], out[2]};
}

Colour inGrey(Colour c) {
    const std::uint8_t grey = encoded(0.2126 * linear(c.red) + 0.7152 * linear(c.green) + 0.0722 * linear(c.blue));
    return {grey, grey, grey};
}

} // namespace coulter
