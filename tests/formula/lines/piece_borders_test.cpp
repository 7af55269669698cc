#include "formula/compile/compile.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"
#include "formula/program/piece_borders.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

std::vector<PieceBorder> borders(const std::string& formula, double low, double high, int looks = 400) {
    const std::vector<std::string> lines{"f(x) = " + formula, "x in [0, 1]"};
    const Page page = readPage(lines);
    const Plotted plotted = readPlotted(page, "f(x)");
    REQUIRE(plotted.expression);
    const auto program = compile(page, plotted.expression, plotted.variables).program;
    std::vector<double> at;
    for (int i = 0; i <= looks; ++i) at.push_back(low + (high - low) * i / looks);
    return PieceFinder(*program)(at, {}, {});
}

/// Whether a border stands at a place, to so many neighbouring doubles.
bool isAt(const PieceBorder& border, double place, int ulps = 4) {
    double low = place, high = place;
    for (int i = 0; i < ulps; ++i) {
        low = std::nextafter(low, -HUGE_VAL);
        high = std::nextafter(high, HUGE_VAL);
    }
    return border.before >= low && border.after <= high && std::nextafter(border.before, HUGE_VAL) == border.after;
}

} // namespace

TEST_CASE("borders of pieces are found to neighbouring doubles") {
    struct Case {
        const char* formula;
        std::vector<double> places;
    };
    for (const Case& c :
         {Case{"abs(x - 1.3)", {1.3}}, Case{"max(x^2, x + 1)", {(1 - std::sqrt(5)) / 2, (1 + std::sqrt(5)) / 2}},
          Case{"sgn(x^2 - 2)", {-std::sqrt(2), std::sqrt(2)}},
          Case{"{ 1 for x < 0.7; x for x <= 2.1; 3 otherwise }", {0.7, 2.1}},
          Case{"floor(2 x) + x", {-2.5, -2, -1.5, -1, -0.5, 0, 0.5, 1, 1.5, 2, 2.5}},
          Case{"min(exp(x), 3)", {std::log(3)}}, Case{"abs(sin(x))", {0}}, Case{"[x^3 > 8] x", {2}}}) {
        INFO(c.formula);
        const auto found = borders(c.formula, -2.9, 2.93);
        REQUIRE(found.size() == c.places.size());
        for (std::size_t i = 0; i < found.size(); ++i) {
            INFO(found[i].before << " beside " << c.places[i]);
            if (c.places[i] == 0)
                CHECK(std::abs(found[i].before) < 1e-300);
            else
                CHECK(isAt(found[i], c.places[i]));
        }
    }
}

TEST_CASE("several borders between two looks are found one after the other") {
    const auto found = borders("floor(x)", 0.5, 6.5, 2);
    REQUIRE(found.size() == 6);
    for (std::size_t i = 0; i < 6; ++i) CHECK(isAt(found[i], static_cast<double>(i + 1)));
}

TEST_CASE("formulas of one piece have no borders, and undefined parts none either") {
    CHECK(borders("sin(x) + x^2/exp(x)", -5, 5).empty());
    CHECK(borders("J_0(x) + Gamma(x + 8)", -5, 5).empty());
    CHECK(borders("abs(sqrt(x - 9))", -5, 5).empty());
    std::stop_source stop;
    stop.request_stop();
    const std::vector<double> two{0, 1};
    CHECK(PieceFinder(Program{})(two, {}, stop.get_token()).empty());
}

TEST_CASE("of two neighbours the one a person would write is simpler") {
    CHECK(simpler(1, std::nextafter(1, 2)) == 1);
    CHECK(simpler(std::nextafter(0.7, 0), 0.7) == 0.7);
}
