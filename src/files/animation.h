#pragma once
#include "files/export.h"

#include <string>
#include <string_view>
#include <vector>

namespace coulter {

/// A figure for each of several values of a quantity, shown one after the other.
struct Animation {
    std::string quantity;            ///< of the page, or a setting by its path
    std::vector<std::string> values; ///< as spelled
    double seconds = 4;              ///< that all of them are shown, again and again
    /// Adds the way back to the first value, without its ends, so that none is shown twice.
    void goBack() {
        for (std::size_t i = values.size() - 1; i-- > 1;) values.push_back(values[i]);
    }
    friend bool operator==(const Animation&, const Animation&) = default;
};
inline constexpr std::size_t mostFrames = 5000;
inline constexpr double leastSeconds = 0.1, greatestSeconds = 3600;

/// The figures as one animated PNG, with the recipe and the animation inside. Limits, colours and the place of the
/// legend are held still: they are those that suit all the figures, as far as the recipe leaves them open. Equal
/// documents and animations give equal bytes.
/// Format: animated PNG as in the PNG specification, third edition (W3C, 2025): of each figure after the first the part
/// that differs from the one before.
/// @param document  with its own value of the quantity, which the recipe keeps
Exported exportAnimation(const Document& document, const Animation& animation, const std::stop_token& stop = {},
                         const ExportOptions& options = {});

/// The animation inside of a PNG; none if there is none of ours.
std::optional<Animation> animationIn(std::string_view bytes);

} // namespace coulter
