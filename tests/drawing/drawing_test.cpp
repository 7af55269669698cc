#include "drawing/cairo_painter.h"
#include "drawing/clip_polyline.h"
#include "drawing/colours.h"
#include "drawing/oklab.h"
#include "drawing/svg_writer.h"
#include "drawing/ticks.h"

#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

using namespace coulter;

namespace {

using Rgb = std::array<double, 3>;

/// Linear light as dichromats see it. Source: G. M. Machado, M. M. Oliveira, L. A. F. Fernandes, "A
/// physiologically-based model for simulation of color vision deficiency" (2009), severity 1.
Rgb seen(Colour colour, int kind) {
    static constexpr double matrices[3][9] = {
        {1, 0, 0, 0, 1, 0, 0, 0, 1},
        {0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998},
        {0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.011820, 0.042940, 0.968881}};
    const auto linear = [](std::uint8_t v) {
        return v / 255.0 <= 0.04045 ? v / 255.0 / 12.92 : std::pow((v / 255.0 + 0.055) / 1.055, 2.4);
    };
    const Rgb in{linear(colour.red), linear(colour.green), linear(colour.blue)};
    Rgb out{};
    for (int i = 0; i < 3; ++i) {
        for (int j = 0; j < 3; ++j)
            out[static_cast<std::size_t>(i)] += matrices[kind][3 * i + j] * in[static_cast<std::size_t>(j)];
    }
    return out;
}

Colour encoded(Rgb linear) {
    const auto byte = [](double v) {
        v = std::clamp(v, 0.0, 1.0);
        return static_cast<std::uint8_t>(
            std::lround(255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * std::pow(v, 1 / 2.4) - 0.055)));
    };
    return {byte(linear[0]), byte(linear[1]), byte(linear[2])};
}

double difference(Colour a, Colour b) {
    const OkLab p = toOkLab(a), q = toOkLab(b);
    return std::sqrt(std::pow(p.lightness - q.lightness, 2) + std::pow(p.a - q.a, 2) + std::pow(p.b - q.b, 2));
}

} // namespace

TEST_CASE("ticks are round decimals that stand inside the limits") {
    const Ticks year = linearTicks(0, 365, 8);
    CHECK(year.step == 50);
    CHECK(year.labels.front() == "0");
    CHECK(year.labels.back() == "350");
    const Ticks tenths = linearTicks(0, 1, 10);
    CHECK(tenths.places[3] == 0.3); // not 0.30000000000000004
    CHECK(tenths.labels[3] == "0.3");
    CHECK(tenths.labels[0] == "0.0");
    const Ticks large = linearTicks(0, 3e6, 6);
    CHECK(large.powerOfTen == 6);
    CHECK(large.labels.back() == "3.0");
    const Ticks tiny = linearTicks(0, 2e-7, 4);
    CHECK(tiny.powerOfTen == -7);
    CHECK(linearTicks(1, 1, 5).places.empty());
    CHECK(linearTicks(0, INFINITY, 5).places.empty());
    std::mt19937_64 random(2);
    for (int i = 0; i < 3000; ++i) {
        const double low = std::uniform_real_distribution<double>(-1, 1)(random) *
                           std::pow(10, std::uniform_int_distribution<int>(-12, 12)(random));
        const double high = low + std::pow(10, std::uniform_real_distribution<double>(-6, 12)(random));
        const Ticks ticks = linearTicks(low, high, 6);
        for (std::size_t k = 0; k < ticks.places.size(); ++k) {
            const double slack = 1e-6 * ticks.step + 4e-16 * std::abs(ticks.places[k]);
            REQUIRE(ticks.places[k] >= low - slack);
            REQUIRE(ticks.places[k] <= high + slack);
            REQUIRE(std::abs(std::stod(ticks.labels[k]) * std::pow(10, ticks.powerOfTen) - ticks.places[k]) <= slack);
        }
        if (ticks.step > 1e-9 * std::abs(low)) REQUIRE(ticks.places.size() >= 2);
    }
}

TEST_CASE("the first eight colours stay apart for every reader and in grey") {
    for (int kind = 0; kind < 3; ++kind) {
        for (std::size_t i = 0; i < plotColourCount; ++i) {
            for (std::size_t j = 0; j < i; ++j) {
                INFO("kind " << kind << ": " << i << " " << spelled(plotColour(i)) << " and " << j << " "
                             << spelled(plotColour(j)));
                CHECK(difference(encoded(seen(plotColour(i), kind)), encoded(seen(plotColour(j), kind))) > 0.055);
                CHECK(std::abs(toOkLab(plotColour(i)).lightness - toOkLab(plotColour(j)).lightness) > 0.035);
            }
        }
    }
    for (std::size_t i = 0; i < plotColourCount; ++i)
        CHECK(toOkLab(plotColour(i)).lightness < 0.8); // readable on paper
}

TEST_CASE("the cases of a family grow darker in order") {
    for (const std::size_t count : {2u, 5u, 20u}) {
        for (std::size_t i = 1; i < count; ++i)
            CHECK(toOkLab(caseColour(i, count)).lightness < toOkLab(caseColour(i - 1, count)).lightness);
    }
}

TEST_CASE("OKLab goes both ways") {
    for (int r = 0; r < 256; r += 51) {
        for (int g = 0; g < 256; g += 51) {
            for (int b = 0; b < 256; b += 51) {
                const Colour colour{static_cast<std::uint8_t>(r), static_cast<std::uint8_t>(g),
                                    static_cast<std::uint8_t>(b)};
                CHECK(toColour(toOkLab(colour)) == colour);
            }
        }
    }
    CHECK(toOkLab({255, 255, 255}).lightness == Approx(1).epsilon(1e-4));
}

TEST_CASE("polylines are cut exactly at the edge") {
    const Rect rect{0, 0, 10, 10};
    const auto through = clipPolyline({{-5, 5}, {15, 5}}, rect);
    REQUIRE(through.size() == 1);
    CHECK(through[0].front().x == 0);
    CHECK(through[0].back().x == 10);
    CHECK(clipPolyline({{-5, -5}, {-1, 20}}, rect).empty());
    CHECK(clipPolyline({{5, 5}, {5, 15}, {7, 15}, {7, 5}}, rect).size() == 2);
    CHECK(clipPolyline({{5, -1e9}, {5, 1e9}}, rect)[0].back().y == Approx(10));
    const auto inside = clipPolyline({{1, 1}, {2, 2}, {3, 1}}, rect);
    REQUIRE(inside.size() == 1);
    CHECK(inside[0].size() == 3);
}
