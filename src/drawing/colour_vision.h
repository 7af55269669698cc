#pragma once
#include "figure/colour.h"

#include <array>
#include <cstdint>

namespace coulter {

/// The three common ways in which readers lack colours: red, green, blue.
enum class ColourVision : std::uint8_t { Protan, Deutan, Tritan };
inline constexpr std::array allDeficiencies{ColourVision::Protan, ColourVision::Deutan, ColourVision::Tritan};

/// A colour as such readers see it.
/// Source: G. M. Machado, M. M. Oliveira and L. A. F. Fernandes, "A physiologically-based model for simulation of color
/// vision deficiency", IEEE TVCG 15 (2009), severity 1, on linear sRGB.
Colour asSeen(Colour colour, ColourVision vision);

/// A colour as grey print has it: relative luminance (ITU-R BT.709), encoded as sRGB.
Colour inGrey(Colour colour);

} // namespace coulter
