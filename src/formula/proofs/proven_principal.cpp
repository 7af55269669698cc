#include "formula/proofs/proven_principal.h"

#include "formula/bounds/interval_rules.h"
#include "formula/program/graded_integral.h"
#include "formula/program/program_edit.h"
#include "formula/proofs/proven_limits.h"

#include <array>
#include <cmath>
#include <vector>

namespace coulter {
namespace {

/// How many coefficients of q are known: one less than of r.
constexpr std::size_t termCount = taylorOrder;
using Coefficients = std::array<Bounds, termCount>;

/// The series of t/r, from that of r without its first term.
std::optional<Coefficients> quotientsOf(const TaylorSeries& r) {
    if (r[1].low <= 0 && r[1].high >= 0) return std::nullopt;
    Coefficients q;
    q[0] = reciprocal(r[1]);
    for (std::size_t k = 1; k < termCount; ++k) {
        Bounds sum{0, 0};
        for (std::size_t j = 1; j <= k; ++j) sum = sum + r[j + 1] * q[k - j];
        q[k] = -sum * q[0];
    }
    return q;
}

/// A simple pole, and what is known of the integrand beside it.
class Pole {
public:
    /// @param about  a double beside it
    Pole(const Program& reciprocal, double about, std::span<const Bounds> others)
        : series_(reciprocal), values_(reciprocal), about_(about), others_(others) {}

    /// Bounds of the principal value from `low` to `high`, of which one lies on either side of the pole.
    std::optional<Bounds> across(double low, double high) {
        const std::optional<Bounds> place = placeWithin(std::min(high - about_, about_ - low) / 2);
        const auto at = place ? series_(*place, others_) : std::nullopt,
                   along = place ? series_({low, high}, others_) : std::nullopt;
        // A slope that keeps its sign says that there is one pole in all of it.
        const auto near = at ? quotientsOf(*at) : std::nullopt, far = along ? quotientsOf(*along) : std::nullopt;
        if (!near || !far) return std::nullopt;
        strength_ = magnitude((*near)[0]);
        const Bounds right = exactly(high) - *place, left = *place - exactly(low);
        const Bounds ratio = right / left;
        const Enclosure logarithm = enclose(Kernel::Ln, {ratio.low, ratio.high}, {}, false);
        if (!logarithm.isProof()) return std::nullopt;
        Bounds sum = (*near)[0] * Bounds{logarithm.low, logarithm.high}, powerRight = right, powerLeft = left;
        for (std::size_t k = 1; k + 1 < termCount; ++k) {
            const Bounds both = k % 2 == 1 ? powerRight + powerLeft : powerRight - powerLeft;
            sum = sum + (*near)[k] * both / exactly(static_cast<double>(k));
            powerRight = powerRight * right;
            powerLeft = powerLeft * left;
        }
        const double most = magnitude((*far)[termCount - 1]);
        return sum + Bounds{-most, most} * (powerRight + powerLeft) / exactly(static_cast<double>(termCount - 1));
    }

    /// The size of the residue, as far as it is known.
    double strength() const { return strength_; }

private:
    /// Within which the reciprocal changes its sign.
    std::optional<Bounds> placeWithin(double reach) {
        const double step = std::max(std::abs(about_), 0x1p-960) * 0x1p-52;
        for (double away = step; away < reach; away *= 4) {
            const Bounds before = valueAt(about_ - away), after = valueAt(about_ + away);
            if ((before.high < 0 && after.low > 0) || (before.low > 0 && after.high < 0))
                return Bounds{about_ - away, about_ + away};
        }
        return std::nullopt;
    }

    Bounds valueAt(double x) {
        std::vector<Enclosure> inputs{Enclosure::point(x)};
        for (const Bounds& other : others_) inputs.push_back({other.low, other.high});
        const Enclosure value = values_(inputs)[0];
        return value.isProof() ? Bounds{value.low, value.high} : everything();
    }

    TaylorEvaluator series_;
    IntervalEvaluator values_;
    double about_, strength_ = 0;
    std::span<const Bounds> others_;
};

std::vector<double> polesOf(const Program& integrand, double low, double high, std::span<const Bounds> others) {
    Evaluator evaluator(integrand);
    const auto values = [&](std::span<const double> k, std::span<const std::uint32_t>, double* out) {
        std::vector<std::vector<double>> columns;
        std::vector<const double*> inputs{k.data()};
        for (const Bounds& other : others) columns.emplace_back(k.size(), other.low / 2 + other.high / 2);
        for (const auto& column : columns) inputs.push_back(column.data());
        evaluator(inputs, std::span<double* const>(&out, 1), k.size());
        return true;
    };
    return polesBetween(values, 0, low, high);
}

} // namespace

std::optional<Bounds> provenPrincipal(const Program& integrand, ProvenIntegral& between, const Bounds& low,
                                      const Bounds& high, std::span<const Bounds> others, const BoundsEffort& effort) {
    if (low.low > high.low) {
        const auto turned = provenPrincipal(integrand, between, high, low, others, effort);
        return turned ? std::optional(-*turned) : std::nullopt;
    }
    const std::vector<double> poles = polesOf(integrand, low.low, high.high, others);
    constexpr std::size_t mostPoles = 16;
    if (poles.empty()) return provenOver(integrand, between, low, high, others, effort);
    if (poles.size() > mostPoles) return std::nullopt;
    const Program reciprocal = reciprocalOf(integrand);
    Bounds sum{0, 0}, open = low;
    for (std::size_t i = 0; i < poles.size(); ++i) {
        const double left = poles[i] - (i == 0 ? low.high : (poles[i - 1] + poles[i]) / 2),
                     right = (i + 1 == poles.size() ? high.low : (poles[i] + poles[i + 1]) / 2) - poles[i];
        if (!(left > 0 && right > 0)) return std::nullopt;
        Pole pole(reciprocal, poles[i], others);
        // As far as the series says as much as wanted; nearer ones say more, but leave more to the rest.
        std::optional<Bounds> best;
        Bounds ends{};
        double reach = std::exp2(std::floor(std::log2(std::min({left, right, 2.0}) / 2)));
        constexpr int mostHalvings = 12;
        for (int k = 0; k < mostHalvings; ++k, reach /= 2) {
            const Bounds within{poles[i] - reach, poles[i] + reach};
            const auto found = pole.across(within.low, within.high);
            if (!found || (best && width(*found) >= width(*best))) {
                if (best) break;
                continue;
            }
            best = found;
            ends = within;
            if (width(*best) <= 8 * effort.wanted * pole.strength()) break;
        }
        if (!best) return std::nullopt;
        const auto before = provenOver(integrand, between, open, exactly(ends.low), others, effort);
        if (!before) return std::nullopt;
        sum = sum + *before + *best;
        open = exactly(ends.high);
    }
    const auto rest = provenOver(integrand, between, open, high, others, effort);
    return rest ? std::optional(sum + *rest) : std::nullopt;
}

} // namespace coulter
