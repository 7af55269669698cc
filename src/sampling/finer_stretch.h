#pragma once

namespace coulter {

/// A part of the parameter where more points were asked for.
struct FinerStretch {
    double low = 0;
    double high = 0;
    double times = 2; ///< as many points as the tolerance needs, at least one every 8 mm / times
    friend bool operator==(const FinerStretch&, const FinerStretch&) = default;
};

/// Most times as many points that a stretch may have.
inline constexpr double mostTimesFiner = 64;

} // namespace coulter
