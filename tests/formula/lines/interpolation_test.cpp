#include "formula/measured/interpolation.h"

#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"
#include "formula/page/page.h"
#include "formula/proofs/jet_evaluator.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

using namespace coulter;

namespace {

const std::vector<std::string> readings{"t = {4, 1, 2, 0}", "s = {0, 3, -1, 1}", "S(x) interpolates (t, s)"};

Page pageOf(std::vector<std::string> further = {}) {
    std::vector<std::string> lines = readings;
    lines.insert(lines.end(), further.begin(), further.end());
    return readPage(lines);
}

std::string saidOf(const Page& page) {
    std::string all;
    for (const Problem& problem : page.problems()) all += describe(problem) + "\n";
    return all;
}

} // namespace

TEST_CASE("readings are a function that is linear between them, in whatever order they stand") {
    const Page page = pageOf();
    INFO(saidOf(page));
    const auto at = [&](const char* text) { return evaluate(page, text).value(); };
    CHECK(at("S(0)") == 1);
    CHECK(at("S(1)") == 3);
    CHECK(at("S(2)") == -1);
    CHECK(at("S(4)") == 0);
    CHECK(at("S(0.5)") == 2);
    CHECK(at("S(1.25)") == Approx(2));
    CHECK(at("S(3)") == -0.5);
    CHECK(std::isnan(at("S(-0.001)")));
    CHECK(std::isnan(at("S(4.001)")));
    CHECK(at("int_0^4 S(x) dx") == Approx(2 + 1 - 1).epsilon(1e-13));
    CHECK(at("2 S(0.5) + 1") == 5);
}

TEST_CASE("zeros and the largest value of what interpolates readings are found, all and proven") {
    const Page page = pageOf();
    const Answer zeros = evaluate(page, "S(x) = 0 for x in [0, 3.5]");
    REQUIRE(zeros.places);
    REQUIRE(zeros.places->found.size() == 1);
    CHECK(zeros.places->found[0].at == Approx(1.75).epsilon(1e-14));
    CHECK(zeros.places->areAll());
    CHECK(evaluate(page, "S(x) = 2.5 for x in [0, 4]").places->found.size() == 2);
}

TEST_CASE("bounds of interpolated values and slopes hold every value and slope") {
    std::mt19937 random(8);
    std::uniform_real_distribution<double> any(-5, 5), little(0.01, 1);
    for (int run = 0; run < 50; ++run) {
        Interpolation points;
        double x = any(random);
        for (int i = 0; i < 30; ++i) {
            points.x.push_back(x);
            points.y.push_back(any(random));
            x += little(random);
        }
        std::uniform_real_distribution<double> inside(points.x.front(), points.x.back());
        for (int k = 0; k < 40; ++k) {
            double low = inside(random), high = k % 4 == 0 ? low : inside(random);
            if (low > high) std::swap(low, high);
            const Bounds bounds = points.over(low, high);
            bool isStraight = false;
            const Bounds slopes = points.slopesOver(low, high, isStraight);
            double before = points(low);
            for (int i = 0; i <= 50; ++i) {
                const double at = std::min(high, low + (high - low) * i / 50), value = points(at);
                CHECK(bounds.low <= value);
                CHECK(bounds.high >= value);
                const double step = (high - low) / 50;
                if (i > 0 && step > 1e-6) {
                    CHECK((value - before) / step >= slopes.low - 1e-8);
                    CHECK((value - before) / step <= slopes.high + 1e-8);
                }
                before = value;
            }
            CHECK(isStraight == (points.stretchOf(low) == points.stretchOf(high)));
        }
    }
}

TEST_CASE("rows without a value are passed over; doubled places, unequal columns and single points are said") {
    const auto said = [](const std::vector<std::string>& lines) { return saidOf(readPage(lines)); };
    CHECK(said({"t = {0, 1, 2}", "s = {0, 1/0 - 1/0, 4}", "g(x) interpolates (t, s)", "q = g(1)"}).empty());
    CHECK(said({"t = {0, 1, 1}", "s = {0, 1, 4}", "S(x) interpolates (t, s)"}).find("same place") != std::string::npos);
    CHECK(said({"t = {0, 1, 2}", "s = {0, 1}", "S(x) interpolates (t, s)"}).find("as many") != std::string::npos);
    CHECK(said({"t = {0}", "s = {0}", "S(x) interpolates (t, s)"}).find("two points") != std::string::npos);
    CHECK(said({"t = 3", "s = {0, 1}", "S(x) interpolates (t, s)"}).find("column") != std::string::npos);
    CHECK(said({"t = {0, 1}", "S interpolates (t, t)"}).find("function of one variable") != std::string::npos);
    CHECK(said({"t = {0, 1}", "S(x) interpolates t"}).find("Columns in brackets follow") != std::string::npos);
    for (const char* line : {"q = S'(1)", "q(x) = d/dx(S(x))", "q(x) = d/dx(S(x^2))"})
        CHECK(saidOf(pageOf({line})).find("no derivative") != std::string::npos);
}
