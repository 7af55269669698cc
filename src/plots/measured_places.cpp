#include "plots/measured_places.h"

#include "sampling/grid.h"

#include <algorithm>

namespace coulter {

void lookWhereMeasured(Field& field) {
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
}

} // namespace coulter
