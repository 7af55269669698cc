#include "plots/profile.h"

#include "formula/program/program.h"
#include "sampling/cost.h"

#include <algorithm>
#include <cmath>

namespace coulter {

namespace {

constexpr double mostOperations = 2e7; // a few hundredths of a second
constexpr std::size_t leastPlaces = 9;

bool isWithin(double value, const Interval& interval) { return value >= interval.low && value <= interval.high; }

} // namespace

Profile profileAlong(const Drawn& drawn, const PanelMap& map, std::array<double, 2> from, std::array<double, 2> to,
                     std::size_t places) {
    const Field* field = fieldOf(drawn);
    Profile profile;
    if (!field || field->isParametric() || field->isMargin) return profile;
    const double each = costOfValue(*field->program, field->intervals, mostOperations);
    const double affordable = mostOperations / std::max(1.0, each);
    if (affordable < static_cast<double>(places)) places = std::max(leastPlaces, static_cast<std::size_t>(affordable));
    for (std::size_t i = 0; i < places; ++i) {
        const double share = static_cast<double>(i) / static_cast<double>(places - 1);
        profile.across.push_back(map.x.fromSheet(from[0] + share * (to[0] - from[0])));
        profile.up.push_back(map.y.fromSheet(from[1] + share * (to[1] - from[1])));
    }
    FieldSamples samples;
    samples.x = profile.across;
    samples.y = profile.up;
    samples.values.assign(field->program->outputs.size(), UnsetNumbers(places, 0));
    std::vector<double*> out;
    for (auto& component : samples.values) out.push_back(component.data());
    const double* const in[] = {samples.x.data(), samples.y.data()};
    evaluateInParallel(*field->program, in, out, places);
    for (std::size_t i = 0; i < places; ++i) {
        const bool inside = isWithin(samples.x[i], field->intervals[0]) && isWithin(samples.y[i], field->intervals[1]);
        profile.values.push_back(inside ? samples.sizeAt(i) : std::nan(""));
    }
    return profile;
}

} // namespace coulter
