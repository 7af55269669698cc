#include "notes/read_notes.h"

#include "drawing/colours.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "notes/note_settings.h"
#include "plots/dashes.h"
#include "plots/handles.h"
#include "typeset/formula_math.h"
#include "typeset/words.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr double point = 25.4 / 72; // mm

Anchor anchorOf(const Note& note) { return static_cast<Anchor>(word(note.settings, anchorSetting)); }

/// Where a coordinate that is infinite stands: a little beyond the edge.
double orEdge(double sheet, double coordinate, double low, double high, bool growsToHigh) {
    if (!std::isinf(coordinate)) return sheet;
    return (coordinate > 0) == growsToHigh ? high + 1 : low - 1;
}

Point onSheet(const Note& note, const Frame& frame, const std::array<double, 3>& c) {
    switch (anchorOf(note)) {
    case Anchor::Sheet: return {c[0], c[1]};
    case Anchor::Panel: return {frame.rect.x + c[0], frame.rect.y + c[1]};
    case Anchor::Data: break;
    }
    if (frame.space) return frame.onSheet(Place{c[0], c[1], c[2]});
    if (frame.polar) return frame.polar->onSheet(c[0], c[1]);
    const Rect& r = frame.rect;
    return {orEdge(frame.acrossSheet(c[0]), c[0], r.x, r.right(), !frame.leftwards),
            orEdge(frame.downSheet(c[1]), c[1], r.y, r.bottom(), frame.downwards)};
}

/// "(2, 0.354)" of the first place.
std::string placeWords(const std::array<double, 3>& c, bool inSpace) {
    std::string words = "$(" + roundedNumber(c[0], 4) + ", " + roundedNumber(c[1], 4);
    if (inSpace) words += ", " + roundedNumber(c[2], 4);
    return words + ")$";
}

} // namespace

std::vector<std::array<double, 3>> coordinatesOf(const Page& page, const Note& note, Problems* problems) {
    std::vector<std::array<double, 3>> all;
    for (const NotePlace& place : note.at) {
        std::array<double, 3> coordinates{};
        for (std::size_t k = 0; k < std::min<std::size_t>(3, place.size()); ++k) {
            if (isPlainNumber(place[k], coordinates[k])) continue;
            const ColumnAnswer found = columnsOf(page, place[k]);
            const bool isOne = found.columns.size() == 1 && found.columns[0]->size() == 1;
            coordinates[k] = isOne ? (*found.columns[0])[0] : std::nan("");
            if (isOne || !problems) continue;
            problems->push_back(found.problems.empty()
                                    ? Problem{-1, 0, 0,
                                              "A coordinate of a note is one number, and “" + place[k] + "” is not.",
                                              "write a number, or a value such as f(2)"}
                                    : found.problems.front());
            problems->back().line = -1;
        }
        all.push_back(coordinates);
    }
    return all;
}

NotesRead readNotes(const Page& page, const Panel& panel, std::size_t panelIndex, const Frame& frame, Em letterSize) {
    NotesRead read;
    for (std::size_t n = 0; n < panel.notes.size(); ++n) {
        const Note& note = panel.notes[n];
        Problems problems;
        DrawnNote drawn;
        drawn.path = {ItemKind::Note, panelIndex, n, 0};
        drawn.kind = findNoteKind(note.kind);
        drawn.settings = note.settings;
        drawn.colour = colour(note.settings, noteColourSetting).value_or(inkColour);
        const auto coordinates = coordinatesOf(page, note, &problems);
        const bool inData = anchorOf(note) == Anchor::Data;
        const bool inSpace = inData && frame.space;
        for (std::size_t i = 0; i < note.at.size() && problems.empty(); ++i) {
            if (note.at[i].size() != (inSpace ? 3U : 2U))
                problems.push_back(
                    inSpace
                        ? Problem{-1, 0, 0, "In space a place has three coordinates.", "add the third one"}
                        : Problem{-1, 0, 0, "A place of the plane has two coordinates.", "leave out the third one"});
        }
        bool isShown = !inData;
        for (std::size_t i = 0; i < coordinates.size() && problems.empty(); ++i) {
            const Point p = onSheet(note, frame, coordinates[i]);
            if (!std::isfinite(p.x) || !std::isfinite(p.y)) {
                problems.push_back(Problem{-1, 0, 0,
                                           "A place of the note “" + std::string(drawn.kind->name) +
                                               "” is undefined, or its scale has no such value.",
                                           "give it another coordinate"});
                break;
            }
            isShown = isShown || frame.rect.grown(0.5).contains(p) || drawn.kind->isCut;
            drawn.at.push_back(p);
        }
        std::optional<Problem> wrongDashes;
        drawn.dashes = readDashes(page, note.settings, wrongDashes);
        if (wrongDashes && problems.empty()) problems.push_back(*wrongDashes);
        if (problems.empty() && isShown) {
            const double letters = number(note.settings, noteLettersSetting);
            const Em size = letters > 0 ? Em(letters * point, letterSize.face) : letterSize;
            if (drawn.kind->words) {
                drawn.words = drawn.kind->words(page, note.words, note.settings, size, problems);
            } else {
                std::string words = withValues(page, note.words);
                if (words.empty() && drawn.kind->showsPlace) words = placeWords(coordinates[0], inSpace);
                if (!words.empty()) drawn.words = labelBox(words, FontId::Text, size, page.names);
            }
            if (problems.empty()) read.drawn.push_back(std::move(drawn));
        }
        read.problems.push_back(std::move(problems));
    }
    return read;
}

bool canBePlaced(const Note& note, const Frame& frame) { return anchorOf(note) != Anchor::Data || !frame.space; }

NotePlace placeAt(const Note& note, const Frame& frame, Point mm) {
    const auto tenth = [](double value) { return shortestNumber(std::round(value * 10) / 10); };
    switch (anchorOf(note)) {
    case Anchor::Sheet: return {tenth(mm.x), tenth(mm.y)};
    case Anchor::Panel: return {tenth(mm.x - frame.rect.x), tenth(mm.y - frame.rect.y)};
    case Anchor::Data: break;
    }
    if (frame.polar) {
        const double x = mm.x - frame.polar->middle.x, y = frame.polar->middle.y - mm.y;
        const double angle = frame.polar->sense * (std::atan2(y, x) - frame.polar->zero);
        return {roundedNumber(angle, 4),
                roundedPlace(frame.polar->radius.fromSheet(std::hypot(x, y)), frame.polar->radius)};
    }
    return {roundedPlace(frame.xAt(mm.x), frame.map.x), roundedPlace(frame.yAt(mm.y), frame.map.y)};
}

} // namespace coulter
