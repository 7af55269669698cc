// A line through places; words stand at its end.
#include "notes/note_settings.h"
#include "notes/note_shapes.h"
#include "plots/dashes.h"

namespace coulter {
namespace {

const Setting* const settings[] = {&anchorSetting, &noteColourSetting,  &noteWidthSetting, &notePatternSetting,
                                   &dashesSetting, &noteLettersSetting, &behindSetting};

Point middleOfWords(const DrawnNote& note) {
    const Point end = note.at.back();
    return {end.x + 1 + note.words.width / 2, end.y};
}

void draw(const DrawnNote& note, Canvas& canvas) {
    canvas.stroke({note.at}, penOf(note));
    drawWords(note, middleOfWords(note), canvas);
}

Rect wordsRect(const DrawnNote& note) { return rectOfWords(note, middleOfWords(note)); }

constexpr Point usual[] = {{-10, 0}, {10, 0}};

} // namespace

extern const NoteKind lineNote{.name = "line",
                               .meaning = "a line through places; words stand at its end",
                               .leastPlaces = 2,
                               .mostPlaces = 1000,
                               .settings = settings,
                               .isCut = true,
                               .leads = true,
                               .draw = draw,
                               .wordsRect = wordsRect,
                               .usual = usual};

} // namespace coulter
