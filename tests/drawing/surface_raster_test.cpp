#include "drawing/space_canvas.h"
#include "drawing/surface_raster.h"
#include "make_faces.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>
#include <tbb/global_control.h>

using namespace coulter;

namespace {

std::uint32_t dotAt(const ImageItem& image, double x, double y) {
    const int i = static_cast<int>(std::floor((x - image.rect.x) * perMm)),
              j = static_cast<int>(std::floor((y - image.rect.y) * perMm));
    return image
        .pixels[static_cast<std::size_t>(j) * static_cast<std::size_t>(image.width) + static_cast<std::size_t>(i)];
}

ImageItem painted(const std::vector<Faces>& surfaces) {
    SurfaceRaster raster(room, perMm);
    raster.paint(surfaces);
    return raster.image(room);
}

constexpr std::uint32_t red = 0xff800000U, blue = 0xff000080U;
const Colour redColour{0x80, 0, 0}, blueColour{0, 0, 0x80};

} // namespace

TEST_CASE("the silhouette of a sphere is a circle to half a dot") {
    const ImageItem image = painted({ball({20, 15, 0}, 10, redColour)});
    double covered = 0;
    for (int j = 0; j < image.height; ++j) {
        for (int i = 0; i < image.width; ++i) {
            const double x = (i + 0.5) / perMm, y = (j + 0.5) / perMm, away = std::hypot(x - 20, y - 15);
            const std::uint32_t dot = image.pixels[static_cast<std::size_t>(j * image.width + i)];
            covered += (dot >> 24) / 255.0;
            if (away < 10 - 0.5 / perMm - 0.05 / perMm - 1 / perMm / std::sqrt(2.0)) CHECK(dot == red);
            if (away > 10 + 0.5 / perMm + 0.05 / perMm + 1 / perMm / std::sqrt(2.0)) CHECK(dot == 0);
        }
    }
    CHECK(covered / (perMm * perMm) == Approx(pi * 100).epsilon(1e-3));
}

TEST_CASE("surfaces that cross are each seen where they are nearer") {
    // One rises to the right, the other to the left: they meet at x = 20.
    const Faces rising = plane({{{5, 5, 0}, {35, 5, 30}, {35, 25, 30}, {5, 25, 0}}}, redColour),
                falling = plane({{{5, 5, 30}, {35, 5, 0}, {35, 25, 0}, {5, 25, 30}}}, blueColour);
    for (const auto& order : {std::vector{rising, falling}, std::vector{falling, rising}}) {
        const ImageItem image = painted(order);
        for (double y = 5.5; y < 24.5; y += 0.7) {
            CHECK(dotAt(image, 19.7, y) == blue);
            CHECK(dotAt(image, 20.3, y) == red);
        }
    }
}

TEST_CASE("triangles that share edges leave no gaps and no seams") {
    std::mt19937 engine(3);
    std::uniform_real_distribution<double> uniform(-0.4, 0.4);
    Faces faces;
    constexpr int n = 60;
    for (int j = 0; j <= n; ++j) {
        for (int i = 0; i <= n; ++i) {
            const bool edge = i == 0 || j == 0 || i == n || j == n;
            faces.points.push_back({5 + 30.0 * (i + (edge ? 0 : uniform(engine))) / n,
                                    5 + 20.0 * (j + (edge ? 0 : uniform(engine))) / n, uniform(engine)});
            faces.place.push_back(0);
        }
    }
    for (int j = 0; j < n; ++j) {
        for (int i = 0; i < n; ++i) {
            const auto a = static_cast<std::uint32_t>(j * (n + 1) + i), b = a + 1, c = a + n + 2, d = a + n + 1;
            faces.triangles.push_back({a, b, c});
            faces.triangles.push_back({a, c, d});
        }
    }
    faces.colours = {redColour};
    const ImageItem image = painted({faces});
    for (double x = 5.2; x < 34.8; x += 1 / perMm) {
        for (double y = 5.2; y < 24.8; y += 1 / perMm) CHECK(dotAt(image, x, y) == red);
    }
}

TEST_CASE("the dots are the same with any number of threads") {
    const std::vector<Faces> surfaces{ball({15, 15, 0}, 8, redColour), ball({22, 14, 3}, 7, blueColour)};
    const auto with = [&](std::size_t threads) {
        const tbb::global_control control(tbb::global_control::max_allowed_parallelism, threads);
        return painted(surfaces).pixels;
    };
    CHECK(with(1) == with(2));
    CHECK(with(1) == with(8));
}

TEST_CASE("colours are interpolated over a face, or are one for each") {
    Faces faces = plane({{{5, 5, 0}, {35, 5, 0}, {35, 25, 0}, {5, 25, 0}}}, redColour);
    faces.place = {0, 1, 1, 0};
    faces.colours.clear();
    for (int i = 0; i < 256; ++i) faces.colours.push_back({static_cast<std::uint8_t>(i), 0, 0});
    const ImageItem smooth = painted({faces});
    for (double x = 5.5; x < 34.5; x += 1.1)
        CHECK(static_cast<double>(dotAt(smooth, x, 15.3) >> 16 & 255U) ==
              Approx(255 * (std::floor(x * perMm) + 0.5 - 5 * perMm) / (30 * perMm)).margin(1));
    faces.flat = true;
    const ImageItem flat = painted({faces});
    CHECK(dotAt(flat, 30, 6) == dotAt(flat, 20, 6));
    CHECK(dotAt(flat, 30, 6) != dotAt(flat, 6, 20));
}

TEST_CASE("a sphere hides a line behind it, and not one before it or on it") {
    Frame frame;
    frame.rect = room;
    frame.map = {{ScaleKind::Linear, 0, 40, 40}, {ScaleKind::Linear, 0, 30, 30}};
    SpaceBox box; // seen along z: x to the right, y upwards
    box.axes = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
    for (AxisMap& map : box.maps) map = {ScaleKind::Linear, -50, 50, 100};
    frame.space = box;
    const auto lengthShown = [&](double z) {
        SpaceCanvas space(frame, perMm, false);
        space.faces(ball({20, 15, 0}, 10, redColour));
        space.line({{1, 15, z}, {39, 15, z}}, {blueColour, 0.2});
        Scene scene;
        space.finish(scene);
        double length = 0;
        for (const SceneItem& item : scene.items) {
            if (const auto* stroke = std::get_if<StrokeItem>(&item)) {
                for (const auto& line : stroke->lines) {
                    for (std::size_t i = 1; i < line.size(); ++i)
                        length += std::hypot(line[i].x - line[i - 1].x, line[i].y - line[i - 1].y);
                }
            }
        }
        return length;
    };
    CHECK(lengthShown(-15) == Approx(38 - 20).margin(1.5 / perMm));
    CHECK(lengthShown(15) == Approx(38));
    // Through its middle: hidden from where it enters.
    CHECK(lengthShown(0) == Approx(38 - 20).margin(0.6));
    // On it: a great circle towards the eye is seen whole.
    SpaceCanvas space(frame, perMm, false);
    space.faces(ball({20, 15, 0}, 10, redColour));
    std::vector<Place> circle;
    for (int i = 10; i <= 170; ++i)
        circle.push_back({20 + 10 * std::cos(i * pi / 180), 15, 10 * std::sin(i * pi / 180)});
    space.line(circle, {blueColour, 0.2});
    Scene scene;
    space.finish(scene);
    const auto* stroke = std::get_if<StrokeItem>(&scene.items.back());
    REQUIRE(stroke);
    CHECK(stroke->lines.size() == 1);
}

TEST_CASE("perspective keeps planes plane, and what is nearer is larger") {
    SpaceBox box;
    box.axes = viewAxes({35, 25});
    for (AxisMap& map : box.maps) map = {ScaleKind::Linear, -1, 1, 2};
    CHECK(box.seen({0.3, -0.2, 0.5})[0] == Approx(box.axes.right[0] * 0.3 + box.axes.right[1] * -0.2));
    box.distance = 5;
    const auto seen = [&](double x, double y, double z) { return box.seen({x, y, z}); };
    // Three places of a line stay on one.
    const auto a = seen(-1, -1, -1), b = seen(0.25, 0, 0.5), c = seen(1.5, 1, 2);
    const double turn = (b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1]),
                 tilt = (b[0] - a[0]) * (c[2] - a[2]) - (c[0] - a[0]) * (b[2] - a[2]);
    CHECK(turn == Approx(0).margin(1e-12));
    CHECK(tilt == Approx(0).margin(1e-12));
    const auto widthAt = [&](double towards) {
        std::array<double, 3> at{};
        for (std::size_t k = 0; k < 3; ++k) at[k] = towards * box.axes.towards[k];
        const auto left = seen(at[0], at[1], at[2]),
                   right = seen(at[0] + box.axes.right[0], at[1] + box.axes.right[1], at[2]);
        return std::hypot(right[0] - left[0], right[1] - left[1]);
    };
    CHECK(widthAt(1) / widthAt(0) == Approx(5.0 / 4));
    CHECK(widthAt(-1) / widthAt(0) == Approx(5.0 / 6));
}
