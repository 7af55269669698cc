#include "drawing/field_image.h"

#include "drawing/cairo_painter.h"
#include "drawing/colours.h"
#include "drawing/image_bytes.h"
#include "drawing/oklab.h"
#include "drawing/svg_writer.h"
#include "drawing/ticks.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

/// A panel of 10 × 10 mm at (5, 5) over [0, 10] × [0, 10], colours from 0 to 1.
Frame frame() {
    Frame l;
    l.rect = {5, 5, 10, 10};
    l.map = {{ScaleKind::Linear, 0, 10, 10}, {ScaleKind::Linear, 0, 10, 10}};
    l.colour = {ScaleKind::Linear, 0, 1, 10};
    return l;
}

/// Colour at a place of the panel, in its coordinates.
std::uint32_t at(const ImageItem& image, double x, double y) {
    const double perMm = image.width / image.rect.width;
    const auto column = static_cast<std::size_t>((5 + x - image.rect.x) * perMm),
               row = static_cast<std::size_t>((15 - y - image.rect.y) * perMm);
    return image.pixels[row * static_cast<std::size_t>(image.width) + column];
}

std::uint32_t shade(double t) {
    const Colour c = loam(t);
    return 0xff000000U | static_cast<std::uint32_t>(c.red) << 16 | static_cast<std::uint32_t>(c.green) << 8 | c.blue;
}

double lightness(std::uint32_t pixel) {
    return toOkLab({static_cast<std::uint8_t>(pixel >> 16), static_cast<std::uint8_t>(pixel >> 8),
                    static_cast<std::uint8_t>(pixel)})
        .lightness;
}

} // namespace

TEST_CASE("the colour map's lightness falls evenly from pale to dark") {
    double before = toOkLab(loam(0)).lightness;
    CHECK(before > 0.94);
    for (int i = 1; i <= 100; ++i) {
        const double here = toOkLab(loam(i / 100.0)).lightness;
        CHECK(before - here == Approx(0.00765).margin(0.004)); // to the rounding of 8 bits
        before = here;
    }
    CHECK(before < 0.24);
    CHECK(loam(-1) == loam(0));
    CHECK(loam(2) == loam(1));
}

TEST_CASE("cells of a meshgrid are centred on their points and have one colour each") {
    FieldSamples s;
    s.columns = {2.5, 7.5};
    s.rows = {2.5, 7.5};
    s.values = {{0, 0.25, 0.5, std::nan("")}};
    const ImageItem image = fieldImage(s, FieldFill::Cells, frame(), 8);
    CHECK(image.width == 80);
    CHECK(image.rect.x == 5);
    for (const double in : {0.1, 2.5, 4.9}) {
        CHECK(at(image, in, in) == at(image, 2.5, 2.5));
        CHECK(at(image, in + 5, in) == at(image, 7.5, 2.5));
        CHECK(at(image, in, in + 5) == at(image, 2.5, 7.5));
        CHECK(at(image, in + 5, in + 5) == 0); // undefined stays clear
    }
    CHECK(lightness(at(image, 2.5, 2.5)) == Approx(lightness(shade(0))).margin(0.01));
    CHECK(lightness(at(image, 7.5, 2.5)) == Approx(lightness(shade(0.25))).margin(0.01));
    CHECK(lightness(at(image, 2.5, 7.5)) == Approx(lightness(shade(0.5))).margin(0.01));
}

TEST_CASE("a smooth field is interpolated, in a meshgrid and in a mesh alike") {
    FieldSamples grid;
    grid.columns = {0, 10};
    grid.rows = {0, 10};
    grid.values = {{0, 0.5, 0.5, 1}};
    FieldSamples mesh;
    mesh.x = {0, 10, 10, 0};
    mesh.y = {0, 0, 10, 10};
    mesh.values = {{0, 0.5, 1, 0.5}};
    mesh.triangles = {{0, 1, 2}, {0, 2, 3}};
    const ImageItem a = fieldImage(grid, FieldFill::Smooth, frame(), 8),
                    b = fieldImage(mesh, FieldFill::Smooth, frame(), 8);
    for (double x = 0.3; x < 10; x += 1.1) {
        for (double y = 0.4; y < 10; y += 1.3) {
            CHECK(lightness(at(a, x, y)) == Approx(lightness(shade((x + y) / 20))).margin(0.02));
            CHECK(at(a, x, y) == at(b, x, y));
        }
    }
    CHECK(std::ranges::count(b.pixels, 0U) == 0); // no crack along the diagonal
    const ImageItem flat = fieldImage(mesh, FieldFill::Cells, frame(), 8);
    CHECK(at(flat, 9, 1) == at(flat, 6, 5));
    CHECK(at(flat, 9, 1) == at(flat, 1, 9)); // both triangles have the mean of one half
    CHECK(meshLines(mesh, frame()).size() == 5);
    CHECK(meshLines(grid, frame()).size() == 2); // outer borders lie beyond the panel
}

TEST_CASE("no resolution makes a field's picture exhaust the memory") {
    FieldSamples s;
    s.columns = {0, 10};
    s.rows = {0, 10};
    s.values = {{0, 0.5, 0.5, 1}};
    const ImageItem image = fieldImage(s, FieldFill::Smooth, frame(), 1e5);
    CHECK(image.pixels.size() > 1'000'000);
    CHECK(image.pixels.size() < 13'000'000);
    CHECK(lightness(at(image, 5, 5)) == Approx(lightness(shade(0.5))).margin(0.02));
}

TEST_CASE("where a mesh ends, its edge is smooth") {
    FieldSamples mesh;
    mesh.x = {0, 10, 0};
    mesh.y = {0, 0, 10};
    mesh.values = {{1, 1, 1}};
    mesh.triangles = {{0, 1, 2}};
    const ImageItem image = fieldImage(mesh, FieldFill::Smooth, frame(), 8);
    std::size_t half = 0, full = 0, none = 0;
    for (const std::uint32_t pixel : image.pixels) {
        const std::uint32_t alpha = pixel >> 24;
        (alpha == 0 ? none : alpha == 255 ? full : half)++;
        CHECK((pixel >> 16 & 0xff) <= alpha + 1); // multiplied by its opacity
    }
    CHECK(half == 80);
    CHECK(full == Approx(3160).margin(5));
    CHECK(none == Approx(3160).margin(5));
}

TEST_CASE("bytes become text as RFC 4648 has it") {
    CHECK(base64("").empty());
    CHECK(base64("f") == "Zg==");
    CHECK(base64("fo") == "Zm8=");
    CHECK(base64("foo") == "Zm9v");
    CHECK(base64("foobar") == "Zm9vYmFy");
}

TEST_CASE("logarithmic scales are marked at powers of ten") {
    const Ticks wide = logarithmicTicks(1e-2, 1e5, 8);
    CHECK(wide.places == std::vector<double>{1e-2, 1e-1, 1, 10, 100, 1e3, 1e4, 1e5});
    CHECK(wide.labels.front() == "10^-2");
    CHECK(wide.minor.size() == 7 * 8);
    const Ticks plain = logarithmicTicks(0.01, 1000, 8);
    CHECK(plain.labels == std::vector<std::string>{"0.01", "0.1", "1", "10", "100", "1000"});
    const Ticks many = logarithmicTicks(1e-20, 1e20, 8);
    CHECK(many.places.size() <= 8);
    CHECK(many.places.size() >= 4);
    const Ticks one = logarithmicTicks(1, 20, 8);
    CHECK(one.labels == std::vector<std::string>{"1", "2", "5", "10", "20"});
    const Ticks narrow = logarithmicTicks(3, 4, 5); // marks of a linear scale
    CHECK(narrow.places.size() >= 4);
    CHECK(logarithmicTicks(0, 1, 5).places.empty());
    CHECK(logarithmicTicks(-1, 1, 5).places.empty());
}
