#include "formula/measured/measured_field.h"

#include "formula/algebra/derivative.h"
#include "formula/base/text.h"
#include "formula/compile/compile.h"
#include "formula/lines/answer.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"
#include "formula/measured/element_mesh.h"
#include "formula/measured/measured_grid.h"
#include "formula/measured/mesh_holes.h"
#include "formula/notation/parser.h"
#include "formula/page/page.h"
#include "formula/proofs/jet_evaluator.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>
#include <set>

using namespace coulter;

namespace {

const double none = std::nan("");

Column column(std::vector<double> numbers) { return std::make_shared<const std::vector<double>>(std::move(numbers)); }

double at(const MeasuredField& field, std::vector<double> place) { return field.at(place.data()); }

/// 3 × 2 numbers over x = 0, 1, 3 and y = 10, 20.
MeasuredGrid small(bool isLinear) { return {{{0, 1, 3}, {10, 20}}, column({1, 2, 4, 10, 20, 40}), isLinear}; }

std::shared_ptr<const ElementMesh> meshOfNodes(std::vector<double> x, std::vector<double> y,
                                               std::vector<std::array<std::uint32_t, 4>> elements) {
    return std::make_shared<const ElementMesh>(ElementMesh{std::move(x), std::move(y), std::move(elements), {}, 1});
}

/// A page over a picture, a grid of three directions, and a table.
Page pageOf(const std::vector<std::string>& lines) {
    DataTables tables;
    DataTable picture;
    picture.source = "slice.tif";
    picture.columns = {{"", "", "", column({1, 2, 3, 4, 5, 6})}};
    picture.axes = {{"", "", "", evenPlaces(3, 0, 1), true}, {"", "", "", evenPlaces(2, 0, 1), true}};
    tables.put(picture);
    DataTable flow;
    flow.source = tableKey("flow.nc", "head");
    flow.columns = {{"head", "m", "hydraulic head", column({0, 1, 2, 3, 4, 5, 6, 7})}};
    flow.axes = {{"x", "m", "", column({0, 1}), false},
                 {"y", "m", "", column({0, 1}), false},
                 {"time", "d", "", column({0, 10}), false}};
    tables.put(flow);
    DataTable triples;
    triples.source = "triples.csv";
    triples.columns = {
        {"x", "", "", column({1, 0, 0, 1})}, {"y", "", "", column({0, 0, 5, 5})}, {"z", "K", "", column({2, 1, 3, 4})}};
    tables.put(triples);
    return readPage(lines, tables);
}

std::string saidOf(const Page& page) {
    std::string all;
    for (const Problem& problem : page.problems()) all += describe(problem) + "\n";
    return all;
}

double valueOf(const Page& page, const std::string& text) {
    const Answer answer = evaluate(page, text);
    INFO(text << ": " << saidOf(page) << (answer.problems.empty() ? "" : describe(answer.problems[0])));
    REQUIRE(answer.values.size() == 1);
    return answer.value();
}

} // namespace

TEST_CASE("a number of a grid fills its cell, whose borders lie between places; between them it is linear") {
    const auto cells = fieldOfGrid(small(false)), linear = fieldOfGrid(small(true));
    CHECK(at(*cells, {0.4, 14.9}) == 1);
    CHECK(at(*cells, {0.5, 14.9}) == 2); // a border belongs to the cell after it
    CHECK(at(*cells, {-0.5, 5}) == 1);   // the outermost cells are as wide outside as inside
    CHECK(at(*cells, {4, 25}) == 40);
    CHECK(std::isnan(at(*cells, {4.01, 25})));
    CHECK(std::isnan(at(*cells, {0, 4.9})));
    CHECK(at(*linear, {1, 20}) == 20);
    CHECK(at(*linear, {0.5, 10}) == 1.5);
    CHECK(at(*linear, {2, 15}) == Approx(0.5 * 3 + 0.5 * 30));
    CHECK(std::isnan(at(*linear, {-0.01, 10})));
    CHECK(at(*linear->slope(0), {2, 15}) == Approx(0.5 * 1 + 0.5 * 10));
    CHECK(at(*linear->slope(1), {2, 15}) == Approx((30 - 3) / 10.0));
    CHECK_FALSE(cells->slope(0));
    CHECK_FALSE(linear->slope(0)->slope(1));
}

TEST_CASE("a missing number leaves out its cells alone, and a place of its own value needs no neighbour") {
    MeasuredGrid grid = small(true);
    grid.values = column({1, none, 4, 10, 20, 40});
    const auto field = fieldOfGrid(grid);
    CHECK(at(*field, {0, 10}) == 1);
    CHECK(at(*field, {0, 15}) == 5.5); // on the edge of an undefined cell
    CHECK(std::isnan(at(*field, {0.5, 15})));
    CHECK(at(*field, {0.5, 20}) == 15);
}

TEST_CASE("uneven places are found as even ones are, in three directions as in two") {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> step(0.001, 3), share(0, 1);
    for (int round = 0; round < 60; ++round) {
        MeasuredGrid grid;
        std::size_t count = 1;
        for (int k = 0; k < 2 + round % 2; ++k) {
            std::vector<double> places{-5};
            const std::size_t n = 2 + random() % 12;
            for (std::size_t i = 1; i < n; ++i) places.push_back(places.back() + (round % 3 == 0 ? 0.1 : step(random)));
            count *= n;
            grid.places.push_back(std::move(places));
        }
        // Linear in each variable: interpolation gives it again.
        const auto f = [](const std::vector<double>& p) {
            return 2 + p[0] - 3 * p[1] + p[0] * p[1] + (p.size() > 2 ? p[2] * (1 + p[0]) : 0);
        };
        std::vector<double> values;
        for (std::size_t i = 0; i < count; ++i) {
            std::vector<double> place;
            std::size_t rest = i;
            for (const auto& places : grid.places) {
                place.push_back(places[rest % places.size()]);
                rest /= places.size();
            }
            values.push_back(f(place));
        }
        grid.values = column(values);
        grid.isLinear = true;
        const auto field = fieldOfGrid(grid);
        for (int i = 0; i < 50; ++i) {
            std::vector<double> place;
            for (const auto& places : grid.places)
                place.push_back(places.front() + share(random) * (places.back() - places.front()));
            CHECK(at(*field, place) == Approx(f(place)).margin(1e-10));
        }
    }
}

TEST_CASE("bounds over boxes hold every value and slope, and say where the field is defined, continuous, constant") {
    std::mt19937 random(5);
    std::uniform_real_distribution<double> any(-1, 1), share(0, 1);
    for (int round = 0; round < 400; ++round) {
        MeasuredGrid grid;
        for (int k = 0; k < 2; ++k) {
            grid.places.emplace_back();
            double place = any(random);
            for (int i = 0; i < 6; ++i) grid.places.back().push_back(place += 0.05 + share(random));
        }
        std::vector<double> values(36);
        for (double& value : values) value = random() % 20 == 0 ? none : any(random);
        grid.values = column(values);
        grid.isLinear = round % 2 == 0;
        const auto field = fieldOfGrid(grid);
        std::array<Bounds, 2> box;
        for (int k = 0; k < 2; ++k) {
            const auto& places = grid.places[static_cast<std::size_t>(k)];
            const double from = places.front() - 0.3 + share(random) * (places.back() - places.front());
            box[static_cast<std::size_t>(k)] = {from, from + (round % 5 == 0 ? 0 : share(random) * 1.5)};
        }
        const MeasuredField::Over over = field->over(box);
        bool isStraight = false;
        const Bounds slope = field->slopeOver(0, box, isStraight);
        double first = none;
        for (int i = 0; i < 200; ++i) {
            const std::vector<double> place{box[0].low + share(random) * (box[0].high - box[0].low),
                                            box[1].low + share(random) * (box[1].high - box[1].low)};
            const double value = at(*field, place);
            if (std::isnan(value)) {
                CHECK_FALSE(over.isDefined);
                continue;
            }
            CHECK(value >= over.values.low);
            CHECK(value <= over.values.high);
            if (std::isnan(first)) first = value;
            if (over.isConstant) CHECK(value == first);
            if (over.isDefined && grid.isLinear && field->slope(0)) {
                CHECK(at(*field->slope(0), place) >= slope.low);
                CHECK(at(*field->slope(0), place) <= slope.high);
            }
        }
    }
}

TEST_CASE("profiles along a variable are proven: straight between places, constant within cells") {
    const Page page = pageOf({"p(x, y) from \"slice.tif\"", "r(x, y) interpolates \"slice.tif\""});
    INFO(saidOf(page));
    const auto jetOf = [&](const std::string& formula, Bounds box) {
        KnownNames names = page.names;
        names.values.insert("x");
        const ParsedExpression parsed = parseExpression(decodeUtf8(formula), names);
        REQUIRE(parsed.expression);
        const Compiled compiled = compile(page, parsed.expression, std::vector<std::string>{"x"});
        REQUIRE(compiled.program);
        JetEvaluator<1> jets(*compiled.program);
        return jets({box})[0];
    };
    const Jet<1> cell = jetOf("p(x, 0.5) + x^2", {1.1, 1.2});
    CHECK(cell.value.isProof());
    CHECK(cell.first[0].low >= 2.19);
    CHECK(cell.first[0].high <= 2.41);
    const Jet<1> between = jetOf("r(x, 1)", {0.6, 0.9});
    CHECK(between.value.isProof());
    CHECK(between.first[0].low == Approx(1));
    CHECK(between.first[0].high == Approx(1));
    CHECK(between.second[0].low == 0);
    CHECK_FALSE(jetOf("p(x, 0.5)", {0.9, 1.1}).value.isProof()); // a jump inside
    CHECK_FALSE(jetOf("r(x, 1)", {0.4, 0.9}).value.isProof());   // undefined at its left end
}

TEST_CASE("a page lays a picture on its variables by pitch, origin and rows") {
    const auto page = [](const std::string& clauses) { return pageOf({"p(x, y) from \"slice.tif\"" + clauses}); };
    CHECK(valueOf(page(""), "p(0.1, 0.1)") == 1);
    CHECK(valueOf(page(""), "p(2.9, 1.9)") == 6);
    CHECK(valueOf(page(", rows upwards"), "p(0.1, 0.1)") == 4);
    CHECK(valueOf(page(", rows downwards"), "p(0.1, 0.1)") == 1);
    // 4 5 6 above 1 2 3; each turn is counter-clockwise.
    const auto corners = [&](const std::string& clauses, double width, double height) {
        const Page turned = page(clauses);
        const auto value = [&](double x, double y) {
            return valueOf(turned, "p(" + std::to_string(x) + ", " + std::to_string(y) + ")");
        };
        return std::vector{value(0.1, 0.1), value(width - 0.1, 0.1), value(0.1, height - 0.1),
                           value(width - 0.1, height - 0.1)};
    };
    CHECK(corners("", 3, 2) == std::vector<double>{1, 3, 4, 6});
    CHECK(corners(", turned 90", 2, 3) == std::vector<double>{4, 1, 6, 3});
    CHECK(corners(", turned 180", 3, 2) == std::vector<double>{6, 4, 3, 1});
    CHECK(corners(", turned 270", 2, 3) == std::vector<double>{3, 6, 1, 4});
    CHECK(corners(", rows upwards, turned 90", 2, 3) == std::vector<double>{1, 4, 3, 6});
    CHECK(corners(", rows upwards, turned 180", 3, 2) == std::vector<double>{3, 1, 6, 4});
    CHECK(valueOf(page(", turned 90, pitch 0.5, 2, origin 10, 20"), "p(10.1, 25.9)") == 6);
    CHECK(page(", turned 45").lines[0].problems.at(0).sentence ==
          "A picture is turned by 90, 180 or 270 degrees, counter-clockwise.");
    CHECK(valueOf(page(", pitch 0.5"), "p(1.4, 0.9)") == 6);
    CHECK(valueOf(page(", pitch 0.5, 2"), "p(1.4, 2.1)") == 6);
    CHECK(valueOf(page(", pitch 0.5, origin -10, 100"), "p(-8.6, 100.9)") == 6);
    CHECK(valueOf(page(", origin -10, 100"), "p(-7.1, 101.9)") == 6);
    CHECK(valueOf(pageOf({"d = 0.25", "p(x, y) from \"slice.tif\", pitch 2d"}), "p(1.4, 0.9)") == 6);
    CHECK(valueOf(pageOf({"(u, v, g) from \"slice.tif\", pitch 0.5", "m = mean(g), where u > 1"}), "m") == 4.5);
    CHECK(valueOf(pageOf({"(u, v, g) from \"slice.tif\", origin 10, 0"}), "total(u)") == 2 * (10.5 + 11.5 + 12.5));
}

TEST_CASE("a variable that a measured field runs along is offered with the field's own extent") {
    const auto offered = [](const std::string& line, const std::string& plot, std::size_t variables) {
        const Plotted plotted = readPlotted(pageOf({line}), plot, variables);
        REQUIRE(plotted.problems.size() == 1);
        return plotted.problems[0].suggestion;
    };
    CHECK(offered("p(x, q) from \"slice.tif\", pitch 0.5", "p(x, 1)", 1).ends_with("x in [0, 1.5]"));
    CHECK(offered("p(x, q) interpolates \"slice.tif\"", "p(x, 1)", 1).ends_with("x in [0.5, 2.5]"));
    CHECK(offered("f(x) = x", "f(x)", 1).ends_with("x in [-5, 5]"));
}

TEST_CASE("grids of three directions, of rows of places, and their slopes") {
    const Page page = pageOf({"h(x, y, t) interpolates \"flow.nc\", variable \"head\"",
                              "z(x, y) interpolates \"triples.csv\"", "x in [0, 1], unit m", "y in [0, 1], unit m"});
    INFO(saidOf(page));
    CHECK(valueOf(page, "h(0.5, 0.5, 2.5)") == Approx(0.5 + 1 + 1));
    CHECK(page.lines[0].unit == "m");
    CHECK(page.lines[0].label == "hydraulic head");
    CHECK(valueOf(page, "z(0.5, 2.5)") == 2.5);
    CHECK(valueOf(pageOf({"z(x, y) interpolates \"triples.csv\"", "g(x, y) = d/dx(z(x, y)^2)"}), "g(0.5, 0)") ==
          Approx(2 * 1.5 * 1));
}

TEST_CASE("what is no grid, or is not laid rightly, is said with a way out") {
    const auto said = [](const std::string& line) { return saidOf(pageOf({line})); };
    CHECK(said("p(x) from \"slice.tif\"").find("write p(x, y)") != std::string::npos);
    CHECK(said("p(x, y, t) from \"slice.tif\"").find("2 directions") != std::string::npos);
    CHECK(said("p(x, y) from \"other.tif\"").find("not here") != std::string::npos);
    CHECK(said("p(x, y) from \"slice.tif\", pitch 0").find("more than 0") != std::string::npos);
    CHECK(said("p(x, y) from \"slice.tif\", origin 1").find("for each direction") != std::string::npos);
    CHECK(said("p(x, y) from \"slice.tif\", rows sideways").find("upwards or downwards") != std::string::npos);
    CHECK(said("p(x, y) from \"slice.tif\", pitch").find("number is missing") != std::string::npos);
    CHECK(said("p(x, y) from \"slice.tif\", variable head").find("quotation marks") != std::string::npos);
    CHECK(said("f(x) = x, pitch 2").find("belongs to a field") != std::string::npos);
    CHECK(said("p(x, x) from \"slice.tif\"").find("twice") != std::string::npos);
    CHECK(said("p(x, y) from \"slice.tif\" 3").find("Nothing follows") != std::string::npos);
    CHECK(said("p(x, y) from \"\"").find("empty") != std::string::npos);
    CHECK(said("p(x, y) interpolates (X, Y, Z)").find("belong together") != std::string::npos);
    CHECK(said("(x, y, z) from \"triples.csv\", pitch 2").find("no pitch") != std::string::npos);
    const Page page = pageOf({"p(x, y) from \"slice.tif\"", "g(x, y) = d/dx(p(x, y))"});
    CHECK(saidOf(page).find("jumps from cell to cell") != std::string::npos);
}

TEST_CASE("tables are grids by triples, by numbers above columns, by an empty corner, or by their rows") {
    const auto table = [](std::vector<DataColumn> columns) {
        DataTable made;
        made.columns = std::move(columns);
        return made;
    };
    const GridOfTable heading =
        gridOf(table({{"z", "", "", column({3, 1})}, {"10", "", "", column({1, 2})}, {"20", "", "", column({3, 4})}}));
    REQUIRE(heading.trouble.empty());
    CHECK(*heading.axes[0].places == std::vector<double>{10, 20});
    CHECK(*heading.axes[1].places == std::vector<double>{1, 3});
    CHECK(*heading.values == std::vector<double>{2, 4, 1, 3});
    const GridOfTable corner = gridOf(table(
        {{"", "", "", column({none, 5, 6})}, {"", "", "", column({-1, 1, 2})}, {"", "", "", column({-2, 3, 4})}}));
    REQUIRE(corner.trouble.empty());
    CHECK(*corner.axes[0].places == std::vector<double>{-2, -1});
    CHECK(*corner.values == std::vector<double>{3, 1, 4, 2});
    const GridOfTable rows = gridOf(table({{"", "", "", column({1, 2})}, {"", "", "", column({3, 4})}}));
    REQUIRE(rows.trouble.empty());
    CHECK(rows.axes[0].isCounted);
    CHECK(*rows.values == std::vector<double>{2, 4, 1, 3}); // the first row on top
    const auto triple = [&](std::vector<double> x, std::vector<double> y) {
        return gridOf(table({{"x", "", "", column(x)}, {"y", "", "", column(y)}, {"z", "", "", column({1, 2, 3, 4})}}));
    };
    CHECK(triple({0, 1, 0, 1}, {0, 0, 1, 2}).trouble.find("every combination") != std::string::npos);
    CHECK(triple({0, 0, 1, 1}, {0, 0, 1, 1}).trouble.find("two of its rows") != std::string::npos);
    CHECK(triple({0, 1, 0, none}, {0, 0, 1, 1}).trouble.find("no place") != std::string::npos);
    CHECK(gridOf(table({{"x", "", "", column({1, 2})}})).trouble.find("fewer than two") != std::string::npos);
}

TEST_CASE("what is linear is exact on triangles, and what is bilinear in a square is exact in its image") {
    std::mt19937 random(9);
    std::uniform_real_distribution<double> any(-1, 1), share(0, 1);
    for (int round = 0; round < 200; ++round) {
        std::vector<double> x, y;
        for (int k = 0; k < 4; ++k) { // a convex quadrilateral about a place far from zero or near
            const double angle = 1.5707963267948966 * (k + 0.4 * share(random)), away = round % 2 == 0 ? 0 : 1e5;
            x.push_back(away + 3 * std::cos(angle));
            y.push_back(away + 3 * std::sin(angle) * (round % 7 == 0 ? 0.1 : 1));
        }
        const auto quad = meshOfNodes(x, y, {{0, 1, 2, 3}});
        const auto triangles = meshOfNodes(x, y, {{0, 1, 2, ElementMesh::none}, {0, 2, 3, ElementMesh::none}});
        const double a = any(random), b = any(random), c = any(random);
        std::vector<double> linear, corners;
        for (int k = 0; k < 4; ++k) linear.push_back(a + b * (x[k] - x[0]) + c * (y[k] - y[0]));
        for (int k = 0; k < 4; ++k) corners.push_back(any(random));
        const auto onQuad = fieldOfMesh(quad, corners, false), flatOnQuad = fieldOfMesh(quad, linear, false),
                   flat = fieldOfMesh(triangles, linear, false), whole = fieldOfMesh(quad, {7}, true);
        for (int i = 0; i < 30; ++i) {
            const double s = share(random), t = share(random);
            const std::array<double, 4> weights{(1 - s) * (1 - t), s * (1 - t), s * t, (1 - s) * t};
            std::vector<double> place{0, 0};
            double value = 0;
            for (int k = 0; k < 4; ++k) {
                place[0] += weights[k] * x[k];
                place[1] += weights[k] * y[k];
                value += weights[k] * corners[k];
            }
            const double plane = a + b * (place[0] - x[0]) + c * (place[1] - y[0]),
                         margin = round % 2 == 0 ? 1e-9 : 1e-6;
            CHECK(at(*onQuad, place) == Approx(value).margin(margin));
            CHECK(at(*flatOnQuad, place) == Approx(plane).margin(margin));
            CHECK(at(*flat, place) == Approx(plane).margin(margin));
            CHECK(at(*flatOnQuad->slope(0), place) == Approx(b).margin(1e3 * margin));
            CHECK(at(*flat->slope(1), place) == Approx(c).margin(1e3 * margin));
            CHECK(at(*whole, place) == 7);
        }
        CHECK(std::isnan(at(*onQuad, {x[0] + 10, y[0]})));
        CHECK(at(*flat, {x[1], y[1]}) == Approx(linear[1]).margin(1e-9));
    }
}

TEST_CASE("bounds over boxes hold the values on a mesh, and a box within a triangle is proven") {
    const auto mesh =
        meshOfNodes({0, 4, 4, 0}, {0, 0, 4, 4}, {{0, 1, 2, ElementMesh::none}, {0, 2, 3, ElementMesh::none}});
    const auto field = fieldOfMesh(mesh, {0, 4, 8, 4}, false);
    const std::array<Bounds, 2> inside{Bounds{2, 3}, Bounds{0.5, 1}}, across{Bounds{1, 3}, Bounds{1, 3}};
    CHECK(field->over(inside).isDefined);
    CHECK(field->over(inside).isContinuous);
    CHECK_FALSE(field->over(across).isDefined); // known only from values: nothing is claimed
    CHECK(field->over(across).values.low <= 2);
    CHECK(field->over(across).values.high >= 6);
    const std::array<Bounds, 2> beyond{Bounds{5, 6}, Bounds{0, 1}};
    CHECK(field->over(beyond).values.low > field->over(beyond).values.high);
}

TEST_CASE("elements that are none are left out by their numbers, and the rest is taken") {
    const std::vector<Column> places{column({0, 1, 1, 0, 2, 0.5, none}), column({0, 0, 1, 1, 0.5, 0.2, 1})};
    const auto read = [&](std::vector<Column> corners) { return meshOf(places, corners); };
    const auto notes = [](const MeshOfColumns& mesh) {
        std::string all;
        for (const std::string& note : mesh.notes) all += note + "\n";
        return all;
    };
    const MeshOfColumns mixed =
        read({column({1, 3, 1, 1, 9, 2.5, 1, 7, 1}), column({2, 2, 2, 2, 1, 1, 1, 1, 5}),
              column({3, 1, 3, 3, 2, 2, 2, 2, 3}), column({4, none, none, none, none, none, none, none, 4})});
    REQUIRE(mixed.mesh);
    INFO(notes(mixed));
    CHECK(notes(mixed).find("Elements 5 and 6 name nodes that are not there, such as 9 of 7") != std::string::npos);
    CHECK(notes(mixed).find("Element 7 has no area") != std::string::npos);
    CHECK(notes(mixed).find("Element 8 has a node without a place") != std::string::npos);
    CHECK(notes(mixed).find("Elements 3 and 4 stand there already") != std::string::npos);
    CHECK(notes(mixed).find("Element 2 runs clockwise") != std::string::npos);
    CHECK(mixed.rows == std::vector<std::size_t>{0, 1, 8});
    const MeshOfColumns turned = read({column({1}), column({4}), column({3}), column({2})});
    REQUIRE(turned.mesh);
    CHECK(notes(turned) == "Element 1 runs clockwise; turned round.\n");
    const MeshOfColumns bent = read({column({1}), column({6}), column({2}), column({3})}); // a corner inwards
    REQUIRE(bent.mesh);
    CHECK(bent.mesh->elements.size() == 2);
    CHECK(notes(bent).find("corner inwards") != std::string::npos);
    const MeshOfColumns crossing = read({column({1}), column({3}), column({2}), column({4})});
    CHECK_FALSE(crossing.mesh);
    CHECK(crossing.trouble.find("crosses itself") != std::string::npos);
    const MeshOfColumns fromZero = read({column({0}), column({1}), column({2})});
    REQUIRE(fromZero.mesh);
    CHECK(fromZero.mesh->elements[0][2] == 2);
    const MeshOfColumns nothing = read({column({}), column({}), column({})});
    CHECK(nothing.trouble == "There are no elements.");
}

TEST_CASE("holes of a mesh are named by the nodes round them") {
    // Squares on a grid, some of which are left out: two holes, a bay in the edge, and a part that stands alone.
    const std::vector<std::string> rows{"xxxxxx..", "x.xxxx.x", "xxx..x..", "xxxxxx..", "xx.xxx.."};
    std::vector<double> x, y;
    const std::size_t width = rows[0].size() + 1;
    for (std::size_t j = 0; j <= rows.size(); ++j) {
        for (std::size_t i = 0; i < width; ++i) {
            x.push_back(1e6 + static_cast<double>(i));
            y.push_back(1e6 + static_cast<double>(j));
        }
    }
    std::vector<std::array<std::uint32_t, 4>> elements;
    for (std::size_t j = 0; j < rows.size(); ++j) {
        for (std::size_t i = 0; i + 1 < width; ++i) {
            const auto a = static_cast<std::uint32_t>(j * width + i), up = static_cast<std::uint32_t>(width);
            if (rows[j][i] == 'x') elements.push_back({a, a + 1, a + 1 + up, a + up});
        }
    }
    const auto holes = holesOf(*meshOfNodes(x, y, elements));
    REQUIRE(holes.size() == 2);
    CHECK(std::set(holes[0].begin(), holes[0].end()) == std::set<std::uint32_t>{10, 11, 19, 20});
    CHECK(std::set(holes[1].begin(), holes[1].end()) == std::set<std::uint32_t>{21, 22, 23, 30, 31, 32});
    std::vector<double> corners[4];
    for (const auto& element : elements) {
        for (std::size_t k = 0; k < 4; ++k) corners[k].push_back(element[k] + 1);
    }
    const std::array<Column, 2> places{column(x), column(y)};
    const std::array<Column, 4> nodes{column(corners[0]), column(corners[1]), column(corners[2]), column(corners[3])};
    const MeshOfColumns read = meshOf(places, nodes);
    REQUIRE(read.notes.size() == 1);
    CHECK(read.notes[0] ==
          "There are 2 holes, the first one between nodes 11, 20, 21 and 12; nothing is drawn in them.");
    CHECK(read.mesh->rows.front() == 1);
    CHECK(read.mesh->firstNode == 1);
}

TEST_CASE("columns of nodes and elements are a function, with values of either") {
    const std::vector<std::string> lines{"X = {0, 2, 2, 0}", "Y = {0, 0, 1, 1}", "H = {0, 2, 3, 1}", "K = {10, 20}",
                                         "a = {1, 1}",       "b = {2, 3}",       "c = {3, 4}"};
    const auto with = [&](std::vector<std::string> further) {
        std::vector<std::string> all = lines;
        all.insert(all.end(), further.begin(), further.end());
        return readPage(all);
    };
    const Page page =
        with({"h(x, y) interpolates (X, Y, H) on (a, b, c)", "k(x, y) interpolates (X, Y, K) on (a, b, c)",
              "w(x, y) interpolates (X + 1, 2Y, H^2) on (a, b, c)"});
    INFO(saidOf(page));
    CHECK(valueOf(page, "h(1, 0.25)") == Approx(1.25));
    CHECK(valueOf(page, "k(1.5, 0.1)") == 10);
    CHECK(valueOf(page, "k(0.5, 0.9)") == 20);
    CHECK(valueOf(page, "w(3, 2)") == 9);
    CHECK(saidOf(with({"h(x, y) interpolates (X, Y, {1, 2, 3}) on (a, b, c)"})).find("3 values for 4 nodes") !=
          std::string::npos);
    CHECK(saidOf(with({"h(x, y) interpolates (X, {1}, H) on (a, b, c)"})).find("places to the right") !=
          std::string::npos);
    CHECK(saidOf(with({"h(x, y) interpolates (X, Y, H) on (a, b)"})).find("three nodes or four") != std::string::npos);
    CHECK(saidOf(with({"h(x) interpolates (X, Y, H) on (a, b, c)"})).find("two variables") != std::string::npos);
    CHECK(saidOf(with({"h(x, y) interpolates (X, Y, H) on (a, b, {1})"})).find("as many rows") != std::string::npos);
    CHECK(saidOf(with({"h(x, y) interpolates (X, Y, H) on ({8, 9}, b, c)"})).find("nodes that are not there") !=
          std::string::npos);
}
