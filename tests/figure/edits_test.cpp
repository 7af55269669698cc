#include "figure/curves.h"
#include "figure/edits.h"
#include "figure/labels.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

Document document(std::vector<std::string> page, std::vector<std::string> plots = {}) {
    Document d;
    d.page = std::move(page);
    for (auto& of : plots) d.panels[0].plots.push_back(plotOf(of));
    return d;
}

} // namespace

TEST_CASE("setting a quantity changes its number and nothing else") {
    const Document d = document({"# note", "T_m = 9.5, from 0 to 20, unit °C", "omega = 2 pi/365"});
    CHECK(withQuantity(d, "T_m", "12")->page[1] == "T_m = 12, from 0 to 20, unit °C");
    CHECK(withQuantity(d, "T_{m}", "12")->page[1] == "T_m = 12, from 0 to 20, unit °C");
    CHECK(withQuantity(d, "ω", "0.5")->page[2] == "omega = 0.5");
    CHECK_FALSE(withQuantity(d, "q", "1"));
    CHECK_FALSE(withQuantity(d, "T_m + 1", "1"));
}

TEST_CASE("a number is dragged by its last digit, or one digit finer, within its range") {
    CHECK(scrubbedNumber("9.5", 3, false, {}) == "9.8");
    CHECK(scrubbedNumber("9.50", -3, false, {}) == "9.47");
    CHECK(scrubbedNumber("9.5", 3, true, {}) == "9.53");
    CHECK(scrubbedNumber("201", -201, false, {}) == "0");
    CHECK(scrubbedNumber("0.1", -1, false, {}) == "0.0");
    CHECK(scrubbedNumber("0.1", -2, false, {}) == "-0.1");
    CHECK(scrubbedNumber("5%", 2, false, {}) == "7%");
    CHECK(scrubbedNumber("1.2e-3", 5, false, {}) == "1.7e-3");
    CHECK(scrubbedNumber("9.5", 100, false, Interval{0, 10}) == "10.0");
    CHECK(scrubbedNumber("5%", 100, false, Interval{0, 0.2}) == "20%");
    CHECK(scrubbedNumber("0.3", 0.4, false, {}) == "0.3");
    CHECK(scrubbedNumber("-2", 5, false, {}) == "3");
}

TEST_CASE("a new function of one variable is drawn at once, with an interval if there is none") {
    const Document empty;
    const Document one = withLine(empty, 0, "f(x) = sin(x)");
    CHECK(one.page == std::vector<std::string>{"f(x) = sin(x)", "x in [-5, 5]"});
    REQUIRE(one.panels[0].plots.size() == 1);
    CHECK(one.panels[0].plots[0].of == "f(x)");
    const Document two = withLine(one, 2, "g(x) = cos(x)");
    CHECK(two.page.size() == 3);
    CHECK(two.panels[0].plots.size() == 2);
    CHECK(withLine(two, 3, "h(x, y) = x y").panels[0].plots.size() == 2);
    CHECK(withLine(two, 3, "h(x) = ").panels[0].plots.size() == 2);
    CHECK(withLine(two, 0, "f(x) = sin(2x)").panels[0].plots.size() == 2);
}

TEST_CASE("plots follow a function that is renamed, and go with one that is removed") {
    const Document d = document({"f(x) = x", "x in [0, 1]"}, {"f(x)", "2 f(x)"});
    const Document renamed = withLine(d, 0, "h_1(x) = x");
    CHECK(renamed.panels[0].plots[0].of == "h_1(x)");
    CHECK(renamed.panels[0].plots[1].of == "2 h_1(x)");
    const Document removed = withoutLine(d, 0);
    CHECK(removed.page.size() == 1);
    REQUIRE(removed.panels[0].plots.size() == 1);
    CHECK(removed.panels[0].plots[0].of == "2 f(x)");
}

TEST_CASE("labels come from what is drawn") {
    const std::vector<std::string> lines{"T(z, t) = z t, unit °C, label \"Soil temperature\"",
                                         "t in [0, 365], unit d, label \"Day\"",
                                         "z in [0, 1]",
                                         "S(t) = t, unit °C",
                                         "q_0 = 2.5, unit kg m-3",
                                         "v(t) = t, unit m s-1"};
    const Page page = readPage(lines);
    Panel panel = document({}, {"T(z, t) for z in {1, 2}"}).panels[0];
    CHECK(horizontalLabel(page, panel, readCurves(page, panel)) == "Day $t$ / d");
    CHECK(verticalLabel(page, panel, readCurves(page, panel)) == "Soil temperature $T$ / °C");
    panel.plots.push_back(plotOf("S(t)"));
    CHECK(verticalLabel(page, panel, readCurves(page, panel)) == "$S$, Soil temperature $T$ / °C");
    panel.plots = {plotOf("v(t)")};
    CHECK(verticalLabel(page, panel, readCurves(page, panel)) == "$v$ / (m s⁻¹)");
    panel.plots.push_back(plotOf("S(t)"));
    CHECK(verticalLabel(page, panel, readCurves(page, panel)).empty()); // different units have no label in common
    panel.y.label = "by hand";
    CHECK(verticalLabel(page, panel, readCurves(page, panel)) == "by hand");
    CHECK(withValues(page, "with {q_0} and {r}") == "with $2.5$\u2009kg m⁻³ and {r}");
    CHECK(withValues(page, "$x_{q_0}$") == "$x_{q_0}$");
}

TEST_CASE("each case of a family is a curve of its own, with its entry") {
    const std::vector<std::string> lines{"T(z, t) = z t", "t in [0, 1], count 3", "z in [0, 2], unit m"};
    const Page page = readPage(lines);
    const Panel panel = document({}, {"T(z, t) for z in {0.5, 2}", "T(1, t)", "broken("}).panels[0];
    const PanelCurves curves = readCurves(page, panel);
    REQUIRE(curves.curves.size() == 3);
    CHECK(curves.curves[1].caseIndex == 1);
    CHECK(curves.curves[2].plot == 1);
    CHECK(curves.problems[0].empty());
    CHECK(curves.problems[2].size() == 1);
    Evaluator second(*curves.curves[1].program);
    CHECK(second(3) == 6);
}

TEST_CASE("colours are read as they are written") {
    CHECK(spelled(Colour{1, 171, 255}) == "#01abff");
    CHECK(readColour("#01abff") == Colour{1, 171, 255});
    for (const char* bad : {"", "01abff", "#01abf", "#01abfg", "#01abff0", "#+1abff"}) CHECK_FALSE(readColour(bad));
}
