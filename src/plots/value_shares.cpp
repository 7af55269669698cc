#include "plots/value_shares.h"

#include <cmath>

namespace coulter {

std::vector<double> valueShares(const Drawn& drawn, const AxisMap& scale, std::size_t stretches) {
    if (!fieldOf(drawn) || !fieldSamplesOf(drawn)) return {};
    const FieldSamples& samples = *fieldSamplesOf(drawn);
    std::vector<double> shares(stretches, 0);
    double all = 0;
    const auto add = [&](double value, double area) {
        if (!std::isfinite(value) || !(area > 0)) return;
        all += area;
        const double at = scale.toSheet(value) / scale.length * static_cast<double>(stretches);
        if (at >= 0 && at <= static_cast<double>(stretches))
            shares[std::min(stretches - 1, static_cast<std::size_t>(at))] += area;
    };
    if (samples.isMesh()) { // a third of each triangle belongs to each of its corners
        for (const auto& triangle : samples.triangles) {
            const auto [a, b, c] = triangle;
            const double area = std::abs((samples.x[b] - samples.x[a]) * (samples.y[c] - samples.y[a]) -
                                         (samples.x[c] - samples.x[a]) * (samples.y[b] - samples.y[a])) /
                                6;
            for (const auto corner : triangle) add(samples.sizeAt(corner), area);
        }
    } else { // each number stands for the half of what lies to its neighbours
        const auto width = [](const std::vector<double>& places, std::size_t i) {
            const std::size_t before = i > 0 ? i - 1 : 0, behind = std::min(i + 1, places.size() - 1);
            return behind > before ? (places[behind] - places[before]) / 2 : 1;
        };
        for (std::size_t i = 0; i < samples.pointCount(); ++i)
            add(samples.sizeAt(i),
                width(samples.columns, i % samples.columns.size()) * width(samples.rows, i / samples.columns.size()));
    }
    if (!(all > 0)) return {};
    for (double& share : shares) share /= all;
    return shares;
}

} // namespace coulter
