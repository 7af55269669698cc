#pragma once
#include "special/kernels.h"

#include <array>
#include <cstddef>
#include <cstdint>
#include <memory>
#include <span>
#include <vector>

namespace coulter {

/// A compiled formula: a straight line of elementwise operations on registers, with common parts computed once and
/// constants folded. Immutable and shared between threads; evaluated by an `Evaluator`.
struct Program {
    struct Instruction {
        Kernel kernel;
        std::uint32_t result;
        std::uint32_t a;
        std::uint32_t b;
    };
    std::size_t inputCount = 0;
    std::vector<double> constants;
    std::size_t temporaryCount = 0;
    std::vector<Instruction> instructions;
    /// Registers are numbered: inputs, then constants, then temporaries.
    std::vector<std::uint32_t> outputs;
};

/// Runs a program over blocks of points. Holds the working memory, so each thread has its own.
/// The program must outlive it.
class Evaluator {
public:
    /// Points that are evaluated together: a block of a register is 2 KiB, so that a dozen registers stay in L1.
    static constexpr std::size_t blockSize = 256;

    explicit Evaluator(const Program& program, InstructionSet set = bestInstructionSet());

    /// outputs[k][i] = k-th output at (inputs[0][i], inputs[1][i], …) for i < count; arrays of `count` doubles each.
    void operator()(std::span<const double* const> inputs, std::span<double* const> outputs, std::size_t count);

    /// For one input and one output.
    void operator()(const double* x, double* y, std::size_t count);
    double operator()(double x);

private:
    struct Aligned {
        alignas(64) std::array<double, 8> lanes;
    };
    double* block(std::uint32_t index) { return memory_[index * (blockSize / 8)].lanes.data(); }
    void run(std::size_t padded);

    const Program& program_;
    std::vector<BlockKernel> kernels_; ///< of each instruction
    std::vector<Aligned> memory_;
};

} // namespace coulter
