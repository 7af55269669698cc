#include "sampling/curve.h"

#include "sampling/certificate.h"
#include "sampling/curve_sampler.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace coulter {
namespace {

/// The reference polyline keeps this part of the tolerance, the chords through the kept points the rest of it.
constexpr double referencePart = 0.1;
constexpr double chordPart = 0.85;
/// First look: points for each millimetre of the panel's width, and their least number.
constexpr double firstPerMillimetre = 4;
constexpr double firstLeast = 400;
constexpr std::size_t mostEvaluations = 1'000'000;
/// Chords shorter than this part of the tolerance along the sheet are split only so many times in all.
constexpr double finest = 0.05;
constexpr std::size_t mostFinePoints = 20'000;
constexpr int mostLevels = 60;
constexpr int mostRepairs = 4;
/// Rounds of sampling what the proof found between the points, and evaluations over intervals in all of them.
constexpr int mostSearches = 30;
constexpr std::size_t mostSearchEvaluations = 100'000;

class CurveSampler {
public:
    CurveSampler(const Program& f, const Interval& interval, const PanelMap& map, double tolerance,
                 std::stop_token stop, const Program* second)
        : f_(f), second_(second), probe_(f, map), interval_(interval), tolerance_(tolerance), stop_(std::move(stop)) {}

    CurveSamples run() {
        firstLook();
        refine();
        fillRemovable();
        for (int repair = 0; repair < mostRepairs && !stopped(); ++repair) {
            keepFewest();
            if (!checkChords()) break;
            refine();
        }
        keepFewest();
        std::size_t spent = 0;
        for (int search = 0;; ++search) {
            CurveSamples samples = collect();
            const std::vector<double> missed = certify(samples, f_, second_, probe_.map(), tolerance_, stop_);
            spent += samples.certificate.evaluations;
            samples.certificate.evaluations = spent;
            if (missed.empty() || search == mostSearches || spent > mostSearchEvaluations || stopped()) return samples;
            add(missed);
            refine();
            keepFewest();
            if (checkChords()) {
                refine();
                keepFewest();
            }
        }
    }

private:
    bool stopped() { return stop_.stop_requested() || probe_.evaluations() > mostEvaluations; }

    void firstLook() {
        const AxisMap& axis = probe_.map().x;
        const double low = interval_.lowClosed ? interval_.low : std::nextafter(interval_.low, interval_.high);
        const double high = interval_.highClosed ? interval_.high : std::nextafter(interval_.high, interval_.low);
        const double u0 = axis.toSheet(low), u1 = axis.toSheet(high);
        const double n = std::ceil(std::max(firstLeast, firstPerMillimetre * std::abs(u1 - u0)));
        std::vector<double> xs{low};
        for (double i = 1; i < n; ++i) {
            // Uneven by a fixed pattern, so that no period can hide between the points.
            const double shift = 0.3 * (std::fmod(i * std::numbers::phi, 1.0) - 0.5);
            const double x = axis.fromSheet(u0 + (u1 - u0) * (i + shift) / n);
            if (x > xs.back() && x < high) {
                if (xs.back() < 0 && x > 0) xs.push_back(0); // formulas are special at zero more than anywhere else
                xs.push_back(x);
            }
        }
        if (high > xs.back()) xs.push_back(high);
        knots_ = probe_.at(xs);
    }

    /// Which side of the panel a knot lies on: −1 below, 1 above, 0 inside (with a little room).
    int side(const Knot& knot) const {
        const double room = 1; // mm
        return knot.v < -room ? -1 : knot.v > probe_.map().y.length + room ? 1 : 0;
    }

    bool visible(const Knot& a, const Knot& b) const {
        if (b.u < -1 || a.u > probe_.map().x.length + 1) return false;
        return side(a) == 0 || side(b) == 0 || side(a) != side(b);
    }

    /// Curvature in 1/mm at the middle of three knots: 2 × distance from the chord / (product of the two lengths).
    static double curvature(const Knot& a, const Knot& b, const Knot& c) {
        const double l1 = std::hypot(b.u - a.u, b.v - a.v), l2 = std::hypot(c.u - b.u, c.v - b.v);
        const double chord = std::hypot(c.u - a.u, c.v - a.v);
        if (l1 == 0 || l2 == 0 || chord == 0) return 0;
        const double cross = std::abs((b.u - a.u) * (c.v - a.v) - (b.v - a.v) * (c.u - a.u));
        return 2 * (cross / chord) / (l1 * l2);
    }

    static bool usable(const Knot& knot) { return std::isfinite(knot.y) && std::isfinite(knot.v); }

    bool joined(std::size_t i) const {
        return i + 1 < knots_.size() && !knots_[i].gapAfter && usable(knots_[i]) && usable(knots_[i + 1]);
    }

    bool needsPoint(std::size_t i) const {
        const Knot &a = knots_[i], &b = knots_[i + 1];
        if (a.settled || !joined(i) || !visible(a, b)) return false;
        double bend = 0;
        if (i > 0 && joined(i - 1)) bend = curvature(knots_[i - 1], a, b);
        if (joined(i + 1)) bend = std::max(bend, curvature(a, b, knots_[i + 2]));
        const double length = std::hypot(b.u - a.u, b.v - a.v);
        return bend * length * length / 8 > referencePart * tolerance_ || (side(a) != 0 && side(b) != 0);
    }

    void refine() {
        for (int level = 0; level < mostLevels && !stopped(); ++level) {
            findSpecialPlaces();
            std::vector<double> xs;
            std::vector<std::size_t> after;
            for (std::size_t i = 0; i + 1 < knots_.size(); ++i) {
                if (!needsPoint(i)) continue;
                // A needle may be finer than any pen and still tall; an oscillation without end is both everywhere.
                if (knots_[i + 1].u - knots_[i].u < finest * tolerance_ && ++finePoints_ > mostFinePoints) {
                    knots_[i].settled = true;
                    continue;
                }
                const double x = middle(knots_[i], knots_[i + 1]);
                if (x > knots_[i].x && x < knots_[i + 1].x) {
                    xs.push_back(x);
                    after.push_back(i);
                } else {
                    knots_[i].settled = true;
                }
            }
            if (xs.empty()) return;
            insert(probe_.at(xs), after);
        }
    }

    double middle(const Knot& a, const Knot& b) const {
        if (probe_.map().x.kind == ScaleKind::Linear) return a.x / 2 + b.x / 2;
        return probe_.map().x.fromSheet((a.u + b.u) / 2);
    }

    void insert(const std::vector<Knot>& fresh, const std::vector<std::size_t>& after) {
        std::vector<Knot> merged;
        merged.reserve(knots_.size() + fresh.size());
        std::size_t next = 0;
        for (std::size_t i = 0; i < knots_.size(); ++i) {
            merged.push_back(knots_[i]);
            for (; next < after.size() && after[next] == i; ++next) {
                merged.push_back(fresh[next]);
                if (knots_[i].continuous && !fresh[next].gapAfter) merged.back().continuous = true;
            }
        }
        knots_ = std::move(merged);
    }

    /// Ends of the domain, jumps and poles: between neighbours one of which is undefined, or whose chord stands
    /// upright.
    void findSpecialPlaces() {
        std::vector<Knot> fresh;
        std::vector<std::size_t> after;
        for (std::size_t i = 0; i + 1 < knots_.size() && !stopped(); ++i) {
            Knot& a = knots_[i];
            const Knot& b = knots_[i + 1];
            if (a.gapAfter || a.settled || a.continuous) continue;
            const bool aGood = usable(a), bGood = usable(b);
            if (aGood != bGood) {
                Boundary boundary = aGood ? findBoundary(probe_, a, b) : findBoundary(probe_, b, a);
                Knot& inside = boundary.defined;
                const bool pole = std::isinf(boundary.undefined.y) || std::abs(inside.v) > 1e6 * probe_.map().y.length;
                inside.state = pole ? PointState::Pole : PointState::Edge;
                const GapKind kind = pole ? GapKind::Pole : GapKind::Undefined;
                if (aGood) {
                    if (inside.x == a.x) {
                        a.gapAfter = kind;
                        a.state = inside.state;
                        continue;
                    }
                    inside.gapAfter = kind;
                    fresh.push_back(inside);
                    after.push_back(i);
                } else {
                    a.gapAfter = kind;
                    if (inside.x == b.x) {
                        knots_[i + 1].state = inside.state;
                        continue;
                    }
                    fresh.push_back(inside);
                    after.push_back(i);
                }
                continue;
            }
            if (!aGood || !visible(a, b)) continue;
            if (std::abs(b.u - a.u) > tolerance_ / 2 || std::abs(b.v - a.v) < 2 * tolerance_) continue;
            SteepPlace steep = findSteepPlace(probe_, a, b, tolerance_);
            a.continuous = !steep.kind && !steep.oscillates;
            a.settled = !a.continuous;
            if (!steep.kind) continue;
            const PointState state = *steep.kind == GapKind::Pole ? PointState::Pole : PointState::Jump;
            steep.left.state = steep.right.state = state;
            steep.left.gapAfter = steep.kind;
            if (steep.left.x == a.x) {
                a.gapAfter = steep.kind;
                a.state = state;
            } else {
                fresh.push_back(steep.left);
                after.push_back(i);
            }
            if (steep.right.x == b.x) {
                knots_[i + 1].state = state;
            } else {
                fresh.push_back(steep.right);
                after.push_back(i);
            }
        }
        insert(fresh, after);
    }

    /// A gap of almost no width between two pieces that aim at the same point is a removable one: it gets the limit.
    void fillRemovable() {
        for (std::size_t i = 0; i + 1 < knots_.size(); ++i) {
            if (!usable(knots_[i]) || knots_[i].gapAfter != GapKind::Undefined) continue;
            std::size_t j = i + 1;
            while (j < knots_.size() && !usable(knots_[j])) ++j;
            if (j == knots_.size() || knots_[j].u - knots_[i].u > 1e-6) continue;
            // Beside the place rounding may spoil the values: the limit is taken from a little further away.
            const double reach = std::max(1e-3 * tolerance_, 8 * (knots_[j].u - knots_[i].u));
            // Where the values next to zero are undefined too (1/x overflows there), the place meant is zero.
            const bool aroundZero = knots_[i].x < 0 && knots_[j].x > 0;
            const double place = aroundZero ? 0 : knots_[j].u == knots_[i].u ? knots_[i].x : knots_[i + 1].x;
            const auto limit = [&](double direction) {
                const Knot one = probe_.at(probe_.map().x.fromSheet(probe_.map().x.toSheet(place) + direction * reach));
                const Knot two =
                    probe_.at(probe_.map().x.fromSheet(probe_.map().x.toSheet(place) + direction * 2 * reach));
                return 2 * one.y - two.y;
            };
            const double left = limit(-1), right = limit(1);
            const double away = std::abs(probe_.map().y.toSheet(left) - probe_.map().y.toSheet(right));
            if (!(away < tolerance_)) continue;
            Knot filled;
            filled.x = place;
            filled.y = left / 2 + right / 2;
            filled.u = probe_.map().x.toSheet(place);
            filled.v = probe_.map().y.toSheet(filled.y);
            filled.state = PointState::Filled;
            // Nothing nearer than the reach is kept beside it, nor a jump that rounding feigned there.
            std::size_t first = i + 1, last = j;
            while (first > 0 && filled.u - knots_[first - 1].u < reach) --first;
            while (last < knots_.size() && knots_[last].u - filled.u < reach) ++last;
            knots_.erase(knots_.begin() + static_cast<std::ptrdiff_t>(first),
                         knots_.begin() + static_cast<std::ptrdiff_t>(last));
            knots_.insert(knots_.begin() + static_cast<std::ptrdiff_t>(first), filled);
            if (first > 0) knots_[first - 1].gapAfter.reset();
            i = first;
        }
    }

    /// Chooses the knots to keep, piece by piece; `kept_` are indices into `knots_`.
    void keepFewest() {
        kept_.clear();
        std::size_t begin = 0;
        while (begin < knots_.size()) {
            if (!usable(knots_[begin])) {
                ++begin;
                continue;
            }
            std::size_t end = begin;
            while (joined(end)) ++end;
            keepPiece(begin, end + 1);
            begin = end + 1;
        }
    }

    void keepPiece(std::size_t begin, std::size_t end) {
        std::vector<std::size_t> seen;
        for (std::size_t i = begin; i < end; ++i) {
            // Of a run outside the panel only the ends matter: the line between them stays outside.
            const bool inRun = i > begin && i + 1 < end && side(knots_[i]) != 0 &&
                               side(knots_[i - 1]) == side(knots_[i]) && side(knots_[i + 1]) == side(knots_[i]);
            if (!inRun) seen.push_back(i);
        }
        std::vector<Knot> piece;
        for (const std::size_t i : seen) piece.push_back(knots_[i]);
        std::vector<bool> keep(piece.size(), false);
        for (const std::size_t k : fewestKnots(piece, chordPart * tolerance_)) keep[k] = true;
        for (std::size_t k = 0; k < piece.size(); ++k) {
            if (keep[k] || piece[k].state != PointState::Estimated) kept_.push_back(seen[k]);
        }
    }

    /// Takes in points at places between the knots.
    void add(const std::vector<double>& places) {
        std::vector<Knot> fresh;
        std::vector<std::size_t> after;
        for (const Knot& knot : probe_.at(places)) {
            const auto next = std::ranges::upper_bound(knots_, knot.x, {}, &Knot::x);
            if (next == knots_.begin() || next == knots_.end()) continue;
            const auto i = static_cast<std::size_t>(next - knots_.begin()) - 1;
            if (knots_[i].x == knot.x) continue;
            knots_[i].settled = false;
            fresh.push_back(knot);
            after.push_back(i);
        }
        insert(fresh, after);
    }

    /// Looks at two further points of every kept chord; adds those that lie too far off. Returns whether there were
    /// any.
    bool checkChords() {
        std::vector<double> xs;
        std::vector<std::size_t> chord;
        for (std::size_t k = 0; k + 1 < kept_.size(); ++k) {
            const Knot &a = knots_[kept_[k]], &b = knots_[kept_[k + 1]];
            if (brokenBetween(kept_[k], kept_[k + 1]) || !visible(a, b) || b.u - a.u < tolerance_) continue;
            for (const double part : {0.29, 0.64}) {
                const double x = a.x + part * (b.x - a.x);
                if (x > a.x && x < b.x) {
                    xs.push_back(x);
                    chord.push_back(k);
                }
            }
        }
        const std::vector<Knot> extra = probe_.at(xs);
        std::vector<Knot> wrong;
        std::vector<std::size_t> after;
        for (std::size_t e = 0; e < extra.size(); ++e) {
            const Knot &a = knots_[kept_[chord[e]]], &b = knots_[kept_[chord[e] + 1]];
            if (distanceFromChord(extra[e], a, b) <= 0.97 * tolerance_) continue;
            if (usable(extra[e]) && side(extra[e]) != 0 && side(extra[e]) == side(a) && side(a) == side(b)) continue;
            std::size_t i = kept_[chord[e]];
            while (knots_[i + 1].x < extra[e].x) ++i;
            if (knots_[i].x == extra[e].x || knots_[i + 1].x == extra[e].x) continue;
            knots_[i].settled = false;
            wrong.push_back(extra[e]);
            after.push_back(i);
        }
        insert(wrong, after);
        return !wrong.empty();
    }

    bool brokenBetween(std::size_t from, std::size_t to) const {
        for (std::size_t i = from; i < to; ++i) {
            if (!joined(i)) return true;
        }
        return false;
    }

    CurveSamples collect() {
        CurveSamples samples;
        samples.evaluations = probe_.evaluations();
        samples.finished = !stopped();
        std::optional<std::size_t> previous;
        for (const std::size_t i : kept_) {
            if (!previous || brokenBetween(*previous, i)) {
                if (previous)
                    samples.gaps.push_back(gapBetween(*previous, i));
                else if (i > 0)
                    samples.gaps.push_back(
                        {knots_[0].x, knots_[i].x, knots_[i - 1].gapAfter.value_or(GapKind::Undefined)});
                samples.stretches.emplace_back();
            }
            Stretch& stretch = samples.stretches.back();
            stretch.x.push_back(knots_[i].x);
            stretch.y.push_back(knots_[i].y);
            stretch.state.push_back(knots_[i].state);
            previous = i;
        }
        if (!previous && !knots_.empty())
            samples.gaps.push_back({knots_.front().x, knots_.back().x, GapKind::Undefined});
        if (previous && *previous + 1 < knots_.size()) {
            samples.gaps.push_back(
                {knots_[*previous].x, knots_.back().x, knots_[*previous].gapAfter.value_or(GapKind::Undefined)});
        }
        return samples;
    }

    /// The strongest reason for a break wins: a pole over a jump over a stretch without values.
    Gap gapBetween(std::size_t from, std::size_t to) const {
        Gap gap{knots_[from].x, knots_[to].x, GapKind::Undefined};
        for (std::size_t i = from; i < to; ++i) {
            if (knots_[i].gapAfter == GapKind::Pole)
                gap.kind = GapKind::Pole;
            else if (knots_[i].gapAfter == GapKind::Jump && gap.kind == GapKind::Undefined)
                gap.kind = GapKind::Jump;
        }
        return gap;
    }

    const Program& f_;
    const Program* second_;
    CurveProbe probe_;
    Interval interval_;
    double tolerance_;
    std::stop_token stop_;
    std::vector<Knot> knots_;
    std::vector<std::size_t> kept_;
    std::size_t finePoints_ = 0;
};

} // namespace

Knot CurveProbe::place(double x, double y) const {
    Knot knot;
    knot.x = x;
    knot.y = y;
    knot.u = map_.x.toSheet(x);
    knot.v = map_.y.toSheet(y);
    // Far outside, a millimetre more or less means nothing, and products of huge lengths would overflow.
    constexpr double farOut = 1e12;
    if (std::isfinite(y)) knot.v = std::clamp(knot.v, -farOut, farOut);
    return knot;
}

Knot CurveProbe::at(double x) {
    ++evaluations_;
    return place(x, evaluator_(x));
}

std::vector<Knot> CurveProbe::at(std::span<const double> xs) {
    std::vector<double> ys(xs.size());
    evaluator_(xs.data(), ys.data(), xs.size());
    evaluations_ += xs.size();
    std::vector<Knot> knots(xs.size());
    for (std::size_t i = 0; i < xs.size(); ++i) knots[i] = place(xs[i], ys[i]);
    return knots;
}

CurveSamples sampleCurve(const Program& f, const Interval& interval, const PanelMap& map, double tolerance,
                         std::stop_token stop, const Program* second) {
    return CurveSampler(f, interval, map, tolerance, std::move(stop), second).run();
}

CurveSamples sampleAtPoints(const Program& f, std::span<const double> points) {
    std::vector<double> values(points.size());
    Evaluator evaluator(f);
    evaluator(points.data(), values.data(), points.size());
    CurveSamples samples;
    samples.evaluations = points.size();
    bool open = false;
    for (std::size_t i = 0; i < points.size(); ++i) {
        if (!std::isfinite(values[i])) {
            if (open || i == 0)
                samples.gaps.push_back({points[i], points[i], GapKind::Undefined});
            else if (!samples.gaps.empty())
                samples.gaps.back().high = points[i];
            open = false;
            continue;
        }
        if (!open) samples.stretches.emplace_back();
        open = true;
        samples.stretches.back().x.push_back(points[i]);
        samples.stretches.back().y.push_back(values[i]);
        samples.stretches.back().state.push_back(PointState::Grid);
    }
    return samples;
}

} // namespace coulter
