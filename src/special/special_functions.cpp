#include "special/catalogue_rows.h"

#include <array>

namespace coulter {
namespace {

constexpr Implementation block(Kernel kernel) { return {kernel, nullptr}; }
constexpr Implementation scalar(ScalarFunction function) { return {Kernel::Count, function}; }

constexpr auto specialFunctions = std::to_array<FunctionRow>({
    // clang-format off
    // Gamma function and its kin
    {"Γ(x)", block(Kernel::Gamma), "gamma function", "x ≠ 0, −1, −2, …, where poles are",
     "Γ(x) ψ(x)", "Γ(x)", "[-4, 4]", "DLMF 5.2(i)"},
    {"lnGamma(x)", block(Kernel::LnGamma), "logarithm of |Γ(x)|", "x ≠ 0, −1, −2, …, where poles are",
     "ψ(x)", "lnGamma(x)", "[-4, 6]", "DLMF 5.2(i)"},
    {"ψ(x)", scalar(digammaPsi), "digamma function, Γ′(x)/Γ(x)", "x ≠ 0, −1, −2, …, where poles are",
     "ψ_{1}(x)", "ψ(x)", "[-4, 5]", "DLMF 5.2(i)"},
    {"ψ_{n}(x)", scalar(polygammaPsi), "polygamma function, the n-th derivative of ψ(x)",
     "n = 0, 1, 2, …; x ≠ 0, −1, −2, …, where poles are",
     "? | ψ_{n+1}(x)", "ψ_{n}(x) for n in {1, 2}", "[0, 5]", "DLMF 5.15"},
    {"B(a, b)", scalar(betaFunction), "beta function", "a, b ≠ 0, −1, −2, …",
     "B(a, b) (ψ(a) - ψ(a + b)) | B(a, b) (ψ(b) - ψ(a + b))", "B(x, b) for b in {0.5, 1, 2}", "[0, 4]", "DLMF 5.12"},
    {"γ(a, x)", scalar(lowerGamma), "lower incomplete gamma function", "a > 0, x ≥ 0",
     "? | x^(a - 1) exp(-x)", "γ(a, x) for a in {1, 2, 3}", "[0, 8]", "DLMF 8.2(i)"},
    {"Γ(a, x)", scalar(upperGamma), "upper incomplete gamma function", "x ≥ 0; for a ≤ 0 a pole at x = 0",
     "? | -x^(a - 1) exp(-x)", "Γ(a, x) for a in {0, 1, 2}", "[0, 5]", "DLMF 8.2(i)"},
    {"P(a, x)", scalar(regularisedLowerGamma), "regularised lower incomplete gamma function", "a > 0, x ≥ 0",
     "? | x^(a - 1) exp(-x)/Γ(a)", "P(a, x) for a in {0.5, 1, 3}", "[0, 8]", "DLMF 8.2(i)"},
    {"Q(a, x)", scalar(regularisedUpperGamma), "regularised upper incomplete gamma function", "a > 0, x ≥ 0",
     "? | -x^(a - 1) exp(-x)/Γ(a)", "Q(a, x) for a in {0.5, 1, 3}", "[0, 8]", "DLMF 8.2(i)"},
    {"I_{x}(a, b)", scalar(regularisedBeta), "regularised incomplete beta function", "a, b > 0, 0 ≤ x ≤ 1",
     "x^(a - 1) (1 - x)^(b - 1)/B(a, b) | ? | ?", "I_{x}(a, 2) for a in {0.5, 1, 4}", "[0, 1]", "DLMF 8.17(i)"},
    // Error functions and Fresnel integrals
    {"erf(x)", block(Kernel::Erf), "error function", "all x",
     "2/sqrt(pi) exp(-x^2)", "erf(x)", "[-3, 3]", "DLMF 7.2(i)"},
    {"erfc(x)", block(Kernel::Erfc), "complementary error function, 1 − erf(x)", "all x",
     "-2/sqrt(pi) exp(-x^2)", "erfc(x)", "[-3, 3]", "DLMF 7.2(i)"},
    {"arerf(x)", scalar(inverseErf), "inverse error function", "−1 < x < 1; poles at both ends",
     "sqrt(pi)/2 exp(arerf(x)^2)", "arerf(x)", "[-1, 1]", "DLMF 7.17(i)"},
    {"F(x)", scalar(dawson), "Dawson’s integral", "all x",
     "1 - 2x F(x)", "F(x)", "[-5, 5]", "DLMF 7.2(ii)"},
    {"S(x)", scalar(fresnelS), "Fresnel integral of sin(πt²/2)", "all x",
     "sin(pi x^2/2)", "S(x)", "[-5, 5]", "DLMF 7.2(iii)"},
    {"C(x)", scalar(fresnelC), "Fresnel integral of cos(πt²/2)", "all x",
     "cos(pi x^2/2)", "C(x)", "[-5, 5]", "DLMF 7.2(iii)"},
    // Exponential, sine and logarithmic integrals
    {"E_{n}(x)", scalar(exponentialIntegralE), "generalised exponential integral", "x ≥ 0; for n ≤ 1 a pole at 0",
     "? | -E_{n-1}(x)", "E_{n}(x) for n in {1, 2, 3}", "[0, 3]", "DLMF 8.19(i)"},
    {"Ei(x)", scalar(exponentialIntegralEi), "exponential integral", "x ≠ 0, where a pole is",
     "exp(x)/x", "Ei(x)", "[-3, 2]", "DLMF 6.2(i)"},
    {"Si(x)", scalar(sineIntegral), "sine integral", "all x",
     "sinc(x)", "Si(x)", "[-20, 20]", "DLMF 6.2(ii)"},
    {"Ci(x)", scalar(cosineIntegral), "cosine integral", "x > 0; pole at 0",
     "cos(x)/x", "Ci(x)", "[0, 20]", "DLMF 6.2(ii)"},
    {"li(x)", scalar(logarithmicIntegral), "logarithmic integral", "x ≥ 0, x ≠ 1, where a pole is",
     "1/ln(x)", "li(x)", "[0, 5]", "DLMF 6.2(i)"},
    // Bessel functions
    {"J_{n}(x)", scalar(besselJ), "Bessel function of the first kind, of real order", "x ≥ 0; all x for whole n",
     "? | (J_{n-1}(x) - J_{n+1}(x))/2", "J_{n}(x) for n in {0, 1, 2}", "[0, 15]", "DLMF 10.2(ii)"},
    {"Y_{n}(x)", scalar(besselY), "Bessel function of the second kind, of real order", "x > 0; pole at 0",
     "? | (Y_{n-1}(x) - Y_{n+1}(x))/2", "Y_{n}(x) for n in {0, 1, 2}", "[0, 15]", "DLMF 10.2(ii)"},
    {"I_{n}(x)", scalar(besselI), "modified Bessel function of the first kind, of real order",
     "x ≥ 0; all x for whole n",
     "? | (I_{n-1}(x) + I_{n+1}(x))/2", "I_{n}(x) for n in {0, 1, 2}", "[0, 3]", "DLMF 10.25(ii)"},
    {"K_{n}(x)", scalar(besselK), "modified Bessel function of the second kind, of real order", "x > 0; pole at 0",
     "? | -(K_{n-1}(x) + K_{n+1}(x))/2", "K_{n}(x) for n in {0, 1, 2}", "[0, 3]", "DLMF 10.25(ii)"},
    {"j_{n}(x)", scalar(sphericalJ), "spherical Bessel function of the first kind", "x > 0; all x for n = 0, 1, 2, …",
     "? | (n j_{n-1}(x) - (n + 1) j_{n+1}(x))/(2n + 1)", "j_{n}(x) for n in {0, 1, 2}", "[0, 15]", "DLMF 10.47(ii)"},
    {"y_{n}(x)", scalar(sphericalY), "spherical Bessel function of the second kind",
     "x > 0; all x ≠ 0 for n = 0, 1, 2, …; pole at 0",
     "? | (n y_{n-1}(x) - (n + 1) y_{n+1}(x))/(2n + 1)", "y_{n}(x) for n in {0, 1, 2}", "[0, 15]", "DLMF 10.47(ii)"},
    {"Ai(x)", scalar(airyAi), "Airy function Ai", "all x",
     "Ai'(x)", "Ai(x)", "[-10, 4]", "DLMF 9.2(i)"},
    {"Bi(x)", scalar(airyBi), "Airy function Bi", "all x",
     "Bi'(x)", "Bi(x)", "[-10, 2]", "DLMF 9.2(i)"},
    {"Ai'(x)", scalar(airyAiPrime), "derivative of the Airy function Ai", "all x",
     "x Ai(x)", "Ai'(x)", "[-10, 4]", "DLMF 9.2(i)"},
    {"Bi'(x)", scalar(airyBiPrime), "derivative of the Airy function Bi", "all x",
     "x Bi(x)", "Bi'(x)", "[-10, 2]", "DLMF 9.2(i)"},
    // Orthogonal polynomials and Legendre functions
    {"P_{n}(x)", scalar(legendreP), "Legendre polynomial; for real n the Legendre function",
     "all x for whole n, else x > −1",
     "? | ((n + 1)/(1 - x^2)) (x P_{n}(x) - P_{n+1}(x))", "P_{n}(x) for n in {1, 2, 3, 4}", "[-1, 1]",
     "DLMF 14.3(i), 18.3"},
    {"P_{n}^{m}(x)", scalar(associatedLegendreP), "associated Legendre function (Ferrers)",
     "−1 ≤ x ≤ 1, whole n and m",
     "? | ? | ((n + 1) x P_{n}^{m}(x) - (n - m + 1) P_{n+1}^{m}(x))/(1 - x^2)",
     "P_{n}^{1}(x) for n in {1, 2, 3}", "[-1, 1]", "DLMF 14.6"},
    {"Q_{n}(x)", scalar(legendreQ), "Legendre function of the second kind (Ferrers)",
     "−1 < x < 1, n = 0, 1, 2, …; poles at both ends",
     "? | ((n + 1)/(1 - x^2)) (x Q_{n}(x) - Q_{n+1}(x))", "Q_{n}(x) for n in {0, 1, 2}", "[-1, 1]", "DLMF 14.2(ii)"},
    {"L_{n}(x)", scalar(laguerreL), "Laguerre polynomial", "all x, n = 0, 1, 2, …",
     "? | -L_{n-1}^{1}(x)", "L_{n}(x) for n in {1, 2, 3}", "[-1, 7]", "DLMF 18.3"},
    {"L_{n}^{a}(x)", scalar(associatedLaguerreL), "generalised Laguerre polynomial", "all x, n = 0, 1, 2, …",
     "? | ? | -L_{n-1}^{a+1}(x)", "L_{n}^{1}(x) for n in {1, 2, 3}", "[-1, 7]", "DLMF 18.3"},
    {"H_{n}(x)", scalar(hermiteH), "Hermite polynomial, of the weight exp(−x²)", "all x, n = 0, 1, 2, …",
     "? | 2n H_{n-1}(x)", "H_{n}(x) for n in {1, 2, 3}", "[-2, 2]", "DLMF 18.3"},
    {"T_{n}(x)", scalar(chebyshevT), "Chebyshev polynomial of the first kind; for real n cos(n arccos x)",
     "all x for whole n, else x > −1",
     "? | n U_{n-1}(x)", "T_{n}(x) for n in {2, 3, 4}", "[-1, 1]", "DLMF 18.3"},
    {"U_{n}(x)", scalar(chebyshevU), "Chebyshev polynomial of the second kind", "all x, n = 0, 1, 2, …",
     "? | 2 C_{n-1}^{2}(x)", "U_{n}(x) for n in {1, 2, 3}", "[-1, 1]", "DLMF 18.3"},
    {"C_{n}^{a}(x)", scalar(gegenbauerC), "ultraspherical (Gegenbauer) polynomial", "all x, n = 0, 1, 2, …",
     "? | ? | 2a C_{n-1}^{a+1}(x)", "C_{3}^{a}(x) for a in {0.5, 1, 2}", "[-1, 1]", "DLMF 18.3"},
    {"P_{n}^{a,b}(x)", scalar(jacobiP), "Jacobi polynomial", "all x, n = 0, 1, 2, …; a, b > −1",
     "? | ? | ? | (n + a + b + 1)/2 P_{n-1}^{a+1,b+1}(x)", "P_{n}^{1,2}(x) for n in {1, 2, 3}", "[-1, 1]", "DLMF 18.3"},
    // Elliptic integrals and functions, of the modulus k
    {"K(k)", scalar(ellipticK), "complete elliptic integral of the first kind", "−1 < k < 1; poles at both ends",
     "(E(k) - (1 - k^2) K(k))/(k (1 - k^2))", "K(x)", "[-1, 1]", "DLMF 19.2(ii)"},
    {"E(k)", scalar(ellipticE), "complete elliptic integral of the second kind", "−1 ≤ k ≤ 1",
     "(E(k) - K(k))/k", "E(x)", "[-1, 1]", "DLMF 19.2(ii)"},
    {"F(φ, k)", scalar(ellipticF), "elliptic integral of the first kind", "k² sin²φ < 1 from 0 to φ",
     "1/sqrt(1 - k^2 sin(φ)^2) | (E(φ, k) - (1 - k^2) F(φ, k))/(k (1 - k^2)) "
     "- k sin(φ) cos(φ)/((1 - k^2) sqrt(1 - k^2 sin(φ)^2))",
     "F(x, k) for k in {0.2, 0.8, 0.99}", "[0, 5]", "DLMF 19.2(ii)"},
    {"E(φ, k)", scalar(ellipticIncompleteE), "elliptic integral of the second kind", "k² sin²φ ≤ 1 from 0 to φ",
     "sqrt(1 - k^2 sin(φ)^2) | (E(φ, k) - F(φ, k))/k", "E(x, k) for k in {0.2, 0.8, 1}", "[0, 5]", "DLMF 19.2(ii)"},
    {"Π(n, k)", scalar(ellipticPi), "complete elliptic integral of the third kind, of the characteristic n",
     "n < 1, −1 < k < 1; pole at n = 1",
     "(E(k) + (k^2 - n) K(k)/n + (n^2 - k^2) Π(n, k)/n)/(2 (k^2 - n) (n - 1)) | "
     "k/((1 - k^2) (k^2 - n)) (E(k) - (1 - k^2) Π(n, k))",
     "Π(x, k) for k in {0, 0.5, 0.9}", "[-2, 1]", "DLMF 19.2(ii)"},
    {"sn(u, k)", scalar(jacobiSn), "Jacobi elliptic function sn, of the modulus k", "all u",
     "cn(u, k) dn(u, k) | ?", "sn(x, k) for k in {0.2, 0.9, 0.999}", "[-8, 8]", "DLMF 22.2"},
    {"cn(u, k)", scalar(jacobiCn), "Jacobi elliptic function cn, of the modulus k", "all u",
     "-sn(u, k) dn(u, k) | ?", "cn(x, k) for k in {0.2, 0.9, 0.999}", "[-8, 8]", "DLMF 22.2"},
    {"dn(u, k)", scalar(jacobiDn), "Jacobi elliptic function dn, of the modulus k", "all u",
     "-k^2 sn(u, k) cn(u, k) | ?", "dn(x, k) for k in {0.2, 0.9, 0.999}", "[-8, 8]", "DLMF 22.2"},
    // Others
    {"ζ(x)", scalar(zetaFunction), "Riemann zeta function", "x ≠ 1, where a pole is",
     "?", "ζ(x)", "[-8, 4]", "DLMF 25.2(i)"},
    {"W_{n}(x)", scalar(lambertW), "Lambert W function, W exp(W) = x, in its two real branches",
     "n = 0: x ≥ −1/e; n = −1: −1/e ≤ x < 0, pole at 0",
     "? | 1/(exp(W_{n}(x)) (1 + W_{n}(x)))", "W_{n}(x) for n in {0, -1}", "[-0.5, 3]", "DLMF 4.13"},
    {"M(a, b, x)", scalar(kummerM), "confluent hypergeometric function (Kummer)",
     "b ≠ 0, −1, −2, …; |a|, |b|, |x| ≤ 10⁴",
     "? | ? | a/b M(a + 1, b + 1, x)", "M(a, 1.5, x) for a in {-2, 0.5, 1}", "[-3, 3]", "DLMF 13.2(i)"},
    {"F(a, b; c; x)", scalar(hypergeometricF), "hypergeometric function", "x < 1; c ≠ 0, −1, −2, …",
     "? | ? | ? | a b/c F(a + 1, b + 1; c + 1; x)", "F(a, 1; 2; x) for a in {0.5, 1, 2}", "[-3, 1]", "DLMF 15.2(i)"},
    // clang-format on
});

} // namespace

std::span<const FunctionRow> specialRows() { return specialFunctions; }

} // namespace coulter
