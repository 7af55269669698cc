// A bracket over a stretch between two places; words stand at its tip.
#include "notes/note_settings.h"
#include "notes/note_shapes.h"
#include "plots/dashes.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

const Setting* const settings[] = {&anchorSetting,      &noteColourSetting,  &noteWidthSetting,
                                   &notePatternSetting, &dashesSetting,      &depthSetting,
                                   &curlySetting,       &noteLettersSetting, &behindSetting};

/// Along the bracket and away from it.
struct Directions {
    double length = 0, ux = 1, uy = 0, nx = 0, ny = -1;
};
Directions directionsOf(const DrawnNote& note) {
    const Point a = note.at[0], b = note.at[1];
    const double length = std::hypot(b.x - a.x, b.y - a.y);
    if (!(length > 0)) return {};
    const double ux = (b.x - a.x) / length, uy = (b.y - a.y) / length;
    return {length, ux, uy, uy, -ux};
}

/// A quarter of a turn from one point to another, leaving it in a direction, by a curve of the second degree.
void quarter(std::vector<Point>& line, Point from, Point corner, Point to) {
    constexpr int pieces = 10;
    for (int i = 0; i <= pieces; ++i) {
        const double t = static_cast<double>(i) / pieces, s = 1 - t;
        line.push_back({s * s * from.x + 2 * s * t * corner.x + t * t * to.x,
                        s * s * from.y + 2 * s * t * corner.y + t * t * to.y});
    }
}

std::vector<Point> outline(const DrawnNote& note) {
    const Directions d = directionsOf(note);
    const double depth = number(note.settings, depthSetting);
    const Point a = note.at[0];
    const auto at = [&](double along, double away) {
        return Point{a.x + d.ux * along + d.nx * away, a.y + d.uy * along + d.ny * away};
    };
    if (!truth(note.settings, curlySetting)) return {at(0, 0), at(0, depth), at(d.length, depth), at(d.length, 0)};
    const double half = depth / 2, round = std::min(std::abs(half), d.length / 4), middle = d.length / 2;
    std::vector<Point> line;
    quarter(line, at(0, 0), at(0, half), at(round, half));
    quarter(line, at(middle - round, half), at(middle, half), at(middle, depth));
    quarter(line, at(middle, depth), at(middle, half), at(middle + round, half));
    quarter(line, at(d.length - round, half), at(d.length, half), at(d.length, 0));
    return line;
}

Point middleOfWords(const DrawnNote& note) {
    const Directions d = directionsOf(note);
    const double depth = number(note.settings, depthSetting), side = depth < 0 ? -1 : 1;
    const double across = std::abs(d.nx) * note.words.width / 2 + std::abs(d.ny) * note.words.height() / 2;
    const double away = depth + side * (0.8 + across);
    const Point middle = middleOf(note.at);
    return {middle.x + d.nx * away, middle.y + d.ny * away};
}

void draw(const DrawnNote& note, Canvas& canvas) {
    canvas.stroke({outline(note)}, penOf(note));
    drawWords(note, middleOfWords(note), canvas);
}

Rect wordsRect(const DrawnNote& note) { return rectOfWords(note, middleOfWords(note)); }

constexpr Point usual[] = {{-10, 0}, {10, 0}};

} // namespace

extern const NoteKind bracketNote{.name = "bracket",
                                  .meaning = "over a stretch between two places; words stand at its tip",
                                  .leastPlaces = 2,
                                  .mostPlaces = 2,
                                  .settings = settings,
                                  .draw = draw,
                                  .wordsRect = wordsRect,
                                  .usual = usual};

} // namespace coulter
