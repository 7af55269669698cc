// How often the numbers of a column fall between edges.
#include "drawing/colours.h"
#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/compile/compile.h"
#include "formula/notation/expr_build.h"
#include "plots/column_source.h"
#include "plots/common_settings.h"
#include "plots/handles.h"
#include "plots/histogram_edges.h"
#include "plots/reading.h"
#include "plots/rectangles.h"
#include "plots/telling.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

const Setting binsSetting{.key = "bins",
                          .label = "bins",
                          .meaning = "how many bins of equal width; 0: by the rule of Freedman and Diaconis",
                          .type = SettingType::Number,
                          .usual = 0.0,
                          .least = 0,
                          .greatest = 10'000,
                          .step = 1,
                          .isStyle = false};
const Setting binWidthSetting{.key = "bin width",
                              .label = "bin width",
                              .meaning = "width of the bins, instead: a number of the page; edges are its multiples",
                              .type = SettingType::Formula,
                              .usual = std::string(),
                              .isStyle = false};
const Setting edgesSetting{.key = "edges",
                           .label = "edges",
                           .meaning = "edges of the bins, instead: a column",
                           .type = SettingType::Formula,
                           .usual = std::string(),
                           .isStyle = false};

constexpr const char* showsWords[] = {"counts", "shares", "density"};
const Setting showsSetting{
    .key = "shows",
    .label = "shows",
    .meaning = "how many numbers are in a bin, their share of all, or their share per unit: the area is 1",
    .type = SettingType::Word,
    .usual = std::string("counts"),
    .words = showsWords,
    .isStyle = false};

const Setting* const settings[] = {&showsSetting,  &binsSetting,    &binWidthSetting,  &edgesSetting,
                                   &colourSetting, &outlineSetting, &directionSetting, &opacitySetting};

/// The edges that the settings ask for; a problem and none if they cannot be had.
std::vector<double> edgesFor(const ReadingContext& context, const Plot& plot, const std::vector<double>& all,
                             Problems& problems) {
    const auto wrong = [&](const Setting& setting, Problem problem) {
        problem.sentence = "“" + std::string(setting.label) + "”: " + problem.sentence;
        problem.line = -1;
        problems = {std::move(problem)};
        return std::vector<double>{};
    };
    if (const std::string given = text(plot.settings, edgesSetting); !given.empty()) {
        const ColumnAnswer found = columnsOf(context.page, given);
        if (found.columns.empty()) return wrong(edgesSetting, found.problems.front());
        std::vector<double> edges = *found.columns[0];
        std::ranges::sort(edges);
        const bool apart = std::ranges::adjacent_find(edges) == edges.end() &&
                           std::ranges::all_of(edges, [](double edge) { return std::isfinite(edge); });
        if (edges.size() < 2 || !apart || edges.size() > mostBins + 1)
            return wrong(edgesSetting, {-1, 1, 1, "Edges are two or more different numbers.", "write {0, 0.5, 1, 2}"});
        return edges;
    }
    if (const std::string given = text(plot.settings, binWidthSetting); !given.empty()) {
        const ColumnAnswer found = columnsOf(context.page, given);
        if (found.columns.empty()) return wrong(binWidthSetting, found.problems.front());
        const double width = (*found.columns[0])[0];
        std::vector<double> edges = edgesOfWidth(all, width);
        if (edges.empty())
            return wrong(binWidthSetting, {-1, 1, 1,
                                           "A width is a positive number, and not so small that there are more than " +
                                               std::to_string(mostBins) + " bins.",
                                           "write a larger number"});
        return edges;
    }
    const auto bins = static_cast<std::size_t>(number(plot.settings, binsSetting));
    return edgesOfCount(all, bins > 0 ? bins : freedmanDiaconisBins(all));
}

Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading;
    if (!plotted.isColumn) {
        refuse(reading, plotted, "A histogram counts the numbers of a column, and this is a formula.",
               "give it a column: f(X)");
        return reading;
    }
    // Every column of every case; all share their edges.
    struct Member {
        Column numbers;
        MathPtr entry;
    };
    std::vector<Member> members;
    std::vector<double> all;
    const Expr& e = *plotted.expression;
    for (std::size_t c = 0; c < casesOf(plotted); ++c) {
        const ColumnAnswer found =
            columnsOf(context.page, plotted.expression, plotted.cases.empty() ? FixedValues{} : caseValues(plotted, c));
        if (found.columns.empty()) {
            reading.problems = found.problems;
            return reading;
        }
        for (std::size_t k = 0; k < found.columns.size(); ++k) {
            const bool component = e.kind == ExprKind::Vector && plotted.caseNames.empty();
            members.push_back(
                {found.columns[k], component ? formulaMath(*e.operands[k]) : entryOf(context.page, plotted, c)});
            all.insert(all.end(), found.columns[k]->begin(), found.columns[k]->end());
        }
    }
    std::erase_if(all, [](double value) { return !std::isfinite(value); });
    if (all.empty()) {
        refuse(reading, plotted, "Not one number of this column is defined.", "look at its values with = ?");
        return reading;
    }
    const std::vector<double> edges = edgesFor(context, plot, all, reading.problems);
    if (edges.empty()) return reading;
    const std::size_t shows = word(plot.settings, showsSetting);
    for (std::size_t m = 0; m < members.size(); ++m) {
        const std::vector<std::size_t> counts = countsBetween(edges, *members[m].numbers);
        const auto total = static_cast<double>(
            std::ranges::count_if(*members[m].numbers, [](double value) { return std::isfinite(value); }));
        std::vector<double> from, to, count, height;
        for (std::size_t i = 0; i + 1 < edges.size(); ++i) {
            from.push_back(edges[i]);
            to.push_back(edges[i + 1]);
            count.push_back(static_cast<double>(counts[i]));
            const double share = total > 0 ? count.back() / total : 0;
            height.push_back(shows == 0 ? count.back() : shows == 1 ? share : share / (edges[i + 1] - edges[i]));
        }
        Drawn drawn = drawnOf(context, plot, path, m, members.size());
        drawn.entry = members[m].entry;
        const auto column = [](std::vector<double> numbers) {
            return std::make_shared<const std::vector<double>>(std::move(numbers));
        };
        addColumns(
            drawn, {"from", showsWords[shows], "to", "count"},
            {column(std::move(from)), column(std::move(height)), column(std::move(to)), column(std::move(count))},
            isLying(plot.settings) ? std::array{1, 0} : std::array{0, 1});
        reading.drawn.push_back(std::move(drawn));
    }
    const bool lying = isLying(plot.settings);
    ScaleWord values = componentWord(context.page, e.kind == ExprKind::Vector ? e.operands[0] : plotted.expression);
    if (values.rank == ScaleWord::Rank::Coordinate) values.rank = ScaleWord::Rank::None;
    (lying ? reading.words.up : reading.words.across) = values;
    static constexpr const char* words[] = {"Count", "Share", "Density"};
    (lying ? reading.words.across : reading.words.up) = {ScaleWord::Rank::Function, words[shows], "", ""};
    return reading;
}

std::vector<RectangleRow> rectanglesOf(const Drawn& drawn) {
    const Columns& columns = *columnsOf(drawn);
    std::vector<RectangleRow> rows;
    for (std::size_t i = 0; i < columns.rows(); ++i)
        rows.push_back({(*columns.numbers[0])[i], (*columns.numbers[2])[i], 0, (*columns.numbers[1])[i]});
    return rows;
}

void reach(const Drawn& drawn, Extents& extents) {
    const Columns& columns = *columnsOf(drawn);
    const bool lying = isLying(drawn.settings);
    extents.holdAll(!lying, *columns.numbers[0]);
    extents.holdAll(!lying, *columns.numbers[2]);
    extents.holdAll(lying, *columns.numbers[1]);
    extents.holdAll(lying, {0.0});
}

void trace(const Drawn& drawn, const Limits&, const Limits&, std::vector<double>& xs, std::vector<double>& ys) {
    traceRectangles(rectanglesOf(drawn), drawn, xs, ys);
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    std::vector<RectangleRow> rows = rectanglesOf(drawn);
    std::erase_if(rows, [](const RectangleRow& row) { return row.head == 0; });
    drawRectangles(rows, drawn, frame, canvas);
    // One line round all of it, so that neighbours are told apart by their heights alone.
    if (number(drawn.settings, outlineSetting) > 0) return;
    Polylines between;
    const bool lying = isLying(drawn.settings);
    for (std::size_t i = 0; i + 1 < rows.size(); ++i) {
        if (rows[i].to != rows[i + 1].from) continue;
        const double foot = std::min(rows[i].head, rows[i + 1].head);
        const Point a = lying ? frame.onSheet(foot, rows[i].to) : frame.onSheet(rows[i].to, foot);
        Point b = lying ? frame.onSheet(0, rows[i].to) : frame.onSheet(rows[i].to, 0);
        if (!std::isfinite(b.x)) b.x = frame.leftwards ? frame.rect.right() + 1 : frame.rect.x - 1;
        if (!std::isfinite(b.y)) b.y = frame.beyondZero();
        if (std::isfinite(a.x) && std::isfinite(a.y)) between.push_back({a, b});
    }
    if (between.size() < 400) canvas.stroke(between, {paperColour, 0.15, {}, false, 0.7});
}

std::optional<Touched> tell(const Drawn& drawn, const Frame& frame, Point mm, double reach) {
    const auto row = rectangleAt(rectanglesOf(drawn), drawn, frame, mm);
    if (!row) return std::nullopt;
    const Columns& columns = *columnsOf(drawn);
    const auto value = [&](std::size_t k) { return printedNumber((*columns.numbers[k])[*row], 6); };
    std::string text = value(3) + " from " + value(0) + " to " + value(2);
    if (columns.names[1] != "counts") text += "   " + columns.names[1] + " " + value(1);
    return Touched{text, mm, reach};
}

/// Its edges, to be dragged along their scale.
std::vector<Handle> handles(const Drawn& drawn, const Frame& frame) {
    const Columns& columns = *columnsOf(drawn);
    const bool lying = isLying(drawn.settings);
    std::vector<Handle> all;
    for (std::size_t i = 0; i <= columns.rows() && columns.rows() <= 200; ++i) {
        const double edge = i < columns.rows() ? (*columns.numbers[0])[i] : (*columns.numbers[2])[i - 1];
        const Rect& f = frame.rect;
        const Point p = lying ? frame.onSheet(frame.map.x.low, edge) : frame.onSheet(edge, frame.map.y.low);
        all.push_back(lying ? Handle{{{{f.x, p.y}, {f.right(), p.y}}}, false, true}
                            : Handle{{{{p.x, f.y}, {p.x, f.bottom()}}}, true, false});
    }
    return all;
}

void drag(Plot& plot, const Drawn& drawn, const Frame& frame, std::size_t handle, Point to) {
    const Columns& columns = *columnsOf(drawn);
    std::vector<double> edges = *columns.numbers[0];
    edges.push_back(columns.numbers[2]->back());
    if (handle >= edges.size()) return;
    const bool lying = isLying(drawn.settings);
    const AxisMap& map = lying ? frame.map.y : frame.map.x;
    double edge = lying ? frame.yAt(to.y) : frame.xAt(to.x);
    isPlainNumber(roundedPlace(edge, map), edge);
    // Never beyond a neighbour.
    if ((handle > 0 && edge <= edges[handle - 1]) || (handle + 1 < edges.size() && edge >= edges[handle + 1])) return;
    edges[handle] = edge;
    std::string list = "{";
    for (const double each : edges) list += (list.size() > 1 ? ", " : "") + roundedNumber(each, 8);
    set(plot.settings, edgesSetting, list + "}");
}

} // namespace

extern const PlotKind histogramKind;
const PlotKind histogramKind{.name = "histogram",
                             .meaning = "how often the numbers of a column fall into bins: counts, shares or density",
                             .runs = Runs::Along,
                             .layer = Layer::Area,
                             .settings = settings,
                             .takesColumns = true,
                             .fits = [](const Signature& s) { return s.columns; },
                             .read = read,
                             .reach = reach,
                             .trace = trace,
                             .draw = draw,
                             .swatch = rectangleSwatch,
                             .tell = tell,
                             .handles = handles,
                             .drag = drag};

} // namespace coulter
