// The straight line that touches a curve at a point.
#include "formula/compile/columns.h"
#include "formula/compile/compile.h"
#include "formula/notation/expr_build.h"
#include "plots/column_source.h"
#include "plots/common_settings.h"
#include "plots/dashes.h"
#include "plots/handles.h"
#include "plots/marks.h"
#include "plots/reading.h"
#include "plots/telling.h"

#include <cmath>
#include <utility>

namespace coulter {
namespace {

const Setting atSetting{.key = "at",
                        .label = "touches at",
                        .meaning = "the place where the line touches the curve: a number of the page",
                        .type = SettingType::Formula,
                        .usual = std::string("0"),
                        .isStyle = false};

const Setting* const settings[] = {&atSetting,      &colourSetting,  &widthSetting,
                                   &patternSetting, &dashesSetting,  &shapeOfReadingsSetting,
                                   &sizeSetting,    &fillingSetting, &opacitySetting};

/// One number that an expression is worth with the variable at a place.
std::optional<double> valueAt(const Page& page, const ExprPtr& expression, FixedValues fixed,
                              const std::string& variable, double place, Problems& problems) {
    fixed[variable] = place;
    const Compiled compiled = compile(page, expression, {}, fixed);
    if (!compiled.program) {
        problems = compiled.problems;
        return std::nullopt;
    }
    double value = 0;
    double* const out = &value;
    Evaluator evaluator(*compiled.program);
    evaluator({}, std::span<double* const>(&out, 1), 1);
    return value;
}

Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading;
    const std::string& variable = plotted.variables[0];
    reading.words.across = variableWord(context.page, variable, ScaleWord::Rank::Variable);
    reading.words.up = functionWord(context.page, plotted.expression, ScaleWord::Rank::Function);
    auto derivative = std::make_shared<Expr>(*nodeExpr(ExprKind::Derivative, {plotted.expression}));
    derivative->text = variable;
    derivative->number = 1;
    derivative->span = plotted.expression->span;
    for (std::size_t c = 0; c < casesOf(plotted); ++c) {
        const auto place =
            furtherColumns(context, plotted, c, atSetting, text(plot.settings, atSetting), 1, reading.problems);
        if (place.empty()) break;
        const FixedValues fixed = plotted.cases.empty() ? FixedValues{} : caseValues(plotted, c);
        const double x = (*place[0])[0];
        const auto y = valueAt(context.page, plotted.expression, fixed, variable, x, reading.problems);
        const auto slope = valueAt(context.page, derivative, fixed, variable, x, reading.problems);
        if (!y || !slope) break;
        if (!std::isfinite(*y) || !std::isfinite(*slope)) {
            refuse(reading, plotted, "The curve has no tangent at " + variable + " = " + printedNumber(x, 6) + ".",
                   "choose a place where it is smooth");
            break;
        }
        Drawn drawn = drawnOf(context, plot, path, c, casesOf(plotted));
        drawn.entry = entryOf(context.page, plotted, c);
        const auto one = [](double value) { return std::make_shared<const std::vector<double>>(1, value); };
        addColumns(drawn, {variable, "value", "slope"}, {one(x), one(*y), one(*slope)});
        reading.drawn.push_back(std::move(drawn));
    }
    if (!reading.problems.empty()) reading.drawn.clear();
    return reading;
}

struct Touch {
    double x = 0, y = 0, slope = 0;
};
Touch touchOf(const Drawn& drawn) {
    const Columns& columns = *columnsOf(drawn);
    return {(*columns.numbers[0])[0], (*columns.numbers[1])[0], (*columns.numbers[2])[0]};
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const Touch touch = touchOf(drawn);
    // Straight in the user's coordinates; on a logarithmic scale it is a curve.
    const AxisMap& across = frame.map.x;
    const bool straight = across.kind == ScaleKind::Linear && frame.map.y.kind == ScaleKind::Linear;
    const int parts = straight ? 1 : 800;
    Polylines lines;
    bool broken = true;
    for (int i = 0; i <= parts; ++i) {
        const double x = i == parts ? across.high : across.fromSheet(across.length * i / parts);
        const Point p = frame.onSheet(x, touch.y + touch.slope * (x - touch.x));
        if (!std::isfinite(p.y)) {
            broken = true;
            continue;
        }
        if (std::exchange(broken, false)) lines.emplace_back();
        lines.back().push_back(p);
    }
    canvas.stroke(lines, penOf(drawn));
    drawMarks({frame.onSheet(touch.x, touch.y)}, drawn, canvas);
}

std::optional<Touched> tell(const Drawn& drawn, const Frame& frame, Point mm, double reach) {
    const Touch touch = touchOf(drawn);
    const Point at = frame.onSheet(touch.x, touch.y);
    const double away = std::hypot(at.x - mm.x, at.y - mm.y);
    if (!(away < reach)) return std::nullopt;
    return Touched{columnsOf(drawn)->names[0] + " = " + printedNumber(touch.x, 6) + "   value " +
                       printedNumber(touch.y, 6) + "   slope " + printedNumber(touch.slope, 6),
                   at, away};
}

/// Where it touches, along the curve.
std::vector<Handle> handles(const Drawn& drawn, const Frame& frame) {
    const Touch touch = touchOf(drawn);
    const Point at = frame.onSheet(touch.x, touch.y);
    return {{{{at, at}}, true, false}};
}

void drag(Plot& plot, const Drawn&, const Frame& frame, std::size_t, Point to) {
    set(plot.settings, atSetting, roundedPlace(frame.xAt(to.x), frame.map.x));
}

} // namespace

extern const PlotKind tangentKind;
const PlotKind tangentKind{
    .name = "tangent",
    .meaning = "the straight line that touches a curve at a point",
    .runs = Runs::Along,
    .layer = Layer::Line,
    .settings = settings,
    .fits = [](const Signature& s) { return s.variables == 1 && s.components == 1 && !s.constant; },
    .read = read,
    .reach = reachPairs,
    .draw = draw,
    .swatch = lineSwatch,
    .tell = tell,
    .handles = handles,
    .drag = drag};

} // namespace coulter
