#include "formula/program/graded_integral.h"

#include "formula/base/total.h"
#include "formula/program/piece_borders.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace coulter {
namespace {

constexpr Limit none{std::numeric_limits<double>::quiet_NaN(), HUGE_VAL};
constexpr int mostHalvings = 48;
constexpr double slowest = 0.9985; ///< by which factor parts must shrink at least: that of k^(−0.998)
constexpr double accepted = 1e-6;  ///< of the largest total
constexpr std::size_t used = 14;   ///< totals that are extrapolated together
constexpr Quadrature ofPart{60};

/// Integrals of one integrand over many parts at once.
bool integrate(const Quadrature::Integrand& integrand, std::uint32_t which, std::span<const double> low,
               std::span<const double> high, std::vector<double>& values, std::vector<double>& errors,
               const Quadrature& rule = ofPart) {
    values.resize(low.size());
    errors.resize(low.size());
    const Quadrature::Integrand same = [&](std::span<const double> k, std::span<const std::uint32_t>, double* into) {
        const std::vector<std::uint32_t> owners(k.size(), which);
        return integrand(k, owners, into);
    };
    rule(same, low, high, values.data(), errors.data());
    return true;
}

/// Where the totals of parts that become half as long each go to.
/// @param size  of what has cancelled in the parts
Limit extrapolated(std::span<const double> parts, std::span<const double> errors, double size = 0) {
    std::vector<double> totals;
    Total total;
    double error = 0, largest = size;
    Limit best{0, HUGE_VAL};
    for (std::size_t k = 0; k < parts.size(); ++k) {
        if (!std::isfinite(parts[k]) || !std::isfinite(errors[k])) break;
        total.add(parts[k]);
        error += errors[k];
        totals.push_back(total.value());
        largest = std::max(largest, std::abs(totals.back()));
        if (k < 6) continue;
        const bool shrinks = std::abs(parts[k]) <= slowest * std::abs(parts[k - 1]) &&
                             std::abs(parts[k - 1]) <= slowest * std::abs(parts[k - 2]);
        // Parts that are rounding errors say nothing of whether they shrink.
        const bool isNothing = std::abs(parts[k]) + std::abs(parts[k - 1]) <= 1e-15 * largest;
        if (!shrinks && !isNothing) continue;
        const Limit limit = limitOf(std::span(totals).last(std::min(used, totals.size())));
        // An extrapolation over slowly shrinking parts enlarges what rounding has left in them.
        const double ratio = isNothing ? 0 : std::abs(parts[k] / parts[k - 1]);
        const double rounding = (4 * std::numeric_limits<double>::epsilon() * largest + error) / (1 - ratio);
        const double whole = 2 * limit.error + rounding;
        if (whole < best.error) best = {limit.value, whole};
    }
    return best.error <= accepted * largest || largest == 0 ? best : none;
}

/// The same where the integrand is nearly odd about a pole, as tan x is: what its two sides leave is soon nothing but
/// what the rounding of the pole's place makes of them.
/// @param noise  how much that is in each part; twice as much as in the one before
Limit upToNoise(std::span<const double> parts, std::span<const double> errors, std::span<const double> noise) {
    Limit sum;
    for (std::size_t k = 0; k + 1 < parts.size(); ++k) {
        sum.value += parts[k];
        sum.error += errors[k] + noise[k];
        if (std::abs(parts[k]) <= noise[k] && std::abs(parts[k + 1]) <= noise[k + 1])
            return {sum.value, sum.error + noise[k]};
    }
    return none;
}

/// The parts of a graded integral from `end ± reach` towards `end`.
void grade(double end, double reach, std::vector<double>& low, std::vector<double>& high) {
    double far = end + reach;
    for (int k = 1; k <= mostHalvings; ++k) {
        const double near = end + std::ldexp(reach, -k);
        if (std::abs(near - end) <= 64 * std::numeric_limits<double>::epsilon() * std::abs(end)) break;
        low.push_back(std::min(near, far));
        high.push_back(std::max(near, far));
        far = near;
    }
}

} // namespace

std::vector<double> polesBetween(const Quadrature::Integrand& integrand, std::uint32_t which, double low, double high) {
    constexpr std::size_t looks = 400;
    constexpr double unevenness = 0.83; // so that a pole at a round number is not looked at
    std::vector<double> at, values;
    const auto place = [&](double share) { // of the whole line by t/(1 − t²), of a half by t/(1 − t)
        if (std::isinf(low) && std::isinf(high)) return (2 * share - 1) / (4 * share * (1 - share));
        if (std::isinf(high)) return low + share / (1 - share);
        if (std::isinf(low)) return high - (1 - share) / share;
        return low + share * (high - low);
    };
    std::vector<double> shares = unevenShares(looks + 2);
    for (const double share : std::span(shares).subspan(1, looks))
        at.push_back(place(share)); // the ends may be infinite
    // A pole may be far closer to an end, or further out.
    constexpr int mostDoublings = 40;
    const double size = std::isinf(low) || std::isinf(high) ? 1 : high - low;
    for (int k = -mostDoublings; k <= mostDoublings; ++k) {
        const double middle = std::isinf(low) && std::isinf(high) ? 0 : std::isinf(low) ? high : low;
        for (const double from : {std::isinf(low) ? middle : low, std::isinf(high) ? middle : high}) {
            for (const double way : {-1.0, 1.0}) {
                const double there = from + way * size * std::ldexp(unevenness, k);
                if (there > low && there < high) at.push_back(there);
            }
        }
    }
    std::ranges::sort(at);
    at.erase(std::unique(at.begin(), at.end()), at.end());
    values.resize(at.size());
    const std::vector<std::uint32_t> owners(at.size(), which);
    std::vector<double> poles;
    if (!integrand(at, owners, values.data())) return poles;
    for (std::size_t i = 0; i + 1 < at.size(); ++i) {
        double a = at[i], b = at[i + 1], here = values[i], there = values[i + 1];
        if (std::isinf(here)) poles.push_back(a);
        if (!std::isfinite(here) || !std::isfinite(there) || (here < 0) == (there < 0)) continue;
        const double outside = std::max(std::abs(here), std::abs(there));
        for (int step = 0; step < 1200; ++step) {
            const double middle = between(a, b);
            if (!(middle > a && middle < b)) break;
            double value = 0;
            if (!integrand(std::span(&middle, 1), std::span(owners).first(1), &value)) return poles;
            if (!std::isfinite(value)) {
                a = b = middle;
                here = there = HUGE_VAL;
            } else if ((value < 0) == (here < 0)) {
                a = middle, here = value;
            } else {
                b = middle, there = value;
            }
        }
        if (std::min(std::abs(here), std::abs(there)) > 1e3 * outside) poles.push_back(simpler(a, b));
    }
    return poles;
}

Limit gradedIntegral(const Quadrature::Integrand& integrand, std::uint32_t which, double low, double high) {
    const double middle = low + (high - low) / 2;
    Limit whole;
    for (const double end : {low, high}) {
        std::vector<double> from, to, parts, errors;
        grade(end, middle - end, from, to);
        if (!integrate(integrand, which, from, to, parts, errors)) return none;
        const Limit half = extrapolated(parts, errors);
        whole.value += half.value;
        whole.error += half.error;
    }
    return whole;
}

Limit principalValue(const Quadrature::Integrand& integrand, std::uint32_t which, double low, double high) {
    if (high < low) {
        const Limit reversed = principalValue(integrand, which, high, low);
        return {-reversed.value, reversed.error};
    }
    const std::vector<double> poles = polesBetween(integrand, which, low, high);
    // Each pole has as much room to both sides as its neighbours leave.
    std::vector<double> from, to, reaches;
    double open = low;
    for (std::size_t i = 0; i < poles.size(); ++i) {
        const double left = poles[i] - (i == 0 ? low : (poles[i - 1] + poles[i]) / 2);
        const double right = (i + 1 == poles.size() ? high : (poles[i] + poles[i + 1]) / 2) - poles[i];
        reaches.push_back(std::min({left, right, 1.0}) / 2);
        from.push_back(open);
        to.push_back(poles[i] - reaches.back());
        open = poles[i] + reaches.back();
    }
    from.push_back(open);
    to.push_back(high);
    std::vector<double> parts, errors;
    if (!integrate(integrand, which, from, to, parts, errors, Quadrature{})) return none;
    Limit whole;
    for (std::size_t i = 0; i < parts.size(); ++i) whole.value += parts[i], whole.error += errors[i];
    for (std::size_t i = 0; i < poles.size(); ++i) {
        from.clear(), to.clear();
        grade(poles[i], -reaches[i], from, to);
        const std::size_t steps = from.size();
        grade(poles[i], reaches[i], from, to);
        if (from.size() != 2 * steps || !integrate(integrand, which, from, to, parts, errors)) return none;
        const double size = parts.empty() ? 0 : std::abs(parts[0]) + std::abs(parts[steps]);
        std::vector<double> noise(steps);
        for (std::size_t k = 0; k < steps; ++k) {
            const double unit = std::numeric_limits<double>::epsilon() * std::abs(poles[i]) / (to[k] - from[k]);
            noise[k] = unit * (std::abs(parts[k]) + std::abs(parts[steps + k]));
            parts[k] += parts[steps + k];
            errors[k] += errors[steps + k];
        }
        // What cancels is rounding errors in the end, and grows: the totals before that are the best.
        const double first = parts.empty() ? 0 : size;
        std::size_t sound = 0;
        while (sound < steps && errors[sound] < 1e-3 * std::max(first, std::abs(whole.value))) ++sound;
        Limit near = extrapolated({parts.data(), sound}, {errors.data(), sound}, size);
        if (!std::isfinite(near.error)) near = upToNoise({parts.data(), sound}, {errors.data(), sound}, noise);
        whole.value += near.value;
        whole.error += near.error;
    }
    return whole;
}

} // namespace coulter
