// A dot at a place of a curve, with words that a thin line leads to.
#include "drawing/colours.h"
#include "notes/note_settings.h"
#include "notes/note_shapes.h"
#include "plots/dashes.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

const Setting* const settings[] = {&anchorSetting, &noteColourSetting,  &noteWidthSetting, &notePatternSetting,
                                   &dashesSetting, &noteLettersSetting, &framedSetting,    &paddingSetting};

Point middleOfWords(const DrawnNote& note) {
    const Point dot = note.at[0], words = note.at[1];
    // The words begin or end at their place, on the side of the dot.
    const double side = words.x < dot.x ? -1 : 1;
    return {words.x + side * note.words.width / 2, words.y};
}

void draw(const DrawnNote& note, Canvas& canvas) {
    const Point dot = note.at[0], words = note.at[1];
    const double radius = 0.7, dx = words.x - dot.x, dy = words.y - dot.y, far = std::hypot(dx, dy);
    if (far > radius + 0.8) {
        const double end = (far - 0.6) / far, start = radius / far;
        canvas.stroke({{{dot.x + dx * start, dot.y + dy * start}, {dot.x + dx * end, dot.y + dy * end}}}, penOf(note));
    }
    std::vector<Point> round = circle(radius);
    for (Point& p : round) p = {p.x + dot.x, p.y + dot.y};
    canvas.fill({round}, {paperColour, 1});
    round.push_back(round.front());
    canvas.stroke({round}, {note.colour, std::max(0.2, number(note.settings, noteWidthSetting))});
    drawWords(note, middleOfWords(note), canvas);
}

Rect wordsRect(const DrawnNote& note) { return rectOfWords(note, middleOfWords(note)); }

constexpr Point usual[] = {{0, 0}, {6, -6}};

} // namespace

extern const NoteKind calloutNote{
    .name = "callout",
    .meaning = "a dot at a place, with words that a thin line leads to; without words it says the place's coordinates",
    .leastPlaces = 2,
    .mostPlaces = 2,
    .settings = settings,
    .showsPlace = true,
    .draw = draw,
    .wordsRect = wordsRect,
    .usual = usual};

} // namespace coulter
