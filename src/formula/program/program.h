#pragma once
#include "formula/measured/interpolation.h"
#include "formula/measured/measured_field.h"
#include "special/kernels.h"
#include "special/scalar_functions.h"

#include <array>
#include <cstddef>
#include <cstdint>
#include <functional>
#include <memory>
#include <span>
#include <stop_token>
#include <vector>

namespace coulter {

/// A compiled formula: a straight line of elementwise operations on registers, with common parts computed once and
/// constants folded. Immutable and shared between threads; evaluated by an `Evaluator`.
///
/// Values follow IEEE 754 throughout: an undefined place gives NaN, too large a value ±inf, too small a one a subnormal
/// number or 0; nothing is flushed and nothing traps. A condition with an undefined operand is undefined.
struct Program {
    struct Instruction {
        Kernel kernel = Kernel::Count;    ///< a block kernel of one or two operands,
        ScalarFunction special = nullptr; ///< or a special function of up to four,
        std::int32_t integral = -1;       ///< or one of `integrals`
        std::uint32_t result = 0;
        std::array<std::uint32_t, 4> operands{};
        std::uint32_t operandCount = 0; ///< of a kernel, special function, table or field
        std::int32_t table = -1;        ///< or one of `tables`
        std::int32_t field = -1;        ///< or one of `fields`
    };
    /// A definite integral over an inner variable; or the sum of the integrand over all whole numbers from the lower
    /// limit on, which is an integral too, by counting; or the product of 1 + integrand over these.
    enum class Over : std::uint8_t { Interval, PrincipalValue, Sum, Product };
    struct Integral {
        std::shared_ptr<const Program>
            integrand;                       ///< inputs: the inner variable, then what the integrand takes from here
        std::vector<std::uint32_t> operands; ///< registers of the limits, then of the integrand's other inputs
        Over over = Over::Interval;
    };
    std::size_t inputCount = 0;
    std::vector<double> constants;
    std::size_t temporaryCount = 0;
    std::vector<Instruction> instructions;
    std::vector<Integral> integrals;
    std::vector<std::shared_ptr<const Interpolation>> tables;
    std::vector<std::shared_ptr<const MeasuredField>> fields;
    /// Registers are numbered: inputs, then constants, then temporaries.
    std::vector<std::uint32_t> outputs;

    std::size_t registerCount() const { return inputCount + constants.size() + temporaryCount; }
    /// Registers that an instruction reads.
    std::span<const std::uint32_t> operandsOf(const Instruction& instruction) const;
};

/// A definite integral as a program of its own, with its operands as inputs.
Program integralAlone(const Program::Integral& integral);

class PieceFinder;

/// Runs a program over blocks of points. Holds the working memory, so each thread has its own.
/// The program must outlive it.
class Evaluator {
public:
    /// Points that are evaluated together: a block of a register is 2 KiB, so that a dozen registers stay in L1.
    static constexpr std::size_t blockSize = 256;

    explicit Evaluator(const Program& program, InstructionSet set = bestInstructionSet());

    /// outputs[k][i] = k-th output at (inputs[0][i], inputs[1][i], …) for i < count; arrays of `count` doubles each.
    /// Every point is computed by itself: its value does not depend on those beside it.
    void operator()(std::span<const double* const> inputs, std::span<double* const> outputs, std::size_t count);

    /// For one input and one output.
    void operator()(const double* x, double* y, std::size_t count);
    double operator()(double x);

    /// Integrals give up (undefined) soon after a stop is requested, or when all of them together have taken so many
    /// values of integrands.
    void limit(std::stop_token stop, std::int64_t mostIntegrandValues);
    /// Whether the limit of integrand values was reached.
    bool exhausted() const { return *valuesLeft_ <= 0; }
    std::int64_t valuesLeft() const { return *valuesLeft_; }
    /// Upper bounds (estimated, absolute) of the errors of each integral of the program at the last block's points.
    std::span<const double> integralErrors(std::size_t integral) const { return inner_[integral].errors; }

private:
    struct Aligned {
        alignas(64) std::array<double, 8> lanes;
    };
    struct Inner {
        std::unique_ptr<Evaluator> evaluator;
        std::vector<double> errors;
        std::shared_ptr<PieceFinder> pieces; ///< of the integrand; null if it has none
    };
    double* block(std::uint32_t index) { return memory_[index * (blockSize / 8)].lanes.data(); }
    void run(std::size_t count, std::size_t padded);
    void runSpecial(const Program::Instruction& instruction, std::size_t count);
    void runField(const Program::Instruction& instruction, std::size_t padded);
    void integrate(const Program::Instruction& instruction, std::size_t count, std::size_t padded);
    std::vector<double> bordersBetween(Inner& inner, std::span<const double* const> taken, std::size_t point);

    const Program& program_;
    std::vector<BlockKernel> kernels_; ///< of each instruction, null where it is none
    std::vector<Aligned> memory_;
    std::vector<Inner> inner_; ///< of each integral
    std::stop_token stop_;
    std::shared_ptr<std::int64_t> valuesLeft_; ///< shared with the inner evaluators
    double largestShare_ = 0; ///< largest error of an integral since it was set to 0, as a share of its largest value
    int nesting_ = 0;         ///< how many integrals this evaluator stands under
};

/// Evaluates over all processors' cores; the bits are those of one `Evaluator`.
/// @param evaluated  told now and then that so many further points are done, from any thread
void evaluateInParallel(const Program& program, std::span<const double* const> inputs, std::span<double* const> outputs,
                        std::size_t count, std::stop_token stop = {},
                        const std::function<void(std::size_t)>& evaluated = {});

} // namespace coulter
