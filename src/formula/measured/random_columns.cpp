#include "formula/measured/random_columns.h"

#include "special/scalar_functions.h"

#include <cmath>
#include <random>
#include <tbb/parallel_for.h>

namespace coulter {
namespace {

/// (k + 1/2) 2^−52 from each output of the generator.
std::vector<double> unitNumbers(std::size_t count, std::uint64_t seed) {
    std::mt19937_64 generator(seed);
    std::vector<double> numbers(count);
    for (double& each : numbers) each = std::ldexp(static_cast<double>(generator() >> 12) + 0.5, -52);
    return numbers;
}

} // namespace

std::vector<double> uniformNumbers(double low, double high, std::size_t count, std::uint64_t seed) {
    std::vector<double> numbers = unitNumbers(count, seed);
    for (double& each : numbers) each = low + (high - low) * each;
    return numbers;
}

std::vector<double> normalNumbers(double mean, double variance, std::size_t count, std::uint64_t seed) {
    std::vector<double> numbers = unitNumbers(count, seed);
    const double width = std::sqrt(2 * variance);
    tbb::parallel_for(std::size_t{0}, (count + 1023) / 1024, [&](std::size_t block) {
        for (std::size_t i = block * 1024; i < std::min(count, (block + 1) * 1024); ++i) {
            const double w = 2 * numbers[i] - 1;
            numbers[i] = mean + width * inverseErf(&w);
        }
    });
    return numbers;
}

std::uint64_t chosenSeed(std::string_view line) {
    std::uint64_t hash = 14695981039346656037U; // FNV-1a
    for (const char c : line) hash = (hash ^ static_cast<unsigned char>(c)) * 1099511628211U;
    return hash % 90'000 + 10'000;
}

} // namespace coulter
