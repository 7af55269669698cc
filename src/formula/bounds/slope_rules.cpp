#include "formula/bounds/slope_rules.h"

#include "formula/bounds/bounds_arithmetic.h"
#include "formula/bounds/interval_rules.h"
#include "special/operations.h"

#include <array>
#include <numbers>

namespace coulter {
namespace {

using std::numbers::pi;
const Bounds one{1, 1};
const Bounds log10{2.302585092994045, 2.302585092994046}, log2{0.6931471805599453, 0.6931471805599454};
const Bounds twoOverRootPi{1.1283791670955125, 1.1283791670955127};

Bounds valueOf(Kernel kernel, const Bounds& at) {
    const Enclosure e = enclose(kernel, {at.low, at.high}, {}, false);
    return e.isProof() ? Bounds{e.low, e.high} : everything();
}

Bounds special(ScalarFunction f, std::array<double, 2> v, std::size_t count, const Bounds& at) {
    return boundsOver(f, v.data(), count, count - 1, at.low, at.high).value_or(everything());
}

Bounds cubed(const Bounds& a) { return a * square(a); }

/// ψ and ψ′. For x < 0, ψ′(x) = π²/sin²(πx) − ψ′(1 − x), DLMF 5.15.6.
struct Psi {
    explicit Psi(const Bounds& x)
        : value(special(digammaPsi, {x.low}, 1, x)), slope(x.low > 0 ? trigamma(x) : reflected(x)) {}
    static Bounds trigamma(const Bounds& x) { return special(polygammaPsi, {1, x.low}, 2, x); }
    static Bounds reflected(const Bounds& x) {
        if (!(x.high < 0) || std::floor(x.low) != std::floor(x.high) || x.low == std::floor(x.low)) return everything();
        const Bounds piBounds{pi, 3.1415926535897936};
        return square(piBounds / valueOf(Kernel::Sin, piBounds * x)) - trigamma(one - x);
    }
    Bounds value, slope;
};

Slopes gammaSlopes(const Bounds& f, const Bounds& x) {
    const Psi psi(x);
    return {f * psi.value, f * (square(psi.value) + psi.slope)};
}

/// sinc = sin(x)/x; |sinc′| < 0.4363 and |sinc″| ≤ 1/3, being means of cosines: sinc(x) = ∫ cos(kx) dk over [0, 1].
Slopes sincSlopes(const Bounds& f, const Bounds& x) {
    const Bounds steep{-1.0 / 3 - 1e-16, 1.0 / 3 + 1e-16};
    const Bounds first = common(Bounds{-0.4363, 0.4363}, steep * x);
    if (x.low <= 0 && x.high >= 0) return {first, steep};
    const Bounds exact = common(first, (valueOf(Kernel::Cos, x) - f) / x);
    return {exact, common(steep, -f - 2 * exact / x)};
}

Slopes negated(const Slopes& s) { return {-s.first, -s.second}; }

Slopes arcsinSlopes(const Bounds& x) {
    const Bounds rest = one - square(x), root = squareRoot(rest);
    return {one / root, x / (rest * root)};
}
Slopes arctanSlopes(const Bounds& x) {
    const Bounds first = reciprocal(one + square(x));
    return {first, -2 * x * square(first)};
}
Slopes artanhSlopes(const Bounds& x) {
    const Bounds first = reciprocal(one - square(x));
    return {first, 2 * x * square(first)};
}
/// Of functions of 1/x: g(1/x)′ = −g′/x², g(1/x)″ = g″/x⁴ + 2g′/x³.
Slopes ofReciprocal(SlopeRule rule, const Bounds& f, const Bounds& x) {
    const Bounds inverse = reciprocal(x);
    const Slopes g = rule(f, inverse);
    const Bounds second = square(inverse);
    return {-g.first * second, square(second) * g.second + 2 * second * inverse * g.first};
}

// f is the value at x. Derivatives after DLMF 4.20, 4.24, 4.34, 4.38, 5.2, 7.1.
constexpr std::pair<Kernel, SlopeRule> rows[] = {
    {Kernel::Negate,
     [](const Bounds&, const Bounds&) -> Slopes {
         return {{-1, -1}, {0, 0}};
     }},
    {Kernel::Sqrt,
     [](const Bounds& f, const Bounds& x) -> Slopes {
         return {reciprocal(2 * f), -reciprocal(4 * f * x)};
     }},
    {Kernel::Cbrt,
     [](const Bounds& f, const Bounds& x) -> Slopes {
         const Bounds first = reciprocal(3 * square(f));
         return {first, -2 * first / (3 * x)};
     }},
    {Kernel::Exp,
     [](const Bounds& f, const Bounds&) -> Slopes {
         return {f, f};
     }},
    {Kernel::Ln,
     [](const Bounds&, const Bounds& x) -> Slopes {
         return {reciprocal(x), -reciprocal(square(x))};
     }},
    {Kernel::Lg,
     [](const Bounds&, const Bounds& x) -> Slopes {
         return {reciprocal(log10 * x), -reciprocal(log10 * square(x))};
     }},
    {Kernel::Lb,
     [](const Bounds&, const Bounds& x) -> Slopes {
         return {reciprocal(log2 * x), -reciprocal(log2 * square(x))};
     }},
    {Kernel::Sin,
     [](const Bounds& f, const Bounds& x) -> Slopes {
         return {valueOf(Kernel::Cos, x), -f};
     }},
    {Kernel::Cos,
     [](const Bounds& f, const Bounds& x) -> Slopes {
         return {-valueOf(Kernel::Sin, x), -f};
     }},
    {Kernel::Tan,
     [](const Bounds& f, const Bounds&) -> Slopes {
         const Bounds first = one + square(f);
         return {first, 2 * f * first};
     }},
    {Kernel::Cot,
     [](const Bounds& f, const Bounds&) -> Slopes {
         const Bounds first = one + square(f);
         return {-first, 2 * f * first};
     }},
    {Kernel::Sec,
     [](const Bounds& f, const Bounds& x) -> Slopes {
         return {f * valueOf(Kernel::Tan, x), 2 * cubed(f) - f};
     }},
    {Kernel::Csc,
     [](const Bounds& f, const Bounds& x) -> Slopes {
         return {-f * valueOf(Kernel::Cot, x), 2 * cubed(f) - f};
     }},
    {Kernel::Arcsin, [](const Bounds&, const Bounds& x) { return arcsinSlopes(x); }},
    {Kernel::Arccos, [](const Bounds&, const Bounds& x) { return negated(arcsinSlopes(x)); }},
    {Kernel::Arctan, [](const Bounds&, const Bounds& x) { return arctanSlopes(x); }},
    {Kernel::Arccot, [](const Bounds&, const Bounds& x) { return negated(arctanSlopes(x)); }},
    {Kernel::Arcsec,
     [](const Bounds& f, const Bounds& x) {
         return ofReciprocal([](const Bounds&, const Bounds& u) { return negated(arcsinSlopes(u)); }, f, x);
     }},
    {Kernel::Arccsc,
     [](const Bounds& f, const Bounds& x) {
         return ofReciprocal([](const Bounds&, const Bounds& u) { return arcsinSlopes(u); }, f, x);
     }},
    {Kernel::Sinh,
     [](const Bounds& f, const Bounds& x) -> Slopes {
         return {valueOf(Kernel::Cosh, x), f};
     }},
    {Kernel::Cosh,
     [](const Bounds& f, const Bounds& x) -> Slopes {
         return {valueOf(Kernel::Sinh, x), f};
     }},
    {Kernel::Tanh,
     [](const Bounds& f, const Bounds&) -> Slopes {
         const Bounds first = one - square(f);
         return {first, -2 * f * first};
     }},
    {Kernel::Coth,
     [](const Bounds& f, const Bounds&) -> Slopes {
         const Bounds first = one - square(f);
         return {first, -2 * f * first};
     }},
    {Kernel::Sech,
     [](const Bounds& f, const Bounds& x) -> Slopes {
         return {-f * valueOf(Kernel::Tanh, x), f - 2 * cubed(f)};
     }},
    {Kernel::Csch,
     [](const Bounds& f, const Bounds& x) -> Slopes {
         return {-f * valueOf(Kernel::Coth, x), f + 2 * cubed(f)};
     }},
    {Kernel::Arsinh,
     [](const Bounds&, const Bounds& x) -> Slopes {
         const Bounds rest = one + square(x), root = squareRoot(rest);
         return {one / root, -x / (rest * root)};
     }},
    {Kernel::Arcosh,
     [](const Bounds&, const Bounds& x) -> Slopes {
         const Bounds rest = square(x) - one, root = squareRoot(rest);
         return {one / root, -x / (rest * root)};
     }},
    {Kernel::Artanh, [](const Bounds&, const Bounds& x) { return artanhSlopes(x); }},
    {Kernel::Arcoth, [](const Bounds&, const Bounds& x) { return artanhSlopes(x); }},
    {Kernel::Arsech,
     [](const Bounds&, const Bounds& x) -> Slopes {
         const Bounds rest = one - square(x), root = squareRoot(rest);
         return {-reciprocal(x * root), (one - 2 * square(x)) / (square(x) * rest * root)};
     }},
    {Kernel::Arcsch, // arsinh(1/x)
     [](const Bounds& f, const Bounds& x) { return ofReciprocal(slopeRule(Kernel::Arsinh), f, x); }},
    {Kernel::Sinc, sincSlopes},
    {Kernel::Factorial, [](const Bounds& f, const Bounds& x) { return gammaSlopes(f, x + one); }},
    {Kernel::Gamma, gammaSlopes},
    {Kernel::LnGamma,
     [](const Bounds&, const Bounds& x) -> Slopes {
         const Psi psi(x);
         return {psi.value, psi.slope};
     }},
    {Kernel::Erf,
     [](const Bounds&, const Bounds& x) -> Slopes {
         const Bounds first = twoOverRootPi * valueOf(Kernel::Exp, -square(x));
         return {first, -2 * x * first};
     }},
    {Kernel::Erfc,
     [](const Bounds&, const Bounds& x) -> Slopes {
         const Bounds first = -twoOverRootPi * valueOf(Kernel::Exp, -square(x));
         return {first, -2 * x * first};
     }},
};

// A jet takes these piece by piece, or has rules of its own for two operands.
constexpr auto table =
    totalTable(rows, {Kernel::Absolute,  Kernel::Sgn,      Kernel::Floor,  Kernel::Ceil,      Kernel::Add,
                      Kernel::Subtract,  Kernel::Multiply, Kernel::Divide, Kernel::Power,     Kernel::ArctanOfPoint,
                      Kernel::Mod,       Kernel::Min,      Kernel::Max,    Kernel::LogToBase, Kernel::Less,
                      Kernel::LessEqual, Kernel::Equal,    Kernel::When,   Kernel::OrElse,    Kernel::IfDefined});

} // namespace

SlopeRule slopeRule(Kernel kernel) {
    return kernel < Kernel::Count ? table[static_cast<std::size_t>(kernel)] : nullptr;
}

} // namespace coulter
