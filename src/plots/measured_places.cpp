#include "plots/measured_places.h"

#include "sampling/grid.h"

#include <algorithm>

namespace coulter {

void lookWhereMeasured(Field& field) {
    const Program& program = *field.program;
    bool hasCells = true, any = false;
    for (const Program::Instruction& step : program.instructions) {
        if (step.field < 0) continue;
        const MeasuredField& measured = *program.fields[static_cast<std::size_t>(step.field)];
        any = true;
        hasCells = hasCells && measured.hasCells();
        if (measured.mesh() && step.operands[0] == 0 && step.operands[1] == 1) {
            if (isAdaptive(field.grids[0]) && isAdaptive(field.grids[1])) field.mesh = measured.mesh();
            field.hasCells = field.hasCells || measured.hasCells();
            continue;
        }
        for (std::size_t k = 0; k < step.operandCount; ++k) {
            const std::uint32_t input = step.operands[k];
            if (input >= 2 || !isAdaptive(field.grids[input]) || measured.places(k).empty()) continue;
            const std::span<const double> places = measured.places(k);
            field.grids[input].places = std::make_shared<const std::vector<double>>(places.begin(), places.end());
        }
    }
    const bool onGrid = field.grids[0].places && field.grids[1].places;
    if (onGrid && any) field.hasCells = hasCells;
    if (field.mesh || onGrid) {
        if (field.mesh) field.grids[0].places = field.grids[1].places = nullptr;
        return;
    }
    for (Grid& grid : field.grids) grid.places = nullptr; // along one of them alone they are of no use
}

} // namespace coulter
