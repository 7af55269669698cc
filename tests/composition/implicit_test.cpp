#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "plots/levels.h"
#include "plots/plot_kind.h"
#include "plots/telling.h"
#include "sampling/singular_points.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

using namespace coulter;

namespace {

Figure drawnFigure(const std::string& of, const char* kind) {
    Document document;
    document.page = {"x in [-3, 3]", "y in [-2, 2]", "f(x, y) = x^2 + y^2 - 1"};
    document.panels[0].plots = {plotOf(of, kind)};
    return drawFigure(document);
}

std::vector<ReportRow> reportOf(const Figure& figure) {
    const Drawn& drawn = figure.panels[0].drawn.at(0);
    return drawn.kind->report(drawn, figure.panels[0].frame());
}

std::size_t countOf(const std::vector<ReportRow>& rows, const std::string& name) {
    return static_cast<std::size_t>(
        std::ranges::count_if(rows, [&](const ReportRow& row) { return row[0].first == name; }));
}

} // namespace

TEST_CASE("equations are drawn where they hold, closed where they close") {
    struct Case {
        const char* of;
        double lines, closed;
    };
    for (const Case& c : {Case{"x^2 + y^2 = 1", 1, 1},
                          {"f(x, y) = 0", 1, 1},
                          {"f(x, y)", 1, 1},
                          {"x^2 - y^2 = 1", 2, 0},
                          {"y = sin(4x)", 1, 0},
                          {"(x^2 + y^2)^2 = 2(x^2 - y^2)", 2, 2},
                          {"x^2 + y^2 = 100", 0, 0},
                          {"x^3 + y^3 = 3x y", 2, 1}}) {
        CAPTURE(c.of);
        const Figure figure = drawnFigure(c.of, "implicit curve");
        REQUIRE(figure.panels[0].problems[0].empty());
        const ReportRow row = reportOf(figure)[0];
        CHECK(row[0].second == c.lines);
        CHECK(row[1].second == c.closed);
    }
}

TEST_CASE("single points of curves are found and told apart") {
    const auto of = [](const char* equation) { return reportOf(drawnFigure(equation, "implicit curve")); };
    CHECK(countOf(of("(x^2 + y^2)^2 = 2(x^2 - y^2)"), "crossing") == 1);
    CHECK(countOf(of("(x - 0.3)^2 + (y + 0.7)^2 = 0"), "isolated point") == 1);
    CHECK(countOf(of("x^3 + y^3 = 3x y"), "crossing") == 1);
    CHECK(countOf(of("sin(x) sin(y) = 0"), "crossing") == 1); // within the panel only the middle
    CHECK(countOf(of("y^2 = x^2 (x + 1)"), "crossing") == 1);
    const auto plain = of("x^2 + y^2 = 1");
    CHECK(plain.size() == 1);
    const auto numberOf = [](const ReportRow& row, std::string_view name) {
        const auto at = std::ranges::find(row, name, [](const auto& cell) { return std::string_view(cell.first); });
        return at == row.end() ? -1 : at->second;
    };
    CHECK(numberOf(plain[0], "proven share") == 1);
    CHECK(numberOf(plain[0], "share of the panel not settled") == 0);
    const auto said = [](const char* equation) {
        const Figure figure = drawnFigure(equation, "implicit curve");
        return summaryOf(figure.panels[0].drawn[0], figure.effort);
    };
    CHECK(said("x^2 + y^2 = 1").starts_with("100 % proven, no other line · "));
    CHECK(said("x^2 + y^2 = -1").starts_with("no line, proven · "));
    CHECK(said("(x^2 + y^2 - 1)^2 = 0").find("% of the panel not settled") != std::string::npos);
    const auto crossing = of("x^3 + y^3 = 3x y");
    CHECK(numberOf(crossing[0], "proven share") > 0.99);
    CHECK(numberOf(crossing[0], "proven share") < 1);
    CHECK(numberOf(of("(x^2 + y^2 - 1)^2 = 0")[0], "proven share") == 0);
    const auto near = of("(x - 0.3)^2 + (y + 0.7)^2 = 1e-6"); // a small circle is no point
    CHECK(countOf(near, "isolated point") == 0);
}

TEST_CASE("regions have the content that they have") {
    const double pi = std::numbers::pi;
    struct Case {
        const char* of;
        double content;
    };
    for (const Case& c : {Case{"x^2 + y^2 < 1", pi},
                          {"x^2 + y^2 < 1 and y > x", pi / 2},
                          {"x > 1 or y > 1", 24 - 4.0 * 3},
                          {"not x > 1", 16},
                          {"0.25 < x^2 + y^2 <= 1", 0.75 * pi},
                          {"x^2 + y^2 < 100", 24}}) {
        CAPTURE(c.of);
        CHECK(reportOf(drawnFigure(c.of, "region"))[0][1].second == Approx(c.content).epsilon(1e-5));
    }
    CHECK(reportOf(drawnFigure("x > 100", "region"))[0][1].second == 0);
}

TEST_CASE("conditions say what draws them, and other conditions are no equations") {
    const auto said = [](const char* of, const char* kind) {
        const Figure figure = drawnFigure(of, kind);
        return figure.panels[0].problems[0].empty() ? std::string() : figure.panels[0].problems[0][0].sentence;
    };
    CHECK(said("x^2 + y^2 = 1", "heatmap") == "A condition is no number, and the kind “heatmap” draws numbers.");
    CHECK(said("x < y", "implicit curve") ==
          "An implicit curve is one equation, such as x^2 + y^2 = 1, and this is another condition.");
    CHECK_FALSE(said("x =", "implicit curve").empty());
    CHECK_FALSE(said("x = 1 and", "region").empty());
    CHECK(said("x = y", "implicit curve").empty());
}

TEST_CASE("families of implicit curves have a member for each case") {
    const Figure figure = drawnFigure("x^2 + y^2 = k^2 for k in {0.5, 1, 1.5}", "implicit curve");
    REQUIRE(figure.panels[0].drawn.size() == 3);
    CHECK(figure.panels[0].layout.legend.entries.size() == 3);
}
