// A line from each sample down to another curve, usually to zero, with a dot at its head.
#include "drawing/thinning.h"
#include "plots/common_settings.h"
#include "plots/curve_marks.h"
#include "plots/curve_source.h"
#include "plots/marks.h"

#include <cmath>

namespace coulter {
namespace {

const Setting* const settings[] = {&toSetting,      &colourSetting, &widthSetting,
                                   &patternSetting, &sizeSetting,   &everySetting};

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

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const std::vector<CurveMark> marks = marksAlong(drawn, frame, MarkSpacing::AlongScale);
    std::vector<double> t(marks.size()), foot(marks.size());
    for (std::size_t i = 0; i < marks.size(); ++i) t[i] = marks[i].t;
    const double* const in = t.data();
    double* const out = foot.data();
    evaluateInParallel(*curveOf(drawn, 1)->program, std::span(&in, 1), std::span(&out, 1), t.size());
    const std::vector<Point> heads = placesOf(marks);
    std::vector<Point> feet = onSheet(frame, t, foot);
    for (std::size_t i = 0; i < marks.size(); ++i) {
        if (!std::isfinite(feet[i].y)) feet[i].y = frame.beyondZero(); // below all that a logarithmic scale shows
        feet[i].x = heads[i].x;
    }
    drawStems(heads, feet, drawn, frame.rect.grown(1), canvas);
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
const PlotKind stemsKind{.name = "stems",
                         .meaning = "a line from each sample down to zero or to another curve, with a dot at its head",
                         .runs = Runs::Along,
                         .layer = Layer::Line,
                         .settings = settings,
                         .fits = isNumberAlongOne,
                         .read = readCurvesWithFoot,
                         .draw = draw,
                         .swatch = swatch};

} // namespace coulter
