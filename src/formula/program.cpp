#include "formula/program.h"

#include <algorithm>

namespace coulter {

Evaluator::Evaluator(const Program& program, InstructionSet set) : program_(program) {
    const std::size_t registers = program.inputCount + program.constants.size() + program.temporaryCount;
    memory_.resize(registers * (blockSize / 8));
    for (std::size_t i = 0; i < program.constants.size(); ++i) {
        std::fill_n(block(static_cast<std::uint32_t>(program.inputCount + i)), blockSize, program.constants[i]);
    }
    kernels_.reserve(program.instructions.size());
    for (const auto& instruction : program.instructions) kernels_.push_back(blockKernel(instruction.kernel, set));
}

void Evaluator::run(std::size_t padded) {
    for (std::size_t i = 0; i < kernels_.size(); ++i) {
        const auto& instruction = program_.instructions[i];
        kernels_[i](block(instruction.a), block(instruction.b), block(instruction.result), padded);
    }
}

void Evaluator::operator()(std::span<const double* const> inputs, std::span<double* const> outputs, std::size_t count) {
    for (std::size_t start = 0; start < count; start += blockSize) {
        const std::size_t n = std::min(blockSize, count - start);
        const std::size_t padded = (n + 7) / 8 * 8;
        for (std::size_t k = 0; k < program_.inputCount; ++k) {
            double* into = block(static_cast<std::uint32_t>(k));
            std::copy_n(inputs[k] + start, n, into);
            std::fill(into + n, into + padded, into[n - 1]);
        }
        run(padded);
        for (std::size_t k = 0; k < outputs.size(); ++k) std::copy_n(block(program_.outputs[k]), n, outputs[k] + start);
    }
}

void Evaluator::operator()(const double* x, double* y, std::size_t count) {
    (*this)(std::span<const double* const>(&x, 1), std::span<double* const>(&y, 1), count);
}

double Evaluator::operator()(double x) {
    double y = 0;
    (*this)(&x, &y, 1);
    return y;
}

} // namespace coulter
