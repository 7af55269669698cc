#include "notes/note_shapes.h"

#include "notes/note_settings.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace coulter {
namespace {

double radians(double degrees) { return degrees * std::numbers::pi / 180; }

/// The rectangle that words, their padding and frame take, unturned, round (0, 0).
std::vector<Point> cornersOf(const DrawnNote& note) {
    const double padding = number(note.settings, paddingSetting), x = note.words.width / 2 + padding,
                 y = note.words.height() / 2 + padding;
    return {{-x, -y}, {x, -y}, {x, y}, {-x, y}};
}

std::vector<Point> placed(const DrawnNote& note, Point middle) {
    std::vector<Point> corners = cornersOf(note);
    for (Point& p : corners)
        p = turnedAbout({middle.x + p.x, middle.y + p.y}, middle, number(note.settings, turnSetting));
    return corners;
}

} // namespace

Pen penOf(const DrawnNote& note) {
    const double width = number(note.settings, noteWidthSetting);
    std::vector<double> dashes =
        note.dashes.empty() ? dashesOf(word(note.settings, notePatternSetting), width) : note.dashes;
    return {note.colour, width, std::move(dashes), true, 1};
}

void drawClosed(const DrawnNote& note, const std::vector<Point>& outline, Canvas& canvas) {
    if (const auto fill = colour(note.settings, fillSetting))
        canvas.fill({outline}, {*fill, number(note.settings, fillOpacitySetting)});
    std::vector<Point> closed = outline;
    if (!closed.empty()) closed.push_back(closed.front());
    canvas.stroke({closed}, penOf(note));
}

void drawWords(const DrawnNote& note, Point middle, Canvas& canvas) {
    if (note.words.height() == 0) return;
    std::vector<Point> corners = placed(note, middle);
    if (const auto fill = colour(note.settings, fillSetting); fill && note.kind->mostPlaces == 1)
        canvas.fill({corners}, {*fill, number(note.settings, fillOpacitySetting)});
    if (truth(note.settings, framedSetting)) {
        corners.push_back(corners.front());
        canvas.stroke({corners}, penOf(note));
    }
    canvas.turnedText(note.words, middle, -radians(number(note.settings, turnSetting)), note.colour);
}

Rect rectOfWords(const DrawnNote& note, Point middle) {
    if (note.words.height() == 0) return {};
    double left = HUGE_VAL, right = -HUGE_VAL, top = HUGE_VAL, bottom = -HUGE_VAL;
    for (const Point p : placed(note, middle)) {
        left = std::min(left, p.x);
        right = std::max(right, p.x);
        top = std::min(top, p.y);
        bottom = std::max(bottom, p.y);
    }
    return {left, top, right - left, bottom - top};
}

Point middleOf(const std::vector<Point>& places) {
    Point sum;
    for (const Point p : places) sum = {sum.x + p.x, sum.y + p.y};
    const double count = std::max<double>(1, static_cast<double>(places.size()));
    return {sum.x / count, sum.y / count};
}

Point turnedAbout(Point p, Point middle, double degrees) {
    if (degrees == 0) return p;
    const double turn = radians(degrees), c = std::cos(turn), s = std::sin(turn), x = p.x - middle.x,
                 y = p.y - middle.y;
    return {middle.x + c * x + s * y, middle.y - s * x + c * y}; // y runs downwards
}

} // namespace coulter
