#include "drawing/thinning.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

using namespace coulter;

namespace {

constexpr Rect panel{10, 10, 100, 60};

std::size_t size(const Scene& scene) {
    std::size_t count = 0;
    for (const SceneItem& item : scene.items) {
        if (const auto* stroke = std::get_if<StrokeItem>(&item)) {
            for (const auto& line : stroke->lines) count += line.size();
        }
        if (const auto* fill = std::get_if<FillItem>(&item)) {
            for (const auto& polygon : fill->polygons) count += polygon.size();
        }
    }
    return count;
}

} // namespace

TEST_CASE("a line of a million points keeps the lowest and highest of each column") {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> y(10, 70);
    std::vector<Point> line;
    for (int i = 0; i < 1'000'000; ++i) line.push_back({10 + i * 1e-4, y(random)});
    const std::vector<Point> thin = thinnedLine(line);
    CHECK(thin.size() < 25'000);
    // No point of the line is farther from what is kept than the width of a column.
    std::size_t k = 0;
    for (std::size_t i = 0; i < line.size(); i += 1000) {
        double low = HUGE_VAL, high = -HUGE_VAL;
        for (std::size_t j = k; j < thin.size() && thin[j].x <= line[i].x + finestDetail; ++j) {
            if (thin[j].x < line[i].x - finestDetail) {
                k = j;
                continue;
            }
            low = std::min(low, thin[j].y);
            high = std::max(high, thin[j].y);
        }
        CHECK(low <= line[i].y);
        CHECK(high >= line[i].y);
    }
}

TEST_CASE("a million marks become dots that cover the same paper") {
    std::mt19937 random(4);
    std::uniform_real_distribution<double> x(5, 115), y(5, 75);
    std::vector<Point> places;
    for (int i = 0; i < 30'000; ++i) places.push_back({x(random), y(random)});
    const Paint paint{{10, 20, 30}, 0.5};
    Scene dense;
    Canvas(dense, panel, 10).marks(places, {circle(0.2)}, &paint, nullptr);
    REQUIRE(dense.items.size() == 1);
    const ImageItem& image = std::get<ImageItem>(dense.items[0]);
    // Against arithmetic: a dot far inside a mark is covered wholly, one far from all marks not at all.
    std::size_t wrong = 0;
    for (int row = 0; row < image.height; row += 13) {
        for (int column = 0; column < image.width; column += 11) {
            const Point middle{image.rect.x + (column + 0.5) / 10, image.rect.y + (row + 0.5) / 10};
            double nearest = HUGE_VAL;
            for (const Point& p : places) {
                if (panel.grown(0.1).contains(p))
                    nearest = std::min(nearest, std::hypot(p.x - middle.x, p.y - middle.y));
            }
            const std::uint32_t alpha =
                image.pixels[static_cast<std::size_t>(row) * static_cast<std::size_t>(image.width) +
                             static_cast<std::size_t>(column)] >>
                24;
            if (nearest < 0.05 && alpha != 128) ++wrong;
            if (nearest > 0.35 && alpha != 0) ++wrong;
        }
    }
    CHECK(wrong == 0);
}

TEST_CASE("overlapping upright and level lines are joined, apart ones stay apart, and others are left alone") {
    ManySegments many(panel);
    for (int i = 0; i < 60'000; ++i) many.add({11, 10}, {11, 15}); // the same again and again
    many.add({11.001, 14}, {11.001, 19});
    many.add({11, 20}, {11, 30});
    many.add({10, 10}, {13, 14});
    many.add({15, 15}, {16, 15});
    many.add({15.5, 15}, {17, 15});
    const Polylines merged = many.lines();
    REQUIRE(merged.size() == 4);
    const auto has = [&](Point a, Point b) {
        return std::ranges::any_of(merged, [&](const auto& line) {
            return std::hypot(line[0].x - a.x, line[0].y - a.y) < 1.5 * finestDetail &&
                   std::hypot(line[1].x - b.x, line[1].y - b.y) < 1.5 * finestDetail;
        });
    };
    CHECK(has({11, 10}, {11, 19}));
    CHECK(has({11, 20}, {11, 30}));
    CHECK(has({15, 15}, {17, 15}));
    CHECK(has({10, 10}, {13, 14}));
}

TEST_CASE("a million of anything is a drawing of few points") {
    std::mt19937 random(5);
    std::uniform_real_distribution<double> x(10, 110), y(10, 70);
    ManySegments bars(panel);
    for (int i = 0; i < 1'000'000; ++i) {
        const double at = x(random);
        bars.add({at, 70}, {at, y(random)});
    }
    Scene scene;
    Canvas(scene, panel, 12).stroke(bars.lines(), {{0, 0, 0}, 0.2});
    CHECK(size(scene) < 30'000);
}
