#include "drawing/cairo_painter.h"
#include "drawing/surface_vectors.h"
#include "make_faces.h"

#include <catch2/catch.hpp>
#include <random>
#include <tbb/global_control.h>

using namespace coulter;

namespace {

Scene sceneOf(const std::vector<Faces>& surfaces) {
    Scene scene{room.width, room.height, {}};
    const auto items = surfaceVectors(surfaces, room);
    REQUIRE(items);
    for (const FillItem& item : *items) scene.items.emplace_back(item);
    return scene;
}

/// Dots of the polygons that differ from those of the depth buffer, which knows nothing of any order; not beside a
/// change of colour, where seams and half covered dots are.
struct Difference {
    int compared = 0, differing = 0;
};
Difference differenceOf(const std::vector<Faces>& surfaces, int tolerance) {
    SurfaceRaster raster(room, perMm);
    raster.paint(surfaces);
    const ImageItem truth = raster.image(room);
    const Raster shown = paintRaster(sceneOf(surfaces), perMm, Colour{0xff, 0xff, 0xff});
    REQUIRE(shown.width == truth.width);
    const auto at = [&](int x, int y) {
        return truth
            .pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(truth.width) + static_cast<std::size_t>(x)];
    };
    const auto apart = [](std::uint32_t a, std::uint32_t b) {
        int most = 0;
        for (unsigned shift = 0; shift < 24; shift += 8)
            most = std::max(most, std::abs(static_cast<int>(a >> shift & 0xff) - static_cast<int>(b >> shift & 0xff)));
        return most;
    };
    Difference found;
    for (int y = 1; y + 1 < truth.height; ++y) {
        for (int x = 1; x + 1 < truth.width; ++x) {
            const std::uint32_t dot = at(x, y);
            bool even = true;
            for (int j = -1; j <= 1; ++j) {
                for (int i = -1; i <= 1; ++i) {
                    const std::uint32_t near = at(x + i, y + j);
                    even = even && near >> 24 == dot >> 24 && apart(near, dot) <= tolerance;
                }
            }
            if (!even) continue;
            ++found.compared;
            const std::uint32_t wanted = dot >> 24 == 0 ? 0xffffffffU : dot;
            if (apart(wanted, shown.pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(shown.width) +
                                           static_cast<std::size_t>(x)]) > tolerance)
                ++found.differing;
        }
    }
    return found;
}

Faces triangleOf(const std::array<SeenPoint, 3>& corners, Colour colour) {
    Faces faces;
    faces.points.assign(corners.begin(), corners.end());
    faces.place.assign(3, 0);
    faces.triangles = {{0, 1, 2}};
    faces.colours = {colour};
    return faces;
}

} // namespace

TEST_CASE("polygons of surfaces that cross show what is nearest") {
    const Faces one = plane({{{5, 5, 0}, {35, 5, 0}, {35, 25, 0}, {5, 25, 0}}}, {200, 0, 0}),
                other = plane({{{8, 3, -4}, {32, 3, 4}, {32, 27, 4}, {8, 27, -4}}}, {0, 0, 200});
    for (const auto& both : {std::vector{one, other}, std::vector{other, one}}) {
        const Difference found = differenceOf(both, 5);
        CHECK(found.compared > 70'000);
        CHECK(found.differing == 0);
    }
    // A ball that sticks half out of a plane.
    const Difference found = differenceOf({ball({20, 15, 1}, 9, {0, 150, 0}, 40), one}, 5);
    CHECK(found.compared > 70'000);
    CHECK(found.differing == 0);
}

TEST_CASE("three bars, each before the next and the last before the first, are all seen rightly") {
    const Faces a = plane({{{5, 8, 0}, {35, 8, 4}, {35, 11, 4}, {5, 11, 0}}}, {200, 0, 0}),
                b = plane({{{28, 5, 0}, {31, 5, 0}, {20, 27, 4}, {17, 27, 4}}}, {0, 160, 0}),
                c = plane({{{10, 5, 4}, {13, 5, 4}, {24, 27, 0}, {21, 27, 0}}}, {0, 0, 200});
    const Difference found = differenceOf({a, b, c}, 5);
    CHECK(found.compared > 60'000);
    CHECK(found.differing == 0);
}

TEST_CASE("polygons made up by chance, through one another, show what is nearest") {
    for (unsigned seed = 1; seed <= 12; ++seed) {
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> across(0, 40), down(0, 30), depth(-10, 10);
        std::uniform_int_distribution<int> tone(0, 255);
        std::vector<Faces> all;
        for (int i = 0; i < 40; ++i) {
            std::array<SeenPoint, 3> corners;
            for (SeenPoint& corner : corners) corner = {across(random), down(random), depth(random)};
            const auto next = [&] { return static_cast<std::uint8_t>(tone(random)); };
            all.push_back(triangleOf(corners, {next(), next(), next()}));
        }
        INFO("seed " << seed);
        const Difference found = differenceOf(all, 64);
        CHECK(found.compared > 20'000);
        CHECK(found.differing <= 3); // needles that the four places in a dot miss
    }
}

TEST_CASE("colours that run over a face are cut into steps that are hardly seen") {
    Faces ramp = plane({{{4, 4, 0}, {36, 4, 0}, {36, 26, 0}, {4, 26, 0}}}, {});
    ramp.place = {0, 1, 1, 0};
    ramp.colours.clear();
    for (int i = 0; i < 256; ++i) ramp.colours.push_back({static_cast<std::uint8_t>(i), 60, 90});
    const Difference found = differenceOf({ramp}, 6);
    CHECK(found.compared > 70'000);
    CHECK(found.differing == 0);
    // One colour throughout is one polygon for each triangle, and no more.
    ramp.flat = true;
    std::size_t polygons = 0;
    const auto flat = surfaceVectors({ramp}, room);
    for (const FillItem& item : *flat) polygons += item.polygons.size();
    CHECK(polygons == 2);
}

TEST_CASE("polygons leave no seam between them, and are the same with any number of threads") {
    Faces green = ball({20, 15, 0}, 12, {0, 120, 0}, 50);
    const Raster shown = paintRaster(sceneOf({green}), perMm, Colour{0xff, 0xff, 0xff});
    for (int y = 0; y < shown.height; ++y) {
        for (int x = 0; x < shown.width; ++x) {
            if (std::hypot((x + 0.5) / perMm - 20, (y + 0.5) / perMm - 15) > 11.8) continue;
            const std::uint32_t dot = shown.pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(shown.width) +
                                                   static_cast<std::size_t>(x)];
            const auto channel = [&](unsigned shift) { return static_cast<int>(dot >> shift & 0xff); };
            REQUIRE(std::max({channel(16), std::abs(channel(8) - 120), channel(0)}) <= 3);
        }
    }
    green.light.resize(green.points.size());
    for (std::size_t i = 0; i < green.light.size(); ++i) green.light[i] = static_cast<float>(i % 97) / 97;
    const auto polygonsWith = [&](std::size_t threads) {
        const tbb::global_control control(tbb::global_control::max_allowed_parallelism, threads);
        std::vector<double> numbers;
        const auto items = surfaceVectors({green, ball({26, 15, 3}, 9, {90, 0, 0}, 30)}, room);
        for (const FillItem& item : *items) {
            for (const auto& polygon : item.polygons) {
                for (const Point& p : polygon) numbers.insert(numbers.end(), {p.x, p.y});
            }
        }
        return numbers;
    };
    const auto alone = polygonsWith(1);
    CHECK(alone.size() > 10'000);
    CHECK(alone == polygonsWith(2));
    CHECK(alone == polygonsWith(8));
}

TEST_CASE("what has too many polygons, or too many over one another, is left to dots; a stop is obeyed") {
    CHECK_FALSE(surfaceVectors({ball({20, 15, 0}, 12, {0, 120, 0}, 130)}, room)); // 67 600 triangles
    std::vector<Faces> heap;                                                      // each over all others
    for (int i = 0; i < 3000; ++i)
        heap.push_back(triangleOf({{{5, 5, 0.01 * i}, {35, 5, 0.01 * i}, {20, 25, 0.01 * i}}}, {1, 2, 3}));
    CHECK_FALSE(surfaceVectors(heap, room));
    heap.resize(100);
    CHECK(surfaceVectors(heap, room)->size() == 100);
    std::stop_source stop;
    stop.request_stop();
    CHECK_FALSE(surfaceVectors(heap, room, stop.get_token()));
}
