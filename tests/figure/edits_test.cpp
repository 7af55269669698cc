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

TEST_CASE("a variable's sampling is changed in its line, all else kept") {
    const Document before = document({"x in [0, 1], count 5, unit m", "f(x) = x"});
    CHECK(withSampling(before, "x", SamplingWay::Step, "0.1")->page[0] == "x in [0, 1], step 0.1, unit m");
    CHECK(withSampling(before, "x", SamplingWay::Count, "7")->page[0] == "x in [0, 1], count 7, unit m");
    CHECK(withSampling(before, "x", SamplingWay::Adaptive, "")->page[0] == "x in [0, 1], unit m");
    CHECK(withSampling(document({"x in [0, 1]"}), "x", SamplingWay::Count, "9")->page[0] == "x in [0, 1], count 9");
    CHECK_FALSE(withSampling(before, "f", SamplingWay::Count, "7"));
    CHECK_FALSE(withSampling(before, "nothing", SamplingWay::Count, "7"));
}

TEST_CASE("asking for more points doubles them, however stretches overlap") {
    using Stretches = std::vector<FinerStretch>;
    const Stretches one = withFiner({}, 1, 3);
    CHECK(one == Stretches{{1, 3, 2}});
    CHECK(withFiner(one, 2, 4) == Stretches{{1, 2, 2}, {2, 3, 4}, {3, 4, 2}});
    CHECK(withFiner(one, 3, 5) == Stretches{{1, 5, 2}});
    CHECK(withFiner(one, 0, 9) == Stretches{{0, 1, 2}, {1, 3, 4}, {3, 9, 2}});
    Stretches often;
    for (int i = 0; i < 20; ++i) often = withFiner(often, 0, 1);
    CHECK(often == Stretches{{0, 1, mostTimesFiner}});
}

TEST_CASE("fields know their variables, vectors their components, and both their labels") {
    const std::vector<std::string> lines{"T(z, t) = z t, unit °C, label \"Temperature\"",
                                         "t in [0, 365], unit d, label \"Day\"",
                                         "z in [0.1, 10], unit m, logarithmic",
                                         "c(t) = (cos(t), sin(t)), unit m",
                                         "s(t) = (cos(t), sin(t), t), unit m",
                                         "v(z, t) = (z, -t), unit m s-1",
                                         "g(t) = t^2"};
    const Page page = readPage(lines);
    REQUIRE(page.problems().empty());
    Panel panel;
    const auto read = [&](Plot plot) {
        panel.plots = {plot};
        return readCurves(page, panel);
    };
    PanelCurves field = read(plotOf("T(z, t)", PlotKind::Heatmap));
    REQUIRE(field.fields.size() == 1);
    CHECK(field.fields[0].variables == std::array<std::string, 2>{"z", "t"});
    CHECK(field.xScale == ScaleKind::Logarithmic);
    CHECK(horizontalLabel(page, panel, field) == "$z$ / m");
    CHECK(verticalLabel(page, panel, field) == "Day $t$ / d");
    CHECK(colourLabel(page, panel, field) == "Temperature $T$ / °C");
    Plot swapped = plotOf("T(z, t)", PlotKind::Heatmap);
    swapped.across = "t";
    CHECK(read(swapped).fields[0].variables == std::array<std::string, 2>{"t", "z"});
    CHECK(read(plotOf("z t", PlotKind::Heatmap)).fields[0].variables ==
          std::array<std::string, 2>{"t", "z"}); // by line
    const PanelCurves vectors = read(plotOf("v(z, t)", PlotKind::Heatmap));
    CHECK(vectors.fields[0].program->outputs.size() == 2);
    CHECK(colourLabel(page, panel, vectors) == "$|v|$ / (m s⁻¹)");
    const PanelCurves plane = read(plotOf("c(t)"));
    CHECK_FALSE(plane.curves[0].isFunction());
    CHECK(horizontalLabel(page, panel, plane) == "$x$ / m");
    CHECK(verticalLabel(page, panel, plane) == "$y$ / m");
    const PanelCurves space = read(plotOf("s(t)"));
    CHECK(space.hasSpaceCurve());
    CHECK(uprightLabel(page, panel, space) == "$z$ / m");
    // What cannot be drawn says why.
    CHECK(read(plotOf("T(z, t)")).problems[0][0].sentence ==
          "A curve runs along one variable, this depends on z and t.");
    CHECK(read(plotOf("c(t)", PlotKind::Polar)).problems[0][0].sentence.starts_with("A polar plot draws a radius"));
    CHECK(read(plotOf("T(z, t) u for u in {1, 2}", PlotKind::Heatmap))
              .problems[0][0]
              .sentence.starts_with("A heatmap shows one case"));
    CHECK(read(plotOf("g(t)", PlotKind::Heatmap)).fields[0].variables == std::array<std::string, 2>{"t", "z"});
}
