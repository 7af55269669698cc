// A line from each sample, or each pair of a table, down to another curve, usually to zero, with a dot at its head.
#include "drawing/thinning.h"
#include "plots/column_source.h"
#include "plots/common_settings.h"
#include "plots/curve_marks.h"
#include "plots/curve_source.h"
#include "plots/dashes.h"
#include "plots/marks.h"

#include <cmath>

namespace coulter {
namespace {

const Setting* const settings[] = {&toSetting,     &colourSetting, &widthSetting, &patternSetting,
                                   &dashesSetting, &sizeSetting,   &everySetting};

void drawStems(const std::vector<Point>& heads, const std::vector<Point>& feet, const Drawn& drawn, const Rect& room,
               Canvas& canvas) {
    const Polylines stems =
        linesOfRows(room, heads.size(), [&](ManySegments& some, std::size_t i) { some.add(feet[i], heads[i]); });
    Pen pen = penOf(drawn);
    pen.roundEnds = false;
    canvas.stroke(stems, pen);
    const Paint paint{drawn.colour};
    canvas.marks(heads, {circle(number(drawn.settings, sizeSetting) / 2)}, &paint, nullptr);
}

/// Of pairs the feet are a third column.
Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    if (!plotted.isColumn) return readCurvesWithFoot(context, plot, plotted, path);
    const std::string to = text(plot.settings, toSetting);
    return readPairs(context, plot, plotted, path, [&](std::size_t c, CaseColumns& columns, Problems& problems) {
        const auto feet =
            furtherColumns(context, plotted, c, toSetting, to.empty() ? "0" : to, columns.numbers[0]->size(), problems);
        if (feet.empty()) return;
        columns.names.emplace_back("foot");
        columns.numbers.push_back(feet[0]);
    });
}

void reach(const Drawn& drawn, Extents& extents) {
    const Columns* columns = columnsOf(drawn);
    if (!columns) return;
    reachPairs(drawn, extents);
    extents.holdAll(false, *columns->numbers[2]);
}

/// What cannot be shown of a foot lies below all that a logarithmic scale shows.
std::vector<Point> below(const std::vector<Point>& heads, std::vector<Point> feet, const Frame& frame) {
    for (std::size_t i = 0; i < feet.size(); ++i) {
        if (!std::isfinite(feet[i].y)) feet[i].y = frame.beyondZero();
        feet[i].x = heads[i].x;
    }
    return feet;
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    if (const Columns* columns = columnsOf(drawn)) {
        std::vector<Point> heads = onSheet(frame, *columns->numbers[0], *columns->numbers[1]);
        std::vector<Point> feet = onSheet(frame, *columns->numbers[0], *columns->numbers[2]);
        for (std::size_t i = heads.size(); i-- > 0;) { // rows without a value have no stem
            if (std::isfinite(heads[i].x) && std::isfinite(heads[i].y)) continue;
            heads.erase(heads.begin() + static_cast<std::ptrdiff_t>(i));
            feet.erase(feet.begin() + static_cast<std::ptrdiff_t>(i));
        }
        drawStems(heads, below(heads, std::move(feet), frame), drawn, frame.rect.grown(1), canvas);
        drawLeftOut(drawn, frame, canvas);
        return;
    }
    const std::vector<CurveMark> marks = marksAlong(drawn, frame, MarkSpacing::AlongScale);
    std::vector<double> t(marks.size()), foot(marks.size());
    for (std::size_t i = 0; i < marks.size(); ++i) t[i] = marks[i].t;
    const double* const in = t.data();
    double* const out = foot.data();
    evaluateInParallel(*curveOf(drawn, 1)->program, std::span(&in, 1), std::span(&out, 1), t.size());
    const std::vector<Point> heads = placesOf(marks);
    drawStems(heads, below(heads, onSheet(frame, t, foot), frame), drawn, frame.rect.grown(1), canvas);
}

void swatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    std::vector<Point> heads, feet;
    for (const double part : {0.2, 0.5, 0.8}) {
        heads.push_back({rect.x + part * rect.width, rect.y + (part == 0.5 ? 0.25 : 0.45) * rect.height});
        feet.push_back({heads.back().x, rect.y + 0.8 * rect.height});
    }
    drawStems(heads, feet, drawn, rect, canvas);
}

} // namespace

extern const PlotKind stemsKind;
const PlotKind stemsKind{
    .name = "stems",
    .meaning =
        "a line from each sample, or each pair of columns, down to zero or to another curve, with a dot at its head",
    .runs = Runs::Along,
    .layer = Layer::Line,
    .settings = settings,
    .takesColumns = true,
    .fits = [](const Signature& s) { return s.columns ? s.components <= 2 : isNumberAlongOne(s); },
    .read = read,
    .reach = reach,
    .draw = draw,
    .swatch = swatch};

} // namespace coulter
