// Lines across the panel: at a value, or at a place.
#include "drawing/colours.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/compile/compile.h"
#include "formula/page/free_names.h"
#include "plots/column_source.h"
#include "plots/common_settings.h"
#include "plots/dashes.h"
#include "plots/handles.h"
#include "plots/reading.h"
#include "plots/telling.h"
#include "typeset/formula_math.h"
#include "typeset/words.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr const char* runsWords[] = {"level", "upright"};
const Setting runsSetting{.key = "runs",
                          .label = "runs",
                          .meaning = "level at a value, or upright at a place",
                          .type = SettingType::Word,
                          .usual = std::string("level"),
                          .words = runsWords};

const Setting wordsSetting{.key = "words",
                           .label = "words",
                           .meaning = "at the line's end; formulas between $, values of quantities in braces",
                           .type = SettingType::Text,
                           .usual = std::string(),
                           .isStyle = false};

const Setting thinWidthSetting{.key = "width",
                               .label = "width",
                               .meaning = "width of lines",
                               .type = SettingType::Number,
                               .usual = 0.2,
                               .unit = "mm",
                               .least = 0.01,
                               .greatest = 20,
                               .step = 0.05};

const Setting* const settings[] = {&runsSetting,    &wordsSetting,  &colourSetting, &thinWidthSetting,
                                   &patternSetting, &dashesSetting, &opacitySetting};

bool isUpright(const Settings& set) { return word(set, runsSetting) == 1; }

Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading;
    for (std::size_t c = 0; c < casesOf(plotted); ++c) {
        const ColumnAnswer found =
            columnsOf(context.page, plotted.expression, plotted.cases.empty() ? FixedValues{} : caseValues(plotted, c));
        if (found.columns.size() != 1) {
            reading.problems = found.problems;
            if (found.columns.size() > 1)
                refuse(reading, plotted, "A line stands at a number, and this is a vector.",
                       "write one of its components");
            else if (!freeVariables(context.page, plotted.expression).empty())
                reading.problems = {{-1, plotted.expression->span.first, plotted.expression->span.last,
                                     "A reference line stands at one number, and this depends on a variable.",
                                     "write a value, such as f(2), or draw it as a line"}};
            reading.drawn.clear();
            return reading;
        }
        Drawn drawn = drawnOf(context, plot, path, c, casesOf(plotted));
        if (!colour(plot.settings, colourSetting)) drawn.colour = inkColour;
        drawn.entry = entryOf(context.page, plotted, c);
        drawn.words = withValues(context.page, text(plot.settings, wordsSetting));
        if (!drawn.words.empty() && !drawn.name) drawn.name = ""; // its words say what it is
        drawn.names = std::make_shared<const KnownNames>(context.page.names);
        addColumns(drawn, {columnName(plotted.expression)}, {found.columns[0]},
                   isUpright(plot.settings) ? std::array{0, -1} : std::array{-1, 0});
        reading.drawn.push_back(std::move(drawn));
    }
    return reading;
}

void reach(const Drawn& drawn, Extents& extents) {
    extents.holdAll(isUpright(drawn.settings), *columnsOf(drawn)->numbers[0]);
}

void trace(const Drawn& drawn, const Limits& x, const Limits& y, std::vector<double>& xs, std::vector<double>& ys) {
    const bool upright = isUpright(drawn.settings);
    const Limits& along = upright ? y : x;
    for (const double value : *columnsOf(drawn)->numbers[0]) {
        for (int i = 0; i <= 200; ++i) {
            const double place = along.low + (along.high - along.low) * i / 200;
            xs.push_back(upright ? value : place);
            ys.push_back(upright ? place : value);
        }
    }
}

/// The lines on the sheet, each with its row.
std::vector<std::pair<std::vector<Point>, std::size_t>> linesOf(const Drawn& drawn, const Frame& frame) {
    std::vector<std::pair<std::vector<Point>, std::size_t>> lines;
    const std::vector<double>& values = *columnsOf(drawn)->numbers[0];
    const Rect& f = frame.rect;
    for (std::size_t i = 0; i < values.size(); ++i) {
        const bool upright = isUpright(drawn.settings);
        const Point p = upright ? frame.onSheet(values[i], frame.map.y.low) : frame.onSheet(frame.map.x.low, values[i]);
        if (upright && p.x >= f.x && p.x <= f.right()) lines.push_back({{{p.x, f.bottom()}, {p.x, f.y}}, i});
        if (!upright && p.y >= f.y && p.y <= f.bottom()) lines.push_back({{{f.x, p.y}, {f.right(), p.y}}, i});
    }
    return lines;
}

Pen pen(const Drawn& drawn) {
    const double width = number(drawn.settings, thinWidthSetting);
    return {drawn.colour, width, linePattern(drawn, width), false, opacityOf(drawn)};
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    Polylines lines;
    for (const auto& [line, row] : linesOf(drawn, frame)) lines.push_back(line);
    canvas.stroke(lines, pen(drawn));
    if (drawn.words.empty() || lines.empty()) return;
    // At the right end above a level line, at the upper end right of an upright one; on its other side near the edge.
    const Box box = labelBox(drawn.words, FontId::Text, canvas.letterSize(), *drawn.names);
    const Point end = lines[0].back();
    if (isUpright(drawn.settings)) {
        const double right = end.x + 0.8;
        canvas.text(box,
                    {right + box.width <= frame.rect.right() ? right : end.x - 0.8 - box.width, end.y + box.ascent},
                    drawn.colour);
        return;
    }
    const double above = end.y - 0.7 - box.descent;
    canvas.text(box, {end.x - box.width, above - box.ascent >= frame.rect.y ? above : end.y + 0.7 + box.ascent},
                drawn.colour);
}

void swatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    const double middle = rect.y + rect.height / 2;
    canvas.stroke({{{rect.x, middle}, {rect.right(), middle}}}, pen(drawn));
}

std::optional<Touched> tell(const Drawn& drawn, const Frame& frame, Point mm, double reach) {
    std::optional<Touched> told;
    const Columns& columns = *columnsOf(drawn);
    for (const auto& [line, row] : linesOf(drawn, frame)) {
        const double away = isUpright(drawn.settings) ? std::abs(line[0].x - mm.x) : std::abs(line[0].y - mm.y);
        if (!(away < reach)) continue;
        reach = away;
        const Point at = isUpright(drawn.settings) ? Point{line[0].x, mm.y} : Point{mm.x, line[0].y};
        const std::string value = printedNumber((*columns.numbers[0])[row], 6);
        told = Touched{columns.names[0] == value ? value : columns.names[0] + " = " + value, at, away};
    }
    return told;
}

/// A line that is spelled as a number can be dragged.
std::vector<Handle> handles(const Drawn& drawn, const Frame& frame) {
    double value = 0;
    if (!isPlainNumber(drawn.of, value)) return {};
    std::vector<Handle> all;
    const bool upright = isUpright(drawn.settings);
    for (const auto& [line, row] : linesOf(drawn, frame)) all.push_back({{line}, upright, !upright});
    return all;
}

void drag(Plot& plot, const Drawn& drawn, const Frame& frame, std::size_t, Point to) {
    plot.of = isUpright(drawn.settings) ? roundedPlace(frame.xAt(to.x), frame.map.x)
                                        : roundedPlace(frame.yAt(to.y), frame.map.y);
}

} // namespace

extern const PlotKind referenceLineKind;
const PlotKind referenceLineKind{
    .name = "reference line",
    .meaning = "a line across the panel at a value, or at a place",
    .runs = Runs::Along,
    .layer = Layer::Line,
    .settings = settings,
    .takesColumns = true,
    .fits = [](const Signature& s) { return s.components == 1 && (s.columns || s.constant); },
    .read = read,
    .reach = reach,
    .trace = trace,
    .draw = draw,
    .swatch = swatch,
    .tell = tell,
    .handles = handles,
    .drag = drag};

} // namespace coulter
