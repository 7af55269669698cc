#include "plots/area_estimates.h"

#include "plots/telling.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// Places of a part among which the tip of a triangle is chosen.
constexpr int tips = 256;

/// Both edges at a place, evaluated one after the other.
class Edges {
public:
    Edges(const Curve& upper, const Curve& lower) : upper_(*upper.program), lower_(*lower.program) {}
    double above(double x) { return upper_(x); }
    double below(double x) { return lower_(x); }

private:
    Evaluator upper_, lower_;
};

/// The area between two straight edges over a part, which may cross.
double between(double first, double last, double width) {
    const double a = std::abs(first), b = std::abs(last);
    if ((first < 0) == (last < 0) || a + b == 0) return (a + b) / 2 * width;
    return (a * a + b * b) / (2 * (a + b)) * width;
}

} // namespace

AreaEstimate estimateArea(const Curve& upper, const Curve& lower, AreaRule rule, int parts) {
    AreaEstimate estimate;
    Edges edges(upper, lower);
    const double low = upper.interval.low, high = upper.interval.high;
    for (int i = 0; i < parts; ++i) {
        const double from = low + (high - low) * i / parts, to = low + (high - low) * (i + 1) / parts;
        const double width = to - from;
        if (rule == AreaRule::Trapezoids) {
            const double a = edges.above(from), b = edges.above(to), c = edges.below(from), d = edges.below(to);
            estimate.value += between(a - c, b - d, width);
            estimate.outlines.push_back({{from, c}, {from, a}, {to, b}, {to, d}});
        } else if (rule == AreaRule::Triangles) {
            const double c = edges.below(from), d = edges.below(to);
            double tip = from, height = 0;
            for (int k = 0; k <= tips; ++k) {
                const double x = from + width * k / tips, h = edges.above(x) - (c + (d - c) * k / tips);
                if (std::abs(h) > std::abs(height)) tip = x, height = h;
            }
            estimate.value += std::abs(height) * width / 2;
            estimate.outlines.push_back({{from, c}, {tip, edges.above(tip)}, {to, d}});
        } else {
            const double at = rule == AreaRule::LeftRectangles    ? from
                              : rule == AreaRule::RightRectangles ? to
                                                                  : from + width / 2;
            const double a = edges.above(at), c = edges.below(at);
            estimate.value += std::abs(a - c) * width;
            estimate.outlines.push_back({{from, c}, {from, a}, {to, a}, {to, c}});
        }
    }
    return estimate;
}

std::string estimateWords(const Curve& upper, const Curve& lower, AreaRule rule, int parts) {
    std::string kind = areaRuleWords[static_cast<std::size_t>(rule)];
    if (parts == 1) kind.pop_back();
    std::string words;
    const int finer = rule == AreaRule::Triangles ? 1 : 3; // triangles approach nothing
    for (int k = 0; k < finer; ++k, parts *= 2) {
        const double value = estimateArea(upper, lower, rule, parts).value;
        words += (k == 0 ? "" : "; ") + std::to_string(parts) + (k == 0 ? " " + kind : "") + ": " +
                 (std::isfinite(value) ? printedNumber(value, 5) : "undefined");
    }
    return words;
}

} // namespace coulter
