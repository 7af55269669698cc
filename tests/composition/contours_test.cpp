#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "composition/findings.h"
#include "figure/scale_settings.h"
#include "plots/levels.h"
#include "plots/plot_kind.h"
#include "plots/table.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <numbers>

using namespace coulter;

namespace {

Document documentOf(const std::string& formula, const char* kind, Settings settings = {}) {
    Document document;
    document.page = {"f(x, y) = " + formula, "x in [-3, 3]", "y in [-2, 2]"};
    Plot plot = plotOf("f(x, y)", kind);
    plot.settings = std::move(settings);
    document.panels[0].plots = {plot};
    return document;
}

std::vector<double> levelsIn(const Figure& figure) {
    return levelsOf(figure.panels[0].drawn.at(0), figure.panels[0].frame().colour);
}

/// Colours of a scene's fills and images at a place of the sheet, the one on top; none: paper.
std::optional<Colour> colourAt(const Figure& figure, double x, double y) {
    const Point p = figure.panels[0].frame().onSheet(x, y);
    std::optional<Colour> found;
    for (const SceneItem& item : figure.scene.items) {
        const auto* fill = std::get_if<FillItem>(&item);
        if (!fill) continue;
        bool inside = false; // even–odd
        for (const auto& polygon : fill->polygons) {
            for (std::size_t i = 0, j = polygon.size() - 1; i < polygon.size(); j = i++) {
                const Point &a = polygon[i], &b = polygon[j];
                if ((a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x) inside = !inside;
            }
        }
        if (inside) found = fill->colour;
    }
    return found;
}

std::string problemOf(const Document& document) {
    const Figure figure = drawFigure(document);
    return figure.panels[0].problems[0].empty() ? "" : figure.panels[0].problems[0][0].sentence;
}

} // namespace

TEST_CASE("levels are round, given, by a step, by a count, or even in the logarithm") {
    const auto levels = [](const std::string& formula, Settings settings, ScaleKind scale = ScaleKind::Linear) {
        Document document = documentOf(formula, "contours", std::move(settings));
        document.panels[0].colour.scale = scale;
        return levelsIn(drawFigure(document));
    };
    for (const double level : levels("x^2 + y^2", {})) CHECK(level == Approx(std::round(level)).margin(1e-9));
    CHECK(levels("x^2 + y^2", {}).size() >= 5);
    CHECK(levels("x", {{"levels", std::string("{-1, 0.25, 2}")}}) == std::vector<double>{-1, 0.25, 2});
    CHECK(levels("x", {{"levels", std::string("{-1, -0.5, ..., 1}")}}).size() == 5);
    const std::vector<double> stepped = levels("x", {{"level step", 0.75}});
    REQUIRE(stepped.size() >= 7);
    for (const double level : stepped) CHECK(level / 0.75 == Approx(std::round(level / 0.75)).margin(1e-9));
    CHECK(levels("x", {{"level count", 7.0}}).size() == 7);
    const std::vector<double> even = levels("exp(3x)", {{"level count", 5.0}}, ScaleKind::Logarithmic);
    REQUIRE(even.size() == 5);
    for (std::size_t i = 2; i < 5; ++i) CHECK(even[i] / even[i - 1] == Approx(even[1] / even[0]));
}

TEST_CASE("levels that cannot be followed are one sentence with a way out") {
    const auto said = [](const std::string& levels) {
        return problemOf(documentOf("x", "contours", {{"levels", levels}}));
    };
    CHECK(said("{0, 1, 1}") == "“levels”: Level 3, 1, is not above the one before it, 1.");
    CHECK(said("{2, 1}") == "“levels”: Level 2, 1, is not above the one before it, 2.");
    CHECK(said("{0, 1/0}") == "“levels”: Level 2 is not a number.");
    CHECK(said("{0, 1, ..., 2000}") == "“levels”: There are 2001 levels; at most 1000 are drawn.");
    CHECK_FALSE(said("{0, 1").empty());
    CHECK_FALSE(said("wrong").empty());
    CHECK(said("{100, 200}").empty()); // outside the range: nothing to draw, nothing wrong
}

TEST_CASE("a peak between the points of a mesh has its level lines, and older formats say where it is") {
    const std::string peak = "1/((x - 0.31)^2 + (y + 0.47)^2 + 1e-4)";
    const Settings level{{"levels", std::string("{3000}")}};
    Document document = documentOf(peak, "contours", level);
    const Figure figure = drawFigure(document);
    const auto lines = levelLinesOf(figure.panels[0].drawn[0], figure.panels[0].frame());
    REQUIRE(lines->lines.size() == 1);
    CHECK(lines->lines[0].closed);
    const double radius = std::sqrt(1.0 / 3000 - 1e-4);
    for (std::size_t i = 0; i < lines->lines[0].path.size(); ++i)
        CHECK(std::hypot(lines->lines[0].path.x[i] - 0.31, lines->lines[0].path.y[i] + 0.47) ==
              Approx(radius).epsilon(1e-4));
    const auto said = [](const Document& of) {
        for (const Finding& finding : findingsOf(drawFigure(of)))
            if (finding.said.sentence.starts_with("f(x, y) ")) return finding.said.sentence;
        return std::string();
    };
    CHECK(said(document).empty());
    document.format = 7;
    CHECK(said(document) ==
          "f(x, y) goes beyond the points that were looked at, so that lines may be missing: it is 10000 at (0.31, "
          "−0.47).");
}

TEST_CASE("a narrow ring between the points of a mesh has both its level lines, whole") {
    const Figure figure =
        drawFigure(documentOf("exp(-400 (sqrt(x^2 + y^2) - 1)^2)", "contours", {{"levels", std::string("{0.95}")}}));
    const auto lines = levelLinesOf(figure.panels[0].drawn[0], figure.panels[0].frame());
    REQUIRE(lines->lines.size() == 2);
    const double off = std::sqrt(-std::log(0.95) / 400);
    for (const Isoline& line : lines->lines) {
        CHECK(line.closed);
        for (std::size_t i = 0; i < line.path.size(); ++i)
            CHECK(std::abs(std::hypot(line.path.x[i], line.path.y[i]) - 1) == Approx(off).epsilon(1e-3));
    }
}

TEST_CASE("levels that nothing has are remarked upon, with the values that there are") {
    const auto said = [](const std::string& formula, const char* kind, Settings settings) {
        for (const Finding& finding : findingsOf(drawFigure(documentOf(formula, kind, std::move(settings)))))
            if (finding.said.sentence.starts_with("f(x, y) ")) return finding.said.sentence;
        return std::string();
    };
    CHECK(said("x^2 + y^2", "contours", {{"levels", std::string("{100, 200}")}}) ==
          "f(x, y) has none of these levels: nowhere in view is it 100 or 200; its values there run from 0 to 13.");
    CHECK(said("3 + 0x", "contours", {}) == "f(x, y) is the same all over in view, 3, and has no lines.");
    CHECK(said("sqrt(-1 - x^2)", "filled contours", {}) == "f(x, y) is nowhere defined in view.");
    CHECK(said("x^2 + y^2 + 1", "implicit curve", {}) ==
          "f(x, y) has none of these levels: nowhere in view is it 0; its values there run from 1 to 14.");
    // What is not proven is not said: these go to infinity, a step has no value between its own.
    CHECK(
        said("1/(x^2 + y^2)", "contours", {{"levels", std::string("{-5}")}})
            .starts_with("f(x, y) has none of these levels: nowhere in view is it −5; its values there run at least "));
    CHECK(said("floor(x)", "contours", {{"levels", std::string("{0.5}")}}) ==
          "f(x, y) was nowhere found to be 0.5; its values in view run at least from −3 to 3.");
    CHECK(said("floor(x)", "contours", {{"levels", std::string("{0.5, 1}")}}) ==
          "f(x, y) is exactly 1 in places in view, and nowhere passes it, so that it has no line there.");
    // Islands that no point met count.
    CHECK(said("sqrt(exp(-1e7 ((x - 0.31)^2 + (y + 0.47)^2)) - 0.5)", "contours", {{"levels", std::string("{9}")}}) !=
          "f(x, y) is nowhere defined in view.");
    CHECK(said("x^2 + y^2", "contours", {}).empty());
    CHECK(said("x^2 + y^2", "implicit curve", {}).empty()); // it is one point
}

TEST_CASE("a constant field and one that is nowhere defined draw no lines and break nothing") {
    for (const char* formula : {"3 + 0x", "sqrt(-1 - x^2)", "x/0"}) {
        for (const char* kind : {"contours", "filled contours"}) {
            const Figure figure = drawFigure(documentOf(formula, kind));
            CHECK(figure.finished);
        }
    }
}

TEST_CASE("filled contours have the colour of their area everywhere") {
    const Document document =
        documentOf("x^2 + y^2", "filled contours", {{"levels", std::string("{0.25, 1, 4, 6.25}")}});
    const Figure figure = drawFigure(document);
    const Frame& frame = figure.panels[0].frame();
    CHECK(frame.shades.steps == std::vector<double>{0.25, 1, 4, 6.25});
    std::map<std::size_t, std::size_t> seen;
    for (double x = -2.95; x < 3; x += 0.1) {
        for (double y = -1.95; y < 2; y += 0.1) {
            const double z = x * x + y * y;
            std::size_t step = 0;
            bool near = false;
            for (const double level : frame.shades.steps) {
                step += z >= level;
                near = near || std::abs(z - level) < 0.02;
            }
            if (near) continue;
            ++seen[step];
            const auto colour = colourAt(figure, x, y);
            REQUIRE(colour);
            CHECK(*colour == frame.shades.ofStep(step, frame.colour));
        }
    }
    CHECK(seen.size() == 5);
    CHECK(figure.panels[0].layout.colours.ends > 0);
}

TEST_CASE("areas of filled contours are right, and add up") {
    const Document document = documentOf("exp(-x^2 - y^2)", "filled contours", {{"levels", std::string("{0.1, 0.5}")}});
    const Figure figure = drawFigure(document);
    const Drawn& drawn = figure.panels[0].drawn[0];
    const auto rows = drawn.kind->report(drawn, figure.panels[0].frame());
    REQUIRE(rows.size() == 3);
    double sum = 0;
    for (const ReportRow& row : rows) sum += row.back().second;
    CHECK(sum == Approx(24).epsilon(1e-9));
    const double pi = std::numbers::pi;
    CHECK(rows[2].back().second == Approx(pi * std::log(2)).epsilon(1e-6));
    CHECK(rows[1].back().second == Approx(pi * (std::log(10) - std::log(2))).epsilon(1e-6));
    const SampleTable table = tableOf(drawn, figure.panels[0].frame());
    CHECK(table.columns == std::vector<std::string>{"low", "high", "area", "ring", "x", "y"});
    CHECK(std::isnan(table.number(0, 0)));
    CHECK(table.number(0, 1) == 0.1);
}

TEST_CASE("areas of bands between many levels are right to a millionth") {
    const Document document = documentOf("x^2 + y^2", "filled contours");
    const Figure figure = drawFigure(document);
    const Drawn& drawn = figure.panels[0].drawn[0];
    std::size_t whole = 0;
    for (const ReportRow& row : drawn.kind->report(drawn, figure.panels[0].frame())) {
        double low = 0, high = 0;
        for (const auto& [name, value] : row) {
            if (std::string(name) == "low") low = value;
            if (std::string(name) == "high") high = value;
        }
        if (!(high > low && high <= 4)) continue; // a ring that is all in the panel
        ++whole;
        CHECK(row.back().second == Approx(std::numbers::pi * (high - low)).epsilon(1e-6));
    }
    CHECK(whole >= 2);
}

TEST_CASE("the volumes of the bands add up to the volume under the surface") {
    // The volume under f ≥ 0 is the integral over t of the content where f > t (the layer cake). With levels in the
    // middles of 450 equal bands it is summed to a share of the squared width of a band.
    const std::pair<const char*, double> fields[] = {
        {"2 - x^2 - y^2", 16.0 / 3}, // over [-1, 1]²
        {"(x + 1) (y + 1)", 4},
        {"1 + sin(3x) cos(2y)", 4},
    };
    for (const auto& [formula, volume] : fields) {
        Document document;
        document.page = {std::string("f(x, y) = ") + formula, "x in [-1, 1]", "y in [-1, 1]"};
        document.panels[0].plots = {plotOf("f(x, y)", "filled contours")};
        constexpr int bands = 450;
        constexpr double top = 4, width = top / bands;
        std::string levels;
        for (int i = 0; i < bands; ++i) {
            char level[32];
            std::snprintf(level, sizeof level, "%s%.10f", i == 0 ? "{" : ", ", (i + 0.5) * width);
            levels += level;
        }
        document.panels[0].plots[0].settings["levels"] = levels + "}";
        const Figure figure = drawFigure(document);
        INFO(formula);
        REQUIRE(figure.panels[0].problems[0].empty());
        const Drawn& drawn = figure.panels[0].drawn.at(0);
        const auto rows = drawn.kind->report(drawn, figure.panels[0].frame());
        REQUIRE(rows.size() == bands + 1);
        double sum = 0;
        for (std::size_t band = 0; band < rows.size(); ++band) // its content counts once for each level below it
            sum += static_cast<double>(band) * rows[band].back().second * width;
        CHECK(sum == Approx(volume).epsilon(1e-4));
    }
}

TEST_CASE("contours write their lines in order, and are touched along them") {
    const Document document = documentOf("x^2 + y^2", "contours", {{"levels", std::string("{1, 4}")}});
    const Figure figure = drawFigure(document);
    const Drawn& drawn = figure.panels[0].drawn[0];
    const SampleTable table = tableOf(drawn, figure.panels[0].frame());
    CHECK(table.columns == std::vector<std::string>{"level", "line", "closed", "x", "y"});
    REQUIRE(table.rows > 20);
    for (std::size_t row = 0; row < table.rows; ++row)
        CHECK(std::hypot(table.number(row, 3), table.number(row, 4)) ==
              Approx(std::sqrt(table.number(row, 0))).epsilon(1e-5));
    const auto told = drawn.kind->tell(drawn, figure.panels[0].frame(), figure.panels[0].frame().onSheet(2.01, 0), 1);
    REQUIRE(told);
    CHECK(told->text == "line of 4");
    CHECK_FALSE(drawn.kind->tell(drawn, figure.panels[0].frame(), figure.panels[0].frame().onSheet(0, 0), 1));
}

TEST_CASE("the scale of colours has a middle, and a bar on any side") {
    Document document = documentOf("sin(2x) cos(y)", "filled contours");
    document.panels[0].plots.push_back(document.panels[0].plots[0]);
    document.panels[0].plots[1].kind = "contours";
    document.panels[0].colour.settings = {
        {"map", std::string("thaw")}, {"middle", std::string("0.2")}, {"bar", std::string("below")}};
    const Figure figure = drawFigure(document);
    const PanelLayout& layout = figure.panels[0].layout;
    CHECK((layout.frame.colour.low + layout.frame.colour.high) / 2 == Approx(0.2));
    CHECK(layout.colours.rect.y > layout.frame.rect.bottom());
    CHECK(layout.colours.rect.bottom() < document.sheet.height);
    for (const BarSide side : {BarSide::Left, BarSide::Right, BarSide::Above, BarSide::Below}) {
        set(document.panels[0].colour.settings, barSetting,
            std::string(barSetting.words[static_cast<std::size_t>(side)]));
        const PanelLayout placed = drawFigure(document).panels[0].layout;
        CHECK(placed.colours.rect.x > 0);
        CHECK(placed.colours.rect.y > 0);
        CHECK(placed.colours.rect.right() < document.sheet.width);
        CHECK_FALSE(placed.colours.rect.intersects(placed.frame.rect));
    }
    set(document.panels[0].colour.settings, barSetting, std::string("none"));
    CHECK_FALSE(drawFigure(document).panels[0].layout.colours.shown);
}
