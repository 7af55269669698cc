#include "sampling/certificate.h"

#include "formula/proofs/jet_evaluator.h"
#include "sampling/chord.h"

#include <limits>
#include <optional>

namespace coulter {
namespace {

/// Parts that one chord may be divided into: levels of halving, or so many parts in all where few of them fail.
constexpr int mostLevelsOfProof = 8;
constexpr std::size_t mostParts = 256;
/// From this level on a proof is given up where most parts fail and halving does not promise to help.
constexpr int firstLevelToGiveUp = 3;
/// For a whole curve: evaluations over intervals, and the part of its operations that may be spent in vain, on chords
/// that are not proven in the end.
constexpr double mostEvaluations = 100'000;
constexpr double partInVain = 0.05;
/// So often who watches is told what is proven so far, in chords.
constexpr std::size_t chordsBetweenTelling = 16;

/// From a coordinate of the user to mm, through the coordinate of the scale (the logarithm on a logarithmic one).
struct Scale {
    explicit Scale(const AxisMap& map)
        : logarithmic(map.kind == ScaleKind::Logarithmic), low(of(map.low)), length(map.length),
          perUnit(map.length / (of(map.high) - of(map.low))) {}
    bool logarithmic;
    double low, length, perUnit;

    double of(double coordinate) const { return logarithmic ? std::log(coordinate) : coordinate; }
    double toSheet(double coordinate) const { return (of(coordinate) - low) * perUnit; }
    /// None where the bounds are not those of a function that is continuous on the whole part.
    std::optional<Course> toSheet(const Jet<1>& scaled) const {
        if (!scaled.value.isProof()) return std::nullopt;
        const Course course{{scaled.value.low, scaled.value.high},
                            scaled.first[0],
                            {scaled.centre.low, scaled.centre.high},
                            scaled.centreFirst[0],
                            scaled.second[0]};
        return perUnit * (course - low);
    }
    /// The middle of a part alone; none where it is not defined.
    std::optional<Bounds> middleToSheet(const Jet<1>& scaled) const {
        if (!scaled.centre.isProof()) return std::nullopt;
        return perUnit * (Bounds{scaled.centre.low, scaled.centre.high} - exactly(low));
    }
};

bool isSpecial(PointState state) { return state != PointState::Estimated && state != PointState::Grid; }

/// A part of the parameter, and what the curve does over it.
struct Part {
    double p = 0, q = 0;
};
struct Look {
    double middle = 0, radius = 0;          ///< the parameter's middle; half its width, in the coordinate of its scale
    std::optional<Course> u, v;             ///< none where the curve is not certainly continuous
    std::optional<Bounds> middleU, middleV; ///< none where the middle is not certainly defined
};

class Certifier {
public:
    Certifier(const Program& curve, const PanelMap& map, const Tolerance& tolerance, ProofEffort& effort,
              std::stop_token stop, ProvenChords* known)
        : function_(curve.outputs.size() == 1), curve_(curve), x_(map.x), y_(map.y), tolerance_(tolerance),
          effort_(effort), stop_(std::move(stop)), known_(known) {}

    std::vector<double> run(CurveSamples& samples) {
        std::size_t looked = 0;
        for (Stretch& stretch : samples.stretches) {
            for (std::size_t i = 0; i + 1 < stretch.x.size(); ++i) {
                const Chord chord = chordOf(stretch, i);
                const double length = chord.lengthWithin(x_.length, y_.length);
                if (length == 0) continue;
                const std::optional<double> bound = proveOnce(stretch, i, chord);
                if (effort_.watch && ++looked % chordsBetweenTelling == 0) effort_.watch(samples);
                if (!bound) continue;
                stretch.proven[i] = true;
                samples.certificate.provenLength += length;
                samples.certificate.largestBound = std::max(samples.certificate.largestBound, *bound);
            }
        }
        samples.certificate.evaluations = evaluations_;
        return std::move(wrong_);
    }

    Chord chordOf(const Stretch& stretch, std::size_t i) const {
        return {x_.toSheet(stretch.x[i]), y_.toSheet(stretch.y[i]), x_.toSheet(stretch.x[i + 1]),
                y_.toSheet(stretch.y[i + 1])};
    }

private:
    bool spent() const { return effort_.isSpent() || stop_.stop_requested(); }

    /// What is left of a chord's parameter beside special places, which are known to rounding only.
    static Part provable(const Stretch& stretch, std::size_t i) {
        Part part{stretch.t[i], stretch.t[i + 1]};
        const double blur =
            std::max(64 * std::numeric_limits<double>::epsilon() * std::max(std::abs(part.p), std::abs(part.q)),
                     1e-14 * (part.q - part.p));
        if (part.q - part.p <= 4 * blur) return part;
        if (isSpecial(stretch.state[i])) part.p += blur;
        if (isSpecial(stretch.state[i + 1])) part.q -= blur;
        return part;
    }

    /// mm that rounding may make in the place of a chord.
    double slackOf(const Chord& c) const {
        return 1e-9 + 1e-14 * (std::abs(c.ua) + std::abs(c.va) + std::abs(c.ub) + std::abs(c.vb) +
                               std::abs(x_.low * x_.perUnit) + std::abs(y_.low * y_.perUnit));
    }

    /// The parameter itself over a part, as its scale shows it: by its logarithm, x = exp(w) has x′ = x″ = x.
    struct Input {
        Jet<1> jet;    ///< by the coordinate of the scale
        Jet<1> scaled; ///< that coordinate by itself
        double radius = 0, middle = 0;
    };
    Input inputOver(const Part& part) const {
        Input input;
        const bool logarithmic = function_ && x_.logarithmic;
        input.middle = middleOf(part);
        Jet<1>& jet = input.jet;
        jet.value = {part.p, part.q};
        jet.centre = Enclosure::point(input.middle);
        jet.first[0] = jet.centreFirst[0] = exactly(1);
        jet.second[0] = {0, 0};
        input.scaled = jet;
        if (!logarithmic) {
            input.radius = roundedUp(std::max(roundedUp(part.q - input.middle), roundedUp(input.middle - part.p)));
            return input;
        }
        jet.first[0] = jet.second[0] = {part.p, part.q};
        jet.centreFirst[0] = exactly(input.middle);
        const auto logarithm = [](double low, double high) {
            return applied<1>(Kernel::Ln, constantJet(low, high), {0}).value;
        };
        input.scaled.value = logarithm(part.p, part.q);
        input.scaled.centre = logarithm(input.middle, input.middle);
        const auto reach = [](double from, double to) { return std::log(to / from) * (1 + 1e-15) + 1e-15; };
        input.radius = std::max(reach(part.p, input.middle), reach(input.middle, part.q));
        return input;
    }
    static Jet<1> constantJet(double low, double high) {
        Jet<1> jet;
        jet.value = jet.centre = {low, high};
        jet.first[0] = jet.second[0] = jet.centreFirst[0] = {0, 0};
        return jet;
    }

    double middleOf(const Part& part) const {
        const bool logarithmic = function_ && x_.logarithmic;
        return std::clamp(logarithmic ? std::sqrt(part.p) * std::sqrt(part.q) : part.p / 2 + part.q / 2, part.p,
                          part.q);
    }

    Look look(const Part& part) {
        --effort_.evaluationsLeft;
        ++evaluations_;
        const Input input = inputOver(part);
        const auto found = curve_(std::span(&input.jet, 1), {input.radius});
        const auto scaled = [&](const Scale& scale, const Jet<1>& jet) {
            return scale.logarithmic ? applied<1>(Kernel::Ln, jet, {input.radius}) : jet;
        };
        const Jet<1> right = function_ ? input.scaled : scaled(x_, found[0]), up = scaled(y_, found.back());
        Look seen{input.middle,        input.radius, x_.toSheet(right), y_.toSheet(up), x_.middleToSheet(right),
                  y_.middleToSheet(up)};
        return seen;
    }

    /// Whether both the curve and the chord stay on one outer side of the panel over a part.
    bool outside(const Chord& c, const Look& seen, const Part& part, const Part& whole) const {
        double from = 0, to = c.length;
        if (function_) { // then the chord's own part is known
            const double start = x_.of(whole.p), width = x_.of(whole.q) - start;
            from = c.length * std::clamp((x_.of(part.p) - start) / width, 0.0, 1.0);
            to = c.length * std::clamp((x_.of(part.q) - start) / width, 0.0, 1.0);
        }
        const auto beyond = [](const Bounds& curve, double a, double b, double length) {
            return (curve.low > length && std::min(a, b) > length) || (curve.high < 0 && std::max(a, b) < 0);
        };
        return beyond(seen.v->all, c.va + from * c.dv, c.va + to * c.dv, y_.length) ||
               beyond(seen.u->all, c.ua + from * c.du, c.ua + to * c.du, x_.length);
    }

    std::optional<double> proveOnce(const Stretch& stretch, std::size_t i, const Chord& chord) {
        const std::pair<double, double> ends{stretch.t[i], stretch.t[i + 1]};
        if (known_) {
            if (const auto at = known_->find(ends); at != known_->end()) return at->second;
        }
        if (spent()) return std::nullopt;
        const std::size_t before = evaluations_;
        const std::optional<double> bound = prove(chord, provable(stretch, i), tolerance_.at(ends.first));
        if (!bound) effort_.inVainLeft -= std::min(effort_.inVainLeft, evaluations_ - before);
        if (bound && known_) known_->emplace(ends, *bound);
        return bound;
    }

    /// The largest distance in mm between curve and chord that the bounds allow, if it keeps the tolerance.
    std::optional<double> prove(const Chord& chord, const Part& whole, double tolerance) {
        const double slack = slackOf(chord);
        if (!(whole.q > whole.p) || !std::isfinite(chord.length) || slack > tolerance) return std::nullopt;
        double worst = 0;
        std::size_t parts = 0;
        std::vector<Part> open{whole};
        for (int level = 0; !open.empty(); ++level) {
            std::vector<Part> failed;
            std::vector<double> bounds;
            for (const Part& part : open) {
                if (++parts > mostParts || spent()) return std::nullopt;
                const Look seen = look(part);
                double bound = HUGE_VAL;
                if (seen.u && seen.v) {
                    if (outside(chord, seen, part, whole)) continue;
                    bound = chord.distance(*seen.u, *seen.v, seen.radius) + slack;
                    if (bound <= tolerance) {
                        worst = std::max(worst, bound);
                        continue;
                    }
                }
                if (!(seen.middle > part.p && seen.middle < part.q)) return std::nullopt;
                if (seen.middleU && seen.middleV && isWrong(chord, *seen.middleU, *seen.middleV, tolerance + slack)) {
                    wrong_.push_back(seen.middle);
                    return std::nullopt;
                }
                failed.push_back(part);
                bounds.push_back(bound);
            }
            if (isHopeless(level, bounds, tolerance)) return std::nullopt;
            open.clear();
            for (const Part& part : failed) { // from the end of the chord to its start
                const double middle = middleOf(part);
                open.push_back({middle, part.q});
                open.push_back({part.p, middle});
            }
        }
        return worst;
    }

    /// Whether most parts of a level failed, and by more than the levels left can mend: bounds fall with the cube of a
    /// part's width at best (its square, times the width of the bounds of the second derivative).
    static bool isHopeless(int level, std::vector<double>& bounds, double tolerance) {
        if (level < firstLevelToGiveUp || bounds.size() * 2 <= std::size_t{1} << std::min(level, mostLevelsOfProof))
            return false;
        const auto middle = bounds.begin() + static_cast<std::ptrdiff_t>(bounds.size() / 2);
        std::ranges::nth_element(bounds, middle);
        return *middle > tolerance * std::pow(8, mostLevelsOfProof - 1 - level);
    }

    /// Whether a point of the curve is inside the panel and certainly too far from the chord.
    bool isWrong(const Chord& chord, const Bounds& u, const Bounds& v, double tolerance) const {
        if (u.high < 0 || u.low > x_.length || v.high < 0 || v.low > y_.length) return false;
        return chord.distance(u.low, v.low) - std::hypot(width(u), width(v)) > tolerance;
    }

    bool function_;
    JetEvaluator<1> curve_;
    Scale x_, y_;
    const Tolerance& tolerance_;
    ProofEffort& effort_;
    std::stop_token stop_;
    ProvenChords* known_;
    std::size_t evaluations_ = 0;
    std::vector<double> wrong_; ///< places where the curve is shown to be too far from its chord
};

} // namespace

ProofEffort ProofEffort::of(const Program& curve, double mostOperations) {
    const double cost = costOf(curve);
    return {static_cast<std::size_t>(std::min(mostEvaluations, mostOperations / cost)),
            static_cast<std::size_t>(std::min(mostEvaluations, partInVain * mostOperations / cost)),
            true,
            {}};
}

std::vector<double> certify(CurveSamples& samples, const Program& curve, const PanelMap& map,
                            const Tolerance& tolerance, ProofEffort& effort, std::stop_token stop,
                            ProvenChords* known) {
    samples.certificate = {};
    Certifier certifier(curve, map, tolerance, effort, std::move(stop), known);
    for (Stretch& stretch : samples.stretches) {
        stretch.proven.assign(stretch.x.empty() ? 0 : stretch.x.size() - 1, false);
        for (std::size_t i = 0; i + 1 < stretch.x.size(); ++i)
            samples.certificate.length += certifier.chordOf(stretch, i).lengthWithin(map.x.length, map.y.length);
    }
    if ((!curve.integrals.empty() && !(effort.integrals && hasJets(curve))) || curve.outputs.size() > 2) return {};
    return certifier.run(samples);
}

} // namespace coulter
