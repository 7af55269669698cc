#include "special/bounds.h"

#include "oracle.h"

#include <catch2/catch.hpp>
#include <random>

using namespace coulter;

namespace {

std::optional<Bounds> over(ScalarFunction f, std::vector<double> v, std::size_t varying, double low, double high) {
    return boundsOver(f, v.data(), v.size(), varying, low, high);
}

} // namespace

TEST_CASE("moving by units in the last place goes the way of the sign") {
    CHECK(moved(1, 1) == std::nextafter(1, 2));
    CHECK(moved(1, -2) == std::nextafter(std::nextafter(1, 0), 0));
    CHECK(moved(0, 1) > 0);
    CHECK(moved(-1, 1) > -1);
}

TEST_CASE("values inside an interval lie within the bounds, for every function that has bounds") {
    std::mt19937 random(3);
    const auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
    int bounded = 0;
    for (const oracle::Points& points : oracle::allPoints()) {
        const FunctionEntry* entry = nullptr;
        for (const FunctionEntry& each : catalogue()) {
            if (each.form == points.form) entry = &each;
        }
        REQUIRE(entry);
        if (!entry->isSpecial()) continue;
        const std::size_t varying =
            points.varying < 0 ? entry->operandCount() - 1 : static_cast<std::size_t>(points.varying);
        for (const auto& others : points.others.empty() ? std::vector<std::vector<double>>{{}} : points.others) {
            for (const auto& [low, high] : points.ranges) {
                for (int i = 0; i < 12; ++i) {
                    const double a = between(low, high), width = (high - low) * std::pow(10, between(-6, -0.5));
                    const double b = std::min(high, a + width);
                    std::vector<double> v(entry->operandCount());
                    for (std::size_t k = 0, o = 0; k < v.size(); ++k) v[k] = k == varying ? a : others[o++];
                    const auto bounds = over(entry->implementation.scalar, v, varying, a, b);
                    if (!bounds) continue;
                    ++bounded;
                    for (int n = 0; n < 5; ++n) {
                        v[varying] = n == 0 ? a : n == 1 ? b : between(a, b);
                        const double y = oracle::valueOf(*entry, v);
                        INFO(points.form << " over [" << a << ", " << b << "] at " << v[varying]);
                        REQUIRE(y >= bounds->low);
                        REQUIRE(y <= bounds->high);
                    }
                }
            }
        }
    }
    CHECK(bounded > 1500);
}

TEST_CASE("bounds of narrow intervals are narrow") {
    const auto width = [](const std::optional<Bounds>& b) { return b ? b->high - b->low : HUGE_VAL; };
    CHECK(width(over(besselJ, {0, 0}, 1, 3, 3.001)) < 0.003);
    CHECK(width(over(besselY, {1, 0}, 1, 30, 30.01)) < 0.01);
    CHECK(width(over(besselK, {0, 0}, 1, 1, 1.001)) < 0.001);
    CHECK(width(over(airyAi, {0}, 0, -8, -7.999)) < 0.01);
    CHECK(width(over(hermiteH, {3, 0}, 1, 0.5, 0.5001)) < 0.01);
    CHECK(width(over(jacobiP, {4, 1, 2, 0}, 3, 0.3, 0.3001)) < 0.01);
    CHECK(width(over(legendreP, {7, 0}, 1, 0.3, 0.3001)) < 0.01);
    CHECK(width(over(chebyshevT, {5, 0}, 1, 0.3, 0.3001)) < 0.01);
    CHECK(width(over(jacobiSn, {0, 0.5}, 0, 1, 1.001)) < 0.01);
    CHECK(width(over(ellipticK, {0}, 0, -0.1, 0.1)) < 0.01);
    CHECK(width(over(lambertW, {0, 0}, 1, 1, 1.001)) < 0.001);
    CHECK(width(over(besselJ, {0, 0}, 1, -1e9, 1e9)) == 2);
}

TEST_CASE("where nothing is known there are no bounds") {
    CHECK_FALSE(over(zetaFunction, {0}, 0, -3, -2));
    CHECK_FALSE(over(digammaPsi, {0}, 0, -1.5, -0.5)); // a pole between
    CHECK(over(digammaPsi, {0}, 0, -1.5, -1.25));
    CHECK_FALSE(over(besselJ, {0, 2}, 0, 0, 1)); // the order varies
    CHECK_FALSE(over(besselY, {0, 0}, 1, -1, 1));
    CHECK_FALSE(over(exponentialIntegralEi, {0}, 0, -1, 1));
    CHECK_FALSE(over(kummerM, {-2, 1, 0}, 2, 0, 1));
    CHECK_FALSE(over(inverseErf, {0}, 0, 0.5, 1.5));
    CHECK_FALSE(over(besselY, {0, 0}, 1, -2, -2)); // undefined at a single place
}
