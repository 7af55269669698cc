#include "sampling/singular_points.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

namespace coulter {
namespace {

/// Value, slopes and bends by differences on the sheet, in mm.
struct Local {
    double value = 0, u = 0, v = 0, uu = 0, uv = 0, vv = 0;
    double det() const { return uu * vv - uv * uv; }
};

class Search {
public:
    Search(const Program& field, const PanelMap& map, double level) : evaluator_(field), map_(map), level_(level) {}

    Local at(double u, double v) {
        constexpr double h = 1e-3; // mm
        std::array<std::array<double, 3>, 3> f{};
        for (int i = -1; i <= 1; ++i) {
            for (int j = -1; j <= 1; ++j)
                f[static_cast<std::size_t>(i + 1)][static_cast<std::size_t>(j + 1)] = value(u + i * h, v + j * h);
        }
        return {f[1][1],
                (f[2][1] - f[0][1]) / (2 * h),
                (f[1][2] - f[1][0]) / (2 * h),
                (f[2][1] - 2 * f[1][1] + f[0][1]) / (h * h),
                (f[2][2] - f[2][0] - f[0][2] + f[0][0]) / (4 * h * h),
                (f[1][2] - 2 * f[1][1] + f[1][0]) / (h * h)};
    }

    /// From a place to where both slopes vanish; none if that is farther than a few mm.
    std::optional<std::pair<double, double>> still(double u, double v) {
        const double startU = u, startV = v;
        for (int step = 0; step < 60; ++step) {
            const Local here = at(u, v);
            // Where both bends vanish too, Newton's steps are too long or none: slopes are followed down instead.
            const double det = here.det(), scale = here.uu * here.uu + here.vv * here.vv + 2 * here.uv * here.uv;
            if (!std::isfinite(det) || scale == 0) return std::nullopt;
            if (std::abs(det) < 1e-9 * scale) return std::pair{u, v};
            const double du = -(here.vv * here.u - here.uv * here.v) / det,
                         dv = -(here.uu * here.v - here.uv * here.u) / det;
            u += du;
            v += dv;
            if (!(std::hypot(u - startU, v - startV) < 3)) return std::nullopt;
            if (std::hypot(du, dv) < 1e-7) break;
        }
        return std::pair{u, v};
    }

    double value(double u, double v) {
        const double x = map_.x.fromSheet(u), y = map_.y.fromSheet(v);
        double z = 0;
        const double* const in[] = {&x, &y};
        double* const out[] = {&z};
        evaluator_(in, out, 1);
        return z - level_;
    }

private:
    Evaluator evaluator_;
    PanelMap map_;
    double level_;
};

} // namespace

std::vector<SingularPoint> singularPoints(const FieldSamples& samples, double level, const Program& field,
                                          const PanelMap& map, double millimetres) {
    std::vector<SingularPoint> found;
    if (field.outputs.size() != 1 || samples.pointCount() == 0) return found;
    const auto away = [&](std::size_t i) { return std::abs(samples.values[0][i] - level); };
    std::vector<char> nearest(samples.pointCount(), 1);
    const auto compare = [&](std::size_t a, std::size_t b) {
        if (!(away(a) <= away(b))) nearest[a] = 0;
        if (!(away(b) <= away(a))) nearest[b] = 0;
    };
    if (samples.isMesh()) {
        for (const auto& t : samples.triangles) compare(t[0], t[1]), compare(t[1], t[2]), compare(t[2], t[0]);
    } else {
        const std::size_t width = samples.columns.size();
        for (std::size_t i = 0; i < samples.pointCount(); ++i) {
            if (i % width + 1 < width) compare(i, i + 1);
            if (i + width < samples.pointCount()) compare(i, i + width);
        }
    }
    Search search(field, map, level);
    constexpr std::size_t mostTried = 5000;
    std::size_t tried = 0;
    for (std::size_t i = 0; i < samples.pointCount() && tried < mostTried; ++i) {
        if (!nearest[i] || std::isnan(away(i))) continue;
        ++tried;
        const double u0 = map.x.toSheet(samples.xAt(i)), v0 = map.y.toSheet(samples.yAt(i));
        // A sample on a plain piece of the line is near to it as well, but there the field rises.
        const Local start = search.at(u0, v0);
        const double bend = std::sqrt(start.uu * start.uu + start.vv * start.vv + 2 * start.uv * start.uv);
        if (!(std::hypot(start.u, start.v) < 2 * bend)) continue; // a still place is farther than 2 mm
        const auto still = search.still(u0, v0);
        if (!still || still->first < 0 || still->second < 0 || still->first > map.x.length ||
            still->second > map.y.length)
            continue;
        const Local there = search.at(still->first, still->second);
        const double stiff = std::sqrt(there.uu * there.uu + there.vv * there.vv + 2 * there.uv * there.uv);
        const double reach = 0.01 * millimetres;
        if (!(std::abs(there.value) <= stiff * reach * reach) && there.value != 0) continue;
        const double x = map.x.fromSheet(still->first), y = map.y.fromSheet(still->second);
        const bool known = std::ranges::any_of(found, [&](const SingularPoint& each) {
            return std::hypot(map.x.toSheet(each.x) - still->first, map.y.toSheet(each.y) - still->second) < 0.05;
        });
        if (known) continue;
        const double share = stiff > 0 ? there.det() / (stiff * stiff) : 0;
        found.push_back({x, y,
                         share < -1e-4  ? SingularKind::Crossing
                         : share > 1e-4 ? SingularKind::Isolated
                                        : SingularKind::Other});
    }
    return found;
}

} // namespace coulter
