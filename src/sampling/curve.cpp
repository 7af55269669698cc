#include "sampling/curve.h"

#include "formula/proofs/jet_evaluator.h"
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
/// Chords shorter than this part of the tolerance along the sheet are split only so many times in all.
constexpr double finest = 0.05;
constexpr double mostFinePoints = 20'000;
/// A dear formula gets fewer of those, for so many operations of arithmetic in all.
constexpr double mostFineOperations = 5e5;
/// And so many steep places are looked into that turn out to be no jump and no pole; the rest is taken to be like them.
constexpr double mostFruitless = 50'000;
constexpr double mostFruitlessOperations = 5e5;
constexpr int mostLevels = 60;
constexpr int mostRepairs = 4;
/// Rounds of sampling what the proof found between the points.
constexpr int mostSearches = 30;
/// A border between pieces is a corner where the curve turns by more than this, in radians.
constexpr double cornerTurn = 0.02;
/// Without more points asked for, a finer stretch has one every so many mm, divided by its factor.
constexpr double usualDistance = 8;

/// Millimetres along the parameter: of a function those of its horizontal scale, of a plane curve as if it went half
/// round the panel.
AxisMap alongParameter(const Program& f, const Interval& interval, const PanelMap& map) {
    if (f.outputs.size() == 1) return map.x;
    return {ScaleKind::Linear, interval.low, interval.high, map.x.length + map.y.length};
}

class CurveSampler {
public:
    CurveSampler(const Program& f, const Interval& interval, const PanelMap& map, const Tolerance& tolerance,
                 std::stop_token stop, const CurveEffort& effort)
        : f_(f), effort_(effort), probe_(f, map, alongParameter(f, interval, map)), interval_(interval),
          tolerance_(tolerance), stop_(std::move(stop)),
          finePointsAllowed_(static_cast<std::size_t>(std::min(mostFinePoints, mostFineOperations / costOf(f)))),
          fruitlessAllowed_(static_cast<std::size_t>(std::min(mostFruitless, mostFruitlessOperations / costOf(f)))) {
        probe_.limit(stop_);
    }

    CurveSamples run() {
        firstLook();
        refine();
        fillRemovable();
        keepFewest();
        if (effort_.proofs == Proofs::All) return proven();
        for (int repair = 0; repair < mostRepairs && !stopped() && checkChords(); ++repair) {
            refine();
            keepFewest();
        }
        return collect();
    }

private:
    /// Proves what can be proven and checks the rest at further points, until neither finds a fault any more.
    CurveSamples proven() {
        ProofEffort effort = ProofEffort::of(f_, effort_.mostProofOperations);
        effort.integrals = effort_.integrals;
        effort.watch = effort_.watch;
        const std::size_t all = effort.evaluationsLeft;
        for (int search = 0;; ++search) {
            CurveSamples samples = collect();
            const std::vector<double> missed =
                certify(samples, f_, probe_.map(), tolerance_, effort, stop_, &provenChords_);
            samples.certificate.evaluations = all - effort.evaluationsLeft;
            if (search == mostSearches || stopped()) return samples;
            const bool wrong = search < mostRepairs && checkChords();
            if (missed.empty() && !wrong) return samples;
            add(missed);
            refine();
            keepFewest();
        }
    }

    bool stopped() { return stop_.stop_requested() || probe_.evaluations() > effort_.mostEvaluations; }

    void firstLook() {
        const AxisMap& axis = probe_.along();
        const double low = interval_.lowClosed ? interval_.low : std::nextafter(interval_.low, interval_.high);
        const double high = interval_.highClosed ? interval_.high : std::nextafter(interval_.high, interval_.low);
        const double w0 = axis.toSheet(low), w1 = axis.toSheet(high);
        const double n = std::ceil(std::max(firstLeast, firstPerMillimetre * std::abs(w1 - w0)));
        std::vector<double> ts{low};
        for (double i = 1; i < n; ++i) {
            // Uneven by a fixed pattern, so that no period can hide between the points.
            const double shift = 0.3 * (std::fmod(i * std::numbers::phi, 1.0) - 0.5);
            const double t = axis.fromSheet(w0 + (w1 - w0) * (i + shift) / n);
            if (t > ts.back() && t < high) {
                if (ts.back() < 0 && t > 0) ts.push_back(0); // formulas are special at zero more than anywhere else
                ts.push_back(t);
            }
        }
        if (high > ts.back()) ts.push_back(high);
        knots_ = probe_.at(ts);
        fixBorders(PieceFinder(f_)(ts, {}, stop_));
        for (const FinerStretch& finer : tolerance_.finer) {
            for (const double end : {finer.low, finer.high}) fix(end, PointState::Estimated);
        }
    }

    /// Makes a place a knot at which chords end.
    void fix(double t, PointState state) {
        const auto next = std::ranges::lower_bound(knots_, t, {}, &Knot::t);
        if (next == knots_.end() || (next == knots_.begin() && next->t != t)) return;
        Knot knot = next->t == t ? *next : probe_.at(t);
        if (!knot.usable()) return;
        if (state != PointState::Estimated) knot.state = state; // what is known of a place stays known
        knot.fixed = true;
        if (next->t == t)
            *next = knot;
        else
            knots_.insert(next, knot);
    }

    /// Knots where the formula changes its piece: one where the curve goes on, both sides where it may not.
    void fixBorders(const std::vector<PieceBorder>& borders) {
        for (const PieceBorder& border : borders) {
            if (stopped()) return;
            const Knot before = probe_.at(border.before), after = probe_.at(border.after);
            if (before.usable() && after.usable() && apart(before, after) < tolerance_.at(border.before) / 2) {
                fix(simpler(border.before, border.after),
                    turnsAt(before, after) ? PointState::Corner : PointState::Border);
            } else {
                add({border.before, border.after});
            }
        }
    }

    /// Whether the curve's directions a little before and after a place differ.
    bool turnsAt(const Knot& before, const Knot& after) {
        const double reach = 0.1 * tolerance_.usual;
        const AxisMap& axis = probe_.along();
        const Knot left = probe_.at(axis.fromSheet(before.w - reach)),
                   right = probe_.at(axis.fromSheet(after.w + reach));
        if (!left.usable() || !right.usable()) return false;
        const double u1 = before.u - left.u, v1 = before.v - left.v, u2 = right.u - after.u, v2 = right.v - after.v;
        return std::abs(std::atan2(u1 * v2 - v1 * u2, u1 * u2 + v1 * v2)) > cornerTurn;
    }

    unsigned side(const Knot& knot) const { return outerSides(knot, probe_.map()); }
    bool visible(const Knot& a, const Knot& b) const { return (side(a) & side(b)) == 0; }

    /// Curvature in 1/mm at the middle of three knots: 2 × distance from the chord / (product of the two lengths).
    static double curvature(const Knot& a, const Knot& b, const Knot& c) {
        const double l1 = std::hypot(b.u - a.u, b.v - a.v), l2 = std::hypot(c.u - b.u, c.v - b.v);
        const double chord = std::hypot(c.u - a.u, c.v - a.v);
        if (l1 == 0 || l2 == 0 || chord == 0) return 0;
        const double cross = std::abs((b.u - a.u) * (c.v - a.v) - (b.v - a.v) * (c.u - a.u));
        return 2 * (cross / chord) / (l1 * l2);
    }

    bool joined(std::size_t i) const {
        return i + 1 < knots_.size() && !knots_[i].gapAfter && knots_[i].usable() && knots_[i + 1].usable();
    }

    bool needsPoint(std::size_t i) const {
        const Knot &a = knots_[i], &b = knots_[i + 1];
        if (a.settled || a.calm || !joined(i) || !visible(a, b)) return false;
        double bend = 0;
        if (i > 0 && joined(i - 1)) bend = curvature(knots_[i - 1], a, b);
        if (joined(i + 1)) bend = std::max(bend, curvature(a, b, knots_[i + 2]));
        const double length = std::hypot(b.u - a.u, b.v - a.v);
        const double tolerance = tolerance_.at(a.t);
        if (const FinerStretch* finer = tolerance_.finerAt(a.t); finer && length > usualDistance / finer->times / 3)
            return true;
        return bend * length * length / 8 > referencePart * tolerance || (side(a) != 0 && side(b) != 0);
    }

    void refine() {
        for (int level = 0; level < mostLevels && !stopped(); ++level) {
            findSpecialPlaces();
            std::vector<double> ts;
            std::vector<std::size_t> after;
            for (std::size_t i = 0; i + 1 < knots_.size(); ++i) {
                if (!needsPoint(i)) {
                    knots_[i].calm = true;
                    continue;
                }
                // A needle may be finer than any pen and still tall; an oscillation without end is both everywhere.
                if (knots_[i + 1].w - knots_[i].w < finest * tolerance_.usual && ++finePoints_ > finePointsAllowed_) {
                    knots_[i].settled = knots_[i].unresolved = true;
                    continue;
                }
                const double t = middle(knots_[i], knots_[i + 1]);
                if (t > knots_[i].t && t < knots_[i + 1].t) {
                    ts.push_back(t);
                    after.push_back(i);
                } else {
                    knots_[i].settled = true;
                }
            }
            if (ts.empty()) return;
            insert(probe_.at(ts), after);
        }
    }

    double middle(const Knot& a, const Knot& b) const {
        if (probe_.along().kind == ScaleKind::Linear) return a.t / 2 + b.t / 2;
        return probe_.along().fromSheet((a.w + b.w) / 2);
    }

    void insert(const std::vector<Knot>& fresh, const std::vector<std::size_t>& after) {
        for (const std::size_t i : after) { // the curvature beside a new point is another one
            for (std::size_t k = i == 0 ? 0 : i - 1; k <= i + 1 && k < knots_.size(); ++k) knots_[k].calm = false;
        }
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
            const bool aGood = a.usable(), bGood = b.usable();
            if (aGood != bGood) {
                const Boundary boundary = aGood ? findBoundary(probe_, a, b) : findBoundary(probe_, b, a);
                Knot inside = boundary.defined;
                const Knot& outside = boundary.undefined;
                const double far = 1e6 * std::max(probe_.map().x.length, probe_.map().y.length);
                const bool pole = std::isinf(outside.x) || std::isinf(outside.y) || std::abs(inside.v) > far ||
                                  std::abs(inside.u) > far;
                inside.state = pole ? PointState::Pole : PointState::Edge;
                const GapKind kind = pole ? GapKind::Pole : GapKind::Undefined;
                if (aGood) {
                    inside.gapAfter = kind;
                } else {
                    a.gapAfter = kind;
                }
                place(inside, i, fresh, after);
                continue;
            }
            if (!aGood || !visible(a, b)) continue;
            const double tolerance = tolerance_.at(a.t);
            if (std::abs(b.w - a.w) > tolerance / 2 || apart(a, b) < 2 * tolerance) continue;
            if (fruitless_ > fruitlessAllowed_) {
                a.continuous = true;
                continue;
            }
            SteepPlace steep = findSteepPlace(probe_, a, b, tolerance);
            fruitless_ += !steep.kind;
            a.continuous = !steep.kind && !steep.oscillates;
            a.settled = !a.continuous;
            a.unresolved = steep.oscillates;
            if (!steep.kind) continue;
            steep.left.state = steep.right.state = *steep.kind == GapKind::Pole ? PointState::Pole : PointState::Jump;
            steep.left.gapAfter = steep.kind;
            place(steep.left, i, fresh, after);
            place(steep.right, i, fresh, after);
        }
        insert(fresh, after);
    }

    /// Takes in what was found between knot i and the next, unless it is one of the two.
    void place(const Knot& found, std::size_t i, std::vector<Knot>& fresh, std::vector<std::size_t>& after) {
        for (const std::size_t k : {i, i + 1}) {
            if (found.t != knots_[k].t) continue;
            knots_[k].state = found.state;
            if (found.gapAfter) knots_[k].gapAfter = found.gapAfter;
            return;
        }
        fresh.push_back(found);
        after.push_back(i);
    }

    /// A gap of almost no width between two pieces that aim at the same point is a removable one: it gets the limit.
    void fillRemovable() {
        for (std::size_t i = 0; i + 1 < knots_.size(); ++i) {
            if (!knots_[i].usable() || knots_[i].gapAfter != GapKind::Undefined) continue;
            std::size_t j = i + 1;
            while (j < knots_.size() && !knots_[j].usable()) ++j;
            if (j == knots_.size() || knots_[j].w - knots_[i].w > 1e-6) continue;
            // Beside the place rounding may spoil the values: the limit is taken from a little further away.
            const double reach = std::max(1e-3 * tolerance_.usual, 8 * (knots_[j].w - knots_[i].w));
            // Where the values next to zero are undefined too (1/x overflows there), the place meant is zero.
            const bool aroundZero = knots_[i].t < 0 && knots_[j].t > 0;
            const double here = aroundZero ? 0 : knots_[j].w == knots_[i].w ? knots_[i].t : knots_[i + 1].t;
            const AxisMap& axis = probe_.along();
            const PanelMap& map = probe_.map();
            const auto limit = [&](double direction) {
                const Knot one = probe_.at(axis.fromSheet(axis.toSheet(here) + direction * reach));
                const Knot two = probe_.at(axis.fromSheet(axis.toSheet(here) + direction * 2 * reach));
                return std::pair{2 * one.x - two.x, 2 * one.y - two.y};
            };
            const auto left = limit(-1), right = limit(1);
            Knot filled;
            filled.t = here;
            filled.w = axis.toSheet(here);
            filled.x = probe_.isFunction() ? here : left.first / 2 + right.first / 2;
            filled.y = left.second / 2 + right.second / 2;
            filled.u = map.x.toSheet(filled.x);
            filled.v = map.y.toSheet(filled.y);
            filled.state = PointState::Filled;
            const double away =
                std::hypot(probe_.isFunction() ? 0 : map.x.toSheet(left.first) - map.x.toSheet(right.first),
                           map.y.toSheet(left.second) - map.y.toSheet(right.second));
            if (!(away < tolerance_.usual) || !filled.usable()) continue;
            // Nothing nearer than the reach is kept beside it, nor a jump that rounding feigned there.
            std::size_t first = i + 1, last = j;
            while (first > 0 && filled.w - knots_[first - 1].w < reach) --first;
            while (last < knots_.size() && knots_[last].w - filled.w < reach) ++last;
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
            if (!knots_[begin].usable()) {
                ++begin;
                continue;
            }
            std::size_t end = begin;
            while (joined(end)) {
                ++end;
                if (!knots_[end].fixed || !joined(end)) continue;
                keepPiece(begin, end + 1); // what is fixed ends this chord and begins the next
                kept_.pop_back();
                begin = end;
            }
            keepPiece(begin, end + 1);
            begin = end + 1;
        }
    }

    void keepPiece(std::size_t begin, std::size_t end) {
        std::vector<std::size_t> seen;
        for (std::size_t i = begin; i < end; ++i) {
            // Of a run outside the panel only the ends matter: the line between them stays outside.
            const unsigned here = side(knots_[i]);
            const bool inRun =
                i > begin && i + 1 < end && here != 0 && side(knots_[i - 1]) == here && side(knots_[i + 1]) == here;
            if (!inRun) seen.push_back(i);
        }
        std::vector<Knot> piece;
        for (const std::size_t i : seen) piece.push_back(knots_[i]);
        std::vector<bool> keep(piece.size(), false);
        const double at = piece.front().t;
        const FinerStretch* finer = tolerance_.finerAt(at);
        const double longest = finer ? usualDistance / finer->times : 1e300;
        for (const std::size_t k : fewestKnots(piece, chordPart * tolerance_.at(at), longest)) keep[k] = true;
        for (std::size_t k = 0; k < piece.size(); ++k) {
            if (keep[k] || piece[k].state != PointState::Estimated) kept_.push_back(seen[k]);
        }
    }

    /// Takes in points at places between the knots.
    void add(const std::vector<double>& places) {
        std::vector<Knot> fresh;
        std::vector<std::size_t> after;
        for (const Knot& knot : probe_.at(places)) {
            const auto next = std::ranges::upper_bound(knots_, knot.t, {}, &Knot::t);
            if (next == knots_.begin() || next == knots_.end()) continue;
            const auto i = static_cast<std::size_t>(next - knots_.begin()) - 1;
            if (knots_[i].t == knot.t) continue;
            knots_[i].settled = false;
            fresh.push_back(knot);
            after.push_back(i);
        }
        insert(fresh, after);
    }

    /// Looks at two further points of every kept chord that is not proven; adds those that lie too far off. Returns
    /// whether there were any.
    bool checkChords() {
        std::vector<double> ts;
        std::vector<std::size_t> chord;
        for (std::size_t k = 0; k + 1 < kept_.size(); ++k) {
            const Knot &a = knots_[kept_[k]], &b = knots_[kept_[k + 1]];
            if (brokenBetween(kept_[k], kept_[k + 1]) || !visible(a, b) || b.w - a.w < tolerance_.usual) continue;
            if (provenChords_.contains({a.t, b.t})) continue;
            for (const double part : {0.29, 0.64}) {
                const double t = a.t + part * (b.t - a.t);
                if (t > a.t && t < b.t) {
                    ts.push_back(t);
                    chord.push_back(k);
                }
            }
        }
        const std::vector<Knot> extra = probe_.at(ts);
        std::vector<Knot> wrong;
        std::vector<std::size_t> after;
        for (std::size_t e = 0; e < extra.size(); ++e) {
            const Knot &a = knots_[kept_[chord[e]]], &b = knots_[kept_[chord[e] + 1]];
            if (distanceFromChord(extra[e], a, b) <= 0.97 * tolerance_.at(a.t)) continue;
            if (extra[e].usable() && (side(extra[e]) & side(a) & side(b)) != 0) continue;
            std::size_t i = kept_[chord[e]];
            while (knots_[i + 1].t < extra[e].t) ++i;
            if (knots_[i].t == extra[e].t || knots_[i + 1].t == extra[e].t) continue;
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
        samples.tooDear =
            probe_.evaluations() > effort_.mostEvaluations && effort_.mostEvaluations < CurveEffort{}.mostEvaluations;
        std::optional<std::size_t> previous;
        for (const std::size_t i : kept_) {
            if (!previous || brokenBetween(*previous, i)) {
                if (previous)
                    samples.gaps.push_back(gapBetween(*previous, i));
                else if (i > 0)
                    samples.gaps.push_back(
                        {knots_[0].t, knots_[i].t, knots_[i - 1].gapAfter.value_or(GapKind::Undefined)});
                samples.stretches.emplace_back();
            }
            Stretch& stretch = samples.stretches.back();
            stretch.t.push_back(knots_[i].t);
            stretch.x.push_back(knots_[i].x);
            stretch.y.push_back(knots_[i].y);
            stretch.state.push_back(knots_[i].state);
            previous = i;
        }
        if (!previous && !knots_.empty())
            samples.gaps.push_back({knots_.front().t, knots_.back().t, GapKind::Undefined});
        if (previous && *previous + 1 < knots_.size()) {
            samples.gaps.push_back(
                {knots_[*previous].t, knots_.back().t, knots_[*previous].gapAfter.value_or(GapKind::Undefined)});
        }
        collectBands(samples);
        return samples;
    }

    void collectBands(CurveSamples& samples) const {
        std::vector<Band> unresolved;
        for (std::size_t i = 0; i + 1 < knots_.size(); ++i) {
            if (knots_[i].unresolved && visible(knots_[i], knots_[i + 1]))
                unresolved.push_back({knots_[i].t, knots_[i + 1].t});
        }
        samples.bands = findBands(samples, probe_.map(), probe_.along(), std::move(unresolved));
    }

    /// The strongest reason for a break wins: a pole over a jump over a stretch without values.
    Gap gapBetween(std::size_t from, std::size_t to) const {
        Gap gap{knots_[from].t, knots_[to].t, GapKind::Undefined};
        for (std::size_t i = from; i < to; ++i) {
            if (knots_[i].gapAfter == GapKind::Pole)
                gap.kind = GapKind::Pole;
            else if (knots_[i].gapAfter == GapKind::Jump && gap.kind == GapKind::Undefined)
                gap.kind = GapKind::Jump;
        }
        return gap;
    }

    const Program& f_;
    const CurveEffort& effort_;
    CurveProbe probe_;
    Interval interval_;
    Tolerance tolerance_;
    std::stop_token stop_;
    std::vector<Knot> knots_;
    std::vector<std::size_t> kept_;
    ProvenChords provenChords_;
    std::size_t finePoints_ = 0, finePointsAllowed_;
    std::size_t fruitless_ = 0, fruitlessAllowed_;
};

} // namespace

CurveSamples sampleCurve(const Program& f, const Interval& interval, const PanelMap& map, const Tolerance& tolerance,
                         std::stop_token stop, const CurveEffort& effort) {
    return CurveSampler(f, interval, map, tolerance, std::move(stop), effort).run();
}

} // namespace coulter
