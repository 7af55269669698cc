#pragma once
#include <cstdint>

namespace coulter {

/// What a figure's letters are cut like.
enum class Typeface : std::uint8_t { Serif, Sans };

/// The size of letters, mm of one em, and the typeface that they are of: whoever is told how large letters are knows
/// both. As a number it is the size.
struct Em {
    double mm = 0;
    Typeface face = Typeface::Serif;

    constexpr Em(double size = 0, Typeface of = Typeface::Serif) : mm(size), face(of) {}
    constexpr operator double() const { return mm; }
    friend constexpr Em operator*(double factor, Em em) { return {factor * em.mm, em.face}; }
};

} // namespace coulter
