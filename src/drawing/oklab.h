#pragma once
#include "figure/colour.h"

namespace coulter {

/// A colour by lightness (0 black to 1 white), green–red and blue–yellow.
/// Source: B. Ottosson, "A perceptual color space for image processing" (2020), the OKLab definition.
struct OkLab {
    double lightness = 0, a = 0, b = 0;
};

/// To sRGB, clipped to what can be shown.
Colour toColour(OkLab lab);
OkLab toOkLab(Colour colour);

/// Lightness, chroma and hue in degrees.
OkLab fromHue(double lightness, double chroma, double hueDegrees);

} // namespace coulter
