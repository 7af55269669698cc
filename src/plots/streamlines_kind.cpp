// Lines along which a vector over two variables runs.
#include "drawing/arrow_head.h"
#include "drawing/colours.h"
#include "drawing/nearness.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "plots/common_settings.h"
#include "plots/dashes.h"
#include "plots/handles.h"
#include "plots/telling.h"
#include "plots/vectors.h"
#include "sampling/streamlines.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace coulter {
namespace {

const Setting throughSetting{
    .key = "through",
    .label = "through",
    .meaning = "a place (1, 2), or a pair of columns: a line through each; empty: lines that lie evenly",
    .type = SettingType::Formula,
    .usual = std::string(),
    .isStyle = false};

const Setting spacingSetting{.key = "spacing",
                             .label = "spacing",
                             .meaning = "between lines that lie evenly",
                             .type = SettingType::Number,
                             .usual = 5.0,
                             .unit = "mm",
                             .least = 0.8,
                             .greatest = 200,
                             .step = 0.5};

const Setting headEverySetting{.key = "head every",
                               .label = "head every",
                               .meaning = "so far along the lines an arrow's head; 0: none",
                               .type = SettingType::Number,
                               .usual = 25.0,
                               .unit = "mm",
                               .least = 0,
                               .greatest = 1000,
                               .step = 5};

const Setting dotEverySetting{.key = "dot every",
                              .label = "dot every",
                              .meaning =
                                  "positions of a particle at equal times, from where the line was begun: so much "
                                  "time between them, if the vector is a velocity; 0: none",
                              .type = SettingType::Number,
                              .usual = 0.0,
                              .least = 0,
                              .greatest = 1e300,
                              .step = 0.1,
                              .isStyle = false};

const Setting dotSizeSetting{.key = "dot size",
                             .label = "dot size",
                             .meaning = "across",
                             .type = SettingType::Number,
                             .usual = 1.0,
                             .unit = "mm",
                             .least = 0,
                             .greatest = 20,
                             .step = 0.1};

const Setting* const settings[] = {
    &throughSetting,         &spacingSetting,       &dotEverySetting, &headEverySetting, &headLengthSetting,
    &colouredByOtherSetting, &vectorColoursSetting, &colourSetting,   &widthSetting,     &patternSetting,
    &dashesSetting,          &dotSizeSetting,       &opacitySetting};

/// The field's direction on a panel whose upper left corner is (0, 0).
Direction directionOn(const Field& field, const Frame& frame) {
    const auto evaluator = std::make_shared<Evaluator>(*field.program);
    return [evaluator, &field, &frame](const PlaceInMm& mm) -> PlaceInMm {
        const double x = frame.xAt(frame.rect.x + mm[0]), y = frame.yAt(frame.rect.y + mm[1]);
        constexpr double nothing = std::numeric_limits<double>::quiet_NaN();
        if (x < field.intervals[0].low || x > field.intervals[0].high || y < field.intervals[1].low ||
            y > field.intervals[1].high)
            return {nothing, nothing};
        double u = 0, v = 0;
        const double* const in[] = {&x, &y};
        double* const out[] = {&u, &v};
        (*evaluator)(in, out, 1);
        const Point scale = millimetresPerUnit(frame, x, y);
        const double right = u * scale.x, down = v * scale.y, far = std::hypot(right, down);
        if (!(far > 0) || !std::isfinite(far)) return {nothing, nothing};
        return {right / far, down / far};
    };
}

/// Where lines are to run through, in coordinates; they are kept in the plot's second source.
std::vector<std::array<double, 2>> startsOf(const Drawn& drawn) {
    const Columns* columns = columnsOf(drawn, 1);
    std::vector<std::array<double, 2>> starts;
    for (std::size_t i = 0; columns && i < columns->rows(); ++i)
        starts.push_back({(*columns->numbers[0])[i], (*columns->numbers[1])[i]});
    return starts;
}

std::vector<Streamline> linesOf(const Drawn& drawn, const Frame& frame) {
    const Field& field = *fieldOf(drawn);
    StreamRules rules;
    rules.width = frame.rect.width;
    rules.height = frame.rect.height;
    rules.tolerance = frame.tolerance;
    const Direction direction = directionOn(field, frame);
    if (!columnsOf(drawn, 1)) return evenStreamlines(direction, number(drawn.settings, spacingSetting), rules);
    std::vector<Streamline> lines;
    for (const auto& [x, y] : startsOf(drawn)) {
        const Point at = frame.onSheet(x, y);
        if (!frame.rect.contains(at)) continue;
        lines.push_back(streamlineThrough(direction, {at.x - frame.rect.x, at.y - frame.rect.y}, rules));
    }
    return lines;
}

/// A place on a line, and when a particle is there.
struct Passed {
    double time = 0; ///< from where the line was begun on: negative before; infinite beyond a place of rest
    PlaceInMm at{};
    bool isPoint = false; ///< it is one of the line's points
};

/// Places along a line at most a quarter of a millimetre apart.
/// Method: between them the time is integrated by Gauss's rule of three points.
std::vector<Passed> passedBy(const Streamline& line, const Field& field, const Frame& frame) {
    static constexpr std::array<double, 3> nodes{0.1127016653792583, 0.5, 0.8872983346207417};
    static constexpr std::array<double, 3> weights{5.0 / 18, 8.0 / 18, 5.0 / 18};
    constexpr double longest = 0.25;
    std::vector<Passed> passed;
    std::vector<double> lengths, xs, ys;
    for (std::size_t i = 0; i < line.points.size(); ++i) {
        if (i > 0) {
            const PlaceInMm &a = line.points[i - 1], &b = line.points[i];
            const double length = std::hypot(b[0] - a[0], b[1] - a[1]),
                         parts = std::max(1.0, std::ceil(length / longest));
            const auto along = [&](double t) { return PlaceInMm{a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])}; };
            for (double part = 0; part < parts; ++part) {
                for (const double node : nodes) {
                    const PlaceInMm at = along((part + node) / parts);
                    xs.push_back(frame.xAt(frame.rect.x + at[0]));
                    ys.push_back(frame.yAt(frame.rect.y + at[1]));
                }
                lengths.push_back(length / parts);
                if (part + 1 < parts) passed.push_back({0, along((part + 1) / parts), false});
            }
        }
        passed.push_back({0, line.points[i], true});
    }
    const std::vector<VectorAt> vectors = vectorsAt(field, frame, std::move(xs), std::move(ys));
    double time = 0, begun = 0;
    std::size_t point = 0;
    for (std::size_t i = 0; i < passed.size(); ++i) {
        for (std::size_t k = 0; k < 3 && i > 0; ++k) {
            const VectorAt& each = vectors[3 * (i - 1) + k];
            const Point scale = millimetresPerUnit(frame, each.x, each.y);
            time += weights[k] * lengths[i - 1] / std::hypot(each.u * scale.x, each.v * scale.y);
        }
        passed[i].time = time;
        if (passed[i].isPoint && point++ == line.start) begun = time;
    }
    for (Passed& each : passed) each.time -= begun;
    return passed;
}

/// Where a particle is at multiples of a time.
std::vector<Point> dotsOf(const Streamline& line, const Field& field, const Frame& frame, double every) {
    constexpr std::size_t most = 10'000; // near a place of rest there is no end of them
    const std::vector<Passed> passed = passedBy(line, field, frame);
    std::vector<Point> dots;
    // A line that is closed ends where it began, but for rounding: there is one dot.
    const double end = line.isClosed() ? (1 - 1e-3) * passed.back().time : HUGE_VAL;
    for (std::size_t i = 0; i + 1 < passed.size(); ++i) {
        const auto& [from, a, aIsPoint] = passed[i];
        const auto& [to, b, bIsPoint] = passed[i + 1];
        if (!std::isfinite(from) || !std::isfinite(to) || !(to > from)) continue;
        const bool isLast = i + 2 == passed.size() && !line.isClosed();
        for (double k = std::ceil(from / every); k * every < to || (isLast && k * every == to); ++k) {
            if (dots.size() >= most || k * every > end) return dots;
            const double t = (k * every - from) / (to - from);
            dots.push_back({frame.rect.x + a[0] + t * (b[0] - a[0]), frame.rect.y + a[1] + t * (b[1] - a[1])});
        }
    }
    return dots;
}

std::vector<Point> onPanel(const Streamline& line, const Frame& frame) {
    std::vector<Point> points;
    for (const PlaceInMm& p : line.points) points.push_back({frame.rect.x + p[0], frame.rect.y + p[1]});
    return points;
}

/// The line in stretches of one colour.
void drawByLength(const std::vector<Point>& line, const Drawn& drawn, const Frame& frame, Pen pen, Canvas& canvas) {
    std::vector<double> xs, ys;
    for (const Point& p : line) {
        xs.push_back(frame.xAt(p.x));
        ys.push_back(frame.yAt(p.y));
    }
    const std::vector<VectorAt> vectors = vectorsAt(*fieldOf(drawn), frame, std::move(xs), std::move(ys));
    pen.roundEnds = true; // where two colours meet there is no gap
    std::vector<Point> stretch;
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        const Colour colour = colourOfShown(drawn, frame, (vectors[i].shown + vectors[i + 1].shown) / 2);
        if (!stretch.empty() && colour != pen.colour) {
            canvas.stroke({stretch}, pen);
            stretch.clear();
        }
        if (stretch.empty()) stretch.push_back(line[i]);
        stretch.push_back(line[i + 1]);
        pen.colour = colour;
    }
    if (stretch.size() > 1) canvas.stroke({stretch}, pen);
}

/// Heads evenly along a line, in its middle if it is short.
void drawHeads(const std::vector<Point>& line, const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const double every = number(drawn.settings, headEverySetting), size = number(drawn.settings, headLengthSetting);
    if (!(every > 0) || !(size > 0)) return;
    double length = 0;
    for (std::size_t i = 0; i + 1 < line.size(); ++i)
        length += std::hypot(line[i + 1].x - line[i].x, line[i + 1].y - line[i].y);
    if (length < 2 * size) return;
    const double count = std::max(1.0, std::round(length / every)), part = length / count;
    double next = part / 2, walked = 0;
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        const Point &a = line[i], &b = line[i + 1];
        const double chord = std::hypot(b.x - a.x, b.y - a.y);
        for (; next <= walked + chord && chord > 0; next += part) {
            const double t = (next - walked) / chord;
            const Point middle{a.x + t * (b.x - a.x), a.y + t * (b.y - a.y)};
            // The head's middle stands on the line, in the direction that the line has there.
            const Point tip{middle.x + 0.5 * size * (b.x - a.x) / chord, middle.y + 0.5 * size * (b.y - a.y) / chord};
            Colour colour = drawn.colour;
            if (showsByColour(drawn)) {
                const auto at = vectorsAt(*fieldOf(drawn), frame, {frame.xAt(middle.x)}, {frame.yAt(middle.y)});
                colour = colourOfShown(drawn, frame, at[0].shown);
            }
            canvas.fill({arrowHead(tip, a, size)}, {colour, opacityOf(drawn)});
        }
        walked += chord;
    }
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const std::vector<Streamline> lines = linesOf(drawn, frame);
    Polylines all;
    for (const Streamline& line : lines) all.push_back(onPanel(line, frame));
    Pen pen = penOf(drawn);
    pen.roundEnds = false;
    if (!showsByColour(drawn)) canvas.stroke(all, pen);
    for (const auto& line : all) {
        if (showsByColour(drawn)) drawByLength(line, drawn, frame, pen, canvas);
        drawHeads(line, drawn, frame, canvas);
    }
    const double every = number(drawn.settings, dotEverySetting);
    if (!(every > 0)) return;
    const Paint paint{drawn.colour, opacityOf(drawn)};
    for (const Streamline& line : lines)
        canvas.marks(dotsOf(line, *fieldOf(drawn), frame, every), {circle(number(drawn.settings, dotSizeSetting) / 2)},
                     &paint, nullptr);
}

Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading = readVectors(context, plot, plotted, path);
    const std::string through = text(plot.settings, throughSetting);
    if (through.empty() || reading.drawn.empty()) return reading;
    const ColumnAnswer found = columnsOf(context.page, through);
    if (found.columns.size() != 2) {
        Problem problem = found.problems.empty() ? Problem{-1, 1, 1, "This is no place, and no pair of columns.",
                                                           "write one such as (1, 2), or (x_0, y_0) of two columns"}
                                                 : found.problems.front();
        problem.line = -1;
        problem.sentence = "“through”: " + problem.sentence;
        reading.problems.push_back(std::move(problem));
        reading.drawn.clear();
        return reading;
    }
    Columns starts;
    starts.names = {"x", "y"};
    starts.numbers = found.columns;
    for (Drawn& drawn : reading.drawn) drawn.parts.push_back({std::make_shared<const Source>(starts), nullptr});
    return reading;
}

/// The points of every line, and when a particle is there.
SampleTable table(const Drawn& drawn, const Frame& frame) {
    struct Row {
        double line, time, x, y;
    };
    auto rows = std::make_shared<std::vector<Row>>();
    double number = 0;
    for (const Streamline& line : linesOf(drawn, frame)) {
        ++number;
        for (const Passed& each : passedBy(line, *fieldOf(drawn), frame)) {
            if (each.isPoint)
                rows->push_back(
                    {number, each.time, frame.xAt(frame.rect.x + each.at[0]), frame.yAt(frame.rect.y + each.at[1])});
        }
    }
    SampleTable table;
    table.columns = table.names = {"line", "time", "x", "y"};
    table.rows = rows->size();
    table.number = [rows](std::size_t row, std::size_t column) {
        const Row& each = (*rows)[row];
        return column == 0 ? each.line : column == 1 ? each.time : column == 2 ? each.x : each.y;
    };
    return table;
}

std::vector<ReportRow> report(const Drawn& drawn, const Frame& frame) {
    std::vector<ReportRow> rows;
    for (const Streamline& line : linesOf(drawn, frame))
        rows.push_back({{"points", static_cast<double>(line.points.size())}, {"closed", line.isClosed() ? 1.0 : 0.0}});
    return rows;
}

std::string remark(const Drawn& drawn, const Frame& frame) {
    const std::vector<Streamline> lines = linesOf(drawn, frame);
    if (lines.empty()) return drawn.of + " has no streamline in view.";
    const auto endless = std::ranges::count(lines, StreamEnd::TooLong, &Streamline::last);
    return endless == 0 ? "" : std::to_string(endless) + " streamlines end after five metres on the sheet, and go on.";
}

std::optional<Touched> tell(const Drawn& drawn, const Frame& frame, Point mm, double reach) {
    const auto at = vectorsAt(*fieldOf(drawn), frame, {frame.xAt(mm.x)}, {frame.yAt(mm.y)});
    for (const Streamline& line : linesOf(drawn, frame)) {
        const double away = distanceTo(onPanel(line, frame), mm);
        if (away < reach)
            return Touched{"(" + printedNumber(at[0].u, 4) + ", " + printedNumber(at[0].v, 4) + ")", mm, away};
    }
    return std::nullopt;
}

/// A start that is spelled as a place is dragged.
std::optional<std::array<double, 2>> plainStart(const Drawn& drawn) {
    std::string through = text(drawn.settings, throughSetting);
    std::erase(through, ' ');
    const auto comma = through.find(',');
    if (through.size() < 5 || through.front() != '(' || through.back() != ')' || comma == std::string::npos)
        return std::nullopt;
    std::array<double, 2> place{};
    const bool good = isPlainNumber(through.substr(1, comma - 1), place[0]) &&
                      isPlainNumber(through.substr(comma + 1, through.size() - comma - 2), place[1]);
    return good ? std::optional(place) : std::nullopt;
}

std::vector<Handle> handles(const Drawn& drawn, const Frame& frame) {
    const auto start = plainStart(drawn);
    if (!start) return {};
    const Point at = frame.onSheet((*start)[0], (*start)[1]);
    return {{{{at, at}}, true, true}};
}

void drag(Plot& plot, const Drawn&, const Frame& frame, std::size_t, Point to) {
    set(plot.settings, throughSetting,
        "(" + roundedPlace(frame.xAt(to.x), frame.map.x) + ", " + roundedPlace(frame.yAt(to.y), frame.map.y) + ")");
}

void swatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    const double middle = rect.y + rect.height / 2;
    canvas.stroke({{{rect.x, middle}, {rect.right(), middle}}}, penOf(drawn));
    const double size = number(drawn.settings, headLengthSetting);
    canvas.fill({arrowHead({rect.x + rect.width / 2 + size / 2, middle}, {rect.x, middle}, size)},
                {drawn.colour, opacityOf(drawn)});
}

} // namespace

extern const PlotKind streamlinesKind;
const PlotKind streamlinesKind{.name = "streamlines",
                               .meaning = "lines along which a vector over two variables runs",
                               .runs = Runs::Over,
                               .layer = Layer::Line,
                               .settings = settings,
                               .fits = isVectorOverTwo,
                               .read = read,
                               .trace = traceVectors,
                               .draw = draw,
                               .swatch = swatch,
                               .usesColours = showsByColour,
                               .tell = tell,
                               .table = table,
                               .report = report,
                               .remark = remark,
                               .handles = handles,
                               .drag = drag};

} // namespace coulter
