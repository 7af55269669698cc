// An arrow from one place to another, straight or bent; words stand at its start.
#include "notes/note_settings.h"
#include "notes/note_shapes.h"
#include "plots/dashes.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

const Setting* const settings[] = {&anchorSetting,      &noteColourSetting, &noteWidthSetting, &notePatternSetting,
                                   &dashesSetting,      &headsSetting,      &headSizeSetting,  &bendSetting,
                                   &noteLettersSetting, &behindSetting};

/// The point that pulls the arrow's middle off the straight line.
Point pull(const DrawnNote& note) {
    const Point a = note.at[0], b = note.at[1];
    const double bend = 2 * number(note.settings, bendSetting);
    return {(a.x + b.x) / 2 + bend * (b.y - a.y), (a.y + b.y) / 2 - bend * (b.x - a.x)};
}

std::vector<Point> path(const DrawnNote& note) {
    const Point a = note.at[0], b = note.at[1], c = pull(note);
    if (number(note.settings, bendSetting) == 0) return {a, b};
    std::vector<Point> points;
    constexpr int pieces = 48;
    for (int i = 0; i <= pieces; ++i) {
        const double t = static_cast<double>(i) / pieces, s = 1 - t;
        points.push_back({s * s * a.x + 2 * s * t * c.x + t * t * b.x, s * s * a.y + 2 * s * t * c.y + t * t * b.y});
    }
    return points;
}

/// Behind the start, so that the arrow points away from them.
Point middleOfWords(const DrawnNote& note) {
    const Point a = note.at[0], c = pull(note);
    const double dx = a.x - c.x, dy = a.y - c.y, far = std::hypot(dx, dy);
    const double ux = far > 0 ? dx / far : 0, uy = far > 0 ? dy / far : 0;
    // As far as the words reach in this direction, and a little more.
    const double reach = std::min(std::abs(ux) > 1e-9 ? note.words.width / 2 / std::abs(ux) : HUGE_VAL,
                                  std::abs(uy) > 1e-9 ? note.words.height() / 2 / std::abs(uy) : HUGE_VAL);
    const double away = (std::isfinite(reach) ? reach : 0) + 1;
    return {a.x + ux * away, a.y + uy * away};
}

/// Cut back by so many mm, for a head to stand there.
void shorten(std::vector<Point>& points, double by) {
    while (points.size() > 1 && by > 0) {
        const Point tip = points.back(), before = points[points.size() - 2];
        const double far = std::hypot(tip.x - before.x, tip.y - before.y);
        if (far > by) {
            points.back() = {tip.x + (before.x - tip.x) * by / far, tip.y + (before.y - tip.y) * by / far};
            return;
        }
        by -= far;
        points.pop_back();
    }
}

void draw(const DrawnNote& note, Canvas& canvas) {
    const auto heads = static_cast<Heads>(word(note.settings, headsSetting));
    const double size = number(note.settings, headSizeSetting);
    std::vector<Point> line = path(note);
    Polylines filled;
    for (const bool atEnd : {true, false}) {
        if (heads == (atEnd ? Heads::Start : Heads::End)) continue;
        if (!atEnd) std::ranges::reverse(line);
        // It points along the line as the eye sees it there: over its own length.
        std::vector<Point> rest = line;
        shorten(rest, size);
        const Point tip = line.back(), from = rest.size() > 1 || rest.empty() ? rest.back() : line.front();
        if (auto head = arrowHead(tip, from, size); !head.empty()) filled.push_back(std::move(head));
        shorten(line, 0.78 * size);
        if (!atEnd) std::ranges::reverse(line);
    }
    if (line.size() > 1) canvas.stroke({line}, penOf(note));
    for (const auto& head : filled) canvas.fill({head}, {note.colour, 1});
    drawWords(note, middleOfWords(note), canvas);
}

Rect wordsRect(const DrawnNote& note) { return rectOfWords(note, middleOfWords(note)); }

constexpr Point usual[] = {{-15, -8}, {0, 0}};

} // namespace

extern const NoteKind arrowNote{.name = "arrow",
                                .meaning = "from one place to another, straight or bent; words stand at its start",
                                .leastPlaces = 2,
                                .mostPlaces = 2,
                                .settings = settings,
                                .draw = draw,
                                .wordsRect = wordsRect,
                                .usual = usual};

} // namespace coulter
