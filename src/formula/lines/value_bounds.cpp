#include "formula/lines/value_bounds.h"

#include "formula/compile/compile.h"
#include "formula/proofs/interval_evaluator.h"

#include <algorithm>
#include <cmath>

namespace coulter {

double errorOfQuantity(const Page& page, const Line& line) {
    if (!line.body || !line.value || line.plainNumber) return HUGE_VAL;
    const Compiled unfolded = compileStepByStep(page, line.body);
    if (!unfolded.program || !unfolded.program->integrals.empty() || unfolded.program->outputs.size() != 1)
        return HUGE_VAL;
    const Enclosure bounds = IntervalEvaluator(*unfolded.program)({})[0];
    return bounds.known && bounds.isProof() ? std::max(bounds.high - *line.value, *line.value - bounds.low) : HUGE_VAL;
}

} // namespace coulter
