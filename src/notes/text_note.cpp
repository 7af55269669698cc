// Words at a place.
#include "notes/note_settings.h"
#include "notes/note_shapes.h"
#include "plots/dashes.h"

namespace coulter {
namespace {

const Setting* const settings[] = {&anchorSetting,    &noteColourSetting,  &noteLettersSetting, &alignSetting,
                                   &turnSetting,      &fillSetting,        &fillOpacitySetting, &framedSetting,
                                   &noteWidthSetting, &notePatternSetting, &dashesSetting,      &paddingSetting,
                                   &behindSetting};

Point middle(const DrawnNote& note) {
    const double half = note.words.width / 2;
    const auto align = static_cast<Align>(word(note.settings, alignSetting));
    const Point at = note.at[0];
    const Point unturned{at.x + (align == Align::Left ? half : align == Align::Right ? -half : 0), at.y};
    return turnedAbout(unturned, at, number(note.settings, turnSetting));
}

void draw(const DrawnNote& note, Canvas& canvas) { drawWords(note, middle(note), canvas); }

Rect wordsRect(const DrawnNote& note) { return rectOfWords(note, middle(note)); }

constexpr Point usual[] = {{0, 0}};

} // namespace

extern const NoteKind textNote{.name = "text",
                               .meaning = "words at a place",
                               .leastPlaces = 1,
                               .mostPlaces = 1,
                               .settings = settings,
                               .draw = draw,
                               .wordsRect = wordsRect,
                               .usual = usual};

} // namespace coulter
