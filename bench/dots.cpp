// Heatmaps by dots, and ten proven levels, beside the bare evaluation of as many values as the picture has dots.
#include "formula/compile/compile.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"
#include "sampling/dot_samples.h"
#include "sampling/field.h"
#include "sampling/isolines.h"
#include "sampling/zero_proof.h"
#include "shortest.h"

#include <cstdio>
#include <string>

using namespace coulter;

namespace {

/// 1417 × 945 dots: 120 mm × 80 mm at 300 dots per inch.
DotSide side(double low, double high, int dots) {
    DotSide made;
    const auto at = [&](double dot) { return low + dot / dots * (high - low); };
    for (int i = 0; i <= dots; ++i) made.edges.push_back(at(i));
    for (int i = 0; i < dots; ++i) made.middles.push_back(at(i + 0.5));
    for (int i = 0; i < 4 * dots; ++i) made.parts.push_back(at((i + 0.5) / 4));
    return made;
}

} // namespace

int main() {
    volatile double kept = 0;
    const std::array<Interval, 2> square{Interval{-3, 3}, Interval{-2, 2}};
    const DotSide across = side(-3, 3, 1417), down = side(-2, 2, 945);
    const PanelMap map{{ScaleKind::Linear, -3, 3, 120}, {ScaleKind::Linear, -2, 2, 80}};
    std::printf("%-34s %12s %12s %8s %14s %8s\n", "1417 x 945 dots of", "bare, ms", "dots, ms", "times",
                "10 levels, ms", "times");
    for (const std::string formula : {"sin(3x) cos(2y)", "exp(-x^2 - y^2) + x y/5", "J_0(4 sqrt(x^2 + y^2))",
                                      "arctan(y, x)", "sqrt(3 - x^2 - y^2)"}) {
        const Page page = readPage(std::vector<std::string>{"f(x, y) = " + formula, "x in [-3, 3]", "y in [-2, 2]"});
        const Plotted plotted = readPlotted(page, "f(x, y)", 2);
        const auto f = compile(page, plotted.expression, plotted.variables).program;
        const double bare = milliseconds([&] { kept = sampleMeshgrid(*f, across.middles, down.middles).values[0][7]; });
        const double dots = milliseconds([&] { kept = sampleDots(*f, square, across, down, {-1, 1}).values[7]; });
        const double proven = milliseconds([&] {
            std::vector<double> levels;
            for (int i = 0; i < 10; ++i) levels.push_back(-0.9 + 0.2 * i);
            const FieldSamples samples = sampleMesh(*f, square, map, {0.02, -1, 1, levels, true, true});
            for (const double level : levels) {
                const LevelLines found = followLevels(samples, {level}, f.get(), map, {});
                kept = proveLevel(*f, level, found.lines, {}, map, {0, 0, 120, 80}, {}).share();
            }
        });
        std::printf("%-34s %12.1f %12.1f %8.2f %14.1f %8.2f\n", formula.c_str(), bare, dots, dots / bare, proven,
                    proven / bare);
    }
}
