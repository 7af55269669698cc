#include "sampling/element_samples.h"

#include "formula/base/text.h"
#include "formula/compile/compile.h"
#include "formula/lines/read_page.h"
#include "formula/notation/parser.h"
#include "formula/page/page.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <random>

using namespace coulter;

namespace {

const PanelMap map{{ScaleKind::Linear, 0, 4, 120}, {ScaleKind::Linear, 0, 3, 90}};
const FieldTolerance tolerance{0.02, -2, 2};
const std::array<Interval, 2> everywhere{Interval{-9, 9, true, true}, Interval{-9, 9, true, true}};

/// A page over a mesh of 4 × 3 squares with a shaken inner node each; every second square is divided into triangles.
struct Made {
    Made() {
        std::mt19937 random(3);
        std::uniform_real_distribution<double> shake(-0.2, 0.2);
        std::vector<double> x, y, h, k, corners[4];
        for (int j = 0; j <= 3; ++j) {
            for (int i = 0; i <= 4; ++i) {
                const bool inner = i > 0 && i < 4 && j > 0 && j < 3;
                x.push_back(i + (inner ? shake(random) : 0));
                y.push_back(j + (inner ? shake(random) : 0));
                h.push_back(x.back() / 2 - y.back() / 3);
            }
        }
        const auto add = [&](double a, double b, double c, double d) {
            const double nodes[] = {a, b, c, d};
            for (int corner = 0; corner < 4; ++corner) corners[corner].push_back(nodes[corner]);
            k.push_back(static_cast<double>(k.size()));
        };
        for (int j = 0; j < 3; ++j) {
            for (int i = 0; i < 4; ++i) {
                const double a = 5 * j + i + 1, b = a + 1, c = a + 6, d = a + 5;
                if ((i + j) % 2 == 0) {
                    add(a, b, c, d);
                } else {
                    add(a, b, c, std::nan(""));
                    add(a, c, d, std::nan(""));
                }
            }
        }
        DataTable nodes, elements;
        const auto column = [](std::vector<double> numbers) {
            return std::make_shared<const std::vector<double>>(std::move(numbers));
        };
        nodes.source = "nodes";
        nodes.columns = {{"X", "", "", column(x)}, {"Y", "", "", column(y)}, {"H", "", "", column(h)}};
        elements.source = "elements";
        elements.columns = {{"a", "", "", column(corners[0])},
                            {"b", "", "", column(corners[1])},
                            {"c", "", "", column(corners[2])},
                            {"d", "", "", column(corners[3])},
                            {"K", "", "", column(k)}};
        DataTables tables;
        tables.put(nodes);
        tables.put(elements);
        const std::vector<std::string> lines{"(X, Y, H) from \"nodes\"", "(a, b, c, d, K) from \"elements\"",
                                             "h(x, y) interpolates (X, Y, H) on (a, b, c, d)",
                                             "k(x, y) interpolates (X, Y, K) on (a, b, c, d)"};
        page = readPage(lines, tables);
        INFO((page.problems().empty() ? "" : describe(page.problems()[0])));
        REQUIRE(page.problems().empty());
        mesh = page.lines[2].field->mesh();
    }
    std::shared_ptr<const Program> program(const std::string& formula) const {
        KnownNames names = page.names;
        names.values.insert({"x", "y"});
        const ParsedExpression parsed = parseExpression(decodeUtf8(formula), names);
        REQUIRE(parsed.expression);
        return compile(page, parsed.expression, std::vector<std::string>{"x", "y"}).program;
    }
    Page page;
    std::shared_ptr<const ElementMesh> mesh;
};

double areaOf(const FieldSamples& s) {
    double area = 0;
    for (const auto& [a, b, c] : s.triangles)
        area += ((s.x[b] - s.x[a]) * (s.y[c] - s.y[a]) - (s.y[b] - s.y[a]) * (s.x[c] - s.x[a])) / 2;
    return area;
}

/// The samples' own value at a place, linear in its triangle.
double valueAt(const FieldSamples& s, double x, double y) {
    for (const auto& [a, b, c] : s.triangles) {
        const double area = (s.x[b] - s.x[a]) * (s.y[c] - s.y[a]) - (s.y[b] - s.y[a]) * (s.x[c] - s.x[a]);
        const double p = ((x - s.x[a]) * (s.y[c] - s.y[a]) - (y - s.y[a]) * (s.x[c] - s.x[a])) / area,
                     q = ((s.x[b] - s.x[a]) * (y - s.y[a]) - (s.y[b] - s.y[a]) * (x - s.x[a])) / area;
        if (p < 0 || q < 0 || p + q > 1) continue;
        return (1 - p - q) * s.values[0][a] + p * s.values[0][b] + q * s.values[0][c];
    }
    return std::nan("");
}

} // namespace

TEST_CASE("what is linear on a mesh is sampled at its nodes, and at the middles of quadrilaterals") {
    const Made made;
    const FieldSamples s = sampleElements(*made.program("h(x, y)"), *made.mesh, everywhere, false, map, tolerance);
    CHECK(s.finished);
    CHECK(s.pointCount() == 20 + 6);
    CHECK(s.triangles.size() == 12 + 6 * 4);
    CHECK(areaOf(s) == Approx(12));
    std::mt19937 random(4);
    std::uniform_real_distribution<double> share(0.001, 0.999);
    for (int i = 0; i < 300; ++i) {
        const double x = 4 * share(random), y = 3 * share(random);
        CHECK(valueAt(s, x, y) == Approx(x / 2 - y / 3).margin(1e-12));
    }
}

TEST_CASE("a formula that bends a field of a mesh is refined until lines of a level keep the tolerance") {
    const Made made;
    const auto program = made.program("sin(2 h(x, y)) + x y/9");
    const FieldSamples s = sampleElements(*program, *made.mesh, everywhere, false, map, tolerance);
    CHECK(s.finished);
    CHECK(s.pointCount() > 100);
    CHECK(areaOf(s) == Approx(12));
    std::mt19937 random(4);
    std::uniform_real_distribution<double> share(0.001, 0.999);
    double worst = 0;
    for (int i = 0; i < 500; ++i) {
        const double x = 4 * share(random), y = 3 * share(random);
        const double h = x / 2 - y / 3, value = std::sin(2 * h) + x * y / 9;
        const double across = std::cos(2 * h) + y / 9, up = -2.0 / 3 * std::cos(2 * h) + x / 9;
        const double perMm = std::max(std::hypot(across, up) / 30, 4.0 / 4 / 90); // 30 mm for each unit
        worst = std::max(worst, std::abs(valueAt(s, x, y) - value) / perMm);
    }
    CHECK(worst < 2 * tolerance.millimetres); // looked at are the middles of edges alone
    CHECK(worst > 0.05 * tolerance.millimetres);
}

TEST_CASE("a field that jumps between elements has points of its own in each, with the values inside") {
    const Made made;
    const FieldSamples s = sampleElements(*made.program("k(x, y)"), *made.mesh, everywhere, true, map, tolerance);
    CHECK(s.pointCount() == 12 * 3 + 6 * 5);
    for (const auto& [a, b, c] : s.triangles) {
        CHECK(s.values[0][a] == s.values[0][b]);
        CHECK(s.values[0][b] == s.values[0][c]);
    }
    CHECK(std::ranges::count(s.values[0], 0.0) == 5); // the first is a quadrilateral
}

TEST_CASE("triangles are cut where the intervals of the variables end, without cracks") {
    const Made made;
    std::mt19937 random(8);
    std::uniform_real_distribution<double> share(0, 1);
    for (int round = 0; round < 40; ++round) {
        const double left = -0.5 + 2.5 * share(random), right = left + 0.1 + 2.5 * share(random),
                     low = -0.5 + 2 * share(random), high = low + 0.1 + 2.5 * share(random);
        const std::array<Interval, 2> within{Interval{left, right, true, true}, Interval{low, high, true, true}};
        const bool cells = round % 2 == 1;
        const FieldSamples s =
            sampleElements(*made.program(cells ? "k(x, y)" : "h(x, y)"), *made.mesh, within, cells, map, tolerance);
        const double width = std::min(4.0, right) - std::max(0.0, left),
                     height = std::min(3.0, high) - std::max(0.0, low);
        CHECK(areaOf(s) == Approx(std::max(0.0, width) * std::max(0.0, height)));
        std::map<std::pair<std::uint32_t, std::uint32_t>, int> edges;
        for (const auto& t : s.triangles) {
            for (std::size_t k = 0; k < 3; ++k) {
                CHECK(s.x[t[k]] >= left);
                CHECK(s.x[t[k]] <= right);
                CHECK(s.y[t[k]] >= low);
                CHECK(s.y[t[k]] <= high);
                ++edges[std::minmax(t[k], t[(k + 1) % 3])];
            }
        }
        if (cells) continue;
        // What is no edge of two triangles lies on the border.
        for (const auto& [edge, count] : edges) {
            if (count == 2) continue;
            CHECK(count == 1);
            const double x = (s.x[edge.first] + s.x[edge.second]) / 2, y = (s.y[edge.first] + s.y[edge.second]) / 2,
                         away = std::min({std::abs(x - std::max(0.0, left)), std::abs(x - std::min(4.0, right)),
                                          std::abs(y - std::max(0.0, low)), std::abs(y - std::min(3.0, high))});
            CHECK(away < 1e-12);
        }
    }
}

TEST_CASE("on a mesh nothing goes on once a stop is asked for") {
    const Made made;
    std::stop_source stop;
    stop.request_stop();
    const FieldSamples s = sampleElements(*made.program("sin(20 h(x, y))"), *made.mesh, everywhere, false, map,
                                          tolerance, stop.get_token());
    CHECK_FALSE(s.finished);
    CHECK(s.pointCount() <= 26);
}
