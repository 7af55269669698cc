#include "plots/seen_in.h"

#include <cmath>

namespace coulter {
namespace {

/// A program that goes on from another one's outputs. Constants stand before temporaries, so all that are needed are
/// named first.
class Continued {
public:
    Continued(const Program& before, const std::vector<double>& constants)
        : program_(std::make_shared<Program>(before)),
          firstConstant_(static_cast<std::uint32_t>(before.inputCount + before.constants.size())) {
        const auto added = static_cast<std::uint32_t>(constants.size());
        const auto moved = [&](std::uint32_t r) { return r < firstConstant_ ? r : r + added; };
        program_->constants.insert(program_->constants.end(), constants.begin(), constants.end());
        for (Program::Instruction& step : program_->instructions) {
            step.result = moved(step.result);
            for (std::uint32_t k = 0; k < step.operandCount; ++k) step.operands[k] = moved(step.operands[k]);
        }
        for (Program::Integral& integral : program_->integrals) {
            for (std::uint32_t& operand : integral.operands) operand = moved(operand);
        }
        for (std::uint32_t& output : program_->outputs) output = moved(output);
    }

    std::uint32_t input() const { return 0; }
    std::uint32_t output(std::size_t k) const { return program_->outputs[k]; }
    std::uint32_t constant(std::size_t k) const { return firstConstant_ + static_cast<std::uint32_t>(k); }
    std::uint32_t apply(Kernel kernel, std::uint32_t a) { return add(kernel, {a}, 1); }
    std::uint32_t apply(Kernel kernel, std::uint32_t a, std::uint32_t b) { return add(kernel, {a, b}, 2); }
    std::shared_ptr<const Program> finish(std::vector<std::uint32_t> outputs) {
        program_->outputs = std::move(outputs);
        return program_;
    }

private:
    std::uint32_t add(Kernel kernel, std::array<std::uint32_t, 4> operands, std::uint32_t count) {
        const auto result =
            static_cast<std::uint32_t>(program_->inputCount + program_->constants.size() + program_->temporaryCount++);
        program_->instructions.push_back({kernel, nullptr, -1, result, operands, count});
        return result;
    }

    std::shared_ptr<Program> program_;
    std::uint32_t firstConstant_;
};

/// Right and up as weighted sums of three coordinates.
std::shared_ptr<const Program> weighted(Continued& seen, const std::array<std::uint32_t, 3>& coordinates) {
    std::vector<std::uint32_t> outputs;
    for (std::size_t row = 0; row < 2; ++row) {
        std::uint32_t sum = 0;
        for (std::size_t k = 0; k < 3; ++k) {
            const std::uint32_t part = seen.apply(Kernel::Multiply, coordinates[k], seen.constant(3 * row + k));
            sum = k == 0 ? part : seen.apply(Kernel::Add, sum, part);
        }
        outputs.push_back(sum);
    }
    return seen.finish(std::move(outputs));
}

std::vector<double> weightsOf(const ViewAxes& axes) {
    std::vector<double> weights(axes.right.begin(), axes.right.end());
    weights.insert(weights.end(), axes.up.begin(), axes.up.end());
    return weights;
}

/// Through the scales of a box, and onto one of its faces if the curve is projected there.
std::shared_ptr<const Program> seenInBox(const Program& inSpace, const SpaceBox& box, std::optional<Face> face) {
    std::vector<double> constants = weightsOf(box.axes);
    for (std::size_t k = 0; k < 3; ++k) { // of the straight line that the logarithm goes through; or the face's place
        const double low = box.along(k, box.maps[k].low);
        const bool logarithmic = box.maps[k].kind == ScaleKind::Logarithmic;
        const double factor =
            logarithmic ? (box.along(k, box.maps[k].high) - low) / std::log(box.maps[k].high / box.maps[k].low) : 1;
        constants.push_back(logarithmic ? factor : -1);
        constants.push_back(logarithmic ? low - factor * std::log(box.maps[k].low) : 0);
    }
    const std::size_t at = face ? static_cast<std::size_t>(*face) : 3;
    constants.push_back(face ? box.faceAt(*face) : 0);
    constants.push_back(0);
    Continued seen(inSpace, constants);
    std::array<std::uint32_t, 3> coordinates{};
    for (std::size_t k = 0; k < 3; ++k) {
        const std::uint32_t c = seen.output(k), factor = seen.constant(6 + 2 * k);
        if (k == at) // what is undefined stays so
            coordinates[k] =
                seen.apply(Kernel::Add, seen.constant(12), seen.apply(Kernel::Multiply, seen.constant(13), c));
        else if (box.maps[k].kind == ScaleKind::Logarithmic)
            coordinates[k] = seen.apply(Kernel::Add, seen.apply(Kernel::Multiply, seen.apply(Kernel::Ln, c), factor),
                                        seen.constant(7 + 2 * k));
        else
            coordinates[k] = box.reversed[k] ? seen.apply(Kernel::Multiply, c, factor) : c;
    }
    return weighted(seen, coordinates);
}

/// (ρ cos φ, ρ sin φ) in mm from the frame's middle.
std::shared_ptr<const Program> aroundMiddle(const Program& radius, const PolarFrame& frame) {
    const AxisMap& scale = frame.radius;
    const bool logarithmic = scale.kind == ScaleKind::Logarithmic;
    const double extent = logarithmic ? std::log(scale.high / scale.low) : scale.high - scale.low;
    const double factor = scale.length / extent;
    const bool fromZero = !logarithmic && scale.low == 0;
    const double offset = fromZero ? 0 : -factor * (logarithmic ? std::log(scale.low) : scale.low);
    Continued seen(radius, {factor, offset, 0, scale.length * (1 + 1e-12), std::nan(""), frame.sense, frame.zero});
    std::uint32_t rho = seen.output(0);
    if (logarithmic) rho = seen.apply(Kernel::Ln, rho);
    rho = seen.apply(Kernel::Multiply, rho, seen.constant(0));
    if (!fromZero) rho = seen.apply(Kernel::Add, rho, seen.constant(1));
    // A negative radius lies opposite, but only where the middle is zero; beyond the outermost circle nothing is drawn.
    const auto where = [&](std::uint32_t holds) {
        rho = seen.apply(Kernel::OrElse, seen.apply(Kernel::When, holds, rho), seen.constant(4));
    };
    if (!fromZero) where(seen.apply(Kernel::LessEqual, seen.constant(2), rho));
    where(seen.apply(Kernel::LessEqual, fromZero ? seen.apply(Kernel::Absolute, rho) : rho, seen.constant(3)));
    std::uint32_t angle = seen.input();
    if (frame.sense != 1) angle = seen.apply(Kernel::Multiply, angle, seen.constant(5));
    if (frame.zero != 0) angle = seen.apply(Kernel::Add, angle, seen.constant(6));
    const std::uint32_t x = seen.apply(Kernel::Multiply, rho, seen.apply(Kernel::Cos, angle)),
                        y = seen.apply(Kernel::Multiply, rho, seen.apply(Kernel::Sin, angle));
    return seen.finish({x, y});
}

} // namespace

std::shared_ptr<const Program> seenFrom(const View& view, const Program& inSpace) {
    Continued seen(inSpace, weightsOf(viewAxes(view)));
    return weighted(seen, {seen.output(0), seen.output(1), seen.output(2)});
}

std::shared_ptr<const Source> seenIn(const std::shared_ptr<const Source>& source, const Frame& frame) {
    const Curve* curve = std::get_if<Curve>(source.get());
    if (!curve) return source;
    if (curve->inSpace && frame.space && (curve->face || !frame.space->isPlain())) {
        Curve seen = *curve;
        seen.program = seenInBox(*curve->inSpace, *frame.space, curve->face);
        return std::make_shared<const Source>(std::move(seen));
    }
    if (curve->radius && frame.polar) {
        Curve seen = *curve;
        seen.program = aroundMiddle(*curve->radius, *frame.polar);
        return std::make_shared<const Source>(std::move(seen));
    }
    return source;
}

} // namespace coulter
