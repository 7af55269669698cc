#include "plots/vectors.h"

#include "plots/common_settings.h"
#include "plots/field_source.h"
#include "plots/reading.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

constexpr const char* colourWords[] = {"one", "by length"};

/// mm on the sheet for each unit of a coordinate, at a value.
double slopeOf(const AxisMap& map, double value) {
    const double step = std::max(1e-6 * std::abs(map.fromSheet(map.length) - map.fromSheet(0)), 1e-9 * std::abs(value));
    // On a logarithmic scale both neighbours are positive or negative, as the value is.
    const double near = map.kind == ScaleKind::Logarithmic ? std::min(step, 1e-3 * std::abs(value)) : step;
    return (map.toSheet(value + near) - map.toSheet(value - near)) / (2 * near);
}

} // namespace

const Setting vectorColoursSetting{.key = "colours",
                                   .label = "colours",
                                   .meaning = "one for all, or by the vector's length, as a heatmap has them",
                                   .type = SettingType::Word,
                                   .usual = std::string("one"),
                                   .words = colourWords};

const Setting colouredByOtherSetting{.key = "coloured by",
                                     .label = "coloured by",
                                     .meaning = "another function of both variables whose value colours show",
                                     .type = SettingType::Formula,
                                     .usual = std::string(),
                                     .isStyle = false,
                                     .rare = true};

const Setting headLengthSetting{.key = "head",
                                .label = "head",
                                .meaning = "length of an arrow's head, at most half the arrow",
                                .type = SettingType::Number,
                                .usual = 1.3,
                                .unit = "mm",
                                .least = 0,
                                .greatest = 20,
                                .step = 0.1};

double VectorAt::length() const { return std::hypot(u, v); }
bool VectorAt::isDefined() const { return std::isfinite(u) && std::isfinite(v); }

Point millimetresPerUnit(const Frame& frame, double x, double y) {
    return {slopeOf(frame.map.x, x) * (frame.leftwards ? -1 : 1), slopeOf(frame.map.y, y) * (frame.downwards ? 1 : -1)};
}

std::vector<VectorAt> vectorsAt(const Field& field, const Frame& frame, std::vector<double> xs,
                                std::vector<double> ys) {
    std::vector<double> u(xs.size()), v(xs.size());
    const double* const in[] = {xs.data(), ys.data()};
    double* const out[] = {u.data(), v.data()};
    evaluateInParallel(*field.program, in, out, xs.size());
    std::vector<double> other(field.tint ? xs.size() : 0);
    double* const shown[] = {other.data()};
    if (field.tint) evaluateInParallel(*field.tint, in, shown, xs.size());
    std::vector<VectorAt> all(xs.size());
    for (std::size_t i = 0; i < xs.size(); ++i) {
        VectorAt& each = all[i];
        each = {xs[i], ys[i], u[i], v[i], field.tint ? other[i] : std::hypot(u[i], v[i]), frame.onSheet(xs[i], ys[i]),
                {}};
        if (!each.isDefined()) continue;
        const Point scale = millimetresPerUnit(frame, xs[i], ys[i]);
        const double right = u[i] * scale.x, down = v[i] * scale.y, far = std::hypot(right, down);
        if (far > 0 && std::isfinite(far)) each.along = {right / far, down / far};
    }
    return all;
}

Reading readVectors(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading = readField(context, plot, plotted, path);
    if (!reading.drawn.empty() && fieldOf(reading.drawn[0])->program->outputs.size() != 2) {
        reading.drawn.clear();
        refuse(reading, plotted,
               "The kind “" + plot.kind + "” draws a vector of two components, and this has " +
                   (plotted.expression->kind == ExprKind::Vector ? "more." : "another number of them."),
               "write one such as (u(x, y), v(x, y)), or grad h(x, y)");
    }
    for (Drawn& drawn : reading.drawn) {
        const std::string& unit = reading.words.colour.unit;
        drawn.words = unit == "1" ? "" : unit; // of the key
    }
    if (reading.drawn.empty()) return reading;
    Field field = *fieldOf(reading.drawn[0]);
    if (!readTint(reading, context, plot, colouredByOtherSetting, field)) return reading;
    // The scale of colours is not theirs unless they show their lengths, or another function, by it.
    if (word(plot.settings, vectorColoursSetting) == 0 && !field.tint) reading.words.colour = {};
    reading.drawn[0].parts[0].source = std::make_shared<const Source>(std::move(field));
    return reading;
}

void traceVectors(const Drawn& drawn, const Limits& x, const Limits& y, std::vector<double>& xs,
                  std::vector<double>& ys) {
    const Field& field = *fieldOf(drawn);
    constexpr int parts = 30;
    const auto place = [&](std::size_t k, const Limits& limits, int i) {
        const double low = std::max(limits.low, field.intervals[k].low),
                     high = std::min(limits.high, field.intervals[k].high);
        return low + (high - low) * i / parts;
    };
    for (int i = 0; i <= parts; ++i) {
        for (int j = 0; j <= parts; ++j) {
            xs.push_back(place(0, x, i));
            ys.push_back(place(1, y, j));
        }
    }
}

bool isVectorOverTwo(const Signature& signature) {
    return signature.variables == 2 && signature.components == 2 && !signature.columns;
}

bool showsByColour(const Drawn& drawn) {
    return word(drawn.settings, vectorColoursSetting) == 1 || !text(drawn.settings, colouredByOtherSetting).empty();
}

Colour colourOfShown(const Drawn& drawn, const Frame& frame, double shown) {
    return showsByColour(drawn) ? frame.shades.of(shown, frame.colour).value_or(drawn.colour) : drawn.colour;
}

} // namespace coulter
