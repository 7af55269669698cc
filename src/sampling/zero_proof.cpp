#include "sampling/zero_proof.h"

#include "formula/bounds/bounds_arithmetic.h"
#include "formula/proofs/jet_evaluator.h"

#include <algorithm>
#include <cmath>

namespace coulter {
namespace {

/// Halvings of the panel's sides.
constexpr int mostDivisions = 48;
/// Parts of a chord that are not proven are halved until they are so short, in tolerances.
constexpr double shortest = 4;

struct Spot {
    double u, v; ///< mm from the panel's lower left corner
};
struct Chord {
    Spot a, b;
    bool proven = false;
    double length() const { return std::hypot(b.u - a.u, b.v - a.v); }
};
struct Box {
    double left, low, right, high;
    double width() const { return right - left; }
    double height() const { return high - low; }
    double area() const { return width() * height(); }
    Box grown(double by) const { return {left - by, low - by, right + by, high + by}; }
};

/// A coordinate of the user along a part of the sheet: u + du s + dw w for |s| and |w| within half widths.
class Axis {
public:
    explicit Axis(const AxisMap& map)
        : isLogarithmic_(map.kind == ScaleKind::Logarithmic), low_(of(map.low)),
          perMm_((of(map.high) - of(map.low)) / map.length) {}

    Jet<2> along(double u, double du, double dw, const std::array<double, 2>& radius) const {
        // Rounding of coordinates on the sheet counts as part of their place.
        const double slack = 1e-12 * (1 + std::abs(u));
        const Bounds middle = exactly(low_) + perMm_ * outwards(u - slack, u + slack);
        const Bounds slopes[] = {perMm_ * exactly(du), perMm_ * exactly(dw)};
        Jet<2> jet;
        Bounds value = middle;
        for (std::size_t k = 0; k < 2; ++k) {
            value = value + slopes[k] * Bounds{-radius[k], radius[k]};
            jet.first[k] = jet.centreFirst[k] = slopes[k];
        }
        jet.value.low = value.low, jet.value.high = value.high;
        jet.centre.low = middle.low, jet.centre.high = middle.high;
        jet.second.fill(exactly(0));
        return isLogarithmic_ ? applied<2>(Kernel::Exp, jet, radius) : jet;
    }

private:
    double of(double coordinate) const { return isLogarithmic_ ? std::log(coordinate) : coordinate; }
    bool isLogarithmic_;
    double low_, perMm_;
};

int signOf(const Bounds& bounds) { return bounds.low > 0 ? 1 : bounds.high < 0 ? -1 : 0; }
int signOf(const Enclosure& value) { return value.isProof() ? signOf(Bounds{value.low, value.high}) : 0; }
bool isNowhereDefined(const Enclosure& value) { return value.known && value.low > value.high; }

class Prover {
public:
    Prover(const Program& f, double level, const PanelMap& map, const ZeroProofEffort& effort)
        : jets_(f), level_(level), x_(map.x), y_(map.y), effort_(effort), tolerance_(effort.millimetres) {}

    ZeroProof run(const std::vector<Isoline>& lines, const Path& points, const PanelMap& map, const Box& domain) {
        for (const Isoline& line : lines) addChords(line, map, domain);
        for (std::size_t i = 0; i < points.size(); ++i)
            points_.push_back({map.x.toSheet(points.x[i]), map.y.toSheet(points.y[i])});
        proof_.area = domain.area();
        if (domain.area() > 0) settle(domain);
        proof_.finished = !isSpent();
        return proof_;
    }

private:
    bool isSpent() const { return proof_.evaluations >= effort_.mostEvaluations || effort_.stop.stop_requested(); }

    void addChords(const Isoline& line, const PanelMap& map, const Box& domain) {
        const std::size_t n = line.path.size();
        const auto spot = [&](std::size_t i) {
            return Spot{map.x.toSheet(line.path.x[i % n]), map.y.toSheet(line.path.y[i % n])};
        };
        const Box near = domain.grown(margin_);
        for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i) {
            const Chord chord{spot(i), spot(i + 1)};
            if (!(chord.length() > 0) || !isNear(chord, near)) continue;
            proof_.length += chord.length();
            prove(chord);
        }
    }
    void prove(Chord chord) {
        chord.proven = isTube(chord);
        if (!chord.proven && chord.length() > shortest * tolerance_ && !isSpent()) {
            const Spot middle{(chord.a.u + chord.b.u) / 2, (chord.a.v + chord.b.v) / 2};
            prove({chord.a, middle});
            prove({middle, chord.b});
            return;
        }
        if (chord.proven) proof_.provenLength += chord.length();
        chords_.push_back(chord);
    }
    static bool isNear(const Chord& c, const Box& box) {
        return std::min(c.a.u, c.b.u) <= box.right && std::max(c.a.u, c.b.u) >= box.left &&
               std::min(c.a.v, c.b.v) <= box.high && std::max(c.a.v, c.b.v) >= box.low;
    }

    /// The function over a box, by the sheet's own coordinates.
    Jet<2> over(const Box& box) {
        const std::array<double, 2> radius{roundedUp(box.width() / 2), roundedUp(box.height() / 2)};
        const std::array<Jet<2>, 2> inputs{x_.along((box.left + box.right) / 2, 1, 0, radius),
                                           y_.along((box.low + box.high) / 2, 0, 1, radius)};
        return aboveLevel(inputs, radius);
    }

    Jet<2> aboveLevel(const std::array<Jet<2>, 2>& inputs, const std::array<double, 2>& radius) {
        ++proof_.evaluations;
        Jet<2> jet = jets_(inputs, radius)[0];
        if (level_ == 0) return jet;
        for (Enclosure* value : {&jet.value, &jet.centre}) {
            if (isNowhereDefined(*value)) continue;
            const Bounds above = Bounds{value->low, value->high} - exactly(level_);
            value->low = above.low;
            value->high = above.high;
        }
        return jet;
    }

    /// The function beside a chord: over s along it, |s| ≤ `reach` from its middle, and w across it.
    Jet<2> beside(const Chord& chord, double reach, double across, double halfWidth) {
        const double length = chord.length(), du = (chord.b.u - chord.a.u) / length,
                     dv = (chord.b.v - chord.a.v) / length, u = (chord.a.u + chord.b.u) / 2 - across * dv,
                     v = (chord.a.v + chord.b.v) / 2 + across * du;
        const std::array<double, 2> radius{roundedUp(reach), halfWidth};
        const std::array<Jet<2>, 2> inputs{x_.along(u, du, -dv, radius), y_.along(v, dv, du, radius)};
        return aboveLevel(inputs, radius);
    }

    /// Whether exactly one piece of the curve runs beside a chord, and as far as the tolerance beyond both its ends.
    bool isTube(const Chord& chord) {
        if (isSpent()) return false;
        const double to = chord.length() / 2 + tolerance_, across = tolerance_ * (1 - 1e-9);
        const Jet<2> inside = beside(chord, to, 0, across);
        const int slope = inside.value.isProof() ? signOf(inside.first[1]) : 0;
        return slope != 0 && signOf(beside(chord, to, across, 0).value) == slope &&
               signOf(beside(chord, to, -across, 0).value) == -slope;
    }

    double awayFrom(Spot p, const std::vector<std::uint32_t>& near) const {
        double away = HUGE_VAL;
        for (const std::uint32_t i : near) {
            const Chord& c = chords_[i];
            const double du = c.b.u - c.a.u, dv = c.b.v - c.a.v;
            const double t = std::clamp(((p.u - c.a.u) * du + (p.v - c.a.v) * dv) / (du * du + dv * dv), 0.0, 1.0);
            away = std::min(away, std::hypot(p.u - c.a.u - t * du, p.v - c.a.v - t * dv));
        }
        for (const Spot& point : points_) away = std::min(away, std::hypot(p.u - point.u, p.v - point.v));
        return away;
    }

    /// Where above each place to the right a proven chord runs through a box in a way that its zero is the only one
    /// that can be there: intervals of u, or of v if `isTurned`.
    std::vector<std::pair<double, double>> covered(const Box& box, const std::vector<std::uint32_t>& near,
                                                   bool isTurned) const {
        std::vector<std::pair<double, double>> parts;
        const double low = isTurned ? box.left : box.low, high = isTurned ? box.right : box.high;
        for (const std::uint32_t i : near) {
            const Chord& chord = chords_[i];
            if (!chord.proven) continue;
            Spot a = chord.a, b = chord.b;
            if (isTurned) std::swap(a.u, a.v), std::swap(b.u, b.v);
            if (a.u > b.u) std::swap(a, b);
            const double run = b.u - a.u, rise = b.v - a.v, length = chord.length();
            if (run < 0.3 * length) continue;
            // The tube reaches the tolerance beyond both ends, its section upwards is a little higher than it is wide.
            const double section = tolerance_ * length / run, slant = tolerance_ * std::abs(rise) / length,
                         beyond = tolerance_ * run / length;
            double from = a.u - beyond + slant, to = b.u + beyond - slant;
            if (from >= to) continue;
            const double slope = rise / run, bottom = low - margin_ + section, top = high + margin_ - section;
            if (slope != 0) {
                const double atBottom = a.u + (bottom - a.v) / slope, atTop = a.u + (top - a.v) / slope;
                from = std::max(from, std::min(atBottom, atTop));
                to = std::min(to, std::max(atBottom, atTop));
            } else if (a.v < bottom || a.v > top) {
                continue;
            }
            if (from < to) parts.emplace_back(from, to);
        }
        std::ranges::sort(parts);
        return parts;
    }

    /// Whether a function that is monotone upwards over a box (to the right, if `isTurned`) is zero there at no other
    /// places than the tubes of proven chords have.
    bool holdsNoOther(const Box& box, const std::vector<std::uint32_t>& near, bool isTurned) {
        const double begin = isTurned ? box.low : box.left, end = isTurned ? box.high : box.right;
        double done = begin;
        const auto isFree = [&](double from, double to) { // the same sign along both edges
            if (from >= to) return true;
            const Box bottom = isTurned ? Box{box.left, from, box.left, to} : Box{from, box.low, to, box.low},
                      top = isTurned ? Box{box.right, from, box.right, to} : Box{from, box.high, to, box.high};
            const int sign = signOf(over(bottom).value);
            return sign != 0 && signOf(over(top).value) == sign;
        };
        for (const auto& [from, to] : covered(box, near, isTurned)) {
            if (to <= done) continue;
            if (from >= end) break;
            if (from > done && !isFree(done, std::min(from, end))) return false;
            done = to;
        }
        return isFree(done, end);
    }

    /// A part of the panel, with the chords near it.
    struct Part {
        Box box;
        std::vector<std::uint32_t> near;
    };

    /// Divides the panel until all of it is settled: large parts first, so that little is left when the effort is
    /// spent.
    void settle(const Box& panel) {
        std::vector<std::uint32_t> all(chords_.size());
        for (std::size_t i = 0; i < all.size(); ++i) all[i] = static_cast<std::uint32_t>(i);
        std::vector<Part> parts{{panel, std::move(all)}}, next;
        for (int divisions = 0; !parts.empty(); ++divisions) {
            next.clear();
            for (const Part& part : parts) {
                if (isSpent() || divisions > mostDivisions)
                    proof_.unsettledArea += part.box.area();
                else
                    divide(part, next);
            }
            if (effort_.watch) effort_.watch(done_ / proof_.area);
            std::swap(parts, next);
        }
    }

    void divide(const Part& part, std::vector<Part>& into) {
        const Box& box = part.box;
        bool isContinuous = false;
        if (isSettled(box, part.near, isContinuous)) {
            done_ += box.area();
            return;
        }
        const double size = std::max(box.width(), box.height());
        if (size <= tolerance_) {
            const Spot middle{(box.left + box.right) / 2, (box.low + box.high) / 2};
            const bool isNearLine = awayFrom(middle, part.near) + 0.71 * size <= margin_;
            if (isNearLine || !isContinuous || size <= tolerance_ / 32) {
                if (!isNearLine) proof_.unsettledArea += box.area();
                return;
            }
        }
        Box one = box, other = box;
        if (box.width() >= box.height())
            one.right = other.left = (box.left + box.right) / 2;
        else
            one.high = other.low = (box.low + box.high) / 2;
        for (const Box& half : {one, other}) {
            Part& made = into.emplace_back();
            made.box = half;
            const Box wide = half.grown(margin_);
            for (const std::uint32_t i : part.near) {
                if (isNear(chords_[i], wide)) made.near.push_back(i);
            }
        }
    }

    bool isSettled(const Box& box, const std::vector<std::uint32_t>& near, bool& isContinuous) {
        const Jet<2> inside = over(box);
        isContinuous = inside.value.isProof();
        if (isNowhereDefined(inside.value) || signOf(inside.value) != 0) return true;
        if (!isContinuous) return false;
        if (signOf(inside.first[0]) == 0 && signOf(inside.first[1]) == 0) return false;
        const Jet<2> around = over(box.grown(margin_)); // a tube's own zero may lie just outside
        if (!around.value.isProof()) return false;
        const auto least = [&](std::size_t k) {
            return signOf(around.first[k]) == 0
                       ? 0
                       : std::min(std::abs(around.first[k].low), std::abs(around.first[k].high));
        };
        const bool isTurned = least(0) > least(1);
        return least(isTurned ? 0 : 1) > 0 && holdsNoOther(box, near, isTurned);
    }

    JetEvaluator<2> jets_;
    double level_;
    Axis x_, y_;
    const ZeroProofEffort& effort_;
    double tolerance_, margin_ = 3 * tolerance_;
    std::vector<Chord> chords_;
    std::vector<Spot> points_;
    ZeroProof proof_;
    double done_ = 0;
};

} // namespace

ZeroProof proveLevel(const Program& f, double level, const std::vector<Isoline>& lines, const Path& points,
                     const PanelMap& map, const std::array<double, 4>& domain, const ZeroProofEffort& effort) {
    return Prover(f, level, map, effort).run(lines, points, map, {domain[0], domain[1], domain[2], domain[3]});
}

} // namespace coulter
