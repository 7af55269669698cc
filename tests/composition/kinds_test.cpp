#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "composition/findings.h"
#include "figure/scale_settings.h"
#include "make_document.h"
#include "plots/histogram_edges.h"
#include "plots/plot_kind.h"
#include "plots/read_out.h"
#include "plots/table.h"
#include "plots/telling.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

using namespace coulter;

namespace {

constexpr double exact = 0.01; // mm on the sheet

void setOf(Plot& plot, const char* key, SettingValue value) {
    for (const Setting* each : findPlotKind(plot.kind)->settings) {
        if (std::string(each->key) == key) return set(plot.settings, *each, std::move(value));
    }
    FAIL("the kind has no setting " << key);
}

/// One plot of a page, on scales of every sort.
struct Scales {
    bool logarithmic, leftwards, downwards;
};
const std::vector<Scales> everyScale{
    {false, false, false}, {false, true, false}, {false, false, true}, {true, false, false}, {true, true, true}};

Document documentOn(const Scales& scales, std::vector<std::string> page, const Plot& plot, Limits x, Limits y) {
    Document d = document(std::move(page), {});
    Panel& panel = d.panels[0];
    panel.plots = {plot};
    panel.x.limits = x;
    panel.y.limits = y;
    panel.x.scale = panel.y.scale = scales.logarithmic ? ScaleKind::Logarithmic : ScaleKind::Linear;
    set(panel.x.settings, reversedSetting, scales.leftwards);
    set(panel.y.settings, reversedSetting, scales.downwards);
    return d;
}

/// Where arithmetic of its own has a place.
Point expected(const Figure& figure, const Scales& scales, Limits x, Limits y, double px, double py) {
    const Rect& r = figure.panels[0].frame().rect;
    const auto share = [&](double v, const Limits& l) {
        return scales.logarithmic ? std::log10(v / l.low) / std::log10(l.high / l.low) : (v - l.low) / (l.high - l.low);
    };
    const double across = share(px, x) * r.width, up = share(py, y) * r.height;
    return {scales.leftwards ? r.right() - across : r.x + across, scales.downwards ? r.y + up : r.bottom() - up};
}

template <typename Item> std::vector<const Item*> items(const Figure& figure, std::size_t part = 0) {
    std::vector<const Item*> found;
    for (const Owned& owned : figure.owned) {
        if (owned.path.part != part || owned.path.index != 0) continue;
        for (std::size_t i = owned.first; i < owned.last; ++i) {
            if (const auto* item = std::get_if<Item>(&figure.scene.items[i])) found.push_back(item);
        }
    }
    return found;
}

Rect around(const std::vector<Point>& polygon) {
    Rect r{polygon[0].x, polygon[0].y, 0, 0};
    double right = r.x, bottom = r.y;
    for (const Point& p : polygon) {
        r.x = std::min(r.x, p.x);
        r.y = std::min(r.y, p.y);
        right = std::max(right, p.x);
        bottom = std::max(bottom, p.y);
    }
    return {r.x, r.y, right - r.x, bottom - r.y};
}

/// @param near  mm; a curve may be as far off as its tolerance
bool sameRect(const Rect& a, Point p, Point q, double near = exact) {
    const Rect b{std::min(p.x, q.x), std::min(p.y, q.y), std::abs(p.x - q.x), std::abs(p.y - q.y)};
    return std::abs(a.x - b.x) < near && std::abs(a.y - b.y) < near && std::abs(a.right() - b.right()) < near &&
           std::abs(a.bottom() - b.bottom()) < near;
}

bool samePoint(Point a, Point b) { return std::hypot(a.x - b.x, a.y - b.y) < exact; }

} // namespace

TEST_CASE("points stand at their pairs on every scale, whole at the panel's edge, and none where one is undefined") {
    const std::vector<double> xs{1, 2, 5, 10}, ys{10, 3, 7, 1};
    for (const Scales& scales : everyScale) {
        const Limits x{1, 10}, y{1, 100};
        const Figure figure = drawFigure(documentOn(
            scales, {"t = {1, 2, 5, 10, 3, 50}", "s = {10, 3, 7, 1, sqrt(-1), 5}"}, plotOf("(t, s)", "points"), x, y));
        const auto fills = items<FillItem>(figure);
        REQUIRE(fills.size() == 1);
        REQUIRE(fills[0]->polygons.size() == 4); // not the undefined one, not the one beyond the panel
        for (std::size_t i = 0; i < 4; ++i) {
            const Rect r = around(fills[0]->polygons[i]);
            CHECK(samePoint({r.x + r.width / 2, r.y + r.height / 2}, expected(figure, scales, x, y, xs[i], ys[i])));
            CHECK(r.width == Approx(1.4).margin(exact));
        }
    }
}

TEST_CASE("joined points run in the order of their rows, closed or not, broken where one is undefined") {
    Plot plot = plotOf("(t, s)", "points");
    setOf(plot, "joined", std::string("closed"));
    const Scales plain{false, false, false};
    const Limits x{0, 10}, y{0, 10};
    const Figure figure = drawFigure(documentOn(plain, {"t = {1, 9, 5, 2}", "s = {1, 2, 8, 6}"}, plot, x, y));
    const auto strokes = items<StrokeItem>(figure);
    REQUIRE(strokes.size() == 1);
    REQUIRE(strokes[0]->lines.size() == 1);
    REQUIRE(strokes[0]->lines[0].size() == 5);
    CHECK(samePoint(strokes[0]->lines[0][2], expected(figure, plain, x, y, 5, 8)));
    CHECK(samePoint(strokes[0]->lines[0][4], strokes[0]->lines[0][0]));
    setOf(plot, "joined", std::string("in order"));
    const Figure broken =
        drawFigure(documentOn(plain, {"t = {1, 9, 5, 2, 3}", "s = {1, 2, ln(-1), 6, 7}"}, plot, x, y));
    CHECK(items<StrokeItem>(broken)[0]->lines.size() == 2);
}

TEST_CASE("a vector over a grid is points in the plane, of which every k-th are joined to a star") {
    Document d = document({"g(j, k) = (cos(2 pi j k/5), sin(2 pi j k/5))", "j in [0, 5), step 1"}, {});
    Plot star = plotOf("g(j, k) for k in {2}", "points");
    setOf(star, "joined", std::string("closed"));
    d.panels[0].plots = {star};
    const Figure figure = drawFigure(d);
    const Frame& frame = figure.panels[0].frame();
    // A millimetre means the same both ways.
    CHECK((frame.map.x.high - frame.map.x.low) / frame.rect.width ==
          Approx((frame.map.y.high - frame.map.y.low) / frame.rect.height));
    const auto& line = items<StrokeItem>(figure)[0]->lines[0];
    REQUIRE(line.size() == 6);
    for (std::size_t j = 0; j < 5; ++j) {
        const double angle = 4 * std::numbers::pi * static_cast<double>(j) / 5;
        CHECK(samePoint(line[j], frame.onSheet(std::cos(angle), std::sin(angle))));
    }
}

TEST_CASE("bars stand on their foot as high as their numbers, upright and lying, on every scale") {
    for (const Scales& scales : everyScale) {
        for (const bool lying : {false, true}) {
            Plot plot = plotOf("a", "bars");
            setOf(plot, "to", std::string("1"));
            setOf(plot, "share", 0.5);
            if (lying) setOf(plot, "direction", std::string("lying"));
            const Limits places{0.5, 4.5}, values{0.5, 50};
            const Figure figure = drawFigure(
                documentOn(scales, {"a = {3, 20, 1.5, 0.7}"}, plot, lying ? values : places, lying ? places : values));
            const auto fills = items<FillItem>(figure);
            REQUIRE(fills.size() == 1);
            REQUIRE(fills[0]->polygons.size() == 4);
            const std::vector<double> heights{3, 20, 1.5, 0.7};
            // Half the room from one place to the next: a quarter to each side; on a logarithmic scale of the
            // smallest ratio, 4/3.
            for (std::size_t i = 0; i < 4; ++i) {
                const double place = static_cast<double>(i) + 1, factor = std::pow(4.0 / 3, 0.25);
                const double from = scales.logarithmic ? place / factor : place - 0.25,
                             to = scales.logarithmic ? place * factor : place + 0.25;
                const auto at = [&](double along, double value) {
                    return lying ? expected(figure, scales, values, places, value, along)
                                 : expected(figure, scales, places, values, along, value);
                };
                CHECK(sameRect(around(fills[0]->polygons[i]), at(from, 1), at(to, heights[i])));
            }
        }
    }
}

TEST_CASE("bars of several columns stand side by side, or on top of each other, each sign by itself") {
    Plot plot = plotOf("(a, b)", "bars");
    const Scales plain{false, false, false};
    const Limits x{0.5, 2.5}, y{-10, 10};
    const std::vector<std::string> page{"a = {3, -2}", "b = {4, 5}"};
    const Figure beside = drawFigure(documentOn(plain, page, plot, x, y));
    const double half = 0.375; // of the room of 1, three quarters
    CHECK(sameRect(around(items<FillItem>(beside, 0)[0]->polygons[0]), expected(beside, plain, x, y, 1 - half, 0),
                   expected(beside, plain, x, y, 1, 3)));
    CHECK(sameRect(around(items<FillItem>(beside, 1)[0]->polygons[1]), expected(beside, plain, x, y, 2, 0),
                   expected(beside, plain, x, y, 2 + half, 5)));
    setOf(plot, "several", std::string("stacked"));
    const Figure stacked = drawFigure(documentOn(plain, page, plot, x, y));
    CHECK(sameRect(around(items<FillItem>(stacked, 1)[0]->polygons[0]), expected(stacked, plain, x, y, 1 - half, 3),
                   expected(stacked, plain, x, y, 1 + half, 7)));
    CHECK(sameRect(around(items<FillItem>(stacked, 1)[0]->polygons[1]), expected(stacked, plain, x, y, 2 - half, 0),
                   expected(stacked, plain, x, y, 2 + half, 5)));
}

TEST_CASE("words stand under bars instead of numbers, and bars on a variable need its steps") {
    Document d = document({"a = {3, 5}", "f(x) = x", "x in [0, 1]"}, {});
    d.panels[0].plots = {plotOf("a", "bars")};
    setOf(d.panels[0].plots[0], "words", std::string("sand; clay"));
    const Figure figure = drawFigure(d);
    CHECK(figure.panels[0].layout.xTicks.labels == std::vector<std::string>{"sand", "clay"});
    CHECK(figure.panels[0].layout.xTicks.places == std::vector<double>{1, 2});
    d.panels[0].plots = {plotOf("f(x)", "bars")};
    CHECK(drawFigure(d).panels[0].problems[0][0].suggestion.find("step 1") != std::string::npos);
    d.page[2] = "x in [0, 1], step 0.25";
    CHECK(items<FillItem>(drawFigure(d))[0]->polygons.size() >= 4);
}

TEST_CASE("a histogram counts as arithmetic does: edges, counts, shares and density") {
    const std::vector<double> numbers{0.1, 0.4, 0.5, 1, 1.2, 1.9, 2, 2.5, 3};
    CHECK(countsBetween({0, 1, 2, 3}, numbers) == std::vector<std::size_t>{3, 3, 3}); // the last bin is closed
    CHECK(countsBetween({0.4, 1}, numbers) == std::vector<std::size_t>{3});
    CHECK(edgesOfCount({1, 5, 3}, 4) == std::vector<double>{1, 2, 3, 4, 5});
    CHECK(edgesOfWidth({0.25, 0.9}, 0.1).front() == 0.2);
    CHECK(edgesOfWidth({0.25, 0.9}, 0.1).size() == 8);
    CHECK(edgesOfWidth({0.25, 0.9}, 0).empty());
    CHECK(edgesOfWidth({0, 1e9}, 1e-3).empty());
    CHECK(edgesOfCount({2, 2}, 1).size() == 2);
    // 101 numbers from 0 to 100: quartiles 25 and 75, width 2 · 50 / ∛101.
    std::vector<double> even;
    for (int i = 0; i <= 100; ++i) even.push_back(i);
    CHECK(freedmanDiaconisBins(even) == static_cast<std::size_t>(std::ceil(100 / (100 / std::cbrt(101)))));
    CHECK(freedmanDiaconisBins({1, 1, 1, 1, 9}) == 4); // the quartiles are one
    for (const char* shows : {"counts", "shares", "density"}) {
        Plot plot = plotOf("d", "histogram");
        setOf(plot, "edges", std::string("{0, 1, 3}"));
        setOf(plot, "shows", std::string(shows));
        const Scales plain{false, false, false};
        const Limits x{0, 4}, y{0, 10};
        const Figure figure =
            drawFigure(documentOn(plain, {"d = {0.1, 0.4, 0.5, 1, 1.2, 1.9, 2, 2.5, 3, sqrt(-1)}"}, plot, x, y));
        const std::string what = shows;
        const double first = what == "counts" ? 3 : 3.0 / 9, second = what == "counts"   ? 6
                                                                      : what == "shares" ? 6.0 / 9
                                                                                         : 6.0 / 9 / 2;
        const auto& polygons = items<FillItem>(figure)[0]->polygons;
        REQUIRE(polygons.size() == 2);
        CHECK(sameRect(around(polygons[0]), expected(figure, plain, x, y, 0, 0),
                       expected(figure, plain, x, y, 1, first)));
        CHECK(sameRect(around(polygons[1]), expected(figure, plain, x, y, 1, 0),
                       expected(figure, plain, x, y, 3, second)));
    }
}

TEST_CASE("the density of random numbers has area one, and its edges are dragged between their neighbours") {
    Document d = document({"X ~ N(2, 0.25), count 500, seed 7"}, {});
    d.panels[0].plots = {plotOf("X", "histogram")};
    setOf(d.panels[0].plots[0], "shows", std::string("density"));
    const Figure figure = drawFigure(d);
    const Drawn& drawn = figure.panels[0].drawn[0];
    const SampleTable table = tableOf(drawn);
    double area = 0, count = 0;
    for (std::size_t i = 0; i < table.rows; ++i) {
        area += table.number(i, 1) * (table.number(i, 2) - table.number(i, 0));
        count += table.number(i, 3);
    }
    CHECK(area == Approx(1).epsilon(1e-12));
    CHECK(count == 500);
    const Frame& frame = figure.panels[0].frame();
    const auto handles = drawn.kind->handles(drawn, frame);
    REQUIRE(handles.size() == table.rows + 1);
    const double wanted = table.number(3, 0) + 0.4 * (table.number(3, 2) - table.number(3, 0));
    Plot moved = d.panels[0].plots[0];
    drawn.kind->drag(moved, drawn, frame, 3, frame.onSheet(wanted, 0));
    d.panels[0].plots[0] = moved;
    const Figure after = drawFigure(d);
    CHECK(tableOf(after.panels[0].drawn[0]).number(3, 0) == Approx(wanted).margin(0.01));
    Plot beyond = moved;
    drawn.kind->drag(beyond, drawn, frame, 3, frame.onSheet(table.number(6, 0), 0));
    CHECK(beyond == moved); // never past a neighbour
}

TEST_CASE("error bars reach from value minus to value plus their error, even and uneven, on every scale") {
    for (const Scales& scales : everyScale) {
        Plot plot = plotOf("(t, s)", "error bars");
        setOf(plot, "error up", std::string("({1, 2}, {3, 4})"));
        setOf(plot, "error across", std::string("0.5"));
        setOf(plot, "cap", 0.0);
        const Limits x{1, 20}, y{1, 100};
        const Figure figure = drawFigure(documentOn(scales, {"t = {3, 9}", "s = {10, 30}"}, plot, x, y));
        const auto strokes = items<StrokeItem>(figure);
        REQUIRE(strokes.size() == 1);
        REQUIRE(strokes[0]->lines.size() == 4);
        const auto& lines = strokes[0]->lines;
        CHECK(samePoint(lines[0][0], expected(figure, scales, x, y, 3, 9)));
        CHECK(samePoint(lines[0][1], expected(figure, scales, x, y, 3, 13)));
        CHECK(samePoint(lines[1][0], expected(figure, scales, x, y, 2.5, 10)));
        CHECK(samePoint(lines[1][1], expected(figure, scales, x, y, 3.5, 10)));
        CHECK(samePoint(lines[2][0], expected(figure, scales, x, y, 9, 28)));
        CHECK(samePoint(lines[2][1], expected(figure, scales, x, y, 9, 34)));
    }
}

TEST_CASE("an error bar that reaches below all of a logarithmic scale runs off the panel, and lengths must agree") {
    Plot plot = plotOf("(t, s)", "error bars");
    setOf(plot, "error up", std::string("2"));
    Document d =
        documentOn({true, false, false}, {"t = {3, 9}", "s = {1, 30}", "e_s = {1, 2, 3}"}, plot, {1, 20}, {0.5, 100});
    const Figure figure = drawFigure(d);
    const auto& line = items<StrokeItem>(figure)[0]->lines[0];
    CHECK(std::max(line[0].y, line[1].y) >= figure.panels[0].frame().rect.bottom());
    setOf(d.panels[0].plots[0], "error up", std::string("e_s"));
    CHECK(drawFigure(d).panels[0].problems[0][0].sentence == "“error up”: It has 3 numbers, and what is drawn has 2.");
    setOf(d.panels[0].plots[0], "error up", std::string("sin("));
    CHECK(drawFigure(d).panels[0].problems[0][0].sentence.starts_with("“error up”: "));
}

TEST_CASE("a band of errors is one area between both ends") {
    Plot plot = plotOf("(t, s)", "error bars");
    setOf(plot, "error up", std::string("1"));
    setOf(plot, "as", std::string("band"));
    const Scales plain{false, false, false};
    const Limits x{0, 10}, y{0, 10};
    const Figure figure = drawFigure(documentOn(plain, {"t = {6, 2, 4}", "s = {3, 5, 4}"}, plot, x, y)); // in any order
    const auto& polygon = items<FillItem>(figure)[0]->polygons[0];
    REQUIRE(polygon.size() == 6);
    CHECK(samePoint(polygon[0], expected(figure, plain, x, y, 2, 6)));
    CHECK(samePoint(polygon[2], expected(figure, plain, x, y, 6, 4)));
    CHECK(samePoint(polygon[3], expected(figure, plain, x, y, 6, 2)));
}

TEST_CASE("steps hold where they are said to, on every scale") {
    for (const Scales& scales : everyScale) {
        for (const char* holds : {"from its place on", "up to its place", "around its place"}) {
            Plot plot = plotOf("(t, s)", "steps");
            setOf(plot, "holds", std::string(holds));
            const Limits x{1, 10}, y{1, 10};
            const Figure figure = drawFigure(documentOn(scales, {"t = {2, 4, 8}", "s = {3, 6, 2}"}, plot, x, y));
            const auto& line = items<StrokeItem>(figure)[0]->lines[0];
            const std::string where = holds;
            // The change from the first to the second value.
            const double middle = scales.logarithmic ? std::sqrt(8.0) : 3;
            const double at = where == "from its place on" ? 4 : where == "up to its place" ? 2 : middle;
            const auto has = [&](Point p) {
                return std::ranges::any_of(line, [&](const Point& each) { return samePoint(each, p); });
            };
            CHECK(has(expected(figure, scales, x, y, at, 3)));
            CHECK(has(expected(figure, scales, x, y, at, 6)));
        }
    }
}

TEST_CASE("reference lines cross the panel at their value or place, and are dragged if spelled as a number") {
    for (const Scales& scales : everyScale) {
        for (const bool upright : {false, true}) {
            Plot plot = plotOf("5", "reference line");
            if (upright) setOf(plot, "runs", std::string("upright"));
            const Limits x{1, 10}, y{1, 10};
            const Figure figure = drawFigure(documentOn(scales, {"x in [1, 10]"}, plot, x, y));
            const Point p = expected(figure, scales, x, y, 5, 5);
            const auto& line = items<StrokeItem>(figure)[0]->lines[0];
            CHECK(std::abs((upright ? line[0].x : line[0].y) - (upright ? p.x : p.y)) < exact);
            const Rect& r = figure.panels[0].frame().rect;
            CHECK(std::abs(line[0].x - line[1].x) + std::abs(line[0].y - line[1].y) ==
                  Approx(upright ? r.height : r.width).margin(0.3));
            const Drawn& drawn = figure.panels[0].drawn[0];
            REQUIRE(drawn.kind->handles(drawn, figure.panels[0].frame()).size() == 1);
            Plot moved = plot;
            drawn.kind->drag(moved, drawn, figure.panels[0].frame(), 0, expected(figure, scales, x, y, 7, 7));
            CHECK(std::stod(moved.of) == Approx(7).margin(0.1));
        }
    }
    const Figure named =
        drawFigure(documentOn({}, {"q = 5", "x in [0, 1]"}, plotOf("q", "reference line"), {0, 1}, {0, 9}));
    CHECK(named.panels[0].drawn[0].kind->handles(named.panels[0].drawn[0], named.panels[0].frame()).empty());
    const Figure varies = drawFigure(documentOn({}, {"x in [0, 1]"}, plotOf("2 x", "reference line"), {0, 1}, {0, 9}));
    CHECK(varies.panels[0].problems[0][0].sentence.find("depends on a variable") != std::string::npos);
}

TEST_CASE("a tangent has the curve's value and slope where it touches, and says where there is none") {
    Plot plot = plotOf("f(x)", "tangent");
    setOf(plot, "at", std::string("2"));
    const Scales plain{false, false, false};
    const Limits x{0, 4}, y{0, 16};
    const Figure figure = drawFigure(documentOn(plain, {"f(x) = x^2", "x in [0, 4]"}, plot, x, y));
    const auto& line = items<StrokeItem>(figure)[0]->lines[0];
    CHECK(samePoint(line.back(), expected(figure, plain, x, y, 4, 4 + 4 * 2.0)));
    const SampleTable table = tableOf(figure.panels[0].drawn[0]);
    CHECK(table.number(0, 1) == 4);
    CHECK(table.number(0, 2) == 4);
    Document corner = documentOn(plain, {"f(x) = |x|", "x in [-1, 1]"}, plotOf("f(x)", "tangent"), {-1, 1}, {-1, 1});
    CHECK(drawFigure(corner).panels[0].problems[0][0].sentence == "The curve has no tangent at x = 0.");
}

TEST_CASE("an area covers a part of the interval, each side in its colour, and its value is that of the integral") {
    Plot plot = plotOf("f(x)", "area");
    setOf(plot, "from", std::string("0"));
    setOf(plot, "until", std::string("3 pi/2"));
    setOf(plot, "colour below", Colour{1, 2, 3});
    setOf(plot, "value", true);
    for (const bool downwards : {false, true}) {
        const Scales scales{false, false, downwards};
        const Limits x{-4, 8}, y{-2, 2};
        const Figure figure = drawFigure(documentOn(scales, {"f(x) = sin(x)", "x in [-4, 8]"}, plot, x, y));
        const auto fills = items<FillItem>(figure);
        REQUIRE(fills.size() == 2);
        CHECK(fills[0]->colour != Colour{1, 2, 3});
        CHECK(fills[1]->colour == Colour{1, 2, 3});
        const Rect above = around(fills[0]->polygons[0]), below = around(fills[1]->polygons[0]);
        CHECK(sameRect(above, expected(figure, scales, x, y, 0, 0), expected(figure, scales, x, y, std::numbers::pi, 1),
                       0.03));
        CHECK(sameRect(below, expected(figure, scales, x, y, std::numbers::pi, 0),
                       expected(figure, scales, x, y, 1.5 * std::numbers::pi, -1), 0.03));
        const std::string& words = figure.panels[0].drawn[0].words;
        CHECK(std::stod(words) == Approx(3).epsilon(1e-7)); // 2 + 1
        CHECK(words.find("±") != std::string::npos);
    }
    setOf(plot, "from", std::string("9"));
    const Figure none = drawFigure(documentOn({}, {"f(x) = sin(x)", "x in [-4, 8]"}, plot, {-4, 8}, {-2, 2}));
    CHECK(none.panels[0].problems[0][0].sentence.find("nothing of the curve") != std::string::npos);
}

TEST_CASE("tan x has a dashed asymptote at each of its poles") {
    Plot plot = plotOf("tan(x)", "line");
    setOf(plot, "asymptotes", true);
    const Limits x{-5, 5}, y{-3, 3};
    const Figure figure = drawFigure(documentOn({}, {"x in [-5, 5]"}, plot, x, y));
    const auto strokes = items<StrokeItem>(figure);
    REQUIRE(strokes.size() == 2);
    REQUIRE(strokes[0]->lines.size() == 4);
    CHECK_FALSE(strokes[0]->dashes.empty());
    std::vector<double> places;
    for (const auto& line : strokes[0]->lines) places.push_back(figure.panels[0].frame().xAt(line[0].x));
    std::ranges::sort(places);
    for (std::size_t i = 0; i < 4; ++i)
        CHECK(places[i] == Approx((static_cast<double>(i) - 1.5) * std::numbers::pi).margin(1e-6));
}

TEST_CASE("what the pointer is at is told as what it is") {
    const auto told = [](const Document& d, auto place) {
        const Figure figure = drawFigure(d);
        const PanelFigure& panel = figure.panels[0];
        return readOutAt(panel.drawn, panel.frame(), place(panel.frame()), 2).text;
    };
    const Limits x{0, 5}, y{0, 10};
    const Document points = documentOn({}, {"t = {1, 2}", "s = {3, 4}"}, plotOf("(t, s)", "points"), x, y);
    CHECK(told(points, [](const Frame& f) { return f.onSheet(2, 4); }) == "row 2:   t = 2,   s = 4");
    const Document bars = documentOn({}, {"a = {3, 4}"}, plotOf("a", "bars"), x, y);
    CHECK(told(bars, [](const Frame& f) { return f.onSheet(2, 1.5); }) == "row 2:   number = 2,   a = 4");
    Plot counted = plotOf("a", "histogram");
    setOf(counted, "edges", std::string("{0, 2, 5}"));
    const Document histogram = documentOn({}, {"a = {1, 3, 4}"}, counted, x, y);
    CHECK(told(histogram, [](const Frame& f) { return f.onSheet(3, 1); }) == "2 from 2 to 5");
    const Document steps = documentOn({}, {"a = {3, 4}"}, plotOf("a", "steps"), x, y);
    CHECK(told(steps, [](const Frame& f) { return f.onSheet(1.4, 3); }).starts_with("row 1:"));
}

TEST_CASE("members of a family differ by colours, patterns or widths, and one by one") {
    Document d = document({"f(x, k) = k x", "x in [0, 1]"}, {"f(x, k) for k in {1, 2, 3}"});
    const auto pens = [&] {
        const Figure figure = drawFigure(d);
        std::vector<StrokeItem> found;
        for (std::size_t part = 0; part < 3; ++part) found.push_back(*items<StrokeItem>(figure, part)[0]);
        return found;
    };
    CHECK(pens()[0].colour != pens()[1].colour);
    Plot& plot = d.panels[0].plots[0];
    setOf(plot, "members by", std::string("patterns"));
    CHECK(pens()[0].colour == pens()[2].colour);
    CHECK(pens()[0].dashes.empty());
    CHECK(pens()[1].dashes != pens()[2].dashes);
    setOf(plot, "members by", std::string("widths"));
    CHECK(pens()[0].width == Approx(0.2));
    CHECK(pens()[2].width == Approx(0.6));
    memberOf(plot, 1).settings["width"] = 2.0;
    memberOf(plot, 1).name = "the middle one";
    CHECK(pens()[1].width == 2);
    CHECK(pens()[0].width == Approx(0.2));
    const Figure figure = drawFigure(d);
    CHECK(figure.panels[0].drawn[1].name == "the middle one");
    CHECK_FALSE(figure.panels[0].drawn[0].name);
}

TEST_CASE("in space a curve falls on floor and walls, with lines down from marks at equal steps") {
    Plot plot = plotOf("c(t)");
    setOf(plot, "projections", std::string("floor and walls"));
    setOf(plot, "shape", std::string("disc"));
    setOf(plot, "step", 2.0);
    setOf(plot, "drop lines", true);
    Document d = document({"c(t) = (cos(t), sin(t), t)", "t in [0, 10]"}, {});
    d.panels[0].plots = {plot};
    const Figure figure = drawFigure(d);
    const Frame& frame = figure.panels[0].frame();
    REQUIRE(figure.panels[0].drawn[0].parts.size() == 4);
    const auto marks = items<FillItem>(figure);
    REQUIRE(marks.size() == 1);
    REQUIRE(marks[0]->polygons.size() == 6);
    const double floor = frame.space->faceValue(Face::Floor);
    CHECK(floor == frame.space->maps[2].low);
    bool found = false;
    for (const auto* stroke : items<StrokeItem>(figure)) {
        for (const auto& line : stroke->lines) {
            found = found ||
                    (line.size() == 2 && samePoint(line[0], frame.onSheet(Place{std::cos(4.0), std::sin(4.0), 4})) &&
                     samePoint(line[1], frame.onSheet(Place{std::cos(4.0), std::sin(4.0), floor})));
        }
    }
    CHECK(found);
}

TEST_CASE("ribbon and remarks know which column lies along which scale") {
    // A level line has a place upwards alone; a value that the vertical scale cannot show is counted there.
    const Document level =
        documentOn({true, false, false}, {"x in [1, 10]"}, plotOf("-1", "reference line"), {1, 10}, {1, 10});
    const Figure figure = drawFigure(level);
    CHECK(lanesOf(figure.panels[0].drawn[0], figure.panels[0].frame(), 0.2).empty());
    CHECK(std::ranges::count_if(findingsOf(figure), [](const Finding& each) {
              return each.said.sentence.find("logarithmic vertical scale") != std::string::npos;
          }) == 1);
    // Lying bars have their values across.
    Plot lying = plotOf("a", "bars");
    setOf(lying, "direction", std::string("lying"));
    const Figure bars = drawFigure(documentOn({}, {"a = {30, 70}"}, lying, {0, 100}, {0, 3}));
    const std::vector<Lane> lanes = lanesOf(bars.panels[0].drawn[0], bars.panels[0].frame(), 0.2);
    REQUIRE(lanes.size() == 1);
    CHECK(lanes[0].variable == "a");
    REQUIRE(lanes[0].samples.size() == 2);
    CHECK(lanes[0].samples[1] == Approx(0.7 * bars.panels[0].frame().rect.width));
}
