#pragma once
#include <cmath>

namespace coulter {

/// A sum with its rounding errors summed apart (A. Neumaier, "Rundungsfehleranalyse einiger Verfahren zur Summation
/// endlicher Summen", 1974).
class Total {
public:
    void add(double value) {
        const double next = sum_ + value;
        lost_ += std::abs(sum_) >= std::abs(value) ? (sum_ - next) + value : (value - next) + sum_;
        sum_ = next;
    }
    double value() const { return std::isfinite(sum_) ? sum_ + lost_ : sum_; }

private:
    double sum_ = 0, lost_ = 0;
};

} // namespace coulter
