#pragma once
#include "figure/document.h"

#include <algorithm>
#include <cstddef>
#include <optional>
#include <vector>

namespace coulter {

/// Operations of arithmetic that sampling a figure may take, unless asked to be patient: some ten seconds' worth.
inline constexpr double usualOperations = 1e10;

/// How much a figure may cost. All that decides its bytes beside the document.
struct Effort {
    double tolerance = 0.02;             ///< mm on the sheet
    double dotsPerMm = 300 / 25.4;       ///< of what is made of dots
    std::size_t mostPoints = 64'000'000; ///< of one grid; a finer one is thinned out
    bool coarse = false;                 ///< a first picture, to be followed by a better one
    bool proofs = true;                  ///< chords of curves are proven
    double operations = usualOperations; ///< of arithmetic, about; what asks for more is left unfinished
    /// Of each panel, if given: an automatic vertical range holds these limits too, so that it does not shrink and grow
    /// while a quantity is changed.
    std::vector<std::optional<Limits>> held = {};

    friend bool operator==(const Effort&, const Effort&) = default;
};

/// What the sheet asks for.
inline Effort effortOf(const Sheet& sheet) { return {sheet.tolerance, sheet.resolution / 25.4}; }

/// A picture that is there soon: twenty times the tolerance, few dots, thin grids, no proofs.
inline Effort coarseEffortOf(const Sheet& sheet) {
    return {std::min(10.0, 20 * sheet.tolerance),
            std::min(100.0, sheet.resolution) / 25.4,
            20'000,
            true,
            false,
            usualOperations / 50};
}

} // namespace coulter
