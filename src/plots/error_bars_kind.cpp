// Readings with their errors, in either direction.
#include "drawing/thinning.h"
#include "plots/column_source.h"
#include "plots/common_settings.h"
#include "plots/marks.h"
#include "plots/telling.h"

#include <algorithm>
#include <cmath>

namespace coulter {

namespace {

const Setting uprightErrorSetting{.key = "error up",
                                  .label = "error up",
                                  .meaning = "of the vertical coordinate, to both sides: a number, a column, or a pair "
                                             "(down, up)",
                                  .type = SettingType::Formula,
                                  .usual = std::string(),
                                  .isStyle = false};
const Setting levelErrorSetting{.key = "error across",
                                .label = "error across",
                                .meaning = "of the horizontal coordinate, to both sides: a number, a column, or a pair "
                                           "(left, right)",
                                .type = SettingType::Formula,
                                .usual = std::string(),
                                .isStyle = false};

constexpr const char* asWords[] = {"bars", "band"};
const Setting asSetting{.key = "as",
                        .label = "drawn as",
                        .meaning = "a bar at each reading, or a band along all of them",
                        .type = SettingType::Word,
                        .usual = std::string("bars"),
                        .words = asWords};

const Setting capSetting{.key = "cap",
                         .label = "cap",
                         .meaning = "length of the cross lines at the ends of a bar",
                         .type = SettingType::Number,
                         .usual = 1.2,
                         .unit = "mm",
                         .least = 0,
                         .greatest = 50,
                         .step = 0.1};

const Setting barWidthSetting{.key = "bar width",
                              .label = "bar width",
                              .meaning = "width of the lines of error bars",
                              .type = SettingType::Number,
                              .usual = 0.25,
                              .unit = "mm",
                              .least = 0.01,
                              .greatest = 20,
                              .step = 0.05};

const Setting* const settings[] = {
    &uprightErrorSetting, &levelErrorSetting, &asSetting,  &colourSetting, &shapeOfReadingsSetting, &sizeSetting,
    &fillingSetting,      &barWidthSetting,   &capSetting, &widthSetting,  &opacitySetting};

/// The ends of the bars in one direction, as two further columns; none if no error was given.
void addEnds(const ReadingContext& context, const Plot& plot, const Plotted& plotted, std::size_t c,
             const Setting& setting, std::size_t coordinate, CaseColumns& columns, Problems& problems) {
    const std::string formula = text(plot.settings, setting);
    if (formula.empty() || columns.numbers.size() < 2) return;
    const std::size_t rows = columns.numbers[0]->size();
    const std::vector<Column> errors = furtherColumns(context, plotted, c, setting, formula, rows, problems);
    if (errors.empty()) return;
    const std::vector<double>& middle = *columns.numbers[coordinate];
    for (const double sign : {-1.0, 1.0}) {
        const std::vector<double>& error = sign < 0 ? *errors.front() : *errors.back();
        std::vector<double> ends(rows);
        for (std::size_t i = 0; i < rows; ++i) ends[i] = middle[i] + sign * std::abs(error[i]);
        columns.names.push_back(columns.names[coordinate] + (sign < 0 ? " least" : " greatest"));
        columns.numbers.push_back(std::make_shared<const std::vector<double>>(std::move(ends)));
    }
}

Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    return readPairs(context, plot, plotted, path, [&](std::size_t c, CaseColumns& columns, Problems& problems) {
        addEnds(context, plot, plotted, c, uprightErrorSetting, 1, columns, problems);
        addEnds(context, plot, plotted, c, levelErrorSetting, 0, columns, problems);
    });
}

/// Where the ends of bars upwards and across are among the columns; 0: there are none.
struct Ends {
    std::size_t up = 0, across = 0;
};
Ends endsOf(const Drawn& drawn) {
    const bool up = !text(drawn.settings, uprightErrorSetting).empty(),
               across = !text(drawn.settings, levelErrorSetting).empty();
    return {up ? 2U : 0U, across ? (up ? 4U : 2U) : 0U};
}

void reach(const Drawn& drawn, Extents& extents) {
    const Columns& columns = *columnsOf(drawn);
    reachPairs(drawn, extents);
    const Ends ends = endsOf(drawn);
    for (std::size_t k = 0; k < 2; ++k) {
        if (ends.up > 0) extents.holdAll(false, *columns.numbers[ends.up + k]);
        if (ends.across > 0) extents.holdAll(true, *columns.numbers[ends.across + k]);
    }
}

/// One bar with its cross lines; an end that a logarithmic scale cannot show is beyond the panel.
void addBar(ManySegments& lines, Point a, Point b, const Point& beyond, double cap) {
    if (!std::isfinite(a.x)) a.x = beyond.x;
    if (!std::isfinite(a.y)) a.y = beyond.y;
    if (!std::isfinite(b.x) || !std::isfinite(b.y) || !std::isfinite(a.x) || !std::isfinite(a.y)) return;
    lines.add(a, b);
    if (cap == 0) return;
    const bool upright = std::abs(b.y - a.y) >= std::abs(b.x - a.x);
    for (const Point& end : {a, b}) {
        if (upright)
            lines.add({end.x - cap / 2, end.y}, {end.x + cap / 2, end.y});
        else
            lines.add({end.x, end.y - cap / 2}, {end.x, end.y + cap / 2});
    }
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const Columns& columns = *columnsOf(drawn);
    const auto value = [&](std::size_t k, std::size_t i) { return (*columns.numbers[k])[i]; };
    const Ends ends = endsOf(drawn);
    const double cap = number(drawn.settings, capSetting);
    const Point beyond{frame.leftwards ? frame.rect.right() + 1 : frame.rect.x - 1, frame.beyondZero()};
    if (word(drawn.settings, asSetting) == 1 && ends.up > 0) {
        std::vector<std::size_t> order;
        for (std::size_t i = 0; i < columns.rows(); ++i) {
            if (std::isfinite(value(0, i)) && std::isfinite(value(ends.up, i)) && std::isfinite(value(ends.up + 1, i)))
                order.push_back(i);
        }
        std::ranges::stable_sort(order, {}, [&](std::size_t i) { return value(0, i); });
        std::vector<Point> band, back;
        for (const std::size_t i : order) {
            Point low = frame.onSheet(value(0, i), value(ends.up, i)),
                  high = frame.onSheet(value(0, i), value(ends.up + 1, i));
            if (!std::isfinite(low.x) || !std::isfinite(high.y)) continue;
            if (!std::isfinite(low.y)) low.y = beyond.y;
            band.push_back(high);
            back.push_back(low);
        }
        band.insert(band.end(), back.rbegin(), back.rend());
        canvas.fill({band}, {drawn.colour, 0.25 * opacityOf(drawn)});
    }
    const std::vector<Point> places = onSheet(frame, *columns.numbers[0], *columns.numbers[1]);
    const bool asBars = word(drawn.settings, asSetting) == 0;
    const Polylines lines = linesOfRows(frame.rect.grown(1), columns.rows(), [&](ManySegments& bars, std::size_t i) {
        const Point& at = places[i];
        if (ends.up > 0 && asBars)
            addBar(bars, {at.x, frame.downSheet(value(ends.up, i))}, {at.x, frame.downSheet(value(ends.up + 1, i))},
                   {HUGE_VAL, beyond.y}, cap);
        if (ends.across > 0)
            addBar(bars, {frame.acrossSheet(value(ends.across, i)), at.y},
                   {frame.acrossSheet(value(ends.across + 1, i)), at.y}, {beyond.x, HUGE_VAL}, cap);
    });
    canvas.stroke(lines, {drawn.colour, number(drawn.settings, barWidthSetting), {}, false, opacityOf(drawn)});
    drawMarks(places, drawn, canvas);
    drawLeftOut(drawn, frame, canvas);
}

void swatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    const Point middle{rect.x + rect.width / 2, rect.y + rect.height / 2};
    const double half = 0.35 * rect.height;
    ManySegments lines(rect);
    addBar(lines, {middle.x, middle.y + half}, {middle.x, middle.y - half}, {}, number(drawn.settings, capSetting));
    canvas.stroke(lines.lines(), {drawn.colour, number(drawn.settings, barWidthSetting), {}, false, opacityOf(drawn)});
    drawMarks({middle}, drawn, canvas);
}

} // namespace

extern const PlotKind errorBarsKind;
const PlotKind errorBarsKind{.name = "error bars",
                             .meaning = "readings with their errors, even or uneven, in either direction",
                             .runs = Runs::Along,
                             .layer = Layer::Line,
                             .settings = settings,
                             .takesColumns = true,
                             .fits = arePairs,
                             .read = read,
                             .reach = reach,
                             .draw = draw,
                             .swatch = swatch,
                             .tell = tellPoint};

} // namespace coulter
