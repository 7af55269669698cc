// Arrows and streamlines on the sheet.
#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "composition/findings.h"
#include "make_document.h"
#include "plots/common_settings.h"
#include "plots/vectors.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

Document vectors(const std::string& field, const char* kind, Settings style = {}) {
    Document d = document({"v(x, y) = " + field + ", unit m s-1", "x in [0, 10], count 6", "y in [0, 5], count 6"}, {});
    Plot plot = plotOf("v(x, y)", kind);
    plot.settings = std::move(style);
    d.panels[0].plots = {plot};
    return d;
}

Settings style(std::initializer_list<std::pair<const char*, SettingValue>> values) {
    Settings settings;
    for (const auto& [key, value] : values) settings[key] = value;
    return settings;
}

template <class Item> std::vector<const Item*> drawn(const Figure& figure) {
    std::vector<const Item*> items;
    for (const Owned& owned : figure.owned) {
        if (owned.path.kind != ItemKind::Plot) continue;
        for (std::size_t i = owned.first; i < owned.last; ++i) {
            if (const auto* item = std::get_if<Item>(&figure.scene.items[i])) items.push_back(item);
        }
    }
    return items;
}

/// The tips of all heads, in the order drawn.
std::vector<Point> tips(const Figure& figure) {
    std::vector<Point> all;
    for (const FillItem* item : drawn<FillItem>(figure)) {
        if (item->polygons.size() == 1 && item->polygons[0].size() == 4 && item->opacity == 1)
            all.push_back(item->polygons[0][0]);
    }
    return all;
}

double report(const Figure& figure, const char* key) {
    const Drawn& plot = figure.panels[0].drawn[0];
    const std::vector<ReportRow> rows = plot.kind->report(plot, figure.panels[0].frame());
    for (const auto& [name, value] : rows[0]) {
        if (std::string(name) == key) return value;
    }
    return std::nan("");
}

} // namespace

TEST_CASE("an arrow has the direction and the length of its vector") {
    // From their tails at the grid's points, 2 mm for each unit.
    const Settings at = style({{"stand", std::string("at the grid")},
                               {"at its place", std::string("tail")},
                               {"mm per unit", 2.0},
                               {"key", std::string("none")}});
    const Figure figure = drawFigure(vectors("(1 + x/10, 0.5)", "arrows", at));
    const Frame& frame = figure.panels[0].frame();
    const std::vector<Point> found = tips(figure);
    CHECK(report(figure, "mm per unit") == 2);
    std::size_t checked = 0;
    for (int j = 0; j < 6; ++j) {
        for (int i = 0; i < 6; ++i) {
            const double x = 2.0 * i, y = j, u = 1 + x / 10, v = 0.5;
            const Point tail = frame.onSheet(x, y);
            // As a step along the vector goes on the sheet.
            const Point ahead = frame.onSheet(x + 1e-3 * u, y + 1e-3 * v);
            const double far = std::hypot(ahead.x - tail.x, ahead.y - tail.y), length = 2 * std::hypot(u, v);
            const Point tip{tail.x + length * (ahead.x - tail.x) / far, tail.y + length * (ahead.y - tail.y) / far};
            if (!frame.rect.contains(tip)) continue;
            ++checked;
            CHECK(std::ranges::any_of(found, [&](Point p) { return std::hypot(p.x - tip.x, p.y - tip.y) < 0.02; }));
        }
    }
    CHECK(checked >= 20);
    CHECK(found.size() == checked); // and none that crosses the panel's edge
}

TEST_CASE("what is no vector of two components is refused") {
    for (const char* kind : {"arrows", "streamlines"}) {
        for (const char* field : {"x y", "(x, y, 1)"}) {
            const Figure figure = drawFigure(vectors(field, kind));
            REQUIRE(figure.panels[0].problems[0].size() == 1);
            CHECK(figure.panels[0].problems[0][0].sentence.find("two components") != std::string::npos);
        }
    }
}

TEST_CASE("lengths are true, all the same, or by the logarithm") {
    const auto lengths = [](const char* how) {
        const Figure figure =
            drawFigure(vectors("(10^(x/5), 0)", "arrows",
                               style({{"length", std::string(how)}, {"key", std::string("none")}, {"head", 0.0}})));
        std::vector<double> all;
        for (const StrokeItem* item : drawn<StrokeItem>(figure)) {
            for (const auto& line : item->lines) all.push_back(std::abs(line.back().x - line.front().x));
        }
        std::ranges::sort(all);
        return all;
    };
    const auto same = lengths("the same"), real = lengths("true"), logarithmic = lengths("logarithmic");
    REQUIRE(same.size() > 20);
    CHECK(same.front() == Approx(same.back()));
    CHECK(real.back() / real.front() > 10);
    CHECK(logarithmic.back() / logarithmic.front() > 1.5);
    CHECK(logarithmic.back() / logarithmic.front() < 6);
}

TEST_CASE("zero vectors are dots, what is too long is left out and said, and a key tells the scale") {
    const Figure still = drawFigure(vectors("(0 x, 0 y)", "arrows"));
    CHECK(tips(still).empty());
    CHECK_FALSE(drawn<FillItem>(still).empty());
    const Figure pole = drawFigure(vectors("(1/((x - 5)^2 + (y - 2.5)^2), 0)", "arrows", style({{"spacing", 3.0}})));
    CHECK(report(pole, "left out") > 0);
    const auto findings = findingsOf(pole);
    CHECK(std::ranges::any_of(findings, [](const Finding& each) {
        return each.said.sentence.find("longer than four times the spacing") != std::string::npos;
    }));
    const Figure apart =
        drawFigure(vectors("(1/((x - 5)^2 + (y - 2.5)^2), 0)", "arrows", style({{"spacing", 3.0}, {"apart", true}})));
    CHECK(report(apart, "arrows") <= report(pole, "arrows"));
    const auto words = [](const Figure& figure) { return drawn<GlyphItem>(figure).size(); };
    CHECK(words(drawFigure(vectors("(1, 0)", "arrows"))) > 0);
    CHECK(words(drawFigure(vectors("(1, 0)", "arrows", style({{"key", std::string("none")}})))) == 0);
    CHECK(words(drawFigure(vectors("(1, 0)", "arrows", style({{"length", std::string("the same")}})))) == 0);
}

TEST_CASE("streamlines run through the places that are asked for, on the sheet") {
    Document d = vectors("(1, 2x - 4)", "streamlines");
    d.panels[0].plots[0].settings["through"] = std::string("(2, 1)");
    const Figure figure = drawFigure(d);
    const Drawn& plot = figure.panels[0].drawn[0];
    const Frame& frame = figure.panels[0].frame();
    const SampleTable table = tableOf(plot, frame);
    REQUIRE(table.rows > 10);
    double worst = 0;
    for (std::size_t i = 0; i < table.rows; ++i) { // y = (x − 2)² + 1
        const double x = table.number(i, 2), y = table.number(i, 3);
        CHECK(table.number(i, 1) == Approx(x - 2).margin(2e-3)); // the time since the start, at a speed of 1
        const Point is = frame.onSheet(x, y), meant = frame.onSheet(x, (x - 2) * (x - 2) + 1);
        // Across the line, which is steep.
        const Point slope = millimetresPerUnit(frame, x, y);
        const double steep = std::hypot(1, (2 * x - 4) * slope.y / slope.x);
        worst = std::max(worst, std::abs(is.y - meant.y) / steep);
    }
    CHECK(worst < 0.02);
    REQUIRE(plot.kind->handles(plot, frame).size() == 1);
    Plot dragged = d.panels[0].plots[0];
    plot.kind->drag(dragged, plot, frame, 0, frame.onSheet(4, 3));
    const std::string there = text(dragged.settings, *findPlotKind("streamlines")->settings[0]);
    double x = 0, y = 0;
    REQUIRE(std::sscanf(there.c_str(), "(%lf, %lf)", &x, &y) == 2);
    CHECK(x == Approx(4).margin(0.05));
    CHECK(y == Approx(3).margin(0.05));
    d.panels[0].plots[0].settings["through"] = std::string("7");
    CHECK_FALSE(drawFigure(d).panels[0].problems[0].empty());
}

TEST_CASE("a direction on logarithmic and reversed scales is that of the curve there") {
    Document d = document({"v(x, y) = (x, 2 y)", "x in [1, 100], logarithmic", "y in [1, 10000], logarithmic"}, {});
    d.panels[0].plots = {plotOf("v(x, y)", "streamlines")};
    d.panels[0].plots[0].settings["through"] = std::string("(10, 100)");
    for (const bool reversed : {false, true}) {
        set(d.panels[0].x.settings, *scaleSettings()[0], scaleSettings()[0]->usual);
        d.panels[0].x.settings["reversed"] = reversed;
        const Figure figure = drawFigure(d);
        const SampleTable table = tableOf(figure.panels[0].drawn[0], figure.panels[0].frame());
        REQUIRE(table.rows > 1);
        for (std::size_t i = 0; i < table.rows; ++i) // y = x²
            CHECK(table.number(i, 3) == Approx(table.number(i, 2) * table.number(i, 2)).epsilon(1e-3));
    }
}

TEST_CASE("dots stand where a particle is at equal times, from where its line was begun") {
    const auto dots = [](const std::string& field, const std::string& through, double every, const std::string& x,
                         const std::string& y) {
        Document d = document({"v(x, y) = " + field, "x in " + x, "y in " + y}, {});
        d.panels[0].plots = {plotOf("v(x, y)", "streamlines")};
        d.panels[0].plots[0].settings["through"] = through;
        d.panels[0].plots[0].settings["dot every"] = every;
        d.panels[0].plots[0].settings["head every"] = 0.0;
        const Figure figure = drawFigure(d);
        std::vector<Point> places;
        for (const FillItem* item : drawn<FillItem>(figure)) {
            for (const auto& polygon : item->polygons) { // circles
                Point middle;
                for (const Point& p : polygon) {
                    middle.x += p.x / static_cast<double>(polygon.size());
                    middle.y += p.y / static_cast<double>(polygon.size());
                }
                places.push_back(middle);
            }
        }
        return std::pair{places, figure.panels[0].frame()};
    };
    const auto nearest = [](const std::vector<Point>& places, const Point& to) {
        double least = HUGE_VAL;
        for (const Point& p : places) least = std::min(least, std::hypot(p.x - to.x, p.y - to.y));
        return least;
    };
    SECTION("a rotation comes round in 2 pi") {
        const auto [places, frame] = dots("(-y, x)", "(1, 0)", 2 * 3.141592653589793 / 12, "[-2, 2]", "[-2, 2]");
        CHECK(places.size() == 12);
        for (int k = 0; k < 12; ++k) {
            const double angle = 3.141592653589793 * k / 6;
            CHECK(nearest(places, frame.onSheet(std::cos(angle), std::sin(angle))) < 0.03); // the chords keep 0.02
        }
    }
    SECTION("a saddle is left as exponentials have it, and the past is there, too") {
        const auto [places, frame] = dots("(x, -y)", "(0.5, 0.5)", 0.25, "[0.1, 2]", "[0.1, 2]");
        CHECK(places.size() == 11); // ln 4 either way
        for (int k = -5; k <= 5; ++k)
            CHECK(nearest(places, frame.onSheet(0.5 * std::exp(0.25 * k), 0.5 * std::exp(-0.25 * k))) < 0.02);
    }
    SECTION("towards a place of rest there is no end of them") {
        const auto [places, frame] = dots("(-x, -y)", "(1, 1)", 0.5, "[-2, 2]", "[-2, 2]");
        CHECK(places.size() > 10);
        CHECK(places.size() <= 10'000);
        for (int k = 0; k < 6; ++k)
            CHECK(nearest(places, frame.onSheet(std::exp(-0.5 * k), std::exp(-0.5 * k))) < 0.02);
    }
    SECTION("none unless they are asked for") { CHECK(dots("(1, 0)", "(1, 1)", 0, "[0, 2]", "[0, 2]").first.empty()); }
}

TEST_CASE("arrows and streamlines show another function by their colours, with its scale") {
    for (const char* kind : {"arrows", "streamlines"}) {
        Document d = vectors("(1, 0)", kind);
        d.panels[0].plots[0].settings["coloured by"] = std::string("100 x");
        const Figure figure = drawFigure(d);
        REQUIRE(figure.panels[0].problems[0].empty());
        CHECK(figure.panels[0].frame().colour.high >= 990);
        CHECK(figure.panels[0].frame().colour.low <= 10);
        d.panels[0].plots[0].settings["coloured by"] = std::string("(x, y)");
        CHECK(drawFigure(d).panels[0].problems[0][0].sentence.find("“coloured by”") != std::string::npos);
    }
}

TEST_CASE("at the grid of a mesh arrows stand in the middles of its elements") {
    Document d = document({"X = {0, 10, 10, 0}", "Y = {0, 0, 5, 5}", "H = {0, 10, 10, 0}", "a = {1, 1}", "b = {2, 3}",
                           "c = {3, 4}", "h(x, y) interpolates (X, Y, H) on (a, b, c)", "x in [0, 10]", "y in [0, 5]"},
                          {});
    d.panels[0].plots = {plotOf("grad h(x, y)", "arrows")};
    d.panels[0].plots[0].settings["stand"] = std::string("at the grid");
    const Figure figure = drawFigure(d);
    REQUIRE(figure.panels[0].problems[0].empty());
    const SampleTable table = tableOf(figure.panels[0].drawn[0], figure.panels[0].frame());
    REQUIRE(table.rows == 2);
    CHECK(table.number(0, 0) == Approx(20.0 / 3));
    CHECK(table.number(0, 1) == Approx(5.0 / 3));
    CHECK(table.number(0, 2) == Approx(1));
    CHECK(table.number(0, 3) == Approx(0).margin(1e-12));
}
