#include "plots/column_source.h"

#include "drawing/places_on_sheet.h"
#include "formula/compile/columns.h"
#include "formula/compile/compile.h"
#include "formula/notation/expr_build.h"
#include "plots/marks.h"
#include "plots/reading.h"
#include "plots/telling.h"
#include "sampling/grid.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>

namespace coulter {

Column counting(std::size_t rows) {
    std::vector<double> numbers(rows);
    for (std::size_t i = 0; i < rows; ++i) numbers[i] = static_cast<double>(i + 1);
    return std::make_shared<const std::vector<double>>(std::move(numbers));
}

std::size_t casesOf(const Plotted& plotted) { return std::max<std::size_t>(1, plotted.cases.size()); }

std::string columnName(const ExprPtr& expression) { return spelled(*expression); }

namespace {

FixedValues valuesOf(const Plotted& plotted, std::size_t caseIndex) {
    return plotted.cases.empty() ? FixedValues{} : caseValues(plotted, caseIndex);
}

Column repeated(double value, std::size_t rows) {
    return std::make_shared<const std::vector<double>>(std::vector<double>(rows, value));
}

/// A formula along a variable of the page, at the points of its grid.
CaseColumns onGrid(const ReadingContext& context, const Plotted& plotted, const FixedValues& fixed,
                   Problems& problems) {
    const std::string& variable = plotted.variables[0];
    const Line& line = *context.page.find(variable, LineKind::Variable);
    if (isAdaptive(line.grid)) {
        const Span place = plotted.expression->span;
        problems = {{-1, place.first, place.last, "This is drawn value by value, and " + variable + " has no steps.",
                     "add “, step 1” or “, count 12” to the line of " + variable}};
        return {};
    }
    const GridPoints grid = gridPoints(line.interval, line.grid, variable);
    const Compiled compiled = compile(context.page, plotted.expression, std::span(&variable, 1), fixed);
    problems = !grid.problems.empty() ? grid.problems : compiled.problems;
    if (!compiled.program || !grid.problems.empty()) return {};
    std::vector<std::vector<double>> values(compiled.program->outputs.size(), std::vector<double>(grid.points.size()));
    std::vector<double*> out;
    for (auto& each : values) out.push_back(each.data());
    const double* const in = grid.points.data();
    evaluateInParallel(*compiled.program, std::span(&in, 1), out, grid.points.size());
    CaseColumns found;
    found.names.push_back(variable);
    found.numbers.push_back(std::make_shared<const std::vector<double>>(grid.points));
    for (auto& each : values) {
        found.names.emplace_back(values.size() > 1 ? "value " + std::to_string(found.names.size()) : "value");
        found.numbers.push_back(std::make_shared<const std::vector<double>>(std::move(each)));
    }
    return found;
}

} // namespace

CaseColumns columnsOfCase(const ReadingContext& context, const Plotted& plotted, std::size_t caseIndex,
                          Problems& problems) {
    const FixedValues fixed = valuesOf(plotted, caseIndex);
    if (!plotted.isColumn) return onGrid(context, plotted, fixed, problems);
    ColumnAnswer found = columnsOf(context.page, plotted.expression, fixed);
    if (found.columns.empty()) {
        problems = found.problems;
        return {};
    }
    CaseColumns columns;
    const Expr& e = *plotted.expression;
    for (std::size_t k = 0; k < found.columns.size(); ++k)
        columns.names.push_back(e.kind == ExprKind::Vector  ? columnName(e.operands[k])
                                : found.columns.size() == 1 ? columnName(plotted.expression)
                                                            : "column " + std::to_string(k + 1));
    columns.numbers = std::move(found.columns);
    if (columns.numbers.size() == 1) {
        columns.names.insert(columns.names.begin(), "number");
        columns.numbers.insert(columns.numbers.begin(), counting(columns.numbers[0]->size()));
    }
    return columns;
}

std::vector<Column> furtherColumns(const ReadingContext& context, const Plotted& plotted, std::size_t caseIndex,
                                   const Setting& setting, const std::string& formula, std::size_t rows,
                                   Problems& problems) {
    ColumnAnswer found = columnsOf(context.page, formula, valuesOf(plotted, caseIndex));
    const auto about = [&](Problem problem) {
        problem.sentence = "“" + std::string(setting.label) + "”: " + problem.sentence;
        problem.line = -1;
        problems = {std::move(problem)};
        return std::vector<Column>{};
    };
    if (found.columns.empty()) return about(found.problems.front());
    for (Column& column : found.columns) {
        if (column->size() == 1 && rows != 1) column = repeated((*column)[0], rows);
        if (column->size() != rows)
            return about({-1, 1, 1,
                          "It has " + std::to_string(column->size()) + " numbers, and what is drawn has " +
                              std::to_string(rows) + ".",
                          "give both as many numbers"});
    }
    return std::move(found.columns);
}

void addColumns(Drawn& drawn, std::vector<std::string> names, std::vector<Column> numbers, std::array<int, 2> along,
                bool arePlaces) {
    drawn.parts.push_back(
        {std::make_shared<const Source>(Columns{std::move(names), std::move(numbers), along, arePlaces}), nullptr});
}

MathPtr columnEntry(const Page& page, const Plotted& plotted, std::size_t caseIndex) {
    const Expr& e = *plotted.expression;
    if (plotted.caseNames.empty() && e.kind == ExprKind::Vector) return formulaMath(*e.operands.back());
    return entryOf(page, plotted, caseIndex);
}

void nameColumns(Reading& reading, const Page& page, const Plotted& plotted) {
    const Expr& e = *plotted.expression;
    if (e.kind == ExprKind::Vector) {
        reading.words.across = componentWord(page, e.operands[0]);
        reading.words.up = componentWord(page, e.operands[1]);
        return;
    }
    if (!plotted.isColumn) reading.words.across = variableWord(page, plotted.variables[0], ScaleWord::Rank::Variable);
    reading.words.up = componentWord(page, plotted.expression);
    if (reading.words.up.rank == ScaleWord::Rank::Coordinate) reading.words.up.rank = ScaleWord::Rank::None;
}

std::optional<Touched> tellPoint(const Drawn& drawn, const Frame& frame, Point mm, double reach) {
    const Columns& columns = *columnsOf(drawn);
    std::optional<Touched> told;
    std::size_t nearest = 0;
    for (std::size_t i = 0; i < columns.rows(); ++i) {
        const Point p = frame.onSheet((*columns.numbers[0])[i], (*columns.numbers[1])[i]);
        const double away = std::hypot(p.x - mm.x, p.y - mm.y);
        if (!(away < reach)) continue;
        reach = away;
        nearest = i;
        told = Touched{"", p, away};
    }
    if (told) told->text = rowWords(columns, nearest);
    return told;
}

namespace {

/// Pairs of rows that are left out, as a further part: shown, but not counted.
void addLeftOut(Drawn& drawn, const ReadingContext& context, const Plotted& plotted, std::size_t caseIndex) {
    Problems problems;
    const CaseColumns columns = columnsOfCase(context, plotted, caseIndex, problems);
    if (columns.numbers.size() < 2 || !plotted.isColumn) return;
    bool any = false;
    for (std::size_t i = 0; i < columns.numbers[0]->size() && !any; ++i)
        any = !std::isnan((*columns.numbers[0])[i]) && !std::isnan((*columns.numbers[1])[i]);
    if (any) addColumns(drawn, columns.names, columns.numbers);
}

} // namespace

Reading readPairs(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path,
                  const FurtherColumns& further, std::size_t most) {
    Reading reading;
    nameColumns(reading, context.page, plotted);
    for (std::size_t c = 0; c < casesOf(plotted); ++c) {
        CaseColumns columns = columnsOfCase(context, plotted, c, reading.problems);
        if (columns.numbers.size() > most)
            refuse(reading, plotted,
                   most == 2
                       ? "Pairs have two components, and this has more."
                       : "Points have two coordinates and one value more, and this has more than three components.",
                   "write two of them: (t, s)");
        if (further && reading.problems.empty()) further(c, columns, reading.problems);
        if (!reading.problems.empty()) {
            reading.drawn.clear();
            break;
        }
        Drawn drawn = drawnOf(context, plot, path, c, casesOf(plotted));
        drawn.entry = columnEntry(context.page, plotted, c);
        addColumns(drawn, std::move(columns.names), std::move(columns.numbers));
        if (context.leftOut) addLeftOut(drawn, {*context.leftOut, context.panel, context.format}, plotted, c);
        reading.drawn.push_back(std::move(drawn));
    }
    return reading;
}

MarkPlaces marksAt(const Columns& columns, const Frame& frame) {
    const std::span<const double> x = *columns.numbers[0], y = *columns.numbers[1];
    return {x.size(), [x, y, &frame](std::size_t begin, std::span<Point> into) {
                placesOnSheet(frame, x.subspan(begin), y.subspan(begin), into);
            }};
}

void drawLeftOut(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const Columns* columns = columnsOf(drawn, 1);
    if (columns) drawHollowMarks(marksAt(*columns, frame), drawn, canvas);
}

void reachPairs(const Drawn& drawn, Extents& extents) {
    for (std::size_t part = 0; part < drawn.parts.size(); ++part) {
        const Columns* columns = columnsOf(drawn, part);
        if (!columns || columns->numbers.size() < 2) continue;
        extents.holdAll(true, *columns->numbers[0]);
        extents.holdAll(false, *columns->numbers[1]);
    }
}

bool arePairs(const Signature& signature) {
    return signature.columns ? signature.components <= 2
                             : signature.variables == 1 && signature.components == 1 && !signature.constant;
}

} // namespace coulter
