#include "special/operations.h"

#include <utility>

namespace coulter {
namespace {

constexpr Operation smooth{Shape::Smooth};
constexpr Operation smoothOfTwo{Shape::Smooth, 2};
constexpr Operation stepped{Shape::Stepped, 1, false, true};
constexpr Operation extreme{Shape::Bent, 2, false, true, true};
constexpr Operation chosen{Shape::Chosen, 2};

// Sinc, the gamma functions and quotients are smooth wherever they are defined; so are tan, ln and the like.
constexpr std::pair<Kernel, Operation> implemented[] = {
    {Kernel::Negate, smooth},
    {Kernel::Absolute, {Shape::Bent, 1, false, true, true}},
    {Kernel::Sqrt, smooth},
    {Kernel::Cbrt, smooth},
    {Kernel::Exp, smooth},
    {Kernel::Ln, smooth},
    {Kernel::Lg, smooth},
    {Kernel::Lb, smooth},
    {Kernel::Sin, smooth},
    {Kernel::Cos, smooth},
    {Kernel::Tan, smooth},
    {Kernel::Cot, smooth},
    {Kernel::Sec, smooth},
    {Kernel::Csc, smooth},
    {Kernel::Arcsin, smooth},
    {Kernel::Arccos, smooth},
    {Kernel::Arctan, smooth},
    {Kernel::Arccot, smooth},
    {Kernel::Arcsec, smooth},
    {Kernel::Arccsc, smooth},
    {Kernel::Sinh, smooth},
    {Kernel::Cosh, smooth},
    {Kernel::Tanh, smooth},
    {Kernel::Coth, smooth},
    {Kernel::Sech, smooth},
    {Kernel::Csch, smooth},
    {Kernel::Arsinh, smooth},
    {Kernel::Arcosh, smooth},
    {Kernel::Artanh, smooth},
    {Kernel::Arcoth, smooth},
    {Kernel::Arsech, smooth},
    {Kernel::Arcsch, smooth},
    {Kernel::Sgn, {Shape::Stepped, 1, false, true, true}},
    {Kernel::Floor, stepped},
    {Kernel::Ceil, stepped},
    {Kernel::Sinc, smooth},
    {Kernel::Factorial, smooth},
    {Kernel::Gamma, smooth},
    {Kernel::LnGamma, smooth},
    {Kernel::Erf, smooth},
    {Kernel::Erfc, smooth},
    {Kernel::Add, {Shape::Smooth, 2, true}},
    {Kernel::Subtract, smoothOfTwo},
    {Kernel::Multiply, {Shape::Smooth, 2, true}},
    {Kernel::Divide, smoothOfTwo},
    {Kernel::Power, smoothOfTwo},
    {Kernel::ArctanOfPoint, {Shape::Jumping, 2, false, true}},
    {Kernel::Mod, {Shape::Jumping, 2, false, true}},
    {Kernel::Min, extreme},
    {Kernel::Max, extreme},
    {Kernel::LogToBase, smoothOfTwo},
    {Kernel::Less, {Shape::Truth, 2, false, true, true}},
    {Kernel::LessEqual, {Shape::Truth, 2, false, true, true}},
    {Kernel::Equal, {Shape::Truth, 2}}, // holds along a line at most, on both sides of which it does not
    {Kernel::When, chosen},
    {Kernel::OrElse, chosen},
    {Kernel::IfDefined, chosen},
};

constexpr std::array<Operation, kernelCount> table = totalTable(implemented);

} // namespace

const Operation& operationOf(Kernel kernel) {
    static constexpr Operation unknown{};
    return kernel < Kernel::Count ? table[static_cast<std::size_t>(kernel)] : unknown;
}

int operandCount(Kernel kernel) { return operationOf(kernel).operands; }

} // namespace coulter
