#pragma once
#include <boost/math/policies/policy.hpp>
#include <cmath>
#include <limits>

namespace coulter {

/// The type in which special functions are computed before they are rounded once.
using Extended = long double;

inline constexpr Extended extendedPi = 3.14159265358979323846264338327950288L;

/// Boost.Math never throws here: undefined places give NaN, what is too large ±inf, what is too small 0.
using Quiet = boost::math::policies::policy<
    boost::math::policies::domain_error<boost::math::policies::ignore_error>,
    boost::math::policies::pole_error<boost::math::policies::ignore_error>,
    boost::math::policies::overflow_error<boost::math::policies::ignore_error>,
    boost::math::policies::underflow_error<boost::math::policies::ignore_error>,
    boost::math::policies::denorm_error<boost::math::policies::ignore_error>,
    boost::math::policies::rounding_error<boost::math::policies::ignore_error>,
    boost::math::policies::evaluation_error<boost::math::policies::ignore_error>,
    boost::math::policies::indeterminate_result_error<boost::math::policies::ignore_error>,
    boost::math::policies::max_series_iterations<100000>>;

inline double undefined() { return std::numeric_limits<double>::quiet_NaN(); }

/// Highest order that recurrences run up to; beyond it a function is undefined rather than endless.
inline constexpr double highestOrder = 10'000;

/// Whether v is a whole number from `least` to the highest order.
inline bool isWholeOrder(double v, double least) { return v >= least && v <= highestOrder && v == std::floor(v); }

inline bool isOdd(double whole) { return std::fmod(whole, 2) != 0; }

/// Runs a computation in extended precision, rounds it once, and turns what a library throws after all (a lack of
/// memory, an order that it cannot count) into "undefined".
template <typename Compute> double rounded(const Compute& compute) noexcept {
    try {
        return static_cast<double>(compute());
    } catch (...) {
        return undefined();
    }
}

} // namespace coulter
