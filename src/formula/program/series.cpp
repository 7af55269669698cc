#include "formula/program/series.h"

#include "formula/base/total.h"
#include "formula/program/extrapolation.h"
#include "special/kernels.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <optional>
#include <vector>

namespace coulter {
namespace {

constexpr double epsilon = std::numeric_limits<double>::epsilon();
constexpr double wantedOfSum = 1e-15;                  ///< of the sum
constexpr double acceptedOfSum = 1e-6;                 ///< beyond, a value would mislead
constexpr std::size_t firstLooked = 512;               ///< terms by which it is told what kind of series this is
constexpr std::size_t mostTerms = 1 << 16;             ///< that are added up one by one
constexpr std::array<std::size_t, 2> settled{32, 256}; ///< where the terms may be smooth from on
constexpr std::array<std::size_t, 3> starts{0, 1, 5};  ///< where the rest begins from there, for comparing

/// ln |1 + u| with all the digits that u has.
void logarithms(std::span<double> u, int& negative) {
    alignas(64) double one[8], logarithm[8];
    const BlockKernel ln = blockKernel(Kernel::Ln, bestInstructionSet());
    for (std::size_t start = 0; start < u.size(); start += 8) {
        const std::size_t count = std::min<std::size_t>(8, u.size() - start);
        for (std::size_t i = 0; i < 8; ++i) one[i] = i < count ? std::abs(1 + u[start + i]) : 1;
        ln(one, one, logarithm, 8);
        for (std::size_t i = 0; i < count; ++i) {
            double& each = u[start + i];
            const double sum = 1 + each;
            if (sum < 0) ++negative;
            // Near 1 the rounding of the sum is divided out again (W. Kahan).
            if (sum == 1) continue;
            each = sum > 0.5 && sum < 2 ? logarithm[i] * (each / (sum - 1)) : logarithm[i];
        }
    }
}

double exponential(double x) {
    alignas(64) double in[8], out[8];
    std::fill_n(in, 8, x);
    blockKernel(Kernel::Exp, bestInstructionSet())(in, in, out, 8);
    return out[0];
}

/// One series: its terms, as far as they have been asked for, and the ways to its sum.
class OneSeries {
public:
    OneSeries(const Series::Terms& terms, std::uint32_t which, double low, bool product)
        : ask_(terms), which_(which), low_(low), product_(product) {}

    Limit run() {
        const Limit sum = summed();
        if (isZero_) return {0, 0};
        // Where large terms have cancelled, nothing may be left but their rounding errors.
        if (!product_ && !(sum.error <= acceptedOfSum * size(sum))) return none();
        if (!product_ || !std::isfinite(sum.error)) return std::isnan(sum.value) ? none() : sum;
        const double value = (negative_ % 2 == 0 ? 1 : -1) * exponential(sum.value);
        return {value, std::abs(value) * (exponential(sum.error) - 1 + 2 * epsilon)};
    }

private:
    static Limit none() { return {std::numeric_limits<double>::quiet_NaN(), HUGE_VAL}; }

    /// Terms at these places; whether there are any. Of a product it is counted how many factors are negative.
    bool termsAt(std::span<const double> n, std::vector<double>& values) {
        values.resize(n.size());
        owners_.assign(n.size(), which_);
        if (!ask_(n, owners_, values.data())) return false;
        if (product_) logarithms(values, negative_);
        return true;
    }

    /// Has at least so many terms from the first on; whether all of them are numbers.
    bool upTo(std::size_t count) {
        std::vector<double> n, values;
        for (std::size_t i = terms_.size(); i < count; ++i) n.push_back(low_ + static_cast<double>(i));
        if (n.empty()) return true;
        const int before = negative_;
        if (!termsAt(n, values)) return false;
        if (terms_.size() >= firstLooked && negative_ != before) return false; // the product changes sign for ever
        for (const double value : values) {
            if (product_ && value == -HUGE_VAL) isZero_ = true;
            if (!std::isfinite(value)) return false;
            terms_.push_back(value);
            total_.add(value);
            totals_.push_back(total_.value());
            magnitude_ += std::abs(value);
        }
        return true;
    }

    double largest(std::size_t begin, std::size_t end) const {
        double most = 0;
        for (std::size_t i = begin; i < end; ++i) most = std::max(most, std::abs(terms_[i]));
        return most;
    }

    /// By how much a term is smaller than the one before, about, at the end of the first `count`.
    double shrinking(std::size_t count) const {
        const double before = largest(count - 16, count - 8), after = largest(count - 8, count);
        return before > 0 ? std::sqrt(std::sqrt(std::sqrt(after / before))) : after > 0 ? HUGE_VAL : 0;
    }

    /// The total of all terms so far, if what follows them is nothing beside it.
    std::optional<Limit> ended() const {
        const std::size_t count = terms_.size();
        const double rounding = 2 * epsilon * magnitude_;
        // What is nothing for a while may begin later, as a condition does.
        if (largest(count - count / 2, count) == 0)
            return count >= firstLooked ? std::optional(Limit{total_.value(), rounding}) : std::nullopt;
        const double ratio = shrinking(count), earlier = shrinking(count / 2);
        // A ratio that grows with n, as that of n! xⁿ does, passes 1 in the end.
        if (!(ratio < 0.999) || (ratio > 1.5 * earlier && earlier > 0)) return std::nullopt;
        const double rest = largest(count - 8, count) * ratio / (1 - ratio);
        if (rest > wantedOfSum / 8 * std::max(std::abs(total_.value()), epsilon * magnitude_)) return std::nullopt;
        return Limit{total_.value(), rounding + rest};
    }

    Limit summed() {
        for (std::size_t count = 64; count <= firstLooked; count *= 2) {
            if (!upTo(count)) return none();
            if (const auto sum = ended()) return *sum;
        }
        const double a = largest(64, 128), b = largest(128, 256), c = largest(256, 512);
        if (c < a * 1e-3 && c * a * a < b * b * b * 0.9) { // falls off ever faster: geometrically
            for (std::size_t count = 2 * firstLooked; count <= mostTerms; count *= 2) {
                if (!upTo(count)) return none();
                if (const auto sum = ended()) return *sum;
            }
        }
        for (const std::size_t from : settled) {
            if (const auto sum = accelerated(from)) return *sum;
        }
        return extrapolated();
    }

    enum class Signs { Same, Alternating, Other };
    Signs signs(std::size_t from) const {
        bool same = true, alternating = true;
        for (std::size_t i = from; i < terms_.size(); ++i) {
            const double product = terms_[i] * terms_[i - 1];
            same = same && product > 0;
            alternating = alternating && product < 0;
        }
        return same ? Signs::Same : alternating ? Signs::Alternating : Signs::Other;
    }

    /// Whether the terms' magnitudes fall off as smoothly as powers do: by the third differences of their logarithms.
    bool isSmooth(std::size_t from) const {
        std::vector<double> logarithms;
        for (std::size_t i = std::max<std::size_t>(128, from); i < firstLooked; ++i)
            logarithms.push_back(std::log(std::abs(terms_[i])));
        for (std::size_t i = 3; i < logarithms.size(); ++i) {
            const double third = logarithms[i] - 3 * logarithms[i - 1] + 3 * logarithms[i - 2] - logarithms[i - 3];
            if (!(std::abs(third) < 3e-5)) return false;
        }
        return std::abs(terms_[firstLooked - 1]) < std::abs(terms_[firstLooked / 2]);
    }

    /// The sum from term `start` on, of terms of one sign.
    std::optional<Limit> condensed(std::size_t start) {
        constexpr std::size_t count = 28;
        constexpr int highest = 1000;
        std::vector<double> sums(count, 0), n(count), values, before;
        double shrinks = 0, lastPart = 0;
        double weight = 1;
        for (int j = 0; j < highest; ++j, weight *= 2) {
            for (std::size_t k = 0; k < count; ++k)
                n[k] = low_ + static_cast<double>(start) - 1 + weight * static_cast<double>(k + 1);
            before = values;
            if (!termsAt(n, values)) return std::nullopt;
            double most = 0, largest = 0;
            for (std::size_t k = 0; k < count; ++k) {
                const double part = weight * values[k];
                if (!std::isfinite(part)) return std::nullopt;
                sums[k] += part;
                most = std::max(most, std::abs(part / sums[k]));
                largest = std::max(largest, std::abs(part));
            }
            // Far out a term such as ln(1 + 1/n²) has lost its digits: then its parts no longer shrink evenly.
            const double ratio = j > 0 ? 2 * values[0] / before[0] : 0;
            if (j > 10 && std::abs(ratio - shrinks) > 0.1)
                return Limit{alternatingSum(sums), 4 * std::max(largest, lastPart)};
            if (j > 0 && most < epsilon / 256) return Limit{alternatingSum(sums), 0};
            shrinks = ratio;
            lastPart = largest;
        }
        return std::nullopt;
    }

    std::optional<Limit> accelerated(std::size_t from) {
        const int negative = negative_; // of the terms one by one; what is looked at again does not count
        const auto restored = [&](std::optional<Limit> sum) {
            negative_ = negative;
            return sum;
        };
        const Signs which = signs(from);
        if (which == Signs::Other || !isSmooth(from)) return std::nullopt;
        std::array<double, starts.size()> sums{};
        double lost = 0;
        for (std::size_t s = 0; s < starts.size(); ++s) {
            const std::size_t start = from + starts[s];
            std::optional<Limit> rest;
            if (which == Signs::Same) {
                rest = condensed(start);
            } else {
                std::vector<double> magnitudes;
                for (std::size_t i = start; i < start + 28; ++i) magnitudes.push_back(std::abs(terms_[i]));
                rest = Limit{std::copysign(alternatingSum(magnitudes), terms_[start]), 0};
            }
            if (!rest) return restored(std::nullopt);
            sums[s] = totals_[start - 1] + rest->value;
            lost = std::max(lost, rest->error);
        }
        const auto [least, most] = std::ranges::minmax(sums);
        double near = std::abs(sums[0]); // all magnitudes that were added up
        for (std::size_t i = 0; i < from + starts.back(); ++i) near += std::abs(terms_[i]);
        const Limit sum{sums[0], 4 * (most - least) + 4 * epsilon * near + lost};
        return restored(sum.error <= acceptedOfSum * size(sum) ? std::optional(sum) : std::nullopt);
    }

    /// How far the totals from half of so many terms on are apart.
    double unrest(std::size_t count) const {
        const auto [least, most] = std::ranges::minmax(std::span(totals_).subspan(count / 2, count - count / 2));
        return most - least;
    }

    Limit extrapolated() {
        std::vector<double> cut, places, weights, unrests;
        Limit best{0, HUGE_VAL};
        for (std::size_t count = 64; count <= mostTerms; count *= 2) {
            if (!upTo(count)) return none();
            const std::size_t half = count / 2;
            places.clear();
            for (std::size_t i = half; i < count; ++i)
                places.push_back(static_cast<double>(i) / static_cast<double>(count));
            weights.resize(places.size());
            smoothCutoff(places, weights.data());
            Total sum;
            sum.add(totals_[half - 1]);
            for (std::size_t i = half; i < count; ++i) sum.add(weights[i - half] * terms_[i]);
            cut.push_back(sum.value());
            unrests.push_back(unrest(count));
            if (cut.size() < 6) continue;
            Limit limit = limitOf(settlingPart(cut, unrests));
            limit.error *= 2;
            const bool settles = unrests.back() < 0.8 * unrests[unrests.size() - 5] || unrests.back() == 0;
            if (!settles) continue;
            if (limit.error < best.error) best = limit;
            if (best.error <= 8 * wantedOfSum * size(best)) break;
        }
        best.error += 2 * epsilon * magnitude_;
        return best.error <= acceptedOfSum * size(best) ? best : none();
    }

    /// What an error is measured by: the sum, or its first term where that is larger, as near a zero.
    double size(const Limit& limit) const {
        const auto first = std::ranges::find_if(terms_, [](double term) { return term != 0; });
        return std::max(std::abs(limit.value), first == terms_.end() ? 0 : std::abs(*first));
    }

    const Series::Terms& ask_;
    std::uint32_t which_;
    double low_;
    bool product_;
    std::vector<double> terms_, totals_;
    Total total_;
    double magnitude_ = 0;
    int negative_ = 0;
    bool isZero_ = false; ///< a factor of the product is
    std::vector<std::uint32_t> owners_;
};

} // namespace

void Series::operator()(const Terms& terms, std::span<const double> low, double* result, double* errors) const {
    for (std::size_t i = 0; i < low.size(); ++i) {
        const Limit sum = OneSeries(terms, static_cast<std::uint32_t>(i), low[i], product).run();
        result[i] = sum.value;
        errors[i] = sum.error;
    }
}

} // namespace coulter
