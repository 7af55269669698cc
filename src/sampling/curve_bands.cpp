#include "sampling/curve_sampler.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// Chords of a band are narrower than this (mm), and at least so many in a row go up and down in turn; parts nearer
/// than the gap (mm) belong together.
constexpr double narrowest = 0.1;
constexpr std::size_t leastTurns = 6;
constexpr double gap = 2;

} // namespace

std::vector<Band> findBands(const CurveSamples& samples, const PanelMap& map, const AxisMap& along,
                            std::vector<Band> unresolved) {
    std::vector<Band> bands = std::move(unresolved);
    for (const Stretch& stretch : samples.stretches) {
        std::size_t run = 0, start = 0;
        double before = 0;
        const auto close = [&](std::size_t end) {
            if (run >= leastTurns) bands.push_back({stretch.t[start], stretch.t[end]});
            run = 0;
        };
        for (std::size_t i = 0; i + 1 < stretch.t.size(); ++i) {
            const double across = map.x.toSheet(stretch.x[i + 1]) - map.x.toSheet(stretch.x[i]),
                         up = map.y.toSheet(stretch.y[i + 1]) - map.y.toSheet(stretch.y[i]);
            const bool upright = std::abs(across) < narrowest && std::abs(up) > 10 * narrowest;
            if (!upright || before * up >= 0) close(i);
            if (upright && ++run == 1) start = i;
            before = upright ? up : 0;
        }
        if (!stretch.t.empty()) close(stretch.t.size() - 1);
    }
    std::ranges::sort(bands, {}, &Band::low);
    std::vector<Band> merged;
    for (const Band& band : bands) {
        if (!merged.empty() && along.toSheet(band.low) - along.toSheet(merged.back().high) < gap)
            merged.back().high = std::max(merged.back().high, band.high);
        else
            merged.push_back(band);
    }
    return merged;
}

} // namespace coulter
