// Points of adaptively sampled curves beside the least number that mathematics allows: for chords that interpolate
// within ε a smooth curve needs at least ∫ √(κ/8ε) ds of them, in millimetres of the sheet.
#include "formula/compile/compile.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"
#include "sampling/certificate.h"
#include "sampling/curve.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <vector>

using namespace coulter;

namespace {

constexpr double tolerance = 0.02;

struct Case {
    const char* formula;
    Interval interval;
    double low, high;
};

const Case cases[] = {
    // smooth
    {"sin(x)", {0, 6.283185307179586}, -1, 1},
    {"x^2", {-2, 2}, 0, 4},
    {"exp(-x^2)", {-4, 4}, 0, 1},
    {"1/(1 + 25 x^2)", {-1, 1}, 0, 1},
    {"x^3 - x", {-2, 2}, -6, 6},
    {"tanh(5 x)", {-2, 2}, -1, 1},
    {"exp(sin(3 x))/(2 + cos(x))", {-5, 5}, 0, 3},
    {"ln(1 + x^2) arctan(x)", {-5, 5}, -5, 5},
    {"x^x", {0, 2, false, true}, 0, 4},
    {"1/(1 + exp(-10 x))", {-2, 2}, 0, 1},
    // oscillating
    {"sin(10 x) exp(-x/3)", {0, 6}, -1, 1},
    {"cos(x^2)", {0, 6}, -1, 1},
    {"sin(60 x)", {0, 6}, -1, 1},
    {"sinc(20 x)", {-3, 3}, -0.5, 1},
    {"sin(x) + sin(1.05 x) + sin(30 x)/20", {0, 60}, -2.5, 2.5},
    // steep ends, corners, jumps
    {"sqrt(1 - x^2)", {-1, 1}, 0, 1},
    {"ln(x)", {0, 5, false, true}, -3, 2},
    {"cbrt(x)", {-2, 2}, -1.3, 1.3},
    {"abs(sin(3 x))", {-3, 3}, 0, 1},
    {"max(sin(x), cos(x))", {-6, 6}, -1, 1},
    {"floor(x) + x^2/4", {-4, 4}, -4, 8},
    {"mod(x, 2) sin(x)", {-6, 6}, -2, 2},
    {"{ x^2 for x < 1; 3 - x otherwise }", {-2, 4}, -1, 4},
    {"sgn(sin(5 x)) exp(-x)", {0, 3}, -1, 1},
    {"arcsin(x) + arccos(x/2)", {-1, 1}, -2, 4},
    // poles
    {"tan(x)", {-5, 5}, -5, 5},
    {"1/x^2", {-3, 3}, 0, 20},
    {"1/(x - 1)^3", {-2, 4}, -20, 20},
    {"sqrt(x + 3)/(x - 2)", {-4, 5}, -10, 10},
    {"Gamma(x + 3)", {-2.9, 2}, 0, 30},
    {"1/(sin(3 x) + 0.5)", {0, 6}, -8, 8},
    // narrow
    {"exp(-((x - 0.3)/1e-6)^2)", {-1, 1}, -0.1, 1.1},
    {"sin(x) + exp(-((x - 1.7)/1e-4)^2)/2", {0, 5}, -1, 1.6},
    {"1e-6/((x - pi/4)^2 + 1e-6)", {0, 2}, 0, 1.1},
    {"tanh(1e5 (x - 0.3))", {-1, 1}, -1.1, 1.1},
    {"x + exp(-1e5 abs(x - 0.123))", {-1, 1}, -1, 1.5},
    // essential
    {"sin(1/x)", {0.02, 1}, -1, 1},
    {"x sin(1/x)", {-1, 1}, -0.5, 1},
    // special functions and integrals
    {"J_0(5 x)", {-6, 6}, -0.5, 1},
    {"Ai(x)", {-12, 4}, -0.5, 0.6},
    {"K_0(x) - Y_0(x)", {0, 10, false, true}, -1, 4},
    {"erf(x) P_5(x/4)", {-4, 4}, -1, 1},
    {"W_0(x)", {-0.36, 5}, -1, 1.5},
    {"J_1(3 sin(x)) + Si(x)/2", {-9, 9}, -1.5, 1.5},
    {"int_0^x exp(-k^2) dk", {-3, 3}, -1, 1},
    {"int_0^3 cos(x sin(k) - 2k) dk", {0, 20}, -2, 2},
};

double leastNumber(const Program& program, const PanelMap& map, const Interval& interval) {
    const int n = 400'000;
    std::vector<double> xs, ys(n + 1);
    for (int i = 0; i <= n; ++i) xs.push_back(interval.low + (interval.high - interval.low) * i / n);
    Evaluator f(program);
    f(xs.data(), ys.data(), xs.size());
    double sum = 0, u0 = NAN, v0 = NAN, du0 = NAN, dv0 = NAN;
    for (int i = 0; i <= n; ++i) {
        const auto k = static_cast<std::size_t>(i);
        const double u = map.x.toSheet(xs[k]), v = map.y.toSheet(ys[k]);
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

std::string nested(int depth) { // written by functions of the page, five at a time
    std::string page = "f_0(x) = sin(sin(sin(sin(sin(x)))))";
    for (int k = 1; k < depth / 5; ++k)
        page += "\nf_" + std::to_string(k) + "(x) = f_0(f_" + std::to_string(k - 1) + "(x))";
    return page + "\nf(x) = f_" + std::to_string(depth / 5 - 1) + "(x)";
}
std::string writtenOut(const std::string& part, const char* sign, int count) {
    std::string all;
    for (int k = 1; k <= count; ++k) {
        std::string one = part;
        for (std::size_t at = 0; (at = one.find('#', at)) != std::string::npos;) one.replace(at, 1, std::to_string(k));
        all += (k == 1 ? "" : sign) + one;
    }
    return "f(x) = " + all;
}

double seconds(const auto& work) {
    const auto start = std::chrono::steady_clock::now();
    work();
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count();
}

/// What proofs cost by the size of the formula: for each evaluation over an interval, beside one point evaluated alone,
/// and beside all points of the curve evaluated together.
void bySize() {
    struct Sized {
        std::string name, page;
        Interval interval;
    };
    std::vector<Sized> all;
    for (const int n : {5, 20, 40, 100}) all.push_back({"sin nested " + std::to_string(n), nested(n), {0, 1}});
    for (const int n : {5, 20, 40, 100, 200}) {
        const std::string k = std::to_string(n);
        if (n <= 100) all.push_back({k + " factors written out", writtenOut("sin(x + #)", " * ", n), {0, 1}});
        all.push_back({"prod of " + k + " factors", "f(x) = prod_{k=1}^{" + k + "} sin(x + k)", {0, 1}});
        if (n <= 100) all.push_back({k + " terms written out", writtenOut("cos(# x)/#", " + ", n), {0, 1}});
        all.push_back({"sum of " + k + " terms", "f(x) = sum_{k=1}^{" + k + "} cos(k x)/k", {0, 1}});
    }
    for (const int n : {5, 20, 40}) {
        const std::string k = std::to_string(n);
        all.push_back(
            {"sum of " + k + " Bessel functions", "f(x) = sum_{k=1}^{" + k + "} J_{k}(9x) exp(-x)/k", {0, 1}});
        all.push_back({"sum of " + k + " error functions", "f(x) = sum_{k=1}^{" + k + "} erf(k x) sin(k x)/k", {0, 1}});
    }
    all.push_back({"0.5^n cos(3^n pi x), 40 terms", "f(x) = sum_{n=0}^{40} 0.5^n cos(3^n pi x)", {-3, 3}});
    std::printf("\n%-34s %10s %7s %7s %10s %9s %11s %9s %9s\n", "formula by size", "operations", "points", "proven",
                "intervals", "proofs ms", "without ms", "x a point", "x a curve");
    for (const Sized& each : all) {
        std::vector<std::string> lines;
        for (std::size_t from = 0; from <= each.page.size();) {
            const std::size_t to = std::min(each.page.find('\n', from), each.page.size());
            lines.push_back(each.page.substr(from, to - from));
            from = to + 1;
        }
        lines.push_back("x in [0, 1]");
        const Page page = readPage(lines);
        const std::vector<std::string> inputs{"x"};
        const auto program = compile(page, readPlotted(page, "f(x)").expression, inputs).program;
        std::vector<double> values;
        Evaluator f(*program);
        for (int i = 0; i <= 200; ++i)
            values.push_back(f(each.interval.low + (each.interval.high - each.interval.low) * i / 200));
        const auto [low, high] = std::minmax_element(values.begin(), values.end());
        const PanelMap map{{ScaleKind::Linear, each.interval.low, each.interval.high, 120},
                           {ScaleKind::Linear, *low, *high, 80}};
        CurveSamples samples;
        const double bare = seconds([&] { samples = sampleCurve(*program, each.interval, map, tolerance); });
        const double whole = seconds(
            [&] { samples = sampleCurve(*program, each.interval, map, tolerance, {}, {.proofs = Proofs::All}); });
        ProofEffort effort = ProofEffort::of(*program);
        const double proofs = seconds([&] { certify(samples, *program, map, tolerance, effort); });
        const std::size_t intervals = samples.certificate.evaluations;
        double sum = 0;
        const double points = seconds([&] {
            for (std::size_t i = 0; i < intervals; ++i) sum += f(static_cast<double>(i) / 1000);
        });
        if (std::isinf(sum)) std::printf("(values overflow)\n");
        std::vector<double> xs, ys;
        for (const Stretch& stretch : samples.stretches) xs.insert(xs.end(), stretch.x.begin(), stretch.x.end());
        ys.resize(xs.size());
        const double curve = seconds([&] {
            for (std::size_t i = 0; i < intervals; ++i) f(xs.data(), ys.data(), xs.size());
        });
        std::printf("%-34s %10zu %7zu %6.1f%% %10zu %9.2f %11.2f %9.1f %9.1f%s\n", each.name.c_str(),
                    program->instructions.size(), samples.pointCount(), 100 * samples.certificate.share(), intervals,
                    1000 * proofs, 1000 * bare, proofs / points, proofs / curve,
                    whole > 1 ? "  over a second in all" : "");
    }
}

} // namespace

int main() {
    std::printf("%-38s %6s %7s %6s %10s %7s %11s %9s\n", "formula", "points", "least", "ratio", "deviation", "proven",
                "evaluations", "intervals");
    double worstRatio = 0, worstDeviation = 0;
    double evaluationsPerChord = 0;
    int within = 0, proven = 0, count = 0;
    for (const Case& c : cases) {
        const std::vector<std::string> lines{std::string("f(x) = ") + c.formula, "x in [0, 1]"};
        const Page page = readPage(lines);
        const std::vector<std::string> inputs{"x"};
        const ExprPtr drawn = readPlotted(page, "f(x)").expression;
        const auto program = compile(page, drawn, inputs).program;
        const PanelMap map{{ScaleKind::Linear, c.interval.low, c.interval.high, 120},
                           {ScaleKind::Linear, c.low, c.high, 80}};
        const CurveSamples samples = sampleCurve(*program, c.interval, map, tolerance, {}, {.proofs = Proofs::All});
        const double least = leastNumber(*program, map, c.interval),
                     deviation = largestDeviation(*program, map, samples);
        const double points = static_cast<double>(samples.pointCount()), ratio = points / least;
        std::printf("%-38s %6zu %7.1f %6.2f %10.4f %6.1f%% %11zu %9zu\n", c.formula, samples.pointCount(), least, ratio,
                    deviation, 100 * samples.certificate.share(), samples.evaluations, samples.certificate.evaluations);
        ++count;
        evaluationsPerChord += static_cast<double>(samples.certificate.evaluations) / std::max(1.0, points - 1);
        within += points <= 1.4 * least + 20;
        proven += samples.certificate.share() >= 0.95;
        if (least > 20) worstRatio = std::max(worstRatio, ratio);
        worstDeviation = std::max(worstDeviation, deviation);
    }
    std::printf("%d functions: %d within 1.4 x least + 20 points, %d proven over at least 95 %% of their length; "
                "largest deviation %.4f mm of %.2f, largest ratio %.2f\n",
                count, within, proven, worstDeviation, tolerance, worstRatio);
    std::printf("%.2f evaluations over intervals for each chord in the mean\n", evaluationsPerChord / count);
    bySize();
}
