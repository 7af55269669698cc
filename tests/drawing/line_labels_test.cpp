#include "drawing/line_labels.h"
#include "drawing/nearness.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>

using namespace coulter;

namespace {

const Rect room{0, 0, 100, 80};
Box words() { return textBox("12.5", FontId::Text, 2.5); }

std::vector<Point> ring(double x, double y, double r) {
    std::vector<Point> points;
    for (int i = 0; i < 90; ++i)
        points.push_back(
            {x + r * std::cos(i * 4 * std::numbers::pi / 180), y - r * std::sin(i * 4 * std::numbers::pi / 180)});
    return points;
}

double lengthOf(const Polylines& lines) {
    double length = 0;
    for (const auto& line : lines) {
        for (std::size_t i = 1; i < line.size(); ++i)
            length += std::hypot(line[i].x - line[i - 1].x, line[i].y - line[i - 1].y);
    }
    return length;
}

} // namespace

TEST_CASE("words stand where a line is straight, along it, and the line is broken under them") {
    // A quarter of a circle, then straight on to the left.
    std::vector<Point> line = ring(70, 40, 15);
    line.resize(23);
    for (double x = 69; x > 5; --x) line.push_back({x, 25});
    const LineLabels found = placeLabels({{line, false, words()}}, room, 1000);
    REQUIRE(found.labels.size() == 1);
    CHECK(found.labels[0].middle.y == Approx(25));
    CHECK(found.labels[0].turn == Approx(0).margin(1e-12));
    CHECK(found.lines[0].size() == 2);
    CHECK(lengthOf({line}) - lengthOf(found.lines[0]) == Approx(words().width + 1.4).margin(1e-6));
    for (const auto& part : found.lines[0]) CHECK(distanceTo(part, found.labels[0].middle) > words().width / 2);
}

TEST_CASE("words are upright whichever way a line runs") {
    for (const double degrees : {0.0, 30.0, 85.0, 90.0, 120.0, 180.0, 250.0, 300.0}) {
        const double c = std::cos(degrees * std::numbers::pi / 180), s = std::sin(degrees * std::numbers::pi / 180);
        const LineLabels found =
            placeLabels({{{{50 - 35 * c, 40 - 35 * s}, {50 + 35 * c, 40 + 35 * s}}, false, words()}}, room, 1000);
        REQUIRE(found.labels.size() == 1);
        CHECK(found.labels[0].turn <= 1.5);
        CHECK(found.labels[0].turn > 1.5 - std::numbers::pi);
        CHECK(std::abs(std::sin(found.labels[0].turn) * c - std::cos(found.labels[0].turn) * s) < 1e-9);
    }
}

TEST_CASE("words keep clear of each other, of other lines and of the edge") {
    std::vector<LabelledLine> lines;
    for (int i = 1; i <= 20; ++i) lines.push_back({ring(50, 40, 1.7 * i), true, words()});
    const LineLabels found = placeLabels(lines, room, 30);
    CHECK(found.labels.size() >= 1);
    for (const LineLabel& label : found.labels) {
        const double c = std::cos(label.turn), s = std::sin(label.turn), half = words().width / 2;
        for (double along = -half; along <= half; along += 0.25) {
            const Point p{label.middle.x + along * c, label.middle.y + along * s};
            CHECK(room.contains(p));
            for (std::size_t k = 0; k < lines.size(); ++k) {
                if (k == label.line) continue;
                for (const auto& part : found.lines[k]) CHECK(distanceTo(part, p) > words().height() / 2);
            }
        }
    }
    // So close to each other that no word fits between: none is written.
    lines.clear();
    for (int i = 1; i <= 20; ++i) lines.push_back({{{5, 4.0 + i}, {95, 4.0 + i}}, false, words()});
    const LineLabels close = placeLabels(lines, room, 30);
    CHECK(close.labels.empty());
    for (std::size_t k = 0; k < lines.size(); ++k) CHECK(lengthOf(close.lines[k]) == Approx(90));
    // Too short, and without words.
    CHECK(placeLabels({{ring(50, 40, 1), true, words()}, {ring(50, 40, 20), true, {}}, {{}, false, words()}}, room, 30)
              .labels.empty());
}
