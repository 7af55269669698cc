#include "plots/measured_places.h"

#include "formula/compile/columns.h"
#include "sampling/grid.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

double pointsOf(const Field& field) {
    double all = 1;
    for (std::size_t k = 0; k < 2; ++k)
        all *= static_cast<double>(gridPoints(field.intervals[k], field.grids[k], field.variables[k]).points.size());
    return all;
}

/// Takes the intervals to the limits, and to the places beyond them whose cells reach in.
void narrow(Field& field, const std::array<AxisLimits, 2>& limits) {
    for (std::size_t k = 0; k < 2; ++k) {
        const std::vector<double>& places = *field.grids[k].places;
        Interval shown = field.intervals[k];
        const auto low = limits[k].low ? std::ranges::upper_bound(places, *limits[k].low) : places.begin();
        const auto high = limits[k].high ? std::ranges::lower_bound(places, *limits[k].high) : places.end();
        if (low != places.begin()) shown.low = std::max(shown.low, *std::prev(low));
        if (high != places.end()) shown.high = std::min(shown.high, *high);
        if (shown.low < shown.high) field.intervals[k] = shown;
    }
}

} // namespace

void lookWhereMeasured(Field& field, const Panel& panel) {
    const Program& program = *field.program;
    std::array<Grid, 2> grids = field.grids;
    bool allHaveCells = true;
    for (const Program::Instruction& step : program.instructions) {
        if (step.field < 0) continue;
        const MeasuredField& measured = *program.fields[static_cast<std::size_t>(step.field)];
        if (measured.mesh()) {
            const bool isCalledSo = step.operands[0] == 0 && step.operands[1] == 1; // the field's own variables
            if (!isCalledSo || !isAdaptive(field.grids[0]) || !isAdaptive(field.grids[1])) continue;
            field.mesh = measured.mesh();
            field.hasCells = field.hasCells || measured.hasCells();
            continue;
        }
        allHaveCells = allHaveCells && measured.hasCells();
        for (std::size_t k = 0; k < step.operandCount; ++k) {
            const std::uint32_t input = step.operands[k];
            if (input >= 2 || !isAdaptive(grids[input])) continue;
            const std::span<const double> places = measured.places(k);
            grids[input].places = std::make_shared<const std::vector<double>>(places.begin(), places.end());
        }
    }
    // Along one variable alone they are of no use.
    if (field.mesh || !grids[0].places || !grids[1].places) return;
    field.grids = std::move(grids);
    field.hasCells = allHaveCells;
    drawMeans(field, panel, mostNumbersOfPage);
}

void drawMeans(Field& field, const Panel& panel, double most) {
    if (!field.grids[0].places || !field.grids[1].places || pointsOf(field) <= most) return;
    narrow(field, {panel.x.limits, panel.y.limits});
    const double all = pointsOf(field);
    if (all <= most) return;
    const auto side = static_cast<std::size_t>(std::ceil(std::sqrt(all / most)));
    auto changed = std::make_shared<Program>(*field.program);
    std::array<std::vector<double>, 2> places;
    for (const Program::Instruction& step : changed->instructions) {
        if (step.field < 0 || step.operands[0] > 1 || step.operands[1] > 1) continue;
        auto& measured = changed->fields[static_cast<std::size_t>(step.field)];
        const auto means = fieldOfMeans(*measured, side);
        if (!means) continue;
        measured = means;
        for (std::size_t k = 0; k < 2; ++k) {
            const std::span<const double> its = means->places(k);
            places[step.operands[k]].assign(its.begin(), its.end());
        }
    }
    if (places[0].empty() || places[1].empty()) return;
    for (std::size_t k = 0; k < 2; ++k)
        field.grids[k].places = std::make_shared<const std::vector<double>>(std::move(places[k]));
    field.program = std::move(changed);
    field.meansOver *= side;
}

} // namespace coulter
