#include "plots/curve_programs.h"

#include "drawing/frame.h"
#include "formula/expr_build.h"

#include <array>
#include <cmath>
#include <numbers>

namespace coulter {
namespace {

ExprPtr vectorExpr(ExprPtr a, ExprPtr b) {
    std::vector<ExprPtr> operands;
    operands.push_back(std::move(a));
    operands.push_back(std::move(b));
    return nodeExpr(ExprKind::Vector, std::move(operands));
}

ExprPtr cosineOrSine(const char* name, const std::string& angle) {
    std::vector<ExprPtr> operands;
    operands.push_back(nameExpr(angle));
    return callExpr(name, std::move(operands));
}

} // namespace

std::size_t componentCount(const Page& page, const Plotted& plotted) {
    FixedValues fixed;
    for (std::size_t k = 0; k < plotted.caseNames.size(); ++k)
        fixed[plotted.caseNames[k]] = plotted.cases.empty() ? 0 : plotted.cases[0][k];
    const Compiled compiled = compile(page, plotted.expression, plotted.variables, fixed);
    return compiled.program ? compiled.program->outputs.size() : 1;
}

ExprPtr polarPoint(const ExprPtr& radius, const std::string& angle) {
    return withBrackets(vectorExpr(radius * cosineOrSine("cos", angle), radius * cosineOrSine("sin", angle)));
}

std::shared_ptr<const Program> seenFrom(const View& view, const Program& inSpace) {
    // Appended to the program: right and up as weighted sums of its three outputs.
    const ViewAxes axes = viewAxes(view);
    auto seen = std::make_shared<Program>(inSpace);
    const std::size_t shift = 6, oldTemporaries = inSpace.inputCount + inSpace.constants.size();
    const auto moved = [&](std::uint32_t r) {
        return r < oldTemporaries ? r : static_cast<std::uint32_t>(r + shift); // constants are added before temporaries
    };
    seen->constants.insert(seen->constants.end(), axes.right.begin(), axes.right.end());
    seen->constants.insert(seen->constants.end(), axes.up.begin(), axes.up.end());
    for (Program::Instruction& step : seen->instructions) {
        step.result = moved(step.result);
        for (std::uint32_t k = 0; k < step.operandCount; ++k) step.operands[k] = moved(step.operands[k]);
    }
    for (Program::Integral& integral : seen->integrals) {
        for (std::uint32_t& operand : integral.operands) operand = moved(operand);
    }
    for (std::uint32_t& output : seen->outputs) output = moved(output);
    const std::vector<std::uint32_t> components = seen->outputs;
    const auto step = [&](Kernel kernel, std::uint32_t a, std::uint32_t b) {
        const auto result =
            static_cast<std::uint32_t>(seen->inputCount + seen->constants.size() + seen->temporaryCount++);
        seen->instructions.push_back({kernel, nullptr, -1, result, {a, b}, 2});
        return result;
    };
    seen->outputs.clear();
    for (std::size_t row = 0; row < 2; ++row) {
        std::uint32_t sum = 0;
        for (std::size_t k = 0; k < 3; ++k) {
            const auto weight = static_cast<std::uint32_t>(oldTemporaries + 3 * row + k);
            const std::uint32_t part = step(Kernel::Multiply, components[k], weight);
            sum = k == 0 ? part : step(Kernel::Add, sum, part);
        }
        seen->outputs.push_back(sum);
    }
    return seen;
}

} // namespace coulter
