#include "sampling/field_cut.h"

#include "formula/program/piece_borders.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

using Spot = PiecedField::Spot;

double largestStep(const Spot& a, const Spot& b) {
    double step = 0;
    for (std::size_t k = 0; k < a.values.size(); ++k) step = std::max(step, std::abs(a.values[k] - b.values[k]));
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

FieldCut cutOfPieces(PiecedField& field, const Spot& first, const Spot& second, double same) {
    FieldCut cut;
    cut.parts = true;
    auto [last, next] = lastOfPiece(field, first, second);
    cut.isSingle = next.piece == second.piece;
    cut.first = std::move(last);
    cut.second = cut.isSingle ? std::move(next) : lastOfPiece(field, second, first).first;
    cut.isJump = !cut.isSingle || largestStep(cut.first, cut.second) > same;
    return cut;
}

} // namespace

std::optional<FieldCut> findCut(PiecedField& field, const Spot& first, const Spot& second, const CutSteps& steps,
                                const std::stop_token& stop) {
    if (first.isDefined && second.isDefined && first.piece != second.piece)
        return cutOfPieces(field, first, second, steps.same);
    Spot a = first, b = second;
    const bool border = a.isDefined != b.isDefined;
    for (int step = 0; step < 1200 && !stop.stop_requested(); ++step) {
        const double x = between(a.x, b.x), y = between(a.y, b.y);
        if ((x == a.x || x == b.x) && (y == a.y || y == b.y)) break;
        Spot middle = field.at(x, y);
        if (border) {
            (middle.isDefined == a.isDefined ? a : b) = std::move(middle);
            continue;
        }
        if (!middle.isDefined) return std::nullopt;
        const bool left = largestStep(a, middle) >= largestStep(middle, b);
        (left ? b : a) = std::move(middle);
        if (largestStep(a, b) < 0.5 * steps.jump) return std::nullopt; // steep, but it goes on
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
