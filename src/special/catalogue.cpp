#include "special/catalogue.h"

#include <array>

namespace coulter {
namespace {

constexpr auto entries = std::to_array<FunctionEntry>({
    {"sqrt", 1, 1, Kernel::Sqrt, false, "square root", "x ≥ 0", "ISO 80000-2"},
    {"cbrt", 1, 1, Kernel::Cbrt, false, "real cube root", "all x", "ISO 80000-2"},
    {"exp", 1, 1, Kernel::Exp, false, "exponential function", "all x", "DLMF 4.2(iii)"},
    {"ln", 1, 1, Kernel::Ln, false, "natural logarithm", "x > 0", "DLMF 4.2(i)"},
    {"lg", 1, 1, Kernel::Lg, false, "logarithm to the base 10", "x > 0", "ISO 80000-2"},
    {"lb", 1, 1, Kernel::Lb, false, "logarithm to the base 2", "x > 0", "ISO 80000-2"},
    {"log", 1, 1, Kernel::LogToBase, true, "logarithm to the base b, written log_{b}(x)", "x > 0, b > 0, b ≠ 1",
     "ISO 80000-2"},
    {"sin", 1, 1, Kernel::Sin, false, "sine", "all x", "DLMF 4.14"},
    {"cos", 1, 1, Kernel::Cos, false, "cosine", "all x", "DLMF 4.14"},
    {"tan", 1, 1, Kernel::Tan, false, "tangent", "x ≠ π/2 + kπ", "DLMF 4.14"},
    {"cot", 1, 1, Kernel::Cot, false, "cotangent", "x ≠ kπ", "DLMF 4.14"},
    {"sec", 1, 1, Kernel::Sec, false, "secant", "x ≠ π/2 + kπ", "DLMF 4.14"},
    {"csc", 1, 1, Kernel::Csc, false, "cosecant", "x ≠ kπ", "DLMF 4.14"},
    {"arcsin", 1, 1, Kernel::Arcsin, false, "inverse sine, from −π/2 to π/2", "−1 ≤ x ≤ 1", "DLMF 4.23"},
    {"arccos", 1, 1, Kernel::Arccos, false, "inverse cosine, from 0 to π", "−1 ≤ x ≤ 1", "DLMF 4.23"},
    {"arctan", 1, 1, Kernel::Arctan, false, "inverse tangent, from −π/2 to π/2", "all x", "DLMF 4.23"},
    {"arctan", 2, 2, Kernel::ArctanOfPoint, false, "angle of the point: arctan(y, x), from −π to π", "(x, y) ≠ (0, 0)",
     "DLMF 4.23(iv)"},
    {"arccot", 1, 1, Kernel::Arccot, false, "inverse cotangent, from 0 to π", "all x", "ISO 80000-2"},
    {"arcsec", 1, 1, Kernel::Arcsec, false, "inverse secant, from 0 to π", "|x| ≥ 1", "ISO 80000-2"},
    {"arccsc", 1, 1, Kernel::Arccsc, false, "inverse cosecant, from −π/2 to π/2", "|x| ≥ 1", "ISO 80000-2"},
    {"sinh", 1, 1, Kernel::Sinh, false, "hyperbolic sine", "all x", "DLMF 4.28"},
    {"cosh", 1, 1, Kernel::Cosh, false, "hyperbolic cosine", "all x", "DLMF 4.28"},
    {"tanh", 1, 1, Kernel::Tanh, false, "hyperbolic tangent", "all x", "DLMF 4.28"},
    {"coth", 1, 1, Kernel::Coth, false, "hyperbolic cotangent", "x ≠ 0", "DLMF 4.28"},
    {"sech", 1, 1, Kernel::Sech, false, "hyperbolic secant", "all x", "DLMF 4.28"},
    {"csch", 1, 1, Kernel::Csch, false, "hyperbolic cosecant", "x ≠ 0", "DLMF 4.28"},
    {"arsinh", 1, 1, Kernel::Arsinh, false, "inverse hyperbolic sine", "all x", "DLMF 4.37"},
    {"arcosh", 1, 1, Kernel::Arcosh, false, "inverse hyperbolic cosine", "x ≥ 1", "DLMF 4.37"},
    {"artanh", 1, 1, Kernel::Artanh, false, "inverse hyperbolic tangent", "−1 < x < 1", "DLMF 4.37"},
    {"arcoth", 1, 1, Kernel::Arcoth, false, "inverse hyperbolic cotangent", "|x| > 1", "DLMF 4.37"},
    {"arsech", 1, 1, Kernel::Arsech, false, "inverse hyperbolic secant", "0 < x ≤ 1", "DLMF 4.37"},
    {"arcsch", 1, 1, Kernel::Arcsch, false, "inverse hyperbolic cosecant", "x ≠ 0", "DLMF 4.37"},
    {"abs", 1, 1, Kernel::Absolute, false, "absolute value, also written |x|", "all x", "ISO 80000-2"},
    {"sgn", 1, 1, Kernel::Sgn, false, "sign: −1, 0 or 1", "all x", "ISO 80000-2"},
    {"floor", 1, 1, Kernel::Floor, false, "greatest whole number that is not greater", "all x", "ISO 80000-2"},
    {"ceil", 1, 1, Kernel::Ceil, false, "least whole number that is not less", "all x", "ISO 80000-2"},
    {"mod", 2, 2, Kernel::Mod, false, "remainder x − y⌊x/y⌋, with the sign of y", "y ≠ 0", "DLMF, Common Notations"},
    {"min", 2, -1, Kernel::Min, false, "least of its arguments", "all", "ISO 80000-2"},
    {"max", 2, -1, Kernel::Max, false, "greatest of its arguments", "all", "ISO 80000-2"},
    {"sinc", 1, 1, Kernel::Sinc, false, "sin(x)/x, and 1 at 0", "all x", "limit of sin(x)/x at 0"},
    {"Γ", 1, 1, Kernel::Gamma, false, "gamma function", "x ≠ 0, −1, −2, …", "DLMF 5.2(i)"},
    {"lnGamma", 1, 1, Kernel::LnGamma, false, "logarithm of |Γ(x)|", "x ≠ 0, −1, −2, …", "DLMF 5.2(i)"},
    {"erf", 1, 1, Kernel::Erf, false, "error function", "all x", "DLMF 7.2(i)"},
    {"erfc", 1, 1, Kernel::Erfc, false, "complementary error function", "all x", "DLMF 7.2(i)"},
});

} // namespace

std::span<const FunctionEntry> catalogue() { return entries; }

const FunctionEntry* findFunction(std::string_view name, int arguments) {
    for (const FunctionEntry& entry : entries) {
        if (entry.name != name) continue;
        if (arguments < 0 || (arguments >= entry.fewest && (entry.most < 0 || arguments <= entry.most))) return &entry;
    }
    return nullptr;
}

} // namespace coulter
