#include "plots/special_places.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <vector>

namespace coulter {
namespace {

constexpr int looks = 32; // parts of the interval

/// Most values of integrands for one look: the pointer must not wait.
constexpr std::int64_t mostIntegrandValues = 1'000'000;

using Function = std::function<double(double)>;

/// Where a function changes its sign between a and b, without leaping over zero.
std::optional<double> zeroBetween(const Function& f, double a, double b, double size) {
    double fa = f(a);
    for (int i = 0; i < 200; ++i) {
        const double middle = a + (b - a) / 2;
        if (!(middle > a && middle < b)) break;
        const double value = f(middle);
        if (std::isnan(value)) return std::nullopt;
        if (value == 0) return middle;
        if ((value > 0) == (fa > 0)) {
            a = middle;
            fa = value;
        } else {
            b = middle;
        }
    }
    // At a jump or a pole the values beside it are no smaller than elsewhere.
    const double fb = f(b);
    if (!(std::min(std::abs(fa), std::abs(fb)) <= 1e-6 * size)) return std::nullopt;
    return std::abs(fa) <= std::abs(fb) ? a : b;
}

/// The place of a largest value between a and c, by golden section.
double largestBetween(const Function& f, double a, double c) {
    const double part = (3 - std::sqrt(5.0)) / 2;
    double x = a + part * (c - a), y = c - part * (c - a), fx = f(x), fy = f(y);
    for (int i = 0; i < 60 && c - a > 1e-9 * (std::abs(a) + std::abs(c)); ++i) {
        if (fx >= fy) {
            c = y;
            y = x;
            fy = fx;
            x = a + part * (c - a);
            fx = f(x);
        } else {
            a = x;
            x = y;
            fx = fy;
            y = c - part * (c - a);
            fy = f(y);
        }
    }
    return (a + c) / 2;
}

} // namespace

std::optional<SpecialPlace> specialPlaceNear(const Curve& curve, std::span<const Curve* const> others, double low,
                                             double high, double place) {
    low = std::max(low, curve.interval.low);
    high = std::min(high, curve.interval.high);
    if (!(high > low)) return std::nullopt;
    Evaluator evaluator(*curve.program);
    evaluator.limit({}, mostIntegrandValues);
    const Function f = [&](double x) { return evaluator(x); };
    std::vector<double> xs, ys;
    for (int i = 0; i <= looks; ++i) {
        xs.push_back(low + (high - low) * i / looks);
        ys.push_back(f(xs.back()));
    }
    double size = 0;
    for (const double y : ys) {
        if (std::isfinite(y)) size = std::max(size, std::abs(y));
    }
    std::optional<SpecialPlace> nearest;
    const auto consider = [&](double x, const char* word) {
        const double y = f(x);
        if (!std::isfinite(y)) return;
        if (!nearest || std::abs(x - place) < std::abs(nearest->x - place)) nearest = {x, y, word};
    };
    const auto zeros = [&](const Function& g, const char* word) {
        double scale = 0;
        std::vector<double> values;
        for (const double x : xs) {
            values.push_back(g(x));
            if (std::isfinite(values.back())) scale = std::max(scale, std::abs(values.back()));
        }
        for (std::size_t i = 0; i < values.size(); ++i) {
            if (values[i] == 0 && scale > 0) consider(xs[i], word);
            if (i + 1 == values.size() || !std::isfinite(values[i]) || !std::isfinite(values[i + 1])) continue;
            if (values[i] * values[i + 1] >= 0) continue;
            if (const auto zero = zeroBetween(g, xs[i], xs[i + 1], scale)) consider(*zero, word);
        }
    };
    zeros(f, "zero");
    for (std::size_t i = 1; i + 1 < ys.size(); ++i) {
        const double before = ys[i] - ys[i - 1], after = ys[i + 1] - ys[i];
        if (!(before * after < 0) || std::min(std::abs(before), std::abs(after)) < 1e-13 * size) continue;
        const bool isTop = before > 0;
        const double x = largestBetween([&](double at) { return isTop ? f(at) : -f(at); }, xs[i - 1], xs[i + 1]);
        // Beside a pole values grow without end.
        if (std::abs(f(x)) <= 4 * size) consider(x, isTop ? "maximum" : "minimum");
    }
    for (const Curve* other : others) {
        if (other == &curve || !other->isFunction()) continue;
        Evaluator second(*other->program);
        second.limit({}, mostIntegrandValues);
        const auto inside = [&](double x) { return x >= other->interval.low && x <= other->interval.high; };
        zeros([&](double x) { return inside(x) ? f(x) - second(x) : std::nan(""); }, "crossing");
    }
    if (evaluator.exhausted()) return std::nullopt;
    return nearest;
}

} // namespace coulter
