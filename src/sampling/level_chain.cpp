#include "sampling/level_chain.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace coulter {
namespace {

double away(const SheetSpot& p, const SheetSpot& a, const SheetSpot& b) {
    const double du = b.u - a.u, dv = b.v - a.v, square = du * du + dv * dv;
    const double share = square > 0 ? std::clamp(((p.u - a.u) * du + (p.v - a.v) * dv) / square, 0.0, 1.0) : 0;
    return std::hypot(p.u - a.u - share * du, p.v - a.v - share * dv);
}

} // namespace

Path pathOf(const std::vector<SheetSpot>& spots) {
    Path path;
    path.x.reserve(spots.size());
    path.y.reserve(spots.size());
    for (const SheetSpot& spot : spots) {
        path.x.push_back(spot.x);
        path.y.push_back(spot.y);
    }
    return path;
}

void straighten(LevelChain& chain, double mm) {
    std::vector<SheetSpot>& all = chain.spots;
    if (chain.closed) all.push_back(all.front());
    std::vector<char> kept(all.size(), 0);
    kept.front() = kept.back() = 1;
    std::vector<std::pair<std::size_t, std::size_t>> open{{0, all.size() - 1}};
    if (chain.closed && all.size() > 3) { // from the place that is farthest, and one on either side: never a line
        std::size_t far = 1;
        const auto square = [&](std::size_t i) {
            const double du = all[i].u - all[0].u, dv = all[i].v - all[0].v;
            return du * du + dv * dv;
        };
        const auto distance = [&](std::size_t i) { return std::hypot(all[i].u - all[0].u, all[i].v - all[0].v); };
        double most = square(far);
        for (std::size_t i = 2; i + 1 < all.size(); ++i) {
            const double here = square(i);
            if (here < 0.999999 * most || (here < 1.000001 * most && !(distance(i) > distance(far)))) continue;
            far = i;
            most = here;
        }
        kept[far] = 1;
        open = {{0, far}, {far, all.size() - 1}};
    }
    while (!open.empty()) {
        const auto [first, last] = open.back();
        open.pop_back();
        std::size_t farthest = first;
        double most = mm * mm;
        // A few multiplications say of nearly all which is farther; only what is all but equal is looked at
        // closely.
        const SheetSpot &a = all[first], &b = all[last];
        const double du = b.u - a.u, dv = b.v - a.v, square = du * du + dv * dv, per = square > 0 ? 1 / square : 0;
        for (std::size_t i = first + 1; i < last; ++i) {
            const double pu = all[i].u - a.u, pv = all[i].v - a.v,
                         share = std::clamp((pu * du + pv * dv) * per, 0.0, 1.0), eu = pu - share * du,
                         ev = pv - share * dv, here = eu * eu + ev * ev;
            if (here < 0.999999 * most) continue;
            if (here < 1.000001 * most) {
                const double before = farthest == first ? mm : away(all[farthest], a, b);
                if (!(away(all[i], a, b) > before)) continue;
            }
            most = here;
            farthest = i;
        }
        if (farthest == first) continue;
        kept[farthest] = 1;
        open.emplace_back(first, farthest);
        open.emplace_back(farthest, last);
    }
    std::vector<SheetSpot> some;
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (kept[i]) some.push_back(all[i]);
    }
    if (chain.closed) some.pop_back();
    all = std::move(some);
}

} // namespace coulter
