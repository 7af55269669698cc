#include "sampling/field_cut.h"

#include "formula/program/piece_borders.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

using Spot = PiecedField::Spot;

double largestStep(const Spot& a, const Spot& b, const Bounds& shown) {
    const auto seen = [&](double value) { return std::clamp(value, shown.low, shown.high); };
    double step = 0;
    for (std::size_t k = 0; k < a.values.size(); ++k)
        step = std::max(step, std::abs(seen(a.values[k]) - seen(b.values[k])));
    return step;
}

/// The last place of the first one's piece on the way to another, and the place after it.
std::pair<Spot, Spot> lastOfPiece(PiecedField& field, const Spot& from, const Spot& to) {
    Spot a = from, b = to;
    double low = 0, high = 1;
    while (high - low > 1e-18) {
        const double share = (low + high) / 2;
        if (share == low || share == high) break;
        const double x = from.x + share * (to.x - from.x), y = from.y + share * (to.y - from.y);
        if ((x == a.x || x == b.x) && (y == a.y || y == b.y)) break;
        Spot middle = field.at(x, y);
        Spot& end = middle.piece == from.piece ? a : b;
        // On the border itself a field may be infinite; its side is as great as it was last.
        if (!middle.isDefined) middle.values = end.values;
        middle.isDefined = true;
        end = std::move(middle);
        (&end == &a ? low : high) = share;
    }
    return {std::move(a), std::move(b)};
}

/// So little of an edge is as good as nothing.
constexpr double hair = 1e-10, narrow = 1e-11; // nearer to a pole rounding would tell the wrong side of it
/// Halvings of it that are as many.
constexpr int stepsToBorder = 36;

/// What the field is worth a hair beside a border, where on it it may be worth something else, as sgn is 0 at 0.
void takeFromBeside(PiecedField& field, Spot& border, const Spot& end) {
    Spot beside = field.at(border.x + hair * (end.x - border.x), border.y + hair * (end.y - border.y));
    if (beside.isDefined && beside.piece == border.piece) border.values = std::move(beside.values);
}

FieldCut cutOfPieces(PiecedField& field, const Spot& first, const Spot& second, const CutSteps& steps) {
    FieldCut cut;
    cut.parts = true;
    auto [last, next] = lastOfPiece(field, first, second);
    cut.isSingle = next.piece == second.piece;
    cut.first = std::move(last);
    cut.second = cut.isSingle ? std::move(next) : lastOfPiece(field, second, first).first;
    if (steps.besideBorders) {
        const double reach = hair * std::max(std::abs(second.x - first.x), std::abs(second.y - first.y));
        cut.isSingle = std::abs(cut.second.x - cut.first.x) <= reach && std::abs(cut.second.y - cut.first.y) <= reach;
        takeFromBeside(field, cut.first, first);
        takeFromBeside(field, cut.second, second);
    }
    cut.isJump = !cut.isSingle || largestStep(cut.first, cut.second, steps.shown) > steps.same;
    return cut;
}

/// The last place on the way to one that has no value.
Spot lastDefined(PiecedField& field, Spot from, const Spot& undefined) {
    double x = undefined.x, y = undefined.y;
    for (int step = 0; step < stepsToBorder; ++step) {
        const double mx = (from.x + x) / 2, my = (from.y + y) / 2;
        if ((mx == from.x || mx == x) && (my == from.y || my == y)) break;
        Spot middle = field.at(mx, my);
        if (middle.isDefined)
            from = std::move(middle);
        else
            x = mx, y = my;
    }
    return from;
}

} // namespace

std::optional<FieldCut> findCut(PiecedField& field, const Spot& first, const Spot& second, const CutSteps& steps,
                                const std::stop_token& stop) {
    if (first.isDefined && second.isDefined && first.piece != second.piece)
        return cutOfPieces(field, first, second, steps);
    Spot a = first, b = second;
    const bool border = a.isDefined != b.isDefined;
    const auto isNarrow = [&](double x1, double y1, double x2, double y2) {
        return steps.besideBorders && std::abs(x2 - x1) <= narrow * std::abs(second.x - first.x) &&
               std::abs(y2 - y1) <= narrow * std::abs(second.y - first.y);
    };
    for (int step = 0; step < 1200 && !stop.stop_requested() && !isNarrow(a.x, a.y, b.x, b.y); ++step) {
        const double x = between(a.x, b.x), y = between(a.y, b.y);
        if ((x == a.x || x == b.x) && (y == a.y || y == b.y)) break;
        Spot middle = field.at(x, y);
        if (border) {
            (middle.isDefined == a.isDefined ? a : b) = std::move(middle);
            continue;
        }
        if (!middle.isDefined) {
            if (!steps.besideBorders) return std::nullopt;
            return FieldCut{true, true, true, lastDefined(field, std::move(a), middle),
                            lastDefined(field, std::move(b), middle)};
        }
        const bool left = largestStep(a, middle, steps.shown) >= largestStep(middle, b, steps.shown);
        (left ? b : a) = std::move(middle);
        if (largestStep(a, b, steps.shown) < 0.5 * steps.jump) return std::nullopt; // steep, but it goes on
    }
    if (border) {
        const Spot& inside = a.isDefined ? a : b;
        return FieldCut{false, false, true, inside, inside};
    }
    b.x = a.x; // both sides stand at one place
    b.y = a.y;
    return FieldCut{true, true, true, std::move(a), std::move(b)};
}

} // namespace coulter
