// Levels changed one by one, and how values are spread over a scale.
#include "formula/lines/read_page.h"
#include "formula/page/page.h"
#include "plots/level_edits.h"
#include "plots/sampling.h"
#include "plots/value_shares.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

const AxisMap colours{ScaleKind::Linear, 0, 10, 100};

struct Levelled {
    Plot plot;
    PanelReading reading;
    const Drawn& drawn() const { return reading.drawn.at(0); }
};

Levelled levelled(const std::string& levels) {
    const std::vector<std::string> lines{"x in [0, 10]", "y in [0, 4]", "f(x, y) = x"};
    const Page page = readPage(lines);
    Plot plot = plotOf("f(x, y)", "contours");
    if (!levels.empty()) plot.settings["levels"] = levels;
    Panel panel;
    panel.plots = {plot};
    return {plot, readPlots(page, panel)};
}

std::string given(const Plot& plot) { return text(plot.settings, levelsSetting); }

} // namespace

TEST_CASE("a level is moved to what the scale tells apart, and never past its neighbours") {
    const Levelled automatic = levelled("");
    Plot plot = automatic.plot;
    const std::vector<double> before = levelsOf(automatic.drawn(), colours);
    REQUIRE(before.size() > 3);
    moveLevel(plot, automatic.drawn(), colours, 1, before[1] + 0.3333333);
    Panel panel;
    const Levelled three = levelled("{2, 5, 8}");
    plot = three.plot;
    plot.settings["level count"] = 7.0;
    moveLevel(plot, three.drawn(), colours, 1, 6.4444);
    CHECK(given(plot) == "{2, 6.444, 8}");
    CHECK(plot.settings.count("level count") == 0);
    moveLevel(plot, three.drawn(), colours, 1, 9);
    CHECK(given(plot) == "{2, 6.444, 8}");
    moveLevel(plot, three.drawn(), colours, 2, 30); // not beyond the scale
    CHECK(given(plot) == "{2, 5, 10}");
    moveLevel(plot, three.drawn(), colours, 3, 1);
    CHECK(given(plot) == "{2, 5, 10}");
}

TEST_CASE("levels are added in their order and taken away, but for the last one") {
    const Levelled three = levelled("{2, 5, 8}");
    Plot plot = three.plot;
    addLevel(plot, three.drawn(), colours, 3);
    CHECK(given(plot) == "{2, 3, 5, 8}");
    addLevel(plot, three.drawn(), colours, 9.5);
    CHECK(given(plot) == "{2, 5, 8, 9.5}");
    plot = three.plot;
    addLevel(plot, three.drawn(), colours, 5);
    CHECK(given(plot) == "{2, 5, 8}");
    removeLevel(plot, three.drawn(), colours, 0);
    CHECK(given(plot) == "{5, 8}");
    const Levelled one = levelled("{5}");
    plot = one.plot;
    removeLevel(plot, one.drawn(), colours, 0);
    CHECK(given(plot) == "{5}");
}

TEST_CASE("values are spread by the area that they have, on meshes and on uneven grids") {
    const auto sharesOf = [](FieldSamples samples) {
        Drawn drawn = levelled("").drawn();
        drawn.parts[0].samples = std::make_shared<const Samples>(std::move(samples));
        return valueShares(drawn, colours, 5);
    };
    FieldSamples mesh;
    mesh.x = {0, 1, 0, 10, 13, 10};
    mesh.y = {0, 0, 1, 0, 0, 1};
    mesh.values = {{1, 1, 1, 9, 9, std::nan("")}};
    mesh.triangles = {{0, 1, 2}, {3, 4, 5}};
    // A triangle of three times the area, of which a third is undefined.
    CHECK(sharesOf(mesh)[0] == Approx(1.0 / 3));
    CHECK(sharesOf(mesh)[4] == Approx(2.0 / 3));
    FieldSamples grid;
    grid.columns = {0, 1, 9};
    grid.rows = {0, 1};
    grid.values = {{1, 5, 30, 1, 5, 30}}; // half a cell, four and a half, four beyond the scale
    const std::vector<double> shares = sharesOf(grid);
    CHECK(shares[0] == Approx(0.5 / 9));
    CHECK(shares[2] == Approx(4.5 / 9));
    CHECK(shares[4] == 0);
    grid.values = {{std::nan(""), std::nan(""), std::nan(""), std::nan(""), std::nan(""), std::nan("")}};
    CHECK(sharesOf(grid).empty());
}
