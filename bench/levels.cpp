// Lines and areas of levels, and surfaces, beside one pass over the grid that finds its least and greatest value.
#include "drawing/field_image.h"
#include "drawing/surface_raster.h"
#include "sampling/isolines.h"
#include "shortest.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

using namespace coulter;

int main() {
    constexpr std::size_t side = 2048;
    FieldSamples grid;
    for (std::size_t i = 0; i < side; ++i) {
        grid.columns.push_back(-3 + 6.0 * static_cast<double>(i) / (side - 1));
        grid.rows.push_back(-2 + 4.0 * static_cast<double>(i) / (side - 1));
    }
    grid.values.emplace_back();
    for (const double y : grid.rows) {
        for (const double x : grid.columns)
            grid.values[0].push_back(std::sin(3 * x) * std::cos(2 * y) + std::exp(-x * x - y * y));
    }
    const PanelMap map{{ScaleKind::Linear, -3, 3, 120}, {ScaleKind::Linear, -2, 2, 80}};
    std::vector<double> levels;
    for (int i = 0; i < 10; ++i) levels.push_back(-0.9 + 0.22 * i);
    volatile double kept = 0;
    const double pass = milliseconds([&] {
        double low = HUGE_VAL, high = -HUGE_VAL;
        for (const double value : grid.values[0]) {
            low = std::min(low, value);
            high = std::max(high, value);
        }
        kept = low + high;
    });
    const auto say = [&](const char* what, double ms) {
        std::printf("%-52s %9.1f ms %7.1f passes\n", what, ms, ms / pass);
    };
    say("least and greatest of 2048 x 2048 values", pass);
    say("lines of 10 levels",
        milliseconds([&] { kept = static_cast<double>(followLevels(grid, levels, nullptr, map, {}).lines.size()); }));
    say("lines and areas of 10 levels", milliseconds([&] {
            kept = static_cast<double>(followLevels(grid, levels, nullptr, map, {}, true).above.size());
        }));
    // A picture of 1600 x 1200 dots, smooth, beside a plain copy of the numbers that it shows.
    std::vector<double> copy(side * side);
    const double copied = milliseconds([&] {
        std::copy(grid.values[0].begin(), grid.values[0].end(), copy.begin());
        kept = copy[77];
    });
    Frame frame;
    frame.rect = {0, 0, 120, 80};
    frame.map = map;
    frame.colour = {ScaleKind::Linear, -1, 2, 80};
    frame.rect.height = frame.map.y.length = 90;
    const double smooth =
        milliseconds([&] { kept = fieldImage(grid, FieldFill::Smooth, frame, 1600.0 / 120).pixels[99]; });
    say("a copy of the values", copied);
    say("a smooth heatmap of them, 1600 x 1200 dots", smooth);
    std::printf("%-52s %9.2f copies\n", "", smooth / copied);
    Faces faces;
    constexpr std::uint32_t cells = 1000;
    for (std::uint32_t j = 0; j <= cells; ++j) {
        for (std::uint32_t i = 0; i <= cells; ++i) {
            const double x = i / 500.0 - 1, y = j / 500.0 - 1, z = std::exp(-3 * (x * x + y * y));
            faces.points.push_back({80 + 50 * (x - 0.4 * y), 50 + 25 * (y - 1.2 * z + 0.3 * x), 10 * z - y});
            faces.place.push_back(static_cast<float>(z));
        }
    }
    for (std::uint32_t j = 0; j < cells; ++j) {
        for (std::uint32_t i = 0; i < cells; ++i) {
            const std::uint32_t a = j * (cells + 1) + i, c = a + cells + 2;
            faces.triangles.push_back({a, a + 1, c});
            faces.triangles.push_back({a, c, c - 1});
        }
    }
    for (int i = 0; i < 256; ++i) faces.colours.push_back({static_cast<std::uint8_t>(i), 0, 0});
    const std::vector<Faces> surfaces{faces};
    say("a surface of a million cells at 1280 x 800", milliseconds([&] {
            SurfaceRaster raster({0, 0, 160, 100}, 8);
            raster.paint(surfaces);
        }));
    return 0;
}
