#include "composition/labels.h"

#include "formula/lines/read_page.h"

#include <catch2/catch.hpp>

using namespace coulter;

TEST_CASE("fields know their variables, vectors their components, and both their labels") {
    const std::vector<std::string> lines{"T(z, t) = z t, unit °C, label \"Temperature\"",
                                         "t in [0, 365], unit d, label \"Day\"",
                                         "z in [0.1, 10], unit m, logarithmic",
                                         "c(t) = (cos(t), sin(t)), unit m",
                                         "s(t) = (cos(t), sin(t), t), unit m",
                                         "v(z, t) = (z, -t), unit m s-1",
                                         "g(t) = t^2"};
    const Page page = readPage(lines);
    for (const Line& line : page.lines) REQUIRE(line.good());
    Panel panel;
    const auto read = [&](Plot plot) {
        panel.plots = {plot};
        return readPlots(page, panel);
    };
    PanelReading field = read(plotOf("T(z, t)", "heatmap"));
    REQUIRE(field.drawn.size() == 1);
    CHECK(fieldOf(field.drawn[0])->variables == std::array<std::string, 2>{"z", "t"});
    CHECK(field.xScale == ScaleKind::Logarithmic);
    CHECK(labelsOf(panel, field, unitsOf(field)).across == "$z$ / m");
    CHECK(labelsOf(panel, field, unitsOf(field)).up == "Day $t$ / d");
    CHECK(labelsOf(panel, field, unitsOf(field)).colour == "Temperature $T$ / °C");
    Plot swapped = plotOf("T(z, t)", "heatmap");
    swapped.settings["across"] = std::string("t");
    CHECK(fieldOf(read(swapped).drawn[0])->variables == std::array<std::string, 2>{"t", "z"});
    CHECK(fieldOf(read(plotOf("z t", "heatmap")).drawn[0])->variables ==
          std::array<std::string, 2>{"t", "z"}); // by line
    const PanelReading vectors = read(plotOf("v(z, t)", "heatmap"));
    CHECK(fieldOf(vectors.drawn[0])->program->outputs.size() == 2);
    CHECK(labelsOf(panel, vectors, unitsOf(vectors)).colour == "$|v|$ / (m s⁻¹)");
    const PanelReading plane = read(plotOf("c(t)"));
    CHECK_FALSE(curveOf(plane.drawn[0])->isFunction());
    CHECK(labelsOf(panel, plane, unitsOf(plane)).across == "$x$ / m");
    CHECK(labelsOf(panel, plane, unitsOf(plane)).up == "$y$ / m");
    const PanelReading space = read(plotOf("s(t)"));
    CHECK(space.shape == PanelShape::Space);
    CHECK(labelsOf(panel, space, unitsOf(space)).upright == "$z$ / m");
    // What cannot be drawn says why.
    CHECK(read(plotOf("T(z, t)")).problems[0][0].sentence ==
          "A curve runs along one variable, this depends on z and t.");
    CHECK(read(plotOf("c(t)", "polar")).problems[0][0].sentence.starts_with("A polar plot draws a radius"));
    CHECK(read(plotOf("T(z, t) u for u in {1, 2}", "heatmap"))
              .problems[0][0]
              .sentence.starts_with("A field shows one case"));
    CHECK(fieldOf(read(plotOf("g(t)", "heatmap")).drawn[0])->variables == std::array<std::string, 2>{"t", "z"});
}

TEST_CASE("labels come from what is drawn") {
    const std::vector<std::string> lines{"T(z, t) = z t, unit °C, label \"Soil temperature\"",
                                         "t in [0, 365], unit d, label \"Day\"",
                                         "z in [0, 1]",
                                         "S(t) = t, unit °C",
                                         "q_0 = 2.5, unit kg m-3",
                                         "v(t) = t, unit m s-1"};
    const Page page = readPage(lines);
    Panel panel;
    panel.plots = {plotOf("T(z, t) for z in {1, 2}")};
    const auto labels = [&] {
        const PanelReading reading = readPlots(page, panel);
        return labelsOf(panel, reading, unitsOf(reading));
    };
    CHECK(labels().across == "Day $t$ / d");
    CHECK(labels().up == "Soil temperature $T$ / °C");
    panel.plots.push_back(plotOf("S(t)"));
    CHECK(labels().up == "$S$, Soil temperature $T$ / °C");
    panel.plots = {plotOf("v(t)")};
    CHECK(labels().up == "$v$ / (m s⁻¹)");
    panel.plots.push_back(plotOf("S(t)"));
    CHECK(labels().up.empty()); // different units have no label in common
    panel.y.label = "by hand";
    CHECK(labels().up == "by hand");
    CHECK(withValues(page, "with {q_0} and {r}") == "with $2.5$\u2009kg m⁻³ and {r}");
    CHECK(withValues(page, "$x_{q_0}$") == "$x_{q_0}$");
}

TEST_CASE("each case of a family is a curve of its own, with its entry") {
    const std::vector<std::string> lines{"T(z, t) = z t", "t in [0, 1], count 3", "z in [0, 2], unit m"};
    const Page page = readPage(lines);
    Panel panel;
    panel.plots = {plotOf("T(z, t) for z in {0.5, 2}"), plotOf("T(1, t)"), plotOf("broken(")};
    const PanelReading reading = readPlots(page, panel);
    REQUIRE(reading.drawn.size() == 3);
    CHECK(reading.drawn[1].path == ItemPath{ItemKind::Plot, 0, 0, 1});
    CHECK(reading.drawn[2].path == ItemPath{ItemKind::Plot, 0, 1, 0});
    CHECK(reading.problems[0].empty());
    CHECK(reading.problems[2].size() == 1);
    Evaluator second(*curveOf(reading.drawn[1])->program);
    CHECK(second(3) == 6);
}

TEST_CASE("several symbols with one label and unit say it once, but in the first format") {
    const Page page = readPage(std::vector<std::string>{"s(t) = t, unit m, label \"Drawdown\"", "t in [0, 1]",
                                                        "h = {1, 2}, unit m, label \"Drawdown\"", "q = {0, 1}"});
    Panel panel;
    panel.plots = {plotOf("s(t)"), plotOf("(q, h)", "points")};
    const auto up = [&](int format) {
        const PanelReading reading = readPlots(page, panel, 0, rulesOf(format));
        return labelsOf(panel, reading, unitsOf(reading)).up;
    };
    CHECK(up(2) == "Drawdown $h$, $s$ / m");
    CHECK(up(1) == "Drawdown $h$, Drawdown $s$ / m");
}
