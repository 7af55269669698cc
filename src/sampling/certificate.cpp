#include "sampling/certificate.h"

#include "formula/enclosure.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <optional>

namespace coulter {
namespace {

/// Parts that one chord may be divided into, and evaluations over intervals for a whole curve.
constexpr int mostParts = 256;
constexpr std::size_t mostEvaluations = 60'000;

/// All values between two, in mm.
struct Range {
    double low = 0, high = 0;
    double largest() const { return std::max(std::abs(low), std::abs(high)); }
    friend Range operator+(Range a, Range b) { return {a.low + b.low, a.high + b.high}; }
    friend Range operator*(double k, Range a) {
        return k < 0 ? Range{k * a.high, k * a.low} : Range{k * a.low, k * a.high};
    }
};

/// Where the curve is over a part of its parameter, or how it bends there: along both axes of the sheet.
struct Bounds {
    Range u, v;
};

/// A chord on the sheet, in mm.
struct Chord {
    double p = 0, q = 0; ///< the parameter at both ends, in the coordinate that the proof runs along
    double ua = 0, va = 0, ub = 0, vb = 0;
    double length = 0;
    double du = 0, dv = 0; ///< its direction, of length 1
    double slack = 0;      ///< mm that rounding in all this may make
    double tolerance = 0;

    /// How far along the chord something is, and how far to its left, seen from its start.
    Range along(const Bounds& at) const {
        return du * Range{at.u.low - ua, at.u.high - ua} + dv * Range{at.v.low - va, at.v.high - va};
    }
    Range across(const Bounds& at) const {
        return -dv * Range{at.u.low - ua, at.u.high - ua} + du * Range{at.v.low - va, at.v.high - va};
    }

    /// Largest distance from the chord of what is so far along and across.
    double distance(Range along, Range across) const {
        return std::hypot(across.largest(), std::max({0.0, -along.low, along.high - length})) + slack;
    }
    double distance(double u, double v) const {
        const double t = std::clamp(du * (u - ua) + dv * (v - va), 0.0, length);
        return std::hypot(u - ua - t * du, v - va - t * dv);
    }
    /// The same for a whole box: distance from a chord is convex, so it is largest at a corner.
    double distance(const Bounds& box) const {
        return std::max({distance(box.u.low, box.v.low), distance(box.u.low, box.v.high),
                         distance(box.u.high, box.v.low), distance(box.u.high, box.v.high)}) +
               slack;
    }
};

/// From a coordinate of the user to mm, through the coordinate of the scale in which programs of proofs are written.
struct Scale {
    explicit Scale(const AxisMap& map)
        : logarithmic(map.kind == ScaleKind::Logarithmic), low(of(map.low)), length(map.length),
          perUnit(map.length / (of(map.high) - of(map.low))) {}
    bool logarithmic;
    double low, length, perUnit;

    double of(double coordinate) const { return logarithmic ? std::log(coordinate) : coordinate; }
    double toSheet(double scaled) const { return (scaled - low) * perUnit; }
    Range toSheet(const Enclosure& scaled) const {
        const double a = toSheet(scaled.low), b = toSheet(scaled.high);
        return {std::min(a, b), std::max(a, b)};
    }
};

bool isSpecial(PointState state) { return state != PointState::Estimated && state != PointState::Grid; }

class Certifier {
public:
    Certifier(const ProofPrograms& proof, const PanelMap& map, const Tolerance& tolerance, std::stop_token stop,
              ProvenChords* known)
        : function_(proof.position->outputs.size() == 1), position_(*proof.position), x_(map.x), y_(map.y),
          tolerance_(tolerance), stop_(std::move(stop)), known_(known) {
        if (proof.bend) bend_.emplace(*proof.bend);
    }

    std::vector<double> run(CurveSamples& samples) {
        for (Stretch& stretch : samples.stretches) {
            stretch.proven.assign(stretch.x.empty() ? 0 : stretch.x.size() - 1, false);
            for (std::size_t i = 0; i + 1 < stretch.x.size(); ++i) {
                const Chord chord = makeChord(stretch, i);
                const double length = visibleLength(chord);
                if (length == 0) continue;
                samples.certificate.length += length;
                if (evaluations_ > mostEvaluations || stop_.stop_requested()) continue;
                const std::optional<double> bound = proveOnce(chord, {stretch.t[i], stretch.t[i + 1]});
                if (!bound) continue;
                stretch.proven[i] = true;
                samples.certificate.provenLength += length;
                samples.certificate.largestBound = std::max(samples.certificate.largestBound, *bound);
            }
        }
        samples.certificate.evaluations = evaluations_;
        if (function_ && x_.logarithmic) {
            for (double& place : wrong_) place = std::exp(place);
        }
        return std::move(wrong_);
    }

private:
    struct Part {
        double p, q;
        std::optional<Bounds> atP, atQ;
    };

    Chord makeChord(const Stretch& stretch, std::size_t i) const {
        Chord c;
        const auto parameter = [&](double t) { return function_ ? x_.of(t) : t; };
        c.p = parameter(stretch.t[i]);
        c.q = parameter(stretch.t[i + 1]);
        const double blur = std::max(
            64 * std::numeric_limits<double>::epsilon() * std::max(std::abs(c.p), std::abs(c.q)), 1e-14 * (c.q - c.p));
        c.ua = x_.toSheet(x_.of(stretch.x[i]));
        c.va = y_.toSheet(y_.of(stretch.y[i]));
        c.ub = x_.toSheet(x_.of(stretch.x[i + 1]));
        c.vb = y_.toSheet(y_.of(stretch.y[i + 1]));
        if (c.q - c.p > 4 * blur) {
            if (isSpecial(stretch.state[i])) c.p += blur;
            if (isSpecial(stretch.state[i + 1])) c.q -= blur;
        }
        c.length = std::hypot(c.ub - c.ua, c.vb - c.va);
        c.du = c.length > 0 ? (c.ub - c.ua) / c.length : 1;
        c.dv = c.length > 0 ? (c.vb - c.va) / c.length : 0;
        c.slack = 1e-9 + 1e-14 * (std::abs(c.ua) + std::abs(c.va) + std::abs(c.ub) + std::abs(c.vb) +
                                  std::abs(x_.low * x_.perUnit) + std::abs(y_.low * y_.perUnit));
        c.tolerance = tolerance_.at(stretch.t[i]);
        return c;
    }

    /// Length in mm of what of the chord is inside the panel.
    double visibleLength(const Chord& c) const {
        double from = 0, to = c.length;
        const auto clip = [&](double start, double direction, double limit) {
            if (direction == 0) {
                if (start < 0 || start > limit) to = -1;
                return;
            }
            const double a = -start / direction, b = (limit - start) / direction;
            from = std::max(from, std::min(a, b));
            to = std::min(to, std::max(a, b));
        };
        clip(c.ua, c.du, x_.length);
        clip(c.va, c.dv, y_.length);
        return to > from && std::isfinite(c.length) ? to - from : 0;
    }

    /// Where the curve is over a part of its parameter, if that is certain and it is continuous there.
    std::optional<Bounds> over(double p, double q) {
        ++evaluations_;
        const Enclosure part{p, q};
        const auto found = position_(std::span(&part, 1));
        if (!found.back().isProof() || !found.front().isProof()) return std::nullopt;
        return Bounds{x_.toSheet(function_ ? part : found[0]), y_.toSheet(found.back())};
    }

    /// Second derivatives over a part, in mm per unit squared of the parameter.
    std::optional<Bounds> bendOver(double p, double q) {
        if (!bend_) return std::nullopt;
        ++evaluations_;
        const Enclosure part{p, q};
        const auto found = (*bend_)(std::span(&part, 1));
        if (!found.back().isProof() || !found.front().isProof()) return std::nullopt;
        const auto range = [](const Scale& scale, const Enclosure& e) { return scale.perUnit * Range{e.low, e.high}; };
        return Bounds{function_ ? Range{} : range(x_, found[0]), range(y_, found.back())};
    }

    /// Whether both the curve and the chord stay on one outer side of the panel over a part.
    bool outside(const Chord& c, const Bounds& box, const Part& part) const {
        double from = 0, to = c.length;
        if (function_) { // then the chord's own part is known
            from = c.length * std::clamp((part.p - c.p) / (c.q - c.p), 0.0, 1.0);
            to = c.length * std::clamp((part.q - c.p) / (c.q - c.p), 0.0, 1.0);
        }
        const auto beyond = [](Range curve, double a, double b, double length) {
            return (curve.low > length && std::min(a, b) > length) || (curve.high < 0 && std::max(a, b) < 0);
        };
        return beyond(box.v, c.va + from * c.dv, c.va + to * c.dv, y_.length) ||
               beyond(box.u, c.ua + from * c.du, c.ua + to * c.du, x_.length);
    }

    std::optional<double> proveOnce(const Chord& chord, const std::pair<double, double>& ends) {
        if (known_) {
            if (const auto at = known_->find(ends); at != known_->end()) return at->second;
        }
        const std::optional<double> bound = prove(chord);
        if (bound && known_) known_->emplace(ends, *bound);
        return bound;
    }

    /// The largest distance in mm between curve and chord that the bounds allow, if it keeps the tolerance.
    std::optional<double> prove(const Chord& chord) {
        if (!(chord.q > chord.p) || !std::isfinite(chord.length) || chord.slack > chord.tolerance) return std::nullopt;
        std::vector<Part> open{{chord.p, chord.q, over(chord.p, chord.p), over(chord.q, chord.q)}};
        double worst = 0;
        for (int parts = 0; !open.empty(); ++parts) {
            if (parts > mostParts || evaluations_ > mostEvaluations || stop_.stop_requested()) return std::nullopt;
            const Part part = open.back();
            open.pop_back();
            if (const std::optional<Bounds> box = over(part.p, part.q)) {
                if (outside(chord, *box, part)) continue;
                double bound = chord.distance(*box);
                if (bound > chord.tolerance) bound = std::min(bound, boundByBend(chord, part));
                if (bound <= chord.tolerance) {
                    worst = std::max(worst, bound);
                    continue;
                }
            }
            const double middle = part.p / 2 + part.q / 2;
            if (!(middle > part.p && middle < part.q)) return std::nullopt;
            const std::optional<Bounds> here = over(middle, middle);
            if (here && isWrong(chord, *here)) {
                wrong_.push_back(middle);
                return std::nullopt;
            }
            open.push_back({part.p, middle, part.atP, here});
            open.push_back({middle, part.q, here, part.atQ});
        }
        return worst;
    }

    /// Whether a point of the curve is inside the panel and certainly too far from the chord.
    bool isWrong(const Chord& chord, const Bounds& point) const {
        if (point.u.high < 0 || point.u.low > x_.length || point.v.high < 0 || point.v.low > y_.length) return false;
        const double blur = std::hypot(point.u.high - point.u.low, point.v.high - point.v.low);
        return chord.distance(point.u.low, point.v.low) - blur - chord.slack > chord.tolerance;
    }

    /// Distance by both ends of a part and the second derivative between them.
    double boundByBend(const Chord& chord, const Part& part) {
        if (!part.atP || !part.atQ) return HUGE_VAL;
        const std::optional<Bounds> bend = bendOver(part.p, part.q);
        if (!bend) return HUGE_VAL;
        // c − what joins both ends = −c″ (t − p)(q − t)/2
        const double h = part.q - part.p, reach = h * h / 8 * (1 + 1e-12);
        const auto between = [&](Range p, Range q, Range second) {
            return Range{std::min(p.low, q.low) - std::max(0.0, second.high) * reach,
                         std::max(p.high, q.high) + std::max(0.0, -second.low) * reach};
        };
        const Range alongBend = chord.du * bend->u + chord.dv * bend->v,
                    acrossBend = -chord.dv * bend->u + chord.du * bend->v;
        return chord.distance(between(chord.along(*part.atP), chord.along(*part.atQ), alongBend),
                              between(chord.across(*part.atP), chord.across(*part.atQ), acrossBend));
    }

    bool function_;
    IntervalEvaluator position_;
    std::optional<IntervalEvaluator> bend_;
    Scale x_, y_;
    const Tolerance& tolerance_;
    std::stop_token stop_;
    ProvenChords* known_;
    std::size_t evaluations_ = 0;
    std::vector<double> wrong_; ///< places where the curve is shown to be too far from its chord
};

} // namespace

std::vector<double> certify(CurveSamples& samples, const ProofPrograms& proof, const PanelMap& map,
                            const Tolerance& tolerance, std::stop_token stop, ProvenChords* known) {
    samples.certificate = {};
    if (!proof.position || proof.position->outputs.size() > 2) return {};
    // Second derivatives of integrals would rest on estimates; with bounds of the position alone nothing is lost.
    const ProofPrograms used{proof.position, proof.position->integrals.empty() ? proof.bend : nullptr};
    return Certifier(used, map, tolerance, std::move(stop), known).run(samples);
}

} // namespace coulter
