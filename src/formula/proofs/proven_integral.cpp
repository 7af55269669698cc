#include "formula/proofs/proven_integral.h"

#include <algorithm>
#include <cmath>
#include <queue>
#include <vector>

namespace coulter {

struct ProvenIntegral::Part {
    double low, high;
    Bounds value;
    bool isSmooth = false; ///< else bounded by its values alone
    double magnitude = 0;
    bool operator<(const Part& other) const { return width(value) < width(other.value); }
};

ProvenIntegral::ProvenIntegral(const Program& integrand)
    : series_(integrand), values_(integrand), slopes_(integrand), pieces_(integrand) {}

/// ∫ over [low, high], by what is sharpest.
ProvenIntegral::Part ProvenIntegral::over(double low, double high, std::span<const Bounds> others) {
    Part part{low, high, everything()};
    const MiddleAndRadius about = middleAndRadius({low, high});
    const double middle = about.middle;
    const Bounds left = outwards(middle - low, middle - low), right = outwards(high - middle, high - middle);
    const auto at = series_(exactly(middle), others), along = series_({low, high}, others);
    if (at && along) {
        // Σ c_j ∫ s^j ds about the middle, from −left to right.
        Bounds sum{0, 0}, powerLeft = left, powerRight = right;
        for (std::size_t j = 0; j <= taylorOrder; ++j) {
            const Bounds& c = j == taylorOrder ? (*along)[j] : (*at)[j];
            const Bounds both = j % 2 == 0 ? powerRight + powerLeft : powerRight - powerLeft;
            sum = sum + c * both / exactly(static_cast<double>(j + 1));
            powerLeft = powerLeft * left;
            powerRight = powerRight * right;
        }
        part.value = sum;
        part.isSmooth = true;
    } else if (about.radius > 0) {
        std::vector<Jet<1>> inputs(1 + others.size());
        for (std::size_t i = 0; i < others.size(); ++i) {
            inputs[i + 1].value = inputs[i + 1].centre = {others[i].low, others[i].high};
            inputs[i + 1].first[0] = inputs[i + 1].second[0] = inputs[i + 1].centreFirst[0] = exactly(0);
        }
        inputs[0].value = {low, high};
        inputs[0].centre = Enclosure::point(about.middle);
        inputs[0].first[0] = inputs[0].centreFirst[0] = exactly(1);
        inputs[0].second[0] = exactly(0);
        const Jet<1> jet = slopes_(inputs, {about.radius})[0];
        if (jet.centre.isProof() && isBounded(jet.second[0]) && isBounded(jet.centreFirst[0])) {
            part.value = Bounds{jet.centre.low, jet.centre.high} * (left + right) +
                         jet.centreFirst[0] * (square(right) - square(left)) / exactly(2) +
                         jet.second[0] * (right * square(right) + left * square(left)) / exactly(6);
            part.isSmooth = true;
        }
    }
    std::vector<Enclosure> inputs{{low, high}};
    for (const Bounds& other : others) inputs.push_back({other.low, other.high});
    const Enclosure plain = values_(inputs)[0];
    if (plain.known && plain.defined && !plain.estimated && std::isfinite(plain.low) && std::isfinite(plain.high)) {
        const Bounds byValues = Bounds{plain.low, plain.high} * (left + right);
        part.value = part.isSmooth ? common(part.value, byValues) : byValues;
        part.magnitude = magnitude(byValues);
    }
    return part;
}

std::vector<double> ProvenIntegral::bordersWithin(double low, double high, std::span<const Bounds> others) {
    std::vector<double> found, middles;
    if (!pieces_.hasPieces() || !(low < high)) return found;
    for (const Bounds& other : others) middles.push_back(other.low / 2 + other.high / 2);
    for (const PieceBorder& border : pieces_.within(low, high, middles, {})) {
        found.push_back(border.before);
        found.push_back(border.after);
    }
    return found;
}

bool isSharpBeside(const Bounds& rest, const Bounds& sum, const BoundsEffort& effort) {
    constexpr double little = 0.05;
    return width(rest) <= effort.wanted * magnitude(sum) / 4 ||
           (effort.isCoarse() && width(rest) <= little * width(sum));
}

std::optional<Bounds> ProvenIntegral::operator()(const Bounds& low, const Bounds& high, std::span<const Bounds> others,
                                                 const BoundsEffort& effort) {
    if (!isBounded(low) || !isBounded(high)) return std::nullopt;
    const double a = low.low + width(low) / 2, b = high.low + width(high) / 2;
    const double from = std::min(a, b), to = std::max(a, b);
    constexpr int firstParts = 4;
    std::priority_queue<Part> parts;
    Bounds settled{0, 0};
    double size = 0, loose = 0;
    const auto put = [&](double l, double h) {
        if (!(h > l)) return;
        const Part part = over(l, h, others);
        size += part.magnitude;
        loose += width(part.value);
        parts.push(part);
    };
    // Where the integrand changes its piece parts end, and between the two neighbouring numbers is one by itself.
    std::vector<double> ends;
    for (int i = 0; i <= firstParts; ++i) ends.push_back(i == firstParts ? to : from + (to - from) * i / firstParts);
    std::ranges::copy(bordersWithin(from, to, others), std::back_inserter(ends));
    std::ranges::sort(ends);
    for (std::size_t i = 0; i + 1 < ends.size(); ++i) put(ends[i], ends[i + 1]);
    // Beside a corner or a jump parts are halved until they are too small to count.
    constexpr std::size_t halvings = 48, mostBeside = 4000;
    const auto beside =
        static_cast<int>(effort.isCoarse() ? 0 : std::min(mostBeside, halvings * (ends.size() - 1 - firstParts)));
    for (int count = firstParts; count < effort.mostParts + beside && !parts.empty(); ++count) {
        const Part top = parts.top();
        // Sums of infinite bounds tell nothing of what the parts are like.
        if (std::isfinite(loose) && loose <= effort.wanted * size) break;
        const double middle = top.low + (top.high - top.low) / 2;
        if (!(middle > top.low && middle < top.high)) break;
        parts.pop();
        if (std::isfinite(width(top.value))) {
            loose -= width(top.value);
            size -= top.magnitude;
        }
        const Part left = over(top.low, middle, others), right = over(middle, top.high, others);
        // Where halving leaves the width as it was, rounding is all there is; or the part is still so long that nothing
        // is known but the size of its values.
        const bool isFine = width(top.value) < 1e-3 * top.magnitude;
        if (top.isSmooth && isFine && width(left.value) + width(right.value) > 0.9 * width(top.value)) {
            settled = settled + top.value;
            size += top.magnitude;
            continue;
        }
        parts.push(left);
        parts.push(right);
        if (std::isinf(loose) || std::isnan(loose)) { // again, from what there is
            loose = size = 0;
            auto all = parts;
            for (; !all.empty(); all.pop()) loose += width(all.top().value), size += all.top().magnitude;
        } else {
            loose += width(left.value) + width(right.value);
            size += left.magnitude + right.magnitude;
        }
    }
    Bounds sum = settled;
    for (; !parts.empty(); parts.pop()) sum = sum + parts.top().value;
    if (b < a) sum = -sum;
    // What the limits' own widths add.
    for (const Bounds* limit : {&low, &high}) {
        if (limit->low == limit->high) continue;
        std::vector<Enclosure> inputs{{limit->low, limit->high}};
        for (const Bounds& other : others) inputs.push_back({other.low, other.high});
        const Enclosure there = values_(inputs)[0];
        if (!there.known || !there.defined || there.estimated) return std::nullopt;
        const double middle = limit == &low ? a : b;
        const double reach = roundedUp(std::max(limit->high - middle, middle - limit->low));
        sum = sum + Bounds{there.low, there.high} * Bounds{-reach, reach};
    }
    return isBounded(sum) ? std::optional(sum) : std::nullopt;
}

} // namespace coulter
