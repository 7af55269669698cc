#include "formula/zeros/sign_changes.h"

#include "formula/program/piece_borders.h"

#include <cmath>

namespace coulter {

std::vector<Zero> signChanges(const Program& f, const Bounds& part) {
    constexpr int looks = 300;
    constexpr double small =
        1e-6; ///< of the values beside it; what jumps over zero or passes through infinity is no zero
    std::vector<double> at, values(looks);
    for (int i = 0; i < looks; ++i)
        at.push_back(i + 1 == looks ? part.high : part.low + (part.high - part.low) * i / (looks - 1));
    Evaluator evaluator(f);
    evaluator(at.data(), values.data(), at.size());
    std::vector<Zero> found;
    for (std::size_t i = 0; i + 1 < at.size(); ++i) {
        double a = at[i], b = at[i + 1], before = values[i], after = values[i + 1];
        if (!(before * after < 0)) continue;
        const double outside = std::max(std::abs(before), std::abs(after));
        for (int step = 0; step < 200; ++step) {
            const double middle = between(a, b);
            if (!(middle > a && middle < b)) break;
            const double value = evaluator(middle);
            if (!std::isfinite(value)) break;
            if ((value < 0) == (before < 0))
                a = middle, before = value;
            else
                b = middle, after = value;
        }
        if (!(std::min(std::abs(before), std::abs(after)) <= small * outside)) continue;
        Zero zero;
        zero.at = std::abs(before) < std::abs(after) ? a : b;
        zero.within = {a, b};
        zero.isProven = false;
        zero.isChangeKnown = true;
        zero.change = values[i] < 0 ? 1 : -1;
        found.push_back(zero);
    }
    return found;
}

} // namespace coulter
