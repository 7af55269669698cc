#pragma once
#include <cstddef>
#include <cstdint>

namespace coulter {

/// Elementwise operations that a compiled formula is made of. The list is the instruction set of `Program`.
// clang-format off
#define COULTER_UNARY_KERNELS(X) \
    X(Negate) X(Absolute) X(Sqrt) X(Cbrt) X(Exp) X(Ln) X(Lg) X(Lb) X(Sin) X(Cos) X(Tan) X(Cot) X(Sec) \
    X(Csc) X(Arcsin) X(Arccos) X(Arctan) X(Arccot) X(Arcsec) X(Arccsc) X(Sinh) X(Cosh) X(Tanh) \
    X(Coth) X(Sech) X(Csch) X(Arsinh) X(Arcosh) X(Artanh) X(Arcoth) X(Arsech) X(Arcsch) X(Sgn) \
    X(Floor) X(Ceil) X(Sinc) X(Factorial) X(Gamma) X(LnGamma) X(Erf) X(Erfc)
#define COULTER_BINARY_KERNELS(X) \
    X(Add) X(Subtract) X(Multiply) X(Divide) X(Power) X(ArctanOfPoint) X(Mod) X(Min) X(Max) \
    X(LogToBase) X(Less) X(LessEqual) X(Equal) X(When) X(OrElse) X(IfDefined)
// clang-format on

enum class Kernel : std::uint8_t {
#define COULTER_NAME(name) name,
    COULTER_UNARY_KERNELS(COULTER_NAME) COULTER_BINARY_KERNELS(COULTER_NAME)
#undef COULTER_NAME
        Count
};

/// Applies one kernel to whole blocks: result[i] = kernel(a[i], b[i]) for i < count.
/// `count` is a multiple of 8 and blocks are aligned to 64 bytes; `result` may be `a` or `b`; unary kernels ignore `b`.
/// What is not defined (ln of a negative number, …) gives NaN; poles give ±inf or NaN as IEEE 754 has it.
using BlockKernel = void (*)(const double* a, const double* b, double* result, std::size_t count);

/// The instruction sets for which the kernels exist. All of them give the same bits.
enum class InstructionSet : std::uint8_t { Sse2, Avx, Avx512 };

/// The best set this processor has.
InstructionSet bestInstructionSet();

/// The kernel for an instruction set that the processor must have.
BlockKernel blockKernel(Kernel kernel, InstructionSet set);

/// How many operands a kernel takes: 1 or 2.
int operandCount(Kernel kernel);

} // namespace coulter
