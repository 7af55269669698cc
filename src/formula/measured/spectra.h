#pragma once
#include <span>
#include <vector>

namespace coulter {

/// What the discrete Fourier transform says of one period of a function, sampled at n even steps from its beginning on,
/// without the end that is the beginning again: values u_j = Σ_m û_m exp(2πi j m/n) with whole numbers m from −n/2 to
/// n/2, so that the m-th harmonic has the wave number k = 2π m/P. Computed by FFTW, with plans and instructions that
/// are the same on every machine.
struct Spectrum {
    std::vector<double> waveNumbers; ///< 2π m/P for m = 0 … n/2, in radians over the unit of P
    std::vector<double> amplitudes;  ///< of cos and sin together: |û_0|, 2 |û_m|; of an even n at last |û_{n/2}|
};
Spectrum spectrumOf(std::span<const double> values, double period);

/// The derivative, at the same places, of the trigonometric polynomial through the values with the lowest wave numbers;
/// of an even n the highest harmonic, which is a cosine there, has the derivative 0 (L. N. Trefethen, "Spectral
/// Methods", 2000, chapter 3).
std::vector<double> spectralDerivative(std::span<const double> values, double period);

/// How large the largest amplitude of the highest tenth of wave numbers is, as a part of the largest but the mean: near
/// 0 where the samples resolve the function.
double unresolvedPart(const Spectrum& spectrum);

} // namespace coulter
