// Compiled formulas beside the same loops written by hand over the same kernels.
#include "formula/plotted.h"

#include <benchmark/benchmark.h>
#include <cmath>
#include <vector>

using namespace coulter;

namespace {

constexpr std::size_t points = 1 << 16;

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
}

/// sin(x) exp(-x) with the same vector kernels, block by block.
void byHand(benchmark::State& state) {
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
void withLibrary(benchmark::State& state) {
    const auto xs = places();
    std::vector<double> ys(points);
    for (auto _ : state) {
        for (std::size_t i = 0; i < points; ++i) ys[i] = std::sin(xs[i]) * std::exp(-xs[i]);
        benchmark::DoNotOptimize(ys.data());
    }
    state.SetItemsProcessed(static_cast<std::int64_t>(state.iterations() * points));
}

} // namespace

BENCHMARK_CAPTURE(formula, sine_times_exponential, "sin(x) exp(-x)");
BENCHMARK(byHand);
BENCHMARK(withLibrary);
BENCHMARK_CAPTURE(formula, polynomial, "1 + x (2 - x (3 + x (4 - x)))");
BENCHMARK_MAIN();
