// Marks along a curve: at the samples of a grid, or every so many mm.
#include "plots/common_settings.h"
#include "plots/curve_marks.h"
#include "plots/curve_source.h"

namespace coulter {
namespace {

constexpr const char* shapeWords[] = {"disc", "ring", "square", "diamond", "triangle", "cross"};
const Setting shapeSetting{.key = "shape",
                           .label = "shape",
                           .meaning = "shape of the marks",
                           .type = SettingType::Word,
                           .usual = std::string("disc"),
                           .words = shapeWords};

const Setting* const settings[] = {&colourSetting, &shapeSetting, &sizeSetting, &widthSetting, &everySetting};

/// Round (0, 0), within a circle of a radius for all, so that none looks larger than the others.
Polylines shapeOf(std::size_t shape, double r) {
    const auto closed = [](std::vector<Point> corners) {
        corners.push_back(corners.front());
        return Polylines{corners};
    };
    const double q = 0.89 * r;
    switch (shape) {
    case 2: return closed({{-q, -q}, {q, -q}, {q, q}, {-q, q}});
    case 3: return closed({{0, -1.2 * r}, {1.2 * r, 0}, {0, 1.2 * r}, {-1.2 * r, 0}});
    case 4: return closed({{0, -1.2 * r}, {1.1 * r, 0.75 * r}, {-1.1 * r, 0.75 * r}});
    case 5: return {{{-q, -q}, {q, q}}, {{-q, q}, {q, -q}}};
    default: return {circle(r)};
    }
}

void drawMarks(const std::vector<Point>& places, const Drawn& drawn, Canvas& canvas) {
    const std::size_t shape = word(drawn.settings, shapeSetting);
    const bool open = shape == 1 || shape == 5;
    const Paint paint{drawn.colour};
    const Pen pen{drawn.colour, number(drawn.settings, widthSetting), {}, true};
    canvas.marks(places, shapeOf(shape, number(drawn.settings, sizeSetting) / 2), open ? nullptr : &paint,
                 open ? &pen : nullptr);
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    std::vector<Point> places;
    for (const CurveMark& mark : marksAlong(drawn, frame, MarkSpacing::AlongCurve)) places.push_back(mark.at);
    drawMarks(places, drawn, canvas);
}

void swatch(const Drawn& drawn, const Rect& rect, Canvas& canvas) {
    drawMarks({{rect.x + rect.width / 2, rect.y + rect.height / 2}}, drawn, canvas);
}

} // namespace

extern const PlotKind markersKind;
const PlotKind markersKind{.name = "markers",
                           .meaning = "marks along a curve, at the samples of a grid or every so many mm",
                           .runs = Runs::Along,
                           .layer = Layer::Line,
                           .settings = settings,
                           .fits = [](const Signature& s) { return s.variables == 1 && s.components <= 3; },
                           .read = readCurves,
                           .draw = draw,
                           .swatch = swatch};

} // namespace coulter
