#include "formula/program/extrapolation.h"

#include "special/kernels.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace coulter {
namespace {

/// How far the last three of a sequence are apart; inf if there are fewer.
double apart(std::span<const double> sequence) {
    if (sequence.size() < 3) return HUGE_VAL;
    const auto last = sequence.last(3);
    const double apart = std::max({last[0], last[1], last[2]}) - std::min({last[0], last[1], last[2]});
    return std::isfinite(apart) ? apart : HUGE_VAL;
}

} // namespace

Limit limitOf(std::span<const double> sequence) {
    if (sequence.empty()) return {0, HUGE_VAL};
    std::vector<double> before(sequence.size() + 1, 0), here(sequence.begin(), sequence.end());
    Limit best{here.back(), apart(here)};
    for (std::size_t column = 1; here.size() > 1; ++column) {
        std::vector<double> next(here.size() - 1);
        for (std::size_t i = 0; i < next.size(); ++i) next[i] = before[i + 1] + 1 / (here[i + 1] - here[i]);
        before = std::move(here);
        here = std::move(next);
        if (column % 2 == 0 && apart(here) < best.error) best = {here.back(), apart(here)};
    }
    return best;
}

std::span<const double> settlingPart(std::span<const double> sequence, std::span<const double> unrests) {
    const auto most = std::ranges::max_element(unrests) - unrests.begin();
    return sequence.subspan(static_cast<std::size_t>(most));
}

double alternatingSum(std::span<const double> terms) {
    const auto n = static_cast<double>(terms.size());
    double d = 1;
    for (std::size_t i = 0; i < terms.size(); ++i) d *= 3 + std::sqrt(8.0);
    d = (d + 1 / d) / 2;
    double b = -1, c = -d, sum = 0;
    for (std::size_t i = 0; i < terms.size(); ++i) {
        const auto k = static_cast<double>(i);
        c = b - c;
        sum += c * terms[i];
        b *= (k + n) * (k - n) / ((k + 0.5) * (k + 1));
    }
    return sum / d;
}

void smoothCutoff(std::span<const double> t, double* weights) {
    constexpr double steepness = 24; // at 1/2 and 1 the complementary error function is within 2e−17 of its ends
    constexpr std::size_t size = 64;
    alignas(64) double in[size], out[size];
    const BlockKernel erfc = blockKernel(Kernel::Erfc, bestInstructionSet());
    for (std::size_t start = 0; start < t.size(); start += size) {
        const std::size_t count = std::min(size, t.size() - start);
        for (std::size_t i = 0; i < size; ++i) in[i] = i < count ? steepness * (t[start + i] - 0.75) : 0;
        erfc(in, in, out, size);
        for (std::size_t i = 0; i < count; ++i) {
            const double at = t[start + i];
            weights[start + i] = at <= 0.5 ? 1 : at >= 1 ? 0 : out[i] / 2;
        }
    }
}

} // namespace coulter
