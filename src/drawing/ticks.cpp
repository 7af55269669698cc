#include "drawing/ticks.h"

#include <algorithm>
#include <charconv>
#include <cmath>

namespace coulter {
namespace {

/// A step as mantissa × 10^exponent, so that marks are exact decimals: places are (index × mantissa) × 10^exponent.
struct DecimalStep {
    int mantissa = 1;
    int exponent = 0;
};

double decimal(double whole, int exponent) {
    // One correctly rounded reading of the decimal spelling; products of powers would be off by a last place.
    char text[64];
    auto end = std::to_chars(text, text + 40, whole, std::chars_format::fixed, 0).ptr;
    *end++ = 'e';
    end = std::to_chars(end, text + 64, exponent).ptr;
    double value = 0;
    std::from_chars(text, end, value);
    return value;
}

DecimalStep chooseStep(double low, double high, double wanted) {
    const double ideal = (high - low) / std::max(1.0, wanted);
    int exponent = static_cast<int>(std::floor(std::log10(ideal)));
    DecimalStep best{1, exponent};
    double least = INFINITY;
    for (const int mantissa : {1, 2, 5, 10}) {
        const double off = std::abs(std::log(decimal(mantissa, exponent) / ideal));
        if (off < least) {
            least = off;
            best = {mantissa, exponent};
        }
    }
    if (best.mantissa == 10) best = {1, exponent + 1};
    return best;
}

} // namespace

double tickStep(double low, double high, double wanted) {
    const DecimalStep step = chooseStep(low, high, wanted);
    return decimal(step.mantissa, step.exponent);
}

Ticks linearTicks(double low, double high, double wanted) {
    Ticks ticks;
    if (!(high > low) || !std::isfinite(high - low)) return ticks;
    const DecimalStep step = chooseStep(low, high, wanted);
    ticks.step = decimal(step.mantissa, step.exponent);
    const double slack = 1e-9;
    const double first = std::ceil(low / ticks.step - slack), last = std::floor(high / ticks.step + slack);
    if (!(last - first < 1000) || std::abs(first) > 1e15) return ticks; // beyond the resolution of doubles
    for (double i = first; i <= last; ++i) ticks.places.push_back(decimal(i * step.mantissa, step.exponent));
    double largest = 0;
    for (const double place : ticks.places) largest = std::max(largest, std::abs(place));
    if (largest >= 1e5 || (largest > 0 && largest < 1e-3))
        ticks.powerOfTen = static_cast<int>(std::floor(std::log10(largest)));
    const int decimals = std::max(0, ticks.powerOfTen - step.exponent);
    for (double i = first; i <= last; ++i) {
        const double shown = decimal(i * step.mantissa, step.exponent - ticks.powerOfTen);
        char text[64];
        const auto end =
            std::to_chars(text, text + 64, shown == 0 ? 0.0 : shown, std::chars_format::fixed, decimals).ptr;
        ticks.labels.emplace_back(text, end);
    }
    return ticks;
}

Ticks logarithmicTicks(double low, double high, double wanted) {
    if (!(low > 0) || !(high > low) || !std::isfinite(high)) return {};
    const double slack = 1e-9;
    const double from = std::log10(low) - slack, to = std::log10(high) + slack, decades = to - from;
    const int first = static_cast<int>(std::floor(from)), last = static_cast<int>(std::ceil(to));
    const auto inside = [&](double mantissa, int exponent) {
        const double at = std::log10(mantissa) + exponent;
        return at >= from && at <= to;
    };
    std::vector<int> mantissas{1};
    if (decades < 2) mantissas = {1, 2, 5};
    std::size_t count = 0;
    for (int exponent = first; exponent <= last; ++exponent) {
        for (const int mantissa : mantissas) count += inside(mantissa, exponent);
    }
    if (count < 3 && decades < 2) return linearTicks(low, high, wanted);
    Ticks ticks;
    int every = 1;
    while (static_cast<double>(count) / every > std::max(2.0, wanted)) ++every;
    // Plain decimals are read faster, powers of ten are shorter.
    const bool plain = first >= -3 && last <= 4;
    for (int exponent = first; exponent <= last; ++exponent) {
        const bool marked = ((exponent % every) + every) % every == 0;
        for (int mantissa = 1; mantissa < 10; ++mantissa) {
            if (!inside(mantissa, exponent)) continue;
            const double place = decimal(mantissa, exponent);
            const bool labelled = marked && std::ranges::find(mantissas, mantissa) != mantissas.end();
            if (!labelled) {
                if (every == 1 || mantissa == 1) ticks.minor.push_back(place);
                continue;
            }
            ticks.places.push_back(place);
            if (plain) {
                char text[64];
                const auto end =
                    std::to_chars(text, text + 64, place, std::chars_format::fixed, std::max(0, -exponent)).ptr;
                ticks.labels.emplace_back(text, end);
            } else {
                ticks.labels.push_back((mantissa == 1 ? "" : std::to_string(mantissa) + "×") + "10^" +
                                       std::to_string(exponent));
            }
        }
    }
    return ticks;
}

} // namespace coulter
