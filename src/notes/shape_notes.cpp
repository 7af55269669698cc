// Shapes that enclose something: rectangle and ellipse between two corners, polygon through corners; words stand in
// the middle.
#include "notes/note_settings.h"
#include "notes/note_shapes.h"
#include "plots/dashes.h"

#include <cmath>
#include <numbers>

namespace coulter {
namespace {

const Setting* const settings[] = {&anchorSetting,      &noteColourSetting, &noteWidthSetting,   &notePatternSetting,
                                   &dashesSetting,      &fillSetting,       &fillOpacitySetting, &turnSetting,
                                   &noteLettersSetting, &behindSetting};
const Setting* const polygonSettings[] = {&anchorSetting,      &noteColourSetting,  &noteWidthSetting,
                                          &notePatternSetting, &dashesSetting,      &fillSetting,
                                          &fillOpacitySetting, &noteLettersSetting, &behindSetting};

std::vector<Point> turned(const DrawnNote& note, std::vector<Point> outline) {
    const Point middle = middleOf(note.at);
    for (Point& p : outline) p = turnedAbout(p, middle, number(note.settings, turnSetting));
    return outline;
}

void drawRectangle(const DrawnNote& note, Canvas& canvas) {
    const Point a = note.at[0], b = note.at[1];
    drawClosed(note, turned(note, {a, {b.x, a.y}, b, {a.x, b.y}}), canvas);
    drawWords(note, middleOf(note.at), canvas);
}

void drawEllipse(const DrawnNote& note, Canvas& canvas) {
    const Point a = note.at[0], b = note.at[1], middle = middleOf(note.at);
    std::vector<Point> outline;
    constexpr int corners = 180;
    for (int i = 0; i < corners; ++i) {
        const double turn = 2 * std::numbers::pi * i / corners;
        outline.push_back(
            {middle.x + std::cos(turn) * std::abs(b.x - a.x) / 2, middle.y + std::sin(turn) * std::abs(b.y - a.y) / 2});
    }
    drawClosed(note, turned(note, std::move(outline)), canvas);
    drawWords(note, middle, canvas);
}

void drawPolygon(const DrawnNote& note, Canvas& canvas) {
    drawClosed(note, note.at, canvas);
    drawWords(note, middleOf(note.at), canvas);
}

Rect wordsRect(const DrawnNote& note) { return rectOfWords(note, middleOf(note.at)); }

constexpr Point usual[] = {{-12, -7}, {12, 7}};
constexpr Point usualPolygon[] = {{-10, 7}, {10, 7}, {0, -8}};

} // namespace

extern const NoteKind rectangleNote{.name = "rectangle",
                                    .meaning = "between two corners; words stand in its middle",
                                    .leastPlaces = 2,
                                    .mostPlaces = 2,
                                    .settings = settings,
                                    .isCut = true,
                                    .draw = drawRectangle,
                                    .wordsRect = wordsRect,
                                    .usual = usual};
extern const NoteKind ellipseNote{.name = "ellipse",
                                  .meaning = "in a rectangle between two corners; words stand in its middle",
                                  .leastPlaces = 2,
                                  .mostPlaces = 2,
                                  .settings = settings,
                                  .isCut = true,
                                  .draw = drawEllipse,
                                  .wordsRect = wordsRect,
                                  .usual = usual};
extern const NoteKind polygonNote{.name = "polygon",
                                  .meaning = "through corners and closed; words stand in its middle",
                                  .leastPlaces = 3,
                                  .mostPlaces = 1000,
                                  .settings = polygonSettings,
                                  .isCut = true,
                                  .draw = drawPolygon,
                                  .wordsRect = wordsRect,
                                  .usual = usualPolygon};

} // namespace coulter
