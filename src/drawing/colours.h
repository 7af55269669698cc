#pragma once
#include "figure/colour.h"

#include <cstddef>

namespace coulter {

/// Colour of the n-th plot when none is set: eight that differ in lightness too, so that they stay apart for
/// colour-blind readers and in grey print; then the same again.
Colour plotColour(std::size_t index);
inline constexpr std::size_t plotColourCount = 8;

/// Colour of one case of a family, first case first: the run “dusk”, from periwinkle over rose and clay to dark
/// moss. Lightness (OKLab) falls evenly, so that the order is read in grey print and by colour-blind readers too; all
/// members stay apart from the colours of plots.
Colour caseColour(std::size_t index, std::size_t count);
/// The same in recipes of the first format: from ochre through red to violet.
Colour firstCaseColour(std::size_t index, std::size_t count);

/// Colour of a field's value by its place t in [0, 1] of the range shown, from the pale least to the dark greatest: the
/// map “loam”, from dry sand through ochre and clay to wet peat. Lightness (OKLab) falls evenly, so that it reads in
/// grey.
Colour loam(double t);

/// Ink of scales and letters, of the faint grid, and the paper.
inline constexpr Colour inkColour{0x1f, 0x1d, 0x1a, ColourRole::Ink};
/// Ink over the colours of a map, which are the same on any paper.
inline constexpr Colour inkOverColours{0x1f, 0x1d, 0x1a};
inline constexpr Colour gridColour{0xdd, 0xd9, 0xd2, ColourRole::Grid};
inline constexpr Colour paperColour{0xff, 0xff, 0xff, ColourRole::Paper};

} // namespace coulter
