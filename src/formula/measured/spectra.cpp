#include "formula/measured/spectra.h"

#include <algorithm>
#include <cmath>
#include <complex>
#include <fftw3.h>
#include <memory>
#include <mutex>
#include <numbers>

namespace coulter {
namespace {

struct Free {
    void operator()(void* memory) const { fftw_free(memory); }
};
template <typename T> using Memory = std::unique_ptr<T[], Free>;

template <typename T> Memory<T> allocated(std::size_t count) {
    Memory<T> memory(static_cast<T*>(fftw_malloc(sizeof(T) * count)));
    if (!memory) throw std::bad_alloc();
    return memory;
}

/// FFTW's planner is one for the whole program.
std::mutex& planner() {
    static std::mutex mutex;
    return mutex;
}

/// The same steps on every machine: no timing, and no instructions that only some processors have.
constexpr unsigned sameEverywhere = FFTW_ESTIMATE | FFTW_NO_SIMD;

template <typename Make> void run(const Make& make) {
    std::unique_lock lock(planner());
    const fftw_plan plan = make();
    lock.unlock();
    fftw_execute(plan);
    lock.lock();
    fftw_destroy_plan(plan);
}

std::complex<double>* complexOf(fftw_complex* memory) { return reinterpret_cast<std::complex<double>*>(memory); }

/// û_m for m = 0 … n/2.
Memory<fftw_complex> transformed(std::span<const double> values) {
    const std::size_t n = values.size();
    auto real = allocated<double>(n);
    auto waves = allocated<fftw_complex>(n / 2 + 1);
    std::ranges::copy(values, real.get());
    run([&] { return fftw_plan_dft_r2c_1d(static_cast<int>(n), real.get(), waves.get(), sameEverywhere); });
    for (std::size_t m = 0; m <= n / 2; ++m) complexOf(waves.get())[m] /= static_cast<double>(n);
    return waves;
}

double waveNumber(std::size_t m, double period) { return 2 * std::numbers::pi * static_cast<double>(m) / period; }

} // namespace

Spectrum spectrumOf(std::span<const double> values, double period) {
    Spectrum spectrum;
    const std::size_t n = values.size();
    if (n == 0) return spectrum;
    const auto waves = transformed(values);
    for (std::size_t m = 0; m <= n / 2; ++m) {
        const std::complex<double> wave = complexOf(waves.get())[m];
        // Not std::abs, whose last bits are the library's own.
        const double size = std::sqrt(wave.real() * wave.real() + wave.imag() * wave.imag());
        spectrum.waveNumbers.push_back(waveNumber(m, period));
        spectrum.amplitudes.push_back(m == 0 || 2 * m == n ? size : 2 * size);
    }
    return spectrum;
}

std::vector<double> spectralDerivative(std::span<const double> values, double period) {
    const std::size_t n = values.size();
    if (n == 0) return {};
    const auto waves = transformed(values);
    for (std::size_t m = 0; m <= n / 2; ++m) {
        std::complex<double>& wave = complexOf(waves.get())[m];
        const double k = 2 * m == n ? 0 : waveNumber(m, period);
        wave = {-k * wave.imag(), k * wave.real()};
    }
    auto real = allocated<double>(n);
    run([&] { return fftw_plan_dft_c2r_1d(static_cast<int>(n), waves.get(), real.get(), sameEverywhere); });
    return {real.get(), real.get() + n};
}

double unresolvedPart(const Spectrum& spectrum) {
    const std::vector<double>& a = spectrum.amplitudes;
    if (a.size() < 3) return 1;
    const double largest = *std::max_element(a.begin() + 1, a.end());
    if (largest == 0) return 0;
    const auto tenth = static_cast<std::ptrdiff_t>(std::max<std::size_t>(2, a.size() / 10));
    return *std::max_element(a.end() - tenth, a.end()) / largest;
}

} // namespace coulter
