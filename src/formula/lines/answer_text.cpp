#include "formula/lines/answer_text.h"

#include "formula/base/text.h"
#include "formula/compile/columns.h"
#include "formula/lines/answer.h"
#include "formula/lines/matrices.h"
#include "formula/lines/places_text.h"
#include "formula/notation/expr_build.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace coulter {

const std::string_view unsettledMeans = "a sum, product or integral here diverges, or settles too slowly to be told";

std::string answerText(const Answer& answer, bool withError) {
    if (answer.formula) return spelled(*answer.formula);
    if (answer.places) return describe(*answer.places, answer.sought);
    if (answer.matrix) {
        const MatrixValue& matrix = *answer.matrix;
        const double error = matrix.errors.empty() ? 0 : *std::ranges::max_element(matrix.errors);
        return spelled(matrix) +
               (!withError             ? ""
                : std::isfinite(error) ? fmt::format(" ± {:.1e}", error)
                                       : " ± unknown") +
               (matrix.made.empty() ? "" : " (" + matrix.made + ")");
    }
    std::string text;
    double error = 0;
    for (const Column& column : answer.columns) text += (text.empty() ? "" : ", ") + spelled(*column);
    if (!answer.columns.empty()) return answer.columns.size() > 1 ? "(" + text + ")" : text;
    for (std::size_t i = 0; i < answer.values.size(); ++i) {
        text += (i == 0 ? "" : ", ") + shortestNumber(answer.values[i]);
        if (i < answer.errors.size()) error = std::max(error, answer.errors[i]);
    }
    if (answer.values.size() > 1) text = "(" + text + ")";
    if (answer.unsettled) return text + " (" + std::string(unsettledMeans) + ")";
    if (answer.throughInfinity) return text + " (through an infinite value on the way)";
    if (!withError) return text;
    text += !std::isfinite(error) ? " ± unknown"
                                  : fmt::format(" ± {:.1e}{}", error,
                                                answer.isStandardError ? " (standard error)"
                                                : answer.isEstimated   ? " (estimated)"
                                                                       : "");
    return answer.exact.empty() ? text : text + ", exactly " + answer.exact;
}

} // namespace coulter
