#include "sampling/field_range.h"

#include "formula/bounds/bounds_arithmetic.h"

#include <algorithm>
#include <cmath>
#include <queue>

namespace coulter {
namespace {

using Box = std::array<Bounds, 2>;

/// A box with how far the function reaches over it at most, upwards.
struct Reach {
    double upTo;
    Box box;
    int along; ///< the direction in which it is to be halved
    friend bool operator<(const Reach& a, const Reach& b) { return a.upTo < b.upTo; }
};

double middleOf(const Bounds& side) { return side.low + (side.high - side.low) / 2; }
bool canBeHalved(const Bounds& side) { return side.low < middleOf(side) && middleOf(side) < side.high; }

/// The search for the supremum, or, looking at −f, for the infimum.
class Search {
public:
    Search(JetEvaluator<2>& jets, const FieldRangeEffort& effort, bool upwards)
        : jets_(jets), effort_(effort), upwards_(upwards), best_(upwards ? effort.known.high : -effort.known.low),
          worth_(upwards ? effort.worth.high : -effort.worth.low) {}

    /// Where the supremum lies.
    Bounds over(const Box& box) {
        look(box);
        while (!open_.empty()) {
            const Reach top = open_.top();
            if (top.upTo <= best_ + effort_.tolerance || best_ >= worth_) return {best_, std::max(best_, top.upTo)};
            if (evaluations_ >= effort_.mostEvaluations || effort_.stop.stop_requested()) return {best_, top.upTo};
            open_.pop();
            const Bounds& side = top.box[static_cast<std::size_t>(top.along)];
            if (!canBeHalved(side)) {
                // A point, as far as numbers can tell: it stays what it is.
                leftOver_ = std::max(leftOver_, top.upTo);
                continue;
            }
            Box low = top.box, high = top.box;
            low[static_cast<std::size_t>(top.along)].high = high[static_cast<std::size_t>(top.along)].low =
                middleOf(side);
            look(low);
            look(high);
        }
        return {best_, std::max(best_, leftOver_)};
    }

    const std::optional<FieldRange::Place>& place() const { return place_; }
    std::size_t evaluations() const { return evaluations_; }
    bool sawValues() const { return sawValues_; }

private:
    void look(const Box& box) {
        const Jet<2>& jet = jets_(box)[0];
        ++evaluations_;
        const bool isKnown = jet.value.known && !jet.value.estimated;
        if (isKnown && jet.value.low > jet.value.high) return; // nowhere defined
        sawValues_ = true;
        const double upTo = !isKnown ? HUGE_VAL : upwards_ ? jet.value.high : -jet.value.low;
        if (jet.centre.isProof()) {
            const double here = upwards_ ? jet.centre.low : -jet.centre.high;
            if (here > best_) {
                best_ = here;
                place_ = FieldRange::Place{middleOf(box[0]), middleOf(box[1]), upwards_ ? here : -here};
            }
        }
        if (upTo <= best_) return;
        // Across what it changes by most; where that is unknown, the longer side by numbers.
        const auto change = [&](std::size_t k) {
            const double most = magnitude(jet.first[k]);
            return std::isfinite(most) ? most * width(box[k]) : HUGE_VAL;
        };
        int along = change(1) > change(0) ? 1 : 0;
        if (change(0) == change(1)) along = width(box[1]) > width(box[0]) ? 1 : 0;
        if (!canBeHalved(box[static_cast<std::size_t>(along)])) along = 1 - along;
        open_.push({upTo, box, along});
    }

    JetEvaluator<2>& jets_;
    const FieldRangeEffort& effort_;
    bool upwards_;
    double best_, worth_, leftOver_ = -HUGE_VAL;
    std::optional<FieldRange::Place> place_;
    std::priority_queue<Reach> open_;
    std::size_t evaluations_ = 0;
    bool sawValues_ = false;
};

} // namespace

FieldRange rangeOver(JetEvaluator<2>& jets, const std::array<Bounds, 2>& box, const FieldRangeEffort& effort) {
    Search up(jets, effort, true), down(jets, effort, false);
    FieldRange range;
    range.greatest = up.over(box);
    const Bounds below = down.over(box);
    range.least = {-below.high, -below.low};
    range.highest = up.place();
    range.lowest = down.place();
    range.evaluations = up.evaluations() + down.evaluations();
    range.isUndefined = !up.sawValues();
    return range;
}

} // namespace coulter
