// Points of adaptively sampled curves beside the least number that mathematics allows: for chords that interpolate
// within ε a smooth curve needs at least ∫ √(κ/8ε) ds of them, in millimetres of the sheet.
#include "formula/plotted.h"
#include "sampling/curve.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

using namespace coulter;

namespace {

constexpr double tolerance = 0.02;

struct Case {
    const char* formula;
    Interval interval;
    double low, high;
};

const Case cases[] = {
    {"sin(x)", {0, 6.283185307179586}, -1, 1},
    {"x^2", {-2, 2}, 0, 4},
    {"exp(-x^2)", {-4, 4}, 0, 1},
    {"sin(10 x) exp(-x/3)", {0, 6}, -1, 1},
    {"1/(1 + 25 x^2)", {-1, 1}, 0, 1},
    {"x^3 - x", {-2, 2}, -6, 6},
    {"sqrt(1 - x^2)", {-1, 1}, 0, 1},
    {"ln(x)", {0, 5, false, true}, -3, 2},
    {"tanh(5 x)", {-2, 2}, -1, 1},
    {"cos(x^2)", {0, 6}, -1, 1},
};

double leastNumber(const Program& program, const PanelMap& map, const Interval& interval) {
    Evaluator f(program);
    const int n = 400'000;
    double sum = 0, u0 = NAN, v0 = NAN, du0 = NAN, dv0 = NAN;
    for (int i = 0; i <= n; ++i) {
        const double x = interval.low + (interval.high - interval.low) * i / n;
        const double u = map.x.toSheet(x), v = map.y.toSheet(f(x));
        const bool visible = std::isfinite(v) && v >= 0 && v <= map.y.length;
        const double du = u - u0, dv = v - v0;
        if (visible && std::isfinite(du0)) {
            const double turn = std::abs(std::atan2(du0 * dv - dv0 * du, du0 * du + dv0 * dv));
            if (turn < 0.5) sum += std::sqrt(turn * std::hypot(du, dv) / (8 * tolerance));
        }
        du0 = visible ? du : NAN;
        dv0 = dv;
        u0 = visible ? u : NAN;
        v0 = v;
    }
    return sum;
}

double largestDeviation(const Program& program, const PanelMap& map, const CurveSamples& samples) {
    Evaluator f(program);
    double worst = 0;
    for (const Stretch& s : samples.stretches) {
        for (std::size_t i = 0; i + 1 < s.x.size(); ++i) {
            const double au = map.x.toSheet(s.x[i]), av = map.y.toSheet(s.y[i]), bu = map.x.toSheet(s.x[i + 1]),
                         bv = map.y.toSheet(s.y[i + 1]);
            for (int k = 1; k < 50; ++k) {
                const double x = s.x[i] + (s.x[i + 1] - s.x[i]) * k / 50, u = map.x.toSheet(x), v = map.y.toSheet(f(x));
                if (!(v >= 0 && v <= map.y.length)) continue;
                const double du = bu - au, dv = bv - av,
                             t = std::clamp(((u - au) * du + (v - av) * dv) / (du * du + dv * dv), 0.0, 1.0);
                worst = std::max(worst, std::hypot(au + t * du - u, av + t * dv - v));
            }
        }
    }
    return worst;
}

} // namespace

int main() {
    std::printf("%-22s %7s %7s %6s %12s %12s\n", "formula", "points", "least", "ratio", "deviation/mm", "evaluations");
    for (const Case& c : cases) {
        const std::vector<std::string> lines{std::string("f(x) = ") + c.formula, "x in [0, 1]"};
        const Page page = readPage(lines);
        const auto program = compile(page, readPlotted(page, "f(x)").expression, std::vector<std::string>{"x"}).program;
        const PanelMap map{{ScaleKind::Linear, c.interval.low, c.interval.high, 120},
                           {ScaleKind::Linear, c.low, c.high, 80}};
        const CurveSamples samples = sampleCurve(*program, c.interval, map, tolerance);
        const double least = leastNumber(*program, map, c.interval);
        std::printf("%-22s %7zu %7.1f %6.2f %12.4f %12zu\n", c.formula, samples.pointCount(), least,
                    static_cast<double>(samples.pointCount()) / least, largestDeviation(*program, map, samples),
                    samples.evaluations);
    }
}
