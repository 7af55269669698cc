#include "drawing/ticks.h"

#include "formula/base/text.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <map>
#include <numbers>

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

namespace {

/// "20 k": a number with the prefix of its thousands; one beyond all prefixes has a power of ten.
std::string withPrefix(double value) {
    static constexpr std::array<const char*, 17> prefixes{"y", "z", "a", "f", "p", "n", "µ", "m", "",
                                                          "k", "M", "G", "T", "P", "E", "Z", "Y"};
    if (value == 0) return "0";
    const int thousands = static_cast<int>(std::floor(std::log10(std::abs(value)) / 3 + 1e-12));
    if (thousands < -8 || thousands > 8) return roundedNumber(value, 6);
    const double shown = value / std::pow(10.0, 3 * thousands);
    const std::string digits = roundedNumber(shown, 6), prefix = prefixes[static_cast<std::size_t>(thousands + 8)];
    return prefix.empty() ? digits : digits + " " + prefix;
}

/// numerator π / denominator: "0", "π", "−3π/2".
std::string timesPi(double numerator, int denominator) {
    if (numerator == 0) return "0";
    const double ratio = numerator / denominator;
    for (const int smaller : {1, 2, 3, 4, 6, 12, 24, 60, 120, 360}) {
        const double whole = ratio * smaller;
        if (std::abs(whole - std::round(whole)) > 1e-9 * std::max(1.0, std::abs(whole))) continue;
        const double n = std::round(whole);
        const std::string digits = n == 1 ? "" : n == -1 ? "-" : roundedNumber(n, 12);
        return digits + "π" + (smaller == 1 ? "" : "/" + std::to_string(smaller));
    }
    return roundedNumber(ratio, 6) + "π";
}

/// Ticks whose step is chosen from a ladder of `unit` times numerator / denominator.
Ticks laddered(double low, double high, double wanted, double unit, NumberStyle style) {
    struct Rung {
        double numerator = 1;
        int denominator = 1;
    };
    std::vector<Rung> rungs;
    if (style == NumberStyle::OfPi) {
        for (const int part : {360, 120, 60, 24, 12, 6, 4, 3, 2}) rungs.push_back({1, part});
        for (double ten = 1; ten < 1e12; ten *= 10) rungs.insert(rungs.end(), {{ten, 1}, {2 * ten, 1}, {5 * ten, 1}});
    } else {
        for (const double degrees : {1.0, 2.0, 5.0, 10.0, 15.0, 30.0, 45.0, 60.0, 90.0, 180.0, 360.0, 720.0, 1800.0})
            rungs.push_back({degrees, 1});
        for (double ten = 3600; ten < 1e12; ten *= 10) rungs.push_back({ten, 1});
    }
    const double ideal = (high - low) / std::max(1.0, wanted);
    Rung best = rungs[0];
    double least = INFINITY;
    for (const Rung& rung : rungs) {
        const double off = std::abs(std::log(rung.numerator * unit / rung.denominator / ideal));
        if (off < least) {
            least = off;
            best = rung;
        }
    }
    Ticks ticks;
    ticks.step = best.numerator * unit / best.denominator;
    const double first = std::ceil(low / ticks.step - 1e-9), last = std::floor(high / ticks.step + 1e-9);
    if (!(last - first < 1000)) return linearTicks(low, high, wanted);
    for (double i = first; i <= last; ++i) {
        ticks.places.push_back(i * best.numerator * unit / best.denominator);
        ticks.labels.push_back(style == NumberStyle::OfPi ? timesPi(i * best.numerator, best.denominator)
                                                          : roundedNumber(i * best.numerator, 12) + "°");
    }
    return ticks;
}

} // namespace

Ticks linearTicks(double low, double high, double wanted, NumberStyle style) {
    Ticks ticks;
    if (!(high > low) || !std::isfinite(high - low)) return ticks;
    constexpr double pi = std::numbers::pi;
    if (style == NumberStyle::OfPi && high - low > pi / 360) return laddered(low, high, wanted, pi, style);
    if (style == NumberStyle::Degrees && high - low > pi / 90) return laddered(low, high, wanted, pi / 180, style);
    if (style == NumberStyle::Degrees) { // parts of a degree
        ticks = linearTicks(low * 180 / pi, high * 180 / pi, wanted, NumberStyle::Plain);
        for (double& place : ticks.places) place *= pi / 180;
        for (std::string& label : ticks.labels) label += "°";
        return ticks;
    }
    const DecimalStep step = chooseStep(low, high, wanted);
    ticks.step = decimal(step.mantissa, step.exponent);
    const double slack = 1e-9;
    const double first = std::ceil(low / ticks.step - slack), last = std::floor(high / ticks.step + slack);
    if (!(last - first < 1000) || std::abs(first) > 1e15) return ticks; // beyond the resolution of doubles
    for (double i = first; i <= last; ++i) ticks.places.push_back(decimal(i * step.mantissa, step.exponent));
    double largest = 0;
    for (const double place : ticks.places) largest = std::max(largest, std::abs(place));
    const bool many = largest >= 1e5 || (largest > 0 && largest < 1e-3);
    if (style == NumberStyle::Prefixes) {
        for (const double place : ticks.places) ticks.labels.push_back(withPrefix(place));
        return ticks;
    }
    if (largest > 0 && (style == NumberStyle::Powers || (many && style != NumberStyle::Plain)))
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

Ticks logarithmicTicks(double low, double high, double wanted, NumberStyle style) {
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
    if (count < 3 && decades < 2) return linearTicks(low, high, wanted, style);
    Ticks ticks;
    int every = 1;
    while (static_cast<double>(count) / every > std::max(2.0, wanted)) ++every;
    // Plain decimals are read faster, powers of ten are shorter.
    const bool plain = style == NumberStyle::Plain || (style != NumberStyle::Powers && first >= -3 && last <= 4);
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
            if (style == NumberStyle::Prefixes) {
                ticks.labels.push_back(withPrefix(place));
            } else if (plain) {
                char text[400];
                const auto end =
                    std::to_chars(text, text + 400, place, std::chars_format::fixed, std::max(0, -exponent)).ptr;
                ticks.labels.emplace_back(text, end);
            } else {
                ticks.labels.push_back((mantissa == 1 ? "" : std::to_string(mantissa) + "×") + "10^" +
                                       std::to_string(exponent));
            }
        }
    }
    return ticks;
}

namespace {

/// Numbers at given places, each written by itself.
Ticks givenTicks(const TickRules& rules, double low, double high) {
    Ticks ticks;
    if (!rules.words.empty()) {
        ticks.areWords = true;
        std::map<double, std::string> sorted;
        for (std::size_t i = 0; i < rules.words.size(); ++i) sorted.emplace(rules.given[i], rules.words[i]);
        for (const auto& [place, word] : sorted) {
            if (!(place >= low && place <= high)) continue;
            ticks.places.push_back(place);
            ticks.labels.push_back(word);
        }
        return ticks;
    }
    const double slack = 1e-9 * (high - low);
    for (const double place : rules.given) {
        if (place >= low - slack && place <= high + slack) ticks.places.push_back(place);
    }
    std::ranges::sort(ticks.places);
    ticks.places.erase(std::unique(ticks.places.begin(), ticks.places.end()), ticks.places.end());
    for (const double place : ticks.places) {
        const std::string digits =
            rules.numbers == NumberStyle::Plain ? shortestNumber(place) : roundedNumber(place, 8);
        switch (rules.numbers) {
        case NumberStyle::OfPi: ticks.labels.push_back(timesPi(place / std::numbers::pi, 1)); break;
        case NumberStyle::Degrees:
            ticks.labels.push_back(roundedNumber(place * 180 / std::numbers::pi, 8) + "°");
            break;
        case NumberStyle::Prefixes: ticks.labels.push_back(withPrefix(place)); break;
        default: {
            const auto e = digits.find('e'); // 2e7 as a power of ten
            const bool one = e == 1 && digits[0] == '1';
            ticks.labels.push_back(e == std::string::npos ? digits
                                                          : (one ? "" : digits.substr(0, e) + "×") + "10^" +
                                                                digits.substr(digits[e + 1] == '+' ? e + 2 : e + 1));
        }
        }
    }
    return ticks;
}

/// Marks that divide the step of a linear scale.
std::vector<double> between(const Ticks& ticks, double low, double high, int parts) {
    std::vector<double> minor;
    if (ticks.places.size() < 2) return minor;
    const double step = ticks.places[1] - ticks.places[0], slack = 1e-9 * step;
    const double first = ticks.places.front() - step;
    for (double i = 0; i < 1000.0 * parts; ++i) {
        if (std::fmod(i, parts) == 0) continue; // a number stands there
        const double place = first + i * step / parts;
        if (place > high + slack) break;
        if (place >= low - slack) minor.push_back(place);
    }
    return minor;
}

} // namespace

Ticks ticksBy(const TickRules& rules, double low, double high, double wanted) {
    if (!(low < high)) return {};
    double from = rules.shown(low), to = rules.shown(high);
    const bool turned = from > to;
    if (turned) std::swap(from, to);
    if (rules.count > 0) wanted = rules.count;
    const bool logarithmic = rules.kind == ScaleKind::Logarithmic && from > 0;
    Ticks ticks = !rules.given.empty() ? givenTicks(rules, from, to)
                  : logarithmic        ? logarithmicTicks(from, to, wanted, rules.numbers)
                                       : linearTicks(from, to, wanted, rules.numbers);
    if (rules.minor == MinorTicks::None) ticks.minor.clear();
    const int parts = rules.minor == MinorTicks::Halves   ? 2
                      : rules.minor == MinorTicks::Fifths ? 5
                      : rules.minor == MinorTicks::Tenths ? 10
                                                          : 0;
    if (parts > 0 && rules.given.empty() && ticks.minor.empty()) ticks.minor = between(ticks, from, to, parts);
    if (rules.shown.isNone()) return ticks;
    for (double& place : ticks.places) place = rules.shown.back(place);
    for (double& place : ticks.minor) place = rules.shown.back(place);
    if (turned) {
        std::ranges::reverse(ticks.places);
        std::ranges::reverse(ticks.labels);
    }
    return ticks;
}

} // namespace coulter
