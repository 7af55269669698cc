// Where an equation of both coordinates holds.
#include "drawing/colours.h"
#include "plots/common_settings.h"
#include "plots/dashes.h"
#include "plots/field_source.h"
#include "plots/level_remarks.h"
#include "plots/level_tables.h"
#include "plots/levels.h"
#include "plots/reading.h"
#include "sampling/singular_points.h"
#include "sampling/zero_proof.h"

#include <algorithm>

namespace coulter {
namespace {

constexpr Setting pointsSetting{.key = "single points",
                                .label = "single points",
                                .meaning = "dots where the curve is one place, or crosses itself",
                                .type = SettingType::Truth,
                                .usual = false};

const Setting* const settings[] = {&acrossSetting, &colourSetting, &widthSetting, &patternSetting,
                                   &dashesSetting, &pointsSetting, &runSetting,   &opacitySetting};

Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    if (plotted.condition && !(plotted.condition->kind == ExprKind::Compare &&
                               plotted.condition->relations.size() == 1 && plotted.condition->relations[0] == "=")) {
        Reading reading;
        refuse(reading, plotted,
               "An implicit curve is one equation, such as x^2 + y^2 = 1, and this is another condition.",
               "draw it as a region");
        return reading;
    }
    return readZeroOf(context, plot, plotted, path);
}

std::vector<SingularPoint> singularOf(const Drawn& drawn, const Frame& frame) {
    return singularPoints(*fieldSamplesOf(drawn), 0, *fieldOf(drawn)->program, frame.map, frame.tolerance);
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    canvas.stroke(linesOnSheet(*zeroLinesOf(drawn, frame), frame), penOf(drawn));
    std::vector<Point> single;
    const bool all = truth(drawn.settings, pointsSetting);
    for (const SingularPoint& point : singularOf(drawn, frame)) {
        // What is but one place would not be seen at all.
        if (all || point.kind == SingularKind::Isolated) single.push_back(frame.onSheet(point.x, point.y));
    }
    const Paint paint{drawn.colour, opacityOf(drawn)};
    const double width = number(drawn.settings, widthSetting);
    if (!single.empty()) canvas.marks(single, {circle(std::max(0.5, 1.2 * width))}, &paint, nullptr);
}

std::optional<Touched> tell(const Drawn& drawn, const Frame& frame, Point mm, double reach) {
    const auto found = zeroLinesOf(drawn, frame);
    const LinePassed passed = lineAt(*found, frame, mm, reach);
    return passed.line ? std::optional(Touched{drawn.of, mm, passed.away}) : std::nullopt;
}

SampleTable table(const Drawn& drawn, const Frame& frame) { return zeroTable(drawn, frame, singularOf(drawn, frame)); }

std::vector<ReportRow> report(const Drawn& drawn, const Frame& frame) {
    std::vector<ReportRow> rows = zeroReport(drawn, frame);
    if (const auto& proof = fieldSamplesOf(drawn)->zeroProof) {
        const double unsettled = proof->area > 0 ? proof->unsettledArea / proof->area : 0;
        rows[0].insert(rows[0].end(), {{"proven share", proof->share()},
                                       {"share of the panel not settled", unsettled},
                                       {"evaluations over boxes", static_cast<double>(proof->evaluations)}});
    }
    for (const SingularPoint& point : singularOf(drawn, frame))
        rows.push_back({{point.kind == SingularKind::Crossing   ? "crossing"
                         : point.kind == SingularKind::Isolated ? "isolated point"
                                                                : "singular point",
                         1},
                        {"x", point.x},
                        {"y", point.y}});
    return rows;
}

void trace(const Drawn& drawn, const Limits& x, const Limits& y, std::vector<double>& xs, std::vector<double>& ys) {
    traceZero(drawn, x, y, false, xs, ys);
}

std::string remark(const Drawn& drawn, const Frame& frame) {
    return zeroLinesOf(drawn, frame)->lines.empty() && singularOf(drawn, frame).empty()
               ? remarkOnNothing(drawn, frame, {0})
               : "";
}

} // namespace

extern const PlotKind implicitCurveKind;
const PlotKind implicitCurveKind{.name = "implicit curve",
                                 .meaning = "where an equation of both coordinates holds, such as x^2 + y^2 = 1",
                                 .runs = Runs::Over,
                                 .layer = Layer::Line,
                                 .settings = settings,
                                 .takesConditions = true,
                                 .fits = [](const Signature& s) { return s.variables == 2 && s.components == 1; },
                                 .read = read,
                                 .trace = trace,
                                 .draw = draw,
                                 .swatch = lineSwatch,
                                 .usesColours = [](const Drawn&) { return false; },
                                 .tell = tell,
                                 .table = table,
                                 .report = report,
                                 .remark = remark};

} // namespace coulter
