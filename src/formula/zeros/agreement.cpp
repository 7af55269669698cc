#include "formula/zeros/agreement.h"

#include "formula/proofs/interval_evaluator.h"
#include "formula/proofs/jet_evaluator.h"

#include <algorithm>
#include <cmath>
#include <queue>
#include <vector>

namespace coulter {
namespace {

constexpr int looks = 2'000;
constexpr double nearEnough = 1.05;

struct Part {
    double low, high;
    double bound; ///< of the magnitude
    bool operator<(const Part& other) const { return bound < other.bound; }
};

} // namespace

Agreement agreementOf(const Program& difference, const Interval& whole, double work, double negligible) {
    Agreement agreement;
    Interval interval = whole; // an end that does not belong to it is not looked at
    if (!whole.lowClosed) interval.low = std::nextafter(whole.low, whole.high);
    if (!whole.highClosed) interval.high = std::nextafter(whole.high, whole.low);
    std::vector<double> at, values(looks);
    for (int i = 0; i < looks; ++i)
        at.push_back(i + 1 == looks ? interval.high : interval.low + (interval.high - interval.low) * i / (looks - 1));
    Evaluator evaluator(difference);
    evaluator(at.data(), values.data(), at.size());
    agreement.at = interval.low;
    const auto look = [&](double x, double value) {
        if (!(std::abs(value) > agreement.largest)) return;
        agreement.largest = std::abs(value);
        agreement.at = x;
    };
    for (std::size_t i = 0; i < at.size(); ++i) look(at[i], values[i]);
    JetEvaluator<1> jets(difference);
    const auto bounded = [&](double low, double high) {
        const Enclosure value = jets({Bounds{low, high}})[0].value;
        const double most = std::max(std::abs(value.low), std::abs(value.high));
        return value.isProof() && !std::isnan(most) ? most : HUGE_VAL;
    };
    std::priority_queue<Part> parts;
    parts.push({interval.low, interval.high, bounded(interval.low, interval.high)});
    const double each = costOf(difference);
    for (double done = 0; done < work; done += 2 * each) {
        const Part part = parts.top();
        const double middle = part.low + (part.high - part.low) / 2;
        if (part.bound <= std::max(nearEnough * agreement.largest, negligible) ||
            !(middle > part.low && middle < part.high))
            break;
        // Once a part is so short that halving leaves its bound as it was, only rounding is left in it.
        const double left = bounded(part.low, middle), right = bounded(middle, part.high);
        const bool isRounding = part.high - part.low < 1e-3 * (interval.high - interval.low) &&
                                std::max(left, right) > 0.9 * part.bound && std::isfinite(part.bound);
        if (isRounding) break;
        parts.pop();
        parts.push({part.low, middle, left});
        parts.push({middle, part.high, right});
        look(middle, evaluator(middle));
    }
    agreement.bound = std::max(parts.top().bound, agreement.largest);
    IntervalEvaluator exact(difference);
    const Enclosure there = exact(std::vector<Enclosure>{Enclosure::point(agreement.at)})[0];
    agreement.isDifferent = there.isProof() && (there.low > 0 || there.high < 0);
    return agreement;
}

} // namespace coulter
