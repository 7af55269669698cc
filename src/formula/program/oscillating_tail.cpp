#include "formula/program/oscillating_tail.h"

#include "formula/base/total.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace coulter {
namespace {

constexpr std::size_t parts = 64; ///< of the second half of each length: the integral is looked at after each of them
constexpr int shortest = -3, longest = 20; ///< lengths, as powers of two
constexpr Quadrature ruleOfPart{40};
constexpr double wantedOfEnd = 1e-14, acceptedOfEnd = 1e-6; ///< of the largest integral up to an end

/// Integrals over parts of t, where k = start + sign t.
class Tail {
public:
    Tail(const Quadrature::Integrand& integrand, std::uint32_t which, double start, double sign)
        : integrand_(integrand), which_(which), start_(start), sign_(sign) {}

    /// One integral for each part from ends[i] to ends[i + 1]; cut off smoothly at `length` if that is not 0.
    bool over(std::span<const double> ends, double length, std::vector<double>& values,
              const Quadrature& rule = ruleOfPart) {
        const Quadrature::Integrand moved = [&](std::span<const double> t, std::span<const std::uint32_t>,
                                                double* into) {
            std::vector<double> k(t.size()), weights(t.size(), 1.0);
            for (std::size_t i = 0; i < t.size(); ++i) k[i] = start_ + sign_ * t[i];
            const std::vector<std::uint32_t> owners(t.size(), which_);
            if (!integrand_(k, owners, into)) return false;
            if (length == 0) return true;
            for (std::size_t i = 0; i < t.size(); ++i) k[i] = t[i] / length;
            smoothCutoff(k, weights.data());
            for (std::size_t i = 0; i < t.size(); ++i) into[i] *= weights[i];
            return true;
        };
        const std::size_t count = ends.size() - 1;
        values.resize(count);
        std::vector<double> errors(count);
        rule(moved, ends.first(count), ends.last(count), values.data(), errors.data());
        for (const double error : errors) error_ += error;
        return std::isfinite(error_);
    }

    double error() const { return error_; }

private:
    const Quadrature::Integrand& integrand_;
    std::uint32_t which_;
    double start_, sign_;
    double error_ = 0;
};

} // namespace

Limit oscillatingTail(const Quadrature::Integrand& integrand, std::uint32_t which, double start, double sign) {
    const Limit none{std::numeric_limits<double>::quiet_NaN(), HUGE_VAL};
    Tail tail(integrand, which, start, sign);
    std::vector<double> ends, whole, weighted, cut, unrests;
    const double first = std::ldexp(0.5, shortest);
    const std::array<double, 2> head{0, first};
    if (!tail.over(head, 0, whole, Quadrature{100})) return none;
    Total total;
    total.add(whole[0]);
    double largest = std::abs(whole[0]);
    Limit best{0, HUGE_VAL};
    for (int power = shortest; power <= longest; ++power) {
        const double length = std::ldexp(1.0, power);
        ends.clear();
        for (std::size_t i = 0; i <= parts; ++i)
            ends.push_back(length / 2 * (1 + static_cast<double>(i) / static_cast<double>(parts)));
        // Where the integrand swings ever faster, it cannot be followed for ever: what is known by then counts.
        if (!tail.over(ends, length, weighted) || !tail.over(ends, 0, whole)) break;
        Total smooth = total;
        for (const double part : weighted) smooth.add(part);
        double least = total.value(), most = least;
        for (const double part : whole) {
            total.add(part);
            least = std::min(least, total.value());
            most = std::max(most, total.value());
        }
        largest = std::max({largest, std::abs(least), std::abs(most)});
        cut.push_back(smooth.value());
        unrests.push_back(most - least);
        if (cut.size() < 6) continue;
        const bool settles = unrests.back() < 0.8 * unrests[unrests.size() - 5] || unrests.back() == 0;
        const Limit limit = limitOf(settlingPart(cut, unrests));
        const double error = 2 * limit.error + tail.error();
        if (settles && error < best.error) best = {limit.value, error};
        if (best.error <= wantedOfEnd * largest + 2 * tail.error()) break;
    }
    return best.error <= acceptedOfEnd * largest ? best : none;
}

} // namespace coulter
