// Curves as lines, in the plane or in space.
#include "drawing/colours.h"
#include "formula/text.h"
#include "plots/common_settings.h"
#include "plots/curve_source.h"
#include "plots/sampling.h"
#include "sampling/curve_sampler.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr Setting jumpEndsSetting{.key = "jump ends",
                                  .label = "jumps",
                                  .meaning =
                                      "a dot where the curve takes its value at a jump, a circle where it does not",
                                  .type = SettingType::Truth,
                                  .usual = false};

constexpr const Setting* settings[] = {&colourSetting, &widthSetting, &patternSetting, &jumpEndsSetting};

/// Of two neighbouring values the one at which a jump is meant to be; NaN where neither is one a person would write.
double simplerPlace(double a, double b) {
    const double place = simpler(a, b), other = place == a ? b : a;
    return shortestNumber(place).size() + 4 < shortestNumber(other).size() ? place : std::nan("");
}

/// Dots at jumps: filled where the curve takes its value, open where it does not; none where the place itself is known
/// only to rounding.
void drawJumpEnds(const CurveSamples& samples, const Frame& frame, Canvas& canvas, const Pen& pen) {
    const Polylines dot{circle(std::max(0.55, 1.6 * pen.width))};
    const Pen rim{pen.colour, pen.width, {}, false};
    const auto draw = [&](const Stretch& stretch, std::size_t i, bool filled) {
        const Paint inside{filled ? pen.colour : paperColour};
        canvas.marks({frame.onSheet(stretch.x[i], stretch.y[i])}, dot, &inside, &rim);
    };
    for (std::size_t s = 0; s + 1 < samples.stretches.size(); ++s) {
        const Stretch &left = samples.stretches[s], &right = samples.stretches[s + 1];
        if (left.state.back() != PointState::Jump || right.state.front() != PointState::Jump) continue;
        const double place = simplerPlace(left.t.back(), right.t.front());
        if (std::isnan(place)) continue;
        if (left.x.size() > 1 || place == left.t.back()) draw(left, left.x.size() - 1, place == left.t.back());
        if (right.x.size() > 1 || place == right.t.front()) draw(right, 0, place == right.t.front());
    }
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const CurveSamples& samples = *curveSamplesOf(drawn);
    canvas.stroke(linesOf(samples, frame), penOf(drawn));
    if (truth(drawn.settings, jumpEndsSetting)) drawJumpEnds(samples, frame, canvas, penOf(drawn));
}

} // namespace

extern const PlotKind lineKind;
constexpr PlotKind lineKind{.name = "line",
                            .meaning = "a curve y = f(x), or one in the plane or in space",
                            .runs = Runs::Along,
                            .layer = Layer::Line,
                            .settings = settings,
                            .fits = [](const Signature& s) { return s.variables == 1 && s.components <= 3; },
                            .read = readCurves,
                            .draw = draw,
                            .swatch = lineSwatch};

} // namespace coulter
