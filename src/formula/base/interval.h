#pragma once

namespace coulter {

/// An interval of a variable, as printed: [a, b], [a, b), (a, b], (a, b). An open end is never evaluated.
struct Interval {
    double low = 0;
    double high = 1;
    bool lowClosed = true;
    bool highClosed = true;
    friend bool operator==(const Interval&, const Interval&) = default;
};

} // namespace coulter
