#include "formula/program/program.h"

#include "formula/program/graded_integral.h"
#include "formula/program/piece_borders.h"
#include "formula/program/quadrature.h"
#include "formula/program/series.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>
#include <utility>

namespace coulter {
namespace {

/// Pieces that one integral may be divided into, by the number of integrals around it.
int mostPieces(int nesting) { return nesting == 0 ? 600 : nesting == 1 ? 100 : 12; }

} // namespace

std::span<const std::uint32_t> Program::operandsOf(const Instruction& instruction) const {
    if (instruction.integral >= 0) return integrals[static_cast<std::size_t>(instruction.integral)].operands;
    return std::span(instruction.operands).first(instruction.operandCount);
}

Program integralAlone(const Program::Integral& integral) {
    Program alone;
    Program::Integral same{integral.integrand, {}, integral.over};
    for (std::size_t i = 0; i < integral.operands.size(); ++i) same.operands.push_back(static_cast<std::uint32_t>(i));
    alone.inputCount = integral.operands.size();
    alone.temporaryCount = 1;
    Program::Instruction instruction;
    instruction.integral = 0;
    instruction.result = static_cast<std::uint32_t>(alone.inputCount);
    alone.instructions = {instruction};
    alone.integrals = {same};
    alone.outputs = {instruction.result};
    return alone;
}

Evaluator::Evaluator(const Program& program, InstructionSet set)
    : program_(program), valuesLeft_(std::make_shared<std::int64_t>(std::numeric_limits<std::int64_t>::max())) {
    memory_.resize(program.registerCount() * (blockSize / 8));
    for (std::size_t i = 0; i < program.constants.size(); ++i) {
        std::fill_n(block(static_cast<std::uint32_t>(program.inputCount + i)), blockSize, program.constants[i]);
    }
    kernels_.reserve(program.instructions.size());
    for (const auto& instruction : program.instructions)
        kernels_.push_back(instruction.kernel == Kernel::Count ? nullptr : blockKernel(instruction.kernel, set));
    for (const auto& integral : program.integrals) {
        Inner& inner = inner_.emplace_back();
        inner.evaluator = std::make_unique<Evaluator>(*integral.integrand, set);
        inner.errors.resize(blockSize);
        if (integral.over != Program::Over::Interval) continue;
        inner.pieces = std::make_shared<PieceFinder>(*integral.integrand);
        if (!inner.pieces->hasPieces()) inner.pieces.reset();
    }
    limit({}, *valuesLeft_);
}

void Evaluator::limit(std::stop_token stop, std::int64_t mostIntegrandValues) {
    stop_ = std::move(stop);
    *valuesLeft_ = mostIntegrandValues;
    for (Inner& inner : inner_) {
        inner.evaluator->valuesLeft_ = valuesLeft_;
        inner.evaluator->nesting_ = nesting_ + 1;
        inner.evaluator->limit(stop_, mostIntegrandValues);
    }
}

void Evaluator::run(std::size_t count, std::size_t padded) {
    for (std::size_t i = 0; i < kernels_.size(); ++i) {
        const auto& instruction = program_.instructions[i];
        if (kernels_[i]) {
            kernels_[i](block(instruction.operands[0]), block(instruction.operands[1]), block(instruction.result),
                        padded);
        } else if (instruction.special) {
            runSpecial(instruction, count);
            double* result = block(instruction.result);
            std::fill(result + count, result + padded, result[count - 1]);
        } else if (instruction.table >= 0) {
            const Interpolation& table = *program_.tables[static_cast<std::size_t>(instruction.table)];
            const double* at = block(instruction.operands[0]);
            double* result = block(instruction.result);
            for (std::size_t p = 0; p < padded; ++p) result[p] = table(at[p]);
        } else if (instruction.field >= 0) {
            runField(instruction, padded);
        } else {
            integrate(instruction, count, padded);
        }
    }
}

namespace {

template <std::size_t operandCount>
void eachPoint(ScalarFunction f, const double* const* operands, double* result, std::size_t begin, std::size_t end) {
    for (std::size_t p = begin; p < end; ++p) {
        double v[operandCount];
        bool undefined = false;
        for (std::size_t k = 0; k < operandCount; ++k) {
            v[k] = operands[k][p];
            undefined |= v[k] != v[k];
        }
        result[p] = undefined ? std::numeric_limits<double>::quiet_NaN() : f(v);
    }
}

} // namespace

void Evaluator::runSpecial(const Program::Instruction& instruction, std::size_t count) {
    const double* operands[4];
    for (std::size_t k = 0; k < instruction.operandCount; ++k) operands[k] = block(instruction.operands[k]);
    double* result = block(instruction.result);
    constexpr std::size_t step = 16; // what was asked for may no longer be wanted
    for (std::size_t begin = 0; begin < count && !stop_.stop_requested(); begin += step) {
        const std::size_t end = std::min(count, begin + step);
        switch (instruction.operandCount) {
        case 1: eachPoint<1>(instruction.special, operands, result, begin, end); break;
        case 2: eachPoint<2>(instruction.special, operands, result, begin, end); break;
        case 3: eachPoint<3>(instruction.special, operands, result, begin, end); break;
        default: eachPoint<4>(instruction.special, operands, result, begin, end); break;
        }
    }
}

void Evaluator::runField(const Program::Instruction& instruction, std::size_t padded) {
    const MeasuredField& field = *program_.fields[static_cast<std::size_t>(instruction.field)];
    field.values({block(instruction.operands[0]), block(instruction.operands[1]), block(instruction.operands[2])},
                 padded, block(instruction.result));
}

/// Where the integrand changes its piece between the limits of one point's integral, from the lower limit on.
std::vector<double> Evaluator::bordersBetween(Inner& inner, std::span<const double* const> taken, std::size_t point) {
    const double from = taken[0][point], to = taken[1][point];
    std::vector<double> others, borders;
    if (!std::isfinite(from) || !std::isfinite(to) || from == to) return borders;
    for (std::size_t k = 2; k < taken.size(); ++k) others.push_back(taken[k][point]);
    *valuesLeft_ -= PieceFinder::looksWithin;
    for (const PieceBorder& border : inner.pieces->within(std::min(from, to), std::max(from, to), others, stop_))
        borders.push_back(simpler(border.before, border.after));
    if (to < from) std::ranges::reverse(borders);
    return borders;
}

void Evaluator::integrate(const Program::Instruction& instruction, std::size_t count, std::size_t padded) {
    const auto index = static_cast<std::size_t>(instruction.integral);
    const Program::Integral& integral = program_.integrals[index];
    Inner& inner = inner_[index];
    std::vector<const double*> taken;
    for (const std::uint32_t operand : integral.operands) taken.push_back(block(operand));
    std::vector<std::vector<double>> columns(taken.size() - 2);
    std::vector<const double*> inputs(taken.size() - 1);
    const auto integrand = [&](std::span<const double> k, std::span<const std::uint32_t> which, double* values) {
        *valuesLeft_ -= static_cast<std::int64_t>(k.size());
        if (stop_.stop_requested() || *valuesLeft_ <= 0) return false;
        inputs[0] = k.data();
        for (std::size_t c = 0; c < columns.size(); ++c) {
            columns[c].resize(k.size());
            for (std::size_t i = 0; i < k.size(); ++i) columns[c][i] = taken[c + 2][which[i]];
            inputs[c + 1] = columns[c].data();
        }
        (*inner.evaluator)(inputs, std::span<double* const>(&values, 1), k.size());
        return true;
    };
    inner.evaluator->largestShare_ = 0;
    double* result = block(instruction.result);
    // The result may share its register with an operand, so it is written only at the end.
    std::array<double, blockSize> values;
    const Quadrature quadrature{mostPieces(nesting_)};
    if (integral.over == Program::Over::PrincipalValue) {
        for (std::size_t p = 0; p < count; ++p) {
            const Limit value = principalValue(integrand, static_cast<std::uint32_t>(p), taken[0][p], taken[1][p]);
            values[p] = std::isfinite(value.error) ? value.value : std::numeric_limits<double>::quiet_NaN();
            inner.errors[p] = value.error;
        }
    } else if (integral.over != Program::Over::Interval) {
        Series{integral.over == Program::Over::Product}(integrand, {taken[0], count}, values.data(),
                                                        inner.errors.data());
    } else if (!inner.pieces) {
        quadrature(integrand, {taken[0], count}, {taken[1], count}, values.data(), inner.errors.data());
    } else {
        // From border to border of the integrand's pieces, each an integral of its own.
        std::vector<double> low, high;
        std::vector<std::uint32_t> owner;
        for (std::size_t p = 0; p < count; ++p) {
            double from = taken[0][p];
            for (const double border : bordersBetween(inner, taken, p)) {
                low.push_back(std::exchange(from, border));
                high.push_back(border);
            }
            low.push_back(from);
            high.push_back(taken[1][p]);
            owner.resize(low.size(), static_cast<std::uint32_t>(p));
        }
        std::vector<double> parts(low.size()), errors(low.size());
        std::vector<std::uint32_t> owners;
        const auto ofPart = [&](std::span<const double> k, std::span<const std::uint32_t> which, double* into) {
            owners.clear();
            for (const std::uint32_t part : which) owners.push_back(owner[part]);
            return integrand(k, owners, into);
        };
        quadrature(ofPart, low, high, parts.data(), errors.data());
        values.fill(0);
        std::fill_n(inner.errors.begin(), count, 0.0);
        for (std::size_t i = 0; i < parts.size(); ++i) {
            // Two conditions with one border find it a rounding apart, and between them is next to nothing.
            const double all = std::abs(taken[1][owner[i]] - taken[0][owner[i]]);
            if (std::isnan(parts[i]) && std::abs(high[i] - low[i]) <= 1e-12 * all) {
                const std::array<double, 2> ends{low[i], high[i]};
                const std::array<std::uint32_t, 2> which{static_cast<std::uint32_t>(i), static_cast<std::uint32_t>(i)};
                std::array<double, 2> there{};
                if (ofPart(ends, which, there.data())) {
                    const double value = std::isfinite(there[0]) ? there[0] : there[1];
                    parts[i] = (high[i] - low[i]) * value;
                    errors[i] = std::isfinite(value) ? std::abs(parts[i]) : HUGE_VAL;
                }
            }
            values[owner[i]] += parts[i];
            inner.errors[owner[i]] += errors[i];
        }
        // Pieces may be narrower than what is looked at, and each part has no more digits than were asked for.
        for (std::size_t p = 0; p < count; ++p) inner.errors[p] += 1e-13 * std::abs(values[p]);
    }
    // What integrals within this one are off by, it is off by as well.
    double largest = 0, error = 0;
    for (std::size_t p = 0; p < count; ++p) {
        if (!std::isfinite(inner.errors[p])) continue;
        inner.errors[p] += inner.evaluator->largestShare_ * std::abs(values[p]);
        largest = std::max(largest, std::abs(values[p]));
        error = std::max(error, inner.errors[p]);
    }
    if (largest > 0) largestShare_ = std::max(largestShare_, error / largest);
    std::copy_n(values.data(), count, result);
    std::fill(result + count, result + padded, values[count - 1]);
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
        run(n, padded);
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

void evaluateInParallel(const Program& program, std::span<const double* const> inputs, std::span<double* const> outputs,
                        std::size_t count, std::stop_token stop, const std::function<void(std::size_t)>& evaluated) {
    // Every point is computed by itself, so how they are shared out shows nowhere. Points with integrals are dear: a
    // few are enough for one core at a time.
    const bool dear = !program.integrals.empty();
    const std::size_t size = dear ? 8 : Evaluator::blockSize, blocks = (count + size - 1) / size;
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, blocks, dear ? 1 : 16),
                      [&](const tbb::blocked_range<std::size_t>& range) {
                          Evaluator evaluator(program);
                          evaluator.limit(stop, std::numeric_limits<std::int64_t>::max());
                          std::vector<const double*> in(inputs.size());
                          std::vector<double*> out(outputs.size());
                          for (std::size_t at = range.begin(); at < range.end() && !stop.stop_requested(); ++at) {
                              const std::size_t start = at * size, n = std::min(size, count - start);
                              for (std::size_t k = 0; k < in.size(); ++k) in[k] = inputs[k] + start;
                              for (std::size_t k = 0; k < out.size(); ++k) out[k] = outputs[k] + start;
                              evaluator(in, out, n);
                              if (evaluated) evaluated(n);
                          }
                      });
}

} // namespace coulter
