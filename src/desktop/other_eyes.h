#pragma once
#include <QImage>
#include <QString>
#include <array>
#include <cstdint>

namespace coulter {

/// Whose eyes a picture is for: those of most readers, paper printed in grey, or readers who lack one of the three
/// kinds of cone.
enum class Eyes : std::uint8_t { Usual, GreyPrint, Protanopia, Deuteranopia, Tritanopia };
inline constexpr std::array allEyes{Eyes::Usual, Eyes::GreyPrint, Eyes::Protanopia, Eyes::Deuteranopia,
                                    Eyes::Tritanopia};
/// As it is chosen in a menu.
QString nameOf(Eyes eyes);

/// A picture as they see it; the usual ones see it as it is.
/// @param image  RGB32
QImage seenBy(QImage image, Eyes eyes);

} // namespace coulter
