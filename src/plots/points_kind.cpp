// Points: pairs of columns, perhaps with a value each, or a vector over a grid; joined or not.
#include "drawing/colours.h"
#include "plots/column_source.h"
#include "plots/common_settings.h"
#include "plots/curve_programs.h"
#include "plots/curve_source.h"
#include "plots/dashes.h"
#include "plots/marks.h"
#include "plots/reading.h"
#include "plots/telling.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace coulter {
namespace {

constexpr const char* joinedWords[] = {"no", "in order", "closed"};
const Setting joinedSetting{.key = "joined",
                            .label = "joined",
                            .meaning = "by straight lines in the order of the rows, or back to the first as well",
                            .type = SettingType::Word,
                            .usual = std::string("no"),
                            .words = joinedWords};

constexpr const char* besideWords[] = {"nothing", "coordinates", "places", "values"};
const Setting besideSetting{
    .key = "beside",
    .label = "beside them",
    .meaning = "what is written beside each mark: its coordinates, where it stands, or its value, which is the third "
               "column if there are three; of the first 60",
    .type = SettingType::Word,
    .usual = std::string("nothing"),
    .words = besideWords};

const Setting* const settings[] = {&colourSetting,  &shapeSetting,  &sizeSetting,   &fillingSetting,
                                   &besideSetting,  &joinedSetting, &insideSetting, &widthSetting,
                                   &patternSetting, &dashesSetting, &runSetting,    &opacitySetting};

/// A vector over a grid is places in the plane; its variable is no coordinate.
Reading readPlaces(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading;
    nameCoordinates(reading, context, plotted.expression, false);
    for (std::size_t c = 0; c < casesOf(plotted); ++c) {
        CaseColumns columns = columnsOfCase(context, plotted, c, reading.problems);
        if (columns.numbers.size() > 3)
            refuse(reading, plotted, "Points lie in the plane, and this has three components.",
                   "write the two that are to be seen");
        if (!reading.problems.empty()) {
            reading.drawn.clear();
            break;
        }
        std::rotate(columns.numbers.begin(), columns.numbers.begin() + 1, columns.numbers.end());
        Drawn drawn = drawnOf(context, plot, path, c, casesOf(plotted));
        drawn.entry = columnEntry(context.page, plotted, c);
        addColumns(drawn, {"x", "y", columns.names[0]}, std::move(columns.numbers), {0, 1}, true);
        reading.drawn.push_back(std::move(drawn));
    }
    return reading;
}

Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    const bool arePlaces = !plotted.isColumn && componentCount(context.page, plotted) > 1;
    return arePlaces ? readPlaces(context, plot, plotted, path) : readPairs(context, plot, plotted, path, {}, 3);
}

/// Joined points, broken where one is undefined.
Polylines linesThrough(const std::vector<Point>& places, bool closed) {
    Polylines lines;
    bool broken = true;
    for (const Point& p : places) {
        if (!std::isfinite(p.x) || !std::isfinite(p.y)) {
            broken = true;
            continue;
        }
        if (std::exchange(broken, false)) lines.emplace_back();
        lines.back().push_back(p);
    }
    if (closed && lines.size() == 1) lines[0].push_back(lines[0].front());
    return lines;
}

/// A bit of paper for words to stand on.
std::vector<Point> plateUnder(const Box& box, Point at) {
    constexpr double beyond = 0.3;
    const double left = at.x - beyond, right = at.x + box.width + beyond, top = at.y - box.ascent - beyond,
                 bottom = at.y + box.descent + beyond;
    return {{left, top}, {right, top}, {right, bottom}, {left, bottom}};
}

/// Above what is higher than the rows beside it, and below what is lower, where a line through them is not.
void writeBeside(const std::vector<Point>& places, const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    constexpr std::size_t most = 60;
    constexpr int digits = 4;
    const std::size_t what = word(drawn.settings, besideSetting);
    const Columns& columns = *columnsOf(drawn);
    const double away = number(drawn.settings, sizeSetting) / 2 + 0.8;
    std::size_t written = 0;
    for (std::size_t i = 0; i < places.size() && what > 0 && written < most; ++i) {
        const Point& p = places[i];
        if (!frame.rect.contains(p)) continue;
        ++written;
        const std::string x = printedNumber((*columns.numbers[0])[i], digits),
                          y = printedNumber((*columns.numbers[1])[i], digits),
                          value = columns.numbers.size() > 2 && !columns.arePlaces
                                      ? printedNumber((*columns.numbers[2])[i], digits)
                                      : y;
        const Box box = labelBox(what == 1   ? "(" + x + ", " + y + ")"
                                 : what == 2 ? x
                                             : value,
                                 FontId::Text, 0.85 * canvas.letterSize(), {});
        const double before = i > 0 ? places[i - 1].y : HUGE_VAL,
                     after = i + 1 < places.size() ? places[i + 1].y : HUGE_VAL;
        const double beside =
            std::isfinite(before) && std::isfinite(after) ? (before + after) / 2 : std::min(before, after);
        const bool fits = p.y - away - box.ascent >= frame.rect.y;
        const bool above = fits && (!std::isfinite(beside) || p.y <= beside); // y runs downwards on the sheet
        const double left =
            std::clamp(p.x - box.width / 2, frame.rect.x, std::max(frame.rect.x, frame.rect.right() - box.width));
        const Point at{left, above ? p.y - away : p.y + away + box.ascent};
        if (drawn.wordsOnPaper) canvas.fill({plateUnder(box, at)}, {paperColour, 0.75});
        canvas.text(box, at, inkColour);
    }
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const Columns& columns = *columnsOf(drawn);
    const std::size_t joined = word(drawn.settings, joinedSetting);
    if (joined == 0 && word(drawn.settings, besideSetting) == 0) {
        drawMarks(marksAt(columns, frame), drawn, canvas);
        return drawLeftOut(drawn, frame, canvas);
    }
    const std::vector<Point> places = onSheet(frame, *columns.numbers[0], *columns.numbers[1]);
    if (joined > 0) {
        const Polylines lines = linesThrough(places, joined == 2);
        if (const double inside = number(drawn.settings, insideSetting); inside > 0)
            canvas.fill(lines, {drawn.colour, inside});
        canvas.stroke(lines, penOf(drawn));
    }
    drawMarks(places, drawn, canvas);
    writeBeside(places, drawn, frame, canvas);
    drawLeftOut(drawn, frame, canvas);
}

void swatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    if (word(drawn.settings, joinedSetting) > 0) return lineSwatch(drawn, rect, canvas);
    drawMarks({{rect.x + rect.width / 2, rect.y + rect.height / 2}}, drawn, canvas);
}

} // namespace

extern const PlotKind pointsKind;
const PlotKind pointsKind{
    .name = "points",
    .meaning = "pairs of columns, or values and vectors over a grid, as marks; joined or not",
    .runs = Runs::Along,
    .layer = Layer::Line,
    .settings = settings,
    .takesColumns = true,
    .fits = [](const Signature& s) { return s.variables <= 1 && s.components <= (s.columns ? 3 : 2) && !s.constant; },
    .read = read,
    .reach = reachPairs,
    .draw = draw,
    .swatch = swatch,
    .tell = tellPoint};

} // namespace coulter
