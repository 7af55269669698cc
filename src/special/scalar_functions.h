#pragma once
#include <cstddef>

namespace coulter {

/// A special function at one place. `v` holds the operands in the order of the function's printed form: indices below,
/// indices above, arguments. Undefined places give NaN; a pole that has the same sign on both sides gives ±inf, any
/// other NaN; what is too large gives ±inf. Never throws.
///
/// All of them are computed in extended precision (64 bits of mantissa) and rounded once. That brings nearly every
/// value within one unit in the last place, and gives the same bits on every x86-64 processor, because extended
/// precision has no variants that the C library could choose by processor.
using ScalarFunction = double (*)(const double* v);

/// f at v, and undefined wherever one of its operands is.
inline double applied(ScalarFunction f, const double* v, std::size_t count) {
    for (std::size_t i = 0; i < count; ++i) {
        if (v[i] != v[i]) return v[i];
    }
    return f(v);
}

// bessel_functions.cpp
double besselJ(const double* v);     ///< J_n(x)
double besselY(const double* v);     ///< Y_n(x)
double besselI(const double* v);     ///< I_n(x)
double besselK(const double* v);     ///< K_n(x)
double sphericalJ(const double* v);  ///< j_n(x)
double sphericalY(const double* v);  ///< y_n(x)
double airyAi(const double* v);      ///< Ai(x)
double airyBi(const double* v);      ///< Bi(x)
double airyAiPrime(const double* v); ///< Ai'(x)
double airyBiPrime(const double* v); ///< Bi'(x)

// gamma_functions.cpp
double digammaPsi(const double* v);            ///< ψ(x)
double polygammaPsi(const double* v);          ///< ψ_n(x), the n-th derivative of ψ
double betaFunction(const double* v);          ///< B(a, b)
double lowerGamma(const double* v);            ///< γ(a, x)
double upperGamma(const double* v);            ///< Γ(a, x)
double regularisedLowerGamma(const double* v); ///< P(a, x)
double regularisedUpperGamma(const double* v); ///< Q(a, x)
double regularisedBeta(const double* v);       ///< I_x(a, b)
double inverseErf(const double* v);            ///< arerf(x)

// exponential_integrals.cpp
double exponentialIntegralE(const double* v);  ///< E_n(x)
double exponentialIntegralEi(const double* v); ///< Ei(x)
double sineIntegral(const double* v);          ///< Si(x)
double cosineIntegral(const double* v);        ///< Ci(x)
double logarithmicIntegral(const double* v);   ///< li(x)

// fresnel_dawson.cpp
double dawson(const double* v);   ///< F(x)
double fresnelS(const double* v); ///< S(x)
double fresnelC(const double* v); ///< C(x)

// orthogonal_polynomials.cpp
double legendreP(const double* v);           ///< P_n(x)
double associatedLegendreP(const double* v); ///< P_n^m(x)
double legendreQ(const double* v);           ///< Q_n(x)
double laguerreL(const double* v);           ///< L_n(x)
double associatedLaguerreL(const double* v); ///< L_n^a(x)
double hermiteH(const double* v);            ///< H_n(x)
double chebyshevT(const double* v);          ///< T_n(x)
double chebyshevU(const double* v);          ///< U_n(x)
double gegenbauerC(const double* v);         ///< C_n^a(x)
double jacobiP(const double* v);             ///< P_n^{a,b}(x)

// elliptic_functions.cpp
double ellipticK(const double* v);           ///< K(k)
double ellipticE(const double* v);           ///< E(k)
double ellipticF(const double* v);           ///< F(φ, k)
double ellipticIncompleteE(const double* v); ///< E(φ, k)
double ellipticPi(const double* v);          ///< Π(n, k)
double jacobiSn(const double* v);            ///< sn(u, k)
double jacobiCn(const double* v);            ///< cn(u, k)
double jacobiDn(const double* v);            ///< dn(u, k)

// zeta_lambert.cpp
double zetaFunction(const double* v); ///< ζ(x)
double lambertW(const double* v);     ///< W_n(x), n = 0 or −1

// hypergeometric_functions.cpp
double kummerM(const double* v);         ///< M(a, b, x)
double hypergeometricF(const double* v); ///< F(a, b; c; x)

} // namespace coulter
