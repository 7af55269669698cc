#include "sampling/certificate.h"

#include "formula/enclosure.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace coulter {
namespace {

/// Parts that one chord may be divided into, and evaluations over intervals for a whole curve.
constexpr int mostParts = 256;
constexpr std::size_t mostEvaluations = 60'000;

/// A chord on the sheet: mm per unit along both axes, its ends, and the line between them.
struct Chord {
    double xa, ya, xb, yb;
    double perX, perY;     ///< mm per unit
    double du, dv, length; ///< mm
    double slack;          ///< mm that rounding in the line itself may make

    double lineAt(double x) const { return ya + (yb - ya) * ((x - xa) / (xb - xa)); }

    /// Largest distance in mm from the chord of the curve's points over the part [p, q] of x, when they lie between
    /// `least` and `most` (mm) above its line: the perpendicular part, and what the foot lies beyond an end.
    double distance(double least, double most, double p, double q) const {
        const double perMillimetre = dv / length; // how far the foot moves along the chord
        const double forward = std::max({0.0, least * perMillimetre, most * perMillimetre});
        const double backward = std::max({0.0, -least * perMillimetre, -most * perMillimetre});
        const double after = std::max(0.0, forward - (xb - q) * perX * length / du);
        const double before = std::max(0.0, backward - (p - xa) * perX * length / du);
        const double across = std::max(std::abs(least), std::abs(most)) * du / length;
        return std::hypot(across, std::max(before, after)) + slack;
    }
    /// The same from the other side, for steep chords: how far the curve's points between the heights `low` and `high`
    /// are to the left or right of the chord, and above or below both its ends.
    double distanceSideways(double low, double high, double p, double q) const {
        const double least = std::min(ya, yb), most = std::max(ya, yb);
        const double excess = std::max({0.0, high - most, least - low}) * std::abs(perY);
        if (most == least) return HUGE_VAL;
        const auto chordAt = [&](double y) { return xa + (xb - xa) * ((std::clamp(y, least, most) - ya) / (yb - ya)); };
        const double a = chordAt(low), b = chordAt(high);
        const double aside = std::max(q - std::min(a, b), std::max(a, b) - p) * perX;
        return std::hypot(std::max(0.0, aside), excess) + slack;
    }
};

/// Bounds of the function above the line of a chord, in units of y.
struct Above {
    double least = -HUGE_VAL, most = HUGE_VAL;
    bool known() const { return std::isfinite(least) && std::isfinite(most); }
};

class Certifier {
public:
    Certifier(const Program& f, const Program* second, const PanelMap& map, double tolerance, std::stop_token stop)
        : f_(f), map_(map), tolerance_(tolerance), stop_(std::move(stop)) {
        if (second) second_.emplace(*second);
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
                const std::optional<double> bound = prove(chord);
                if (!bound) continue;
                stretch.proven[i] = true;
                samples.certificate.provenLength += length;
                samples.certificate.largestBound = std::max(samples.certificate.largestBound, *bound);
            }
        }
        samples.certificate.evaluations = evaluations_;
        return std::move(wrong_);
    }

private:
    struct Part {
        double p, q; ///< ends
        Above atP, atQ;
    };

    Chord makeChord(const Stretch& stretch, std::size_t i) const {
        Chord c{stretch.x[i], stretch.y[i], stretch.x[i + 1], stretch.y[i + 1], 0, 0, 0, 0, 0, 0};
        c.perX = map_.x.length / (map_.x.high - map_.x.low);
        c.perY = map_.y.length / (map_.y.high - map_.y.low);
        c.du = (c.xb - c.xa) * c.perX;
        c.dv = (c.yb - c.ya) * c.perY;
        c.length = std::hypot(c.du, c.dv);
        c.slack = 1e-9 + 1e-15 * std::abs(c.perY) * std::max(std::abs(c.ya), std::abs(c.yb)) +
                  1e-15 * c.perX * std::max(std::abs(c.xa), std::abs(c.xb));
        return c;
    }

    /// Length in mm of what of the chord is inside the panel.
    double visibleLength(const Chord& c) const {
        double from = 0, to = 1;
        const auto clip = [&](double start, double step, double limit) {
            const double a = -start, b = limit - start; // a ≤ t step ≤ b
            if (step == 0) {
                if (start < 0 || start > limit) to = -1;
                return;
            }
            from = std::max(from, std::min(a / step, b / step));
            to = std::min(to, std::max(a / step, b / step));
        };
        clip((c.xa - map_.x.low) * c.perX, c.du, map_.x.length);
        clip((c.ya - map_.y.low) * c.perY, c.dv, map_.y.length);
        return to > from && std::isfinite(c.length) ? (to - from) * c.length : 0;
    }

    Enclosure over(double p, double q) {
        ++evaluations_;
        const Enclosure x{p, q};
        return f_(std::span(&x, 1))[0];
    }

    Above aboveAt(const Chord& c, double x) {
        const Enclosure y = over(x, x);
        if (!y.isProof()) return {};
        const double line = c.lineAt(x);
        return {y.low - line, y.high - line};
    }

    double distance(const Chord& c, Above above, double p, double q) const {
        const double a = above.least * c.perY, b = above.most * c.perY;
        return c.distance(std::min(a, b), std::max(a, b), p, q);
    }

    /// Whether both the curve and the chord stay on one outer side of the panel over a part.
    bool outside(const Chord& c, const Enclosure& y, double p, double q) const {
        const double a = c.lineAt(p), b = c.lineAt(q);
        const double low = std::min(map_.y.low, map_.y.high), high = std::max(map_.y.low, map_.y.high);
        return (y.low > high && std::min(a, b) > high) || (y.high < low && std::max(a, b) < low);
    }

    /// The largest distance in mm between curve and chord that the bounds allow, if it keeps the tolerance.
    std::optional<double> prove(const Chord& chord) {
        if (!(chord.xb > chord.xa) || !std::isfinite(chord.length)) return std::nullopt;
        std::vector<Part> open{{chord.xa, chord.xb, aboveAt(chord, chord.xa), aboveAt(chord, chord.xb)}};
        double worst = 0;
        for (int parts = 0; !open.empty(); ++parts) {
            if (parts > mostParts || evaluations_ > mostEvaluations) return std::nullopt;
            const Part part = open.back();
            open.pop_back();
            const Enclosure y = over(part.p, part.q);
            if (y.isProof()) {
                if (outside(chord, y, part.p, part.q)) continue;
                const double bound = std::min(distance(chord, aboveOver(chord, part, y), part.p, part.q),
                                              chord.distanceSideways(y.low, y.high, part.p, part.q));
                if (bound <= tolerance_) {
                    worst = std::max(worst, bound);
                    continue;
                }
            }
            const double middle = part.p / 2 + part.q / 2;
            if (!(middle > part.p && middle < part.q)) return std::nullopt;
            const Above here = aboveAt(chord, middle);
            const double heightHere = chord.lineAt(middle);
            if (here.known() && distance(chord, here, middle, middle) > tolerance_ &&
                chord.distanceSideways(heightHere + here.least, heightHere + here.most, middle, middle) > tolerance_ &&
                insidePanel(heightHere + here.most, heightHere + here.least)) {
                wrong_.push_back(middle);
                return std::nullopt;
            }
            open.push_back({part.p, middle, part.atP, here});
            open.push_back({middle, part.q, here, part.atQ});
        }
        return worst;
    }

    /// Over a part: directly from the range of the function, or from both ends and the second derivative.
    Above aboveOver(const Chord& chord, const Part& part, const Enclosure& y) {
        const double a = chord.lineAt(part.p), b = chord.lineAt(part.q);
        Above above{y.low - std::max(a, b), y.high - std::min(a, b)};
        if (!second_ || !part.atP.known() || !part.atQ.known()) return above;
        ++evaluations_;
        const Enclosure x{part.p, part.q};
        const Enclosure bend = (*second_)(std::span(&x, 1))[0];
        if (!bend.isProof()) return above;
        // f − line = what joins both ends − f″ (x − p)(q − x)/2
        const double h = part.q - part.p, reach = h * h / 8 * (1 + 1e-12);
        above.least =
            std::max(above.least, std::min(part.atP.least, part.atQ.least) - std::max(0.0, bend.high) * reach);
        above.most = std::min(above.most, std::max(part.atP.most, part.atQ.most) + std::max(0.0, -bend.low) * reach);
        return above;
    }

    bool insidePanel(double y, double other) const {
        const double low = std::min(map_.y.low, map_.y.high), high = std::max(map_.y.low, map_.y.high);
        return std::max(y, other) >= low && std::min(y, other) <= high;
    }

    IntervalEvaluator f_;
    std::optional<IntervalEvaluator> second_;
    PanelMap map_;
    double tolerance_;
    std::stop_token stop_;
    std::size_t evaluations_ = 0;
    std::vector<double> wrong_; ///< places where the curve is shown to be too far from its chord
};

} // namespace

std::vector<double> certify(CurveSamples& samples, const Program& f, const Program* second, const PanelMap& map,
                            double tolerance, std::stop_token stop) {
    samples.certificate = {};
    if (map.x.kind != ScaleKind::Linear || map.y.kind != ScaleKind::Linear || f.outputs.size() != 1) return {};
    return Certifier(f, f.integrals.empty() ? second : nullptr, map, tolerance, std::move(stop)).run(samples);
}

} // namespace coulter
