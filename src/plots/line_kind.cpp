// Curves as lines, in the plane or in space.
#include "drawing/colours.h"
#include "drawing/space_canvas.h"
#include "formula/base/text.h"
#include "plots/common_settings.h"
#include "plots/curve_marks.h"
#include "plots/curve_source.h"
#include "plots/dashes.h"
#include "plots/marks.h"
#include "plots/sampling.h"
#include "sampling/curve_sampler.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace coulter {
namespace {

constexpr Setting jumpEndsSetting{.key = "jump ends",
                                  .label = "jumps",
                                  .meaning =
                                      "a dot where the curve takes its value at a jump, a circle where it does not",
                                  .type = SettingType::Truth,
                                  .usual = false};

constexpr Setting asymptotesSetting{.key = "asymptotes",
                                    .label = "asymptotes",
                                    .meaning = "a dashed line at each pole",
                                    .type = SettingType::Truth,
                                    .usual = false};

constexpr const char* shadowWords[] = {"none", "floor", "floor and walls"};
const Setting shadowSetting{.key = "projections",
                            .label = "projections",
                            .meaning = "in space: the curve as it falls on the floor, and on the walls behind it",
                            .type = SettingType::Word,
                            .usual = std::string("none"),
                            .words = shadowWords,
                            .rare = true};

const Setting dropLinesSetting{.key = "drop lines",
                               .label = "drop lines",
                               .meaning = "in space: a thin line from each mark down to the floor",
                               .type = SettingType::Truth,
                               .usual = false,
                               .rare = true};

const Setting* const settings[] = {&colourSetting,      &widthSetting,    &patternSetting,    &dashesSetting,
                                   &shapeOrNoneSetting, &sizeSetting,     &fillingSetting,    &everySetting,
                                   &stepSetting,        &jumpEndsSetting, &asymptotesSetting, &shadowSetting,
                                   &dropLinesSetting,   &runSetting,      &opacitySetting};

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

/// Thin and dashed across the panel at every pole of a function.
void drawAsymptotes(const Curve& curve, const CurveSamples& samples, const Frame& frame, Canvas& canvas) {
    Polylines lines;
    for (const Gap& gap : samples.gaps) {
        if (gap.kind != GapKind::Pole || !curve.isFunction()) continue;
        const double x = frame.onSheet(gap.low / 2 + gap.high / 2, frame.map.y.low).x;
        lines.push_back({{x, frame.rect.y}, {x, frame.rect.bottom()}});
    }
    canvas.stroke(lines, {inkColour, 0.12, dashesOf(1, 0.12), false});
}

/// Falls of a curve in space on the faces of its box, and lines down to the floor.
void drawBelow(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    Pen pen{drawn.colour, number(drawn.settings, widthSetting) / 2, {}, true, 0.45 * opacityOf(drawn)};
    for (std::size_t part = 1; part < drawn.parts.size(); ++part)
        canvas.stroke(linesOf(*curveSamplesOf(drawn, part), frame), pen);
    if (!truth(drawn.settings, dropLinesSetting)) return;
    const Curve& curve = *curveOf(drawn);
    Evaluator evaluator(*curve.inSpace);
    Polylines lines;
    for (const CurveMark& mark : marksAlong(drawn, frame, MarkSpacing::AlongCurve)) {
        Place place{};
        const double* const in = &mark.t;
        double* const out[] = {&place[0], &place[1], &place[2]};
        evaluator(std::span(&in, 1), out, 1);
        place[2] = frame.space->faceValue(Face::Floor);
        lines.push_back({mark.at, frame.onSheet(place)});
    }
    pen.width = 0.15;
    canvas.stroke(lines, pen);
}

/// In space, where surfaces may be before it.
void drawAmongSurfaces(const Drawn& drawn, SpaceCanvas& space) {
    const Curve& curve = *curveOf(drawn);
    for (const Stretch& stretch : curveSamplesOf(drawn)->stretches) {
        std::array<std::vector<double>, 3> at;
        for (auto& each : at) each.resize(stretch.t.size());
        const double* const in = stretch.t.data();
        double* const out[] = {at[0].data(), at[1].data(), at[2].data()};
        evaluateInParallel(*curve.inSpace, std::span(&in, 1), out, stretch.t.size());
        std::vector<Place> places(stretch.t.size());
        for (std::size_t i = 0; i < places.size(); ++i) places[i] = {at[0][i], at[1][i], at[2][i]};
        space.line(places, penOf(drawn));
    }
}

/// Curves; of those in space also the falls that are wanted, as further parts.
Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading = readCurves(context, plot, plotted, path);
    const std::size_t faces = std::array<std::size_t, 3>{0, 1, 3}[word(plot.settings, shadowSetting)];
    for (Drawn& drawn : reading.drawn) {
        const Curve& curve = *curveOf(drawn);
        for (const Face face : {Face::Floor, Face::WallAcrossX, Face::WallAcrossY}) {
            if (!curve.inSpace || drawn.parts.size() > faces) break;
            Curve fallen = curve;
            fallen.face = face;
            drawn.parts.push_back({std::make_shared<const Source>(std::move(fallen)), nullptr});
        }
    }
    return reading;
}

void draw(const Drawn& drawn, const Frame& frame, Canvas& canvas) {
    const CurveSamples& samples = *curveSamplesOf(drawn);
    if (truth(drawn.settings, asymptotesSetting)) drawAsymptotes(*curveOf(drawn), samples, frame, canvas);
    if (curveOf(drawn)->inSpace) drawBelow(drawn, frame, canvas);
    if (curveOf(drawn)->inSpace && frame.space && canvas.space()) return drawAmongSurfaces(drawn, *canvas.space());
    canvas.stroke(linesOf(samples, frame), penOf(drawn));
    if (truth(drawn.settings, jumpEndsSetting)) drawJumpEnds(samples, frame, canvas, penOf(drawn));
    if (hasMarks(drawn)) drawMarks(placesOf(marksAlong(drawn, frame, MarkSpacing::AlongCurve)), drawn, canvas);
}

} // namespace

extern const PlotKind lineKind;
const PlotKind lineKind{.name = "line",
                        .meaning = "a curve y = f(x), or one in the plane or in space",
                        .runs = Runs::Along,
                        .layer = Layer::Line,
                        .settings = settings,
                        .fits = isCurve,
                        .read = read,
                        .draw = draw,
                        .swatch = lineSwatch};

} // namespace coulter
