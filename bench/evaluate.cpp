// Compiled formulas beside the same loops written by hand over the same kernels, and beside the C library.
#include "formula/compile/compile.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"

#include <benchmark/benchmark.h>
#include <cmath>
#include <vector>

using namespace coulter;

namespace {

constexpr std::size_t points = 1 << 16;
constexpr std::size_t blockSize = Evaluator::blockSize;

std::vector<double> places() {
    std::vector<double> xs(points);
    for (std::size_t i = 0; i < points; ++i) xs[i] = 0.1 + 1e-4 * static_cast<double>(i);
    return xs;
}

std::shared_ptr<const Program> compiled(const std::string& formula) {
    const std::vector<std::string> lines{"f(x) = " + formula, "x in [0, 1]"};
    const Page page = readPage(lines);
    return compile(page, readPlotted(page, "f(x)").expression, std::vector<std::string>{"x"}).program;
}

void formula(benchmark::State& state, const char* text) {
    const auto program = compiled(text);
    const auto xs = places();
    std::vector<double> ys(points);
    Evaluator evaluator(*program);
    for (auto _ : state) {
        evaluator(xs.data(), ys.data(), points);
        benchmark::DoNotOptimize(ys.data());
    }
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations() * points));
    state.counters["registers_KiB"] = static_cast<double>(program->registerCount() * blockSize * 8) / 1024;
}

/// The same over all cores.
void inParallel(benchmark::State& state, const char* text) {
    const auto program = compiled(text);
    const std::size_t many = 16 * points;
    std::vector<double> xs(many), ys(many);
    for (std::size_t i = 0; i < many; ++i) xs[i] = 0.1 + 1e-5 * static_cast<double>(i);
    const double* in = xs.data();
    double* out = ys.data();
    Evaluator alone(*program);
    for (auto _ : state) {
        if (state.range(0) == 1)
            alone(xs.data(), ys.data(), many);
        else
            evaluateInParallel(*program, std::span(&in, 1), std::span<double* const>(&out, 1), many);
        benchmark::DoNotOptimize(ys.data());
    }
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations() * many));
}

/// sin(x) exp(-x) with the same vector kernels, block by block.
void mixtureByHand(benchmark::State& state) {
    const auto xs = places();
    std::vector<double> ys(points);
    alignas(64) static double x[256], a[256], b[256];
    const InstructionSet set = bestInstructionSet();
    const BlockKernel sine = blockKernel(Kernel::Sin, set), exponential = blockKernel(Kernel::Exp, set),
                      negate = blockKernel(Kernel::Negate, set), multiply = blockKernel(Kernel::Multiply, set);
    for (auto _ : state) {
        for (std::size_t start = 0; start < points; start += 256) {
            std::copy_n(xs.data() + start, 256, x);
            sine(x, x, a, 256);
            negate(x, x, b, 256);
            exponential(b, b, b, 256);
            multiply(a, b, a, 256);
            std::copy_n(a, 256, ys.data() + start);
        }
        benchmark::DoNotOptimize(ys.data());
    }
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations() * points));
}

/// The same with the C library, point by point.
void mixtureWithLibrary(benchmark::State& state) {
    const auto xs = places();
    std::vector<double> ys(points);
    for (auto _ : state) {
        for (std::size_t i = 0; i < points; ++i) ys[i] = std::sin(xs[i]) * std::exp(-xs[i]);
        benchmark::DoNotOptimize(ys.data());
    }
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations() * points));
}

void polynomialByHand(benchmark::State& state) {
    const auto xs = places();
    std::vector<double> ys(points);
    for (auto _ : state) {
        for (std::size_t i = 0; i < points; ++i) {
            const double x = xs[i];
            ys[i] = 1 + x * (2 - x * (3 + x * (4 - x)));
        }
        benchmark::DoNotOptimize(ys.data());
    }
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations() * points));
}

/// J_0(x), point by point through the function of the catalogue.
void besselDirect(benchmark::State& state) {
    const auto xs = places();
    std::vector<double> ys(points);
    for (auto _ : state) {
        for (std::size_t i = 0; i < points; ++i) {
            const double v[] = {0, xs[i]};
            ys[i] = besselJ(v);
        }
        benchmark::DoNotOptimize(ys.data());
    }
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations() * points));
}

/// A page of 100 lines: read, resolved and each function compiled.
void pageOf100Lines(benchmark::State& state) {
    std::vector<std::string> lines;
    for (int i = 0; i < 25; ++i) {
        const std::string n = std::to_string(i);
        lines.push_back("a_" + n + " = " + n + ".5, unit m, from 0 to 100");
        lines.push_back("b_" + n + " = 2 a_" + n + " + sqrt(a_" + std::to_string(i / 2) + ")");
        lines.push_back("f_" + n + "(x, t) = b_" + n + " exp(-x/a_" + n + ") cos(2 pi t - x/a_" + n + ")");
        lines.push_back("# Line " + n + " of the words between.");
    }
    lines.push_back("x in [0, 1], unit m");
    for (auto _ : state) {
        const Page page = readPage(lines);
        for (const Line& line : page.lines) {
            if (line.kind == LineKind::Function)
                benchmark::DoNotOptimize(compile(page, line.body, line.parameters).program);
        }
    }
}

} // namespace

BENCHMARK_CAPTURE(formula, mixture, "sin(x) exp(-x)");
BENCHMARK(mixtureByHand);
BENCHMARK(mixtureWithLibrary);
BENCHMARK_CAPTURE(formula, polynomial, "1 + x (2 - x (3 + x (4 - x)))");
BENCHMARK(polynomialByHand);
BENCHMARK_CAPTURE(formula, bessel, "J_0(x)");
BENCHMARK(besselDirect);
BENCHMARK_CAPTURE(formula, integral, "int_0^1 cos(x sin(k)) dk");
BENCHMARK_CAPTURE(inParallel, mixture, "sin(x) exp(-x) + ln(1 + x^2) arctan(x)")->Arg(1)->Arg(2)->UseRealTime();
BENCHMARK(pageOf100Lines)->Unit(benchmark::kMicrosecond);
BENCHMARK_MAIN();
