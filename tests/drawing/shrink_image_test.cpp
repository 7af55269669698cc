#include "drawing/shrink_image.h"

#include <catch2/catch.hpp>
#include <random>

using namespace coulter;

namespace {

ImageItem image(int width, int height, std::uint32_t colour) {
    ImageItem item;
    item.width = width;
    item.height = height;
    item.pixels.assign(static_cast<std::size_t>(width) * static_cast<std::size_t>(height), colour);
    return item;
}

int part(std::uint32_t pixel, int shift) { return static_cast<int>(pixel >> shift & 0xffU); }

} // namespace

TEST_CASE("an image of one colour keeps it when it shrinks, wherever it lies on the raster") {
    for (const double x : {0.0, 0.25, 3.7}) {
        for (const double width : {10.0, 12.4, 33.3}) {
            const ShrunkImage small = shrunk(image(100, 70, 0xff336699U), {x, 2, width, 20});
            INFO(x << ", " << width);
            CHECK(small.left == static_cast<int>(x));
            CHECK(small.left + small.width >= x + width - 1e-6);
            for (int i = 1; i + 1 < small.width; ++i) // but for the dots at its sides
                CHECK(small.pixels[static_cast<std::size_t>(i)] == 0xff336699U);
        }
    }
}

TEST_CASE("a dot of a smaller image is the mean of what lies under it, by area") {
    std::mt19937 random(3);
    ImageItem item = image(37, 23, 0);
    for (std::uint32_t& pixel : item.pixels) pixel = 0xff000000U | (random() & 0xffffffU);
    const Rect place{1.3, 0.6, 11.2, 6.9};
    const ShrunkImage small = shrunk(item, place);
    // By brute force: many points within each dot.
    constexpr int points = 60;
    for (int y = 0; y < small.height; ++y) {
        for (int x = 0; x < small.width; ++x) {
            double sums[4] = {};
            for (int v = 0; v < points; ++v) {
                for (int u = 0; u < points; ++u) {
                    const double px = small.left + x + (u + 0.5) / points, py = small.top + y + (v + 0.5) / points;
                    const int i = static_cast<int>(std::floor((px - place.x) / place.width * item.width)),
                              j = static_cast<int>(std::floor((py - place.y) / place.height * item.height));
                    if (i < 0 || j < 0 || i >= item.width || j >= item.height) continue;
                    const std::uint32_t dot = item.pixels[static_cast<std::size_t>(j * item.width + i)];
                    for (int k = 0; k < 4; ++k) sums[k] += part(dot, 24 - 8 * k);
                }
            }
            const std::uint32_t pixel = small.pixels[static_cast<std::size_t>(y * small.width + x)];
            for (int k = 0; k < 4; ++k)
                CHECK(part(pixel, 24 - 8 * k) == Approx(sums[k] / (points * points)).margin(3.5));
        }
    }
}

TEST_CASE("what is clear of an image stays clear, and nothing is drawn of one without dots") {
    ImageItem half = image(40, 40, 0);
    for (std::size_t i = 0; i < 800; ++i) half.pixels[i] = 0xff202020U;
    const ShrunkImage small = shrunk(half, {0, 0, 10, 10});
    CHECK(small.pixels[5] == 0xff202020U);
    CHECK(small.pixels[95] == 0);
    CHECK(shrunk(half, {0, 0, 0, 0}).pixels.empty());
    CHECK(shrunk(image(0, 0, 0), {0, 0, 5, 5}).pixels.empty());
}
