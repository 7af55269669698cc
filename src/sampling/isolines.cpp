#include "sampling/isolines.h"

#include "sampling/edge_table.h"
#include "sampling/level_cells.h"
#include "sampling/level_chain.h"
#include "sampling/level_rings.h"
#include "sampling/pieced_field.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <tbb/parallel_for.h>

namespace coulter {
namespace {

/// Between two coordinates, by a share of the way on the sheet; exactly the ends at 0 and 1.
double betweenByShare(ScaleKind scale, double a, double b, double share) {
    if (share == 1 || a == b) return b;
    const double at = scale == ScaleKind::Logarithmic ? a * std::pow(b / a, share) : a + share * (b - a);
    return std::clamp(at, std::min(a, b), std::max(a, b));
}

/// Everything along one level.
class Follower {
public:
    Follower(const FieldSamples& samples, const LevelCounts& counts, const Cells& cells, std::size_t index,
             double level, bool plateau, bool strictly, const Program* field, const PanelMap& map,
             const IsolineEffort& effort, std::size_t mostEvaluations)
        : samples_(samples), counts_(counts), cells_(cells),
          width_(static_cast<std::uint32_t>(std::max<std::size_t>(1, samples.columns.size()))), index_(index),
          level_(level), plateau_(plateau), strictly_(strictly), map_(map), tolerance_(effort.millimetres),
          stop_(effort.stop), left_(mostEvaluations) {
        const bool jumps = std::ranges::find(samples.atJump, true) != samples.atJump.end();
        if (field) field_.emplace(*field, jumps ? PiecedField::Knows::Jumps : PiecedField::Knows::Nothing, stop_);
    }

    std::vector<LevelChain> run(const std::vector<std::uint32_t>& crossed) {
        for (const std::uint32_t cell : crossed) cut(cells_[cell]);
        std::vector<LevelChain> chains = linked();
        for (LevelChain& chain : chains) {
            if (stop_.stop_requested()) break;
            if (field_) refine(chain);
            straighten(chain, (field_ ? 0.4 : 0.1) * tolerance_);
        }
        return chains;
    }

    std::size_t evaluations() const { return field_ ? field_->evaluations() : 0; }
    bool finished() const { return finished_; }

private:
    struct Piece {
        CellEdge from = 0, to = 0;
    };

    // --- which way the line goes ------------------------------------------------------------------------------------

    bool isAbove(std::uint32_t point) const {
        return counts_[point] > index_ && !(strictly_ && samples_.sizeAt(point) == level_);
    }

    /// Whether a value counts as above.
    bool isHigh(double value) const { return strictly_ ? value > level_ : value >= level_; }

    void cut(const Cell& cell) {
        std::array<CellEdge, 2> down{}, up{}; // counterclockwise: out of what is above, and into it
        std::size_t downs = 0, ups = 0;
        const bool startsAbove = isAbove(cell.points[0]);
        bool above = startsAbove;
        for (std::size_t k = 0; k < cell.count; ++k) {
            const std::uint32_t a = cell.points[k], b = cell.points[k + 1 < cell.count ? k + 1 : 0];
            const bool next = k + 1 < cell.count ? isAbove(b) : startsAbove;
            if (above && !next) down[downs++] = cellEdge(a, b);
            if (!above && next) up[ups++] = cellEdge(a, b);
            above = next;
        }
        if (downs == 0) return;
        if (downs == 1) {
            pieces_.push_back({down[0], up[0]});
            return;
        }
        // High and low by turns. With the middle above, each low corner is cut off; else each high one.
        if (!startsAbove) std::swap(up[0], up[1]); // now up[k] follows down[k]
        if (isMiddleHigh(cell)) {
            pieces_.push_back({down[0], up[0]});
            pieces_.push_back({down[1], up[1]});
        } else {
            pieces_.push_back({down[0], up[1]});
            pieces_.push_back({down[1], up[0]});
        }
    }

    bool isMiddleHigh(const Cell& cell) {
        const auto& p = cell.points;
        if (field_) {
            const double value = at(betweenByShare(map_.x.kind, samples_.xAt(p[0]), samples_.xAt(p[2]), 0.5),
                                    betweenByShare(map_.y.kind, samples_.yAt(p[0]), samples_.yAt(p[2]), 0.5));
            if (!std::isnan(value)) return isHigh(value);
        }
        const double a = samples_.sizeAt(p[0]), b = samples_.sizeAt(p[1]), c = samples_.sizeAt(p[2]),
                     d = samples_.sizeAt(p[3]);
        return isHigh((a * c - b * d) / (a + c - b - d)); // at the saddle of what is bilinear
    }

    /// Pieces end to end, first those that end somewhere; in the order of their cells.
    std::vector<LevelChain> linked() {
        const std::size_t count = pieces_.size();
        EdgeTable from(count);
        for (const Piece& piece : pieces_) from.add(piece.from);
        std::vector<std::uint32_t> next(count);
        std::vector<char> used(count, 0), entered(count, 0);
        for (std::size_t i = 0; i < count; ++i) {
            next[i] = from.first(pieces_[i].to);
            if (next[i] != EdgeTable::none) entered[next[i]] = 1;
        }
        std::vector<LevelChain> chains;
        for (const bool closed : {false, true}) {
            for (std::uint32_t start = 0; start < count; ++start) {
                if (used[start] || (!closed && entered[start])) continue;
                LevelChain chain;
                chain.closed = closed;
                chain.first = pieces_[start].from;
                chain.spots.push_back(crossing(chain.first));
                for (std::uint32_t i = start; i != EdgeTable::none && !used[i]; i = next[i]) {
                    used[i] = 1;
                    chain.last = pieces_[i].to;
                    if (closed && chain.last == chain.first) break;
                    chain.spots.push_back(crossing(chain.last));
                }
                chains.push_back(std::move(chain));
            }
        }
        pieces_.clear();
        return chains;
    }

    // --- where it is ------------------------------------------------------------------------------------------------

    SheetSpot spot(double x, double y) const { return {x, y, map_.x.toSheet(x), map_.y.toSheet(y)}; }
    SheetSpot fromSheet(double u, double v) const { return {map_.x.fromSheet(u), map_.y.fromSheet(v), u, v}; }

    /// The field's value; NaN where it has none, in another piece than the one that is followed, or if enough was
    /// evaluated.
    double at(double x, double y) {
        constexpr double none = std::numeric_limits<double>::quiet_NaN();
        if (field_->evaluations() >= left_ || stop_.stop_requested()) {
            finished_ = false;
            return none;
        }
        std::array<double, 8> values{};
        const PiecedField::Piece piece = field_->at(x, y, values);
        if (piece_.value_or(piece) != piece) return none;
        const std::size_t components = field_->components();
        if (components == 1) return values[0];
        double sum = 0;
        for (std::size_t k = 0; k < components; ++k) sum += values[k] * values[k];
        return std::sqrt(sum);
    }

    /// From now on only the piece counts that a chord runs through, if there are several.
    void staysBeside(const SheetSpot& a, const SheetSpot& b) {
        if (!field_->hasPieces()) return;
        const SheetSpot middle = left(a, b, 0.5, 0);
        std::array<double, 8> values{};
        piece_ = field_->at(middle.x, middle.y, values);
    }

    bool isAtJump(std::uint32_t point) const { return point < samples_.atJump.size() && samples_.atJump[point]; }

    /// The coordinates of a point of the samples.
    std::array<double, 2> placeOf(std::uint32_t point) const {
        if (samples_.isMesh()) return {samples_.x[point], samples_.y[point]};
        return {samples_.columns[point % width_], samples_.rows[point / width_]};
    }

    /// Where the line passes an edge: to a thousandth of the tolerance, between two places of which one is above.
    SheetSpot crossing(CellEdge edge) {
        const std::uint32_t p = firstPoint(edge), q = secondPoint(edge);
        const std::array<double, 2> from = placeOf(p), to = placeOf(q);
        const double fp = samples_.sizeAt(p) - level_, fq = samples_.sizeAt(q) - level_;
        const auto along = [&](double share) {
            return spot(betweenByShare(map_.x.kind, from[0], to[0], share),
                        betweenByShare(map_.y.kind, from[1], to[1], share));
        };
        const double share = std::clamp(fp / (fp - fq), 0.0, 1.0);
        if (!field_ || (isAtJump(p) && isAtJump(q))) return along(std::isnan(share) ? 0.5 : share);
        const SheetSpot a = along(0), b = along(1);
        const double length = std::hypot(b.u - a.u, b.v - a.v);
        // At a plateau, one end at the level does not say how far that goes.
        if (!(length > 0) || (!plateau_ && (fp == 0 || fq == 0))) return along(std::isnan(share) ? 0.5 : share);
        const double close = 1e-3 * tolerance_ / length;
        double nearest = HUGE_VAL; // to the level, of the values met
        const double found = solve(0, 1, fp, fq, isHigh(fp + level_), close, [&](double s) {
            const SheetSpot here = along(s);
            const double f = at(here.x, here.y) - level_;
            nearest = std::min(nearest, std::abs(f));
            return f;
        });
        // At a jump a point of the samples has the value of its side, the field at its place perhaps that of the other.
        const bool jumpsAtEnd =
            (found <= 2 * close || found >= 1 - 2 * close) && nearest > 0.25 * std::min(std::abs(fp), std::abs(fq));
        return along(std::isnan(found) || jumpsAtEnd ? std::isnan(share) ? 0.5 : share : found);
    }

    /// Between two places with the level between them; NaN if the field has no value on the way.
    /// False position by Dowell and Jarratt's "Pegasus", and halving where that is slow or one end is at the level.
    template <typename Value>
    double solve(double a, double b, double fa, double fb, bool aIsHigh, double close, const Value& value) {
        for (int step = 0; step < 200 && std::abs(b - a) > close; ++step) {
            double middle = a + (b - a) * (fa / (fa - fb));
            const bool halve =
                step % 4 == 3 || fa == 0 || fb == 0 || !(middle > std::min(a, b) && middle < std::max(a, b));
            if (halve) middle = a / 2 + b / 2;
            if (middle == a || middle == b) break;
            const double f = value(middle);
            if (std::isnan(f)) return std::numeric_limits<double>::quiet_NaN();
            if (f == 0 && !strictly_ && fa != 0 && fb != 0 && !halve) return middle;
            const bool isFinite = std::isfinite(f) && std::isfinite(fa) && std::isfinite(fb);
            if ((strictly_ ? f > 0 : f >= 0) == aIsHigh) {
                if (isFinite) fb *= fa / (fa + f);
                a = middle;
                fa = f;
            } else {
                if (isFinite) fa *= fb / (fb + f);
                b = middle;
                fb = f;
            }
        }
        return aIsHigh ? a : b; // on the upper side
    }

    // --- between edges ----------------------------------------------------------------------------------------------

    void refine(LevelChain& chain) {
        std::vector<SheetSpot> fine;
        const std::size_t n = chain.spots.size();
        for (std::size_t i = 0; i < n; ++i) {
            fine.push_back(chain.spots[i]);
            if (i + 1 < n || chain.closed) put(chain.spots[i], chain.spots[(i + 1) % n], 0, fine);
        }
        chain.spots = std::move(fine);
    }

    /// Further places between two, until half the tolerance is kept.
    void put(const SheetSpot& a, const SheetSpot& b, int depth, std::vector<SheetSpot>& into) {
        const double du = b.u - a.u, dv = b.v - a.v, length = std::hypot(du, dv);
        if (!(length > tolerance_) || depth > 14) return;
        staysBeside(a, b);
        if (std::ranges::all_of(std::array{0.5, 0.25, 0.75}, [&](double share) { return isNear(a, b, share); })) return;
        const std::optional<SheetSpot> middle = beside(a, b, length);
        if (!middle) return;
        put(a, *middle, depth + 1, into);
        into.push_back(*middle);
        put(*middle, b, depth + 1, into);
    }

    /// A place beside a chord: so many mm to the left of a share of its way.
    SheetSpot left(const SheetSpot& a, const SheetSpot& b, double share, double mm) const {
        const double du = b.u - a.u, dv = b.v - a.v, length = std::hypot(du, dv);
        return fromSheet(a.u + share * du - mm * dv / length, a.v + share * dv + mm * du / length);
    }

    /// Whether the line passes within half the tolerance of a place on a chord. To its left the field is greater.
    bool isNear(const SheetSpot& a, const SheetSpot& b, double share) {
        const SheetSpot on = left(a, b, share, 0);
        const double value = at(on.x, on.y);
        if (std::isnan(value)) return true; // nothing more can be known here
        const bool high = isHigh(value);
        const SheetSpot side = left(a, b, share, (high ? -0.5 : 0.5) * tolerance_);
        const double other = at(side.x, side.y);
        return std::isnan(other) || isHigh(other) != high;
    }

    /// Where the line is at the middle of a chord, if it is near.
    std::optional<SheetSpot> beside(const SheetSpot& a, const SheetSpot& b, double length) {
        double from = 0;
        const auto value = [&](double mm) {
            const SheetSpot here = left(a, b, 0.5, mm);
            return at(here.x, here.y) - level_;
        };
        double before = value(0);
        if (std::isnan(before)) return std::nullopt;
        const bool high = isHigh(before + level_);
        const double side = high ? -1 : 1;
        for (double step = tolerance_ / 2; step <= 0.75 * length; step *= 2.5) {
            const double next = value(side * step);
            if (std::isnan(next)) return std::nullopt;
            if (isHigh(next + level_) != high) {
                const double mm = solve(from, side * step, before, next, high, 1e-3 * tolerance_, value);
                if (std::isnan(mm)) return std::nullopt;
                return left(a, b, 0.5, mm);
            }
            from = side * step;
            before = next;
        }
        return std::nullopt;
    }

    const FieldSamples& samples_;
    const LevelCounts& counts_;
    const Cells& cells_;
    const std::uint32_t width_; ///< of a grid
    std::size_t index_;
    double level_;
    bool plateau_, strictly_;
    PanelMap map_;
    double tolerance_;
    std::stop_token stop_;
    std::size_t left_ = 0;
    std::optional<PiecedField> field_;
    std::optional<PiecedField::Piece> piece_; ///< the only one that counts
    std::vector<Piece> pieces_;
    bool finished_ = true;
};

CellEdge atPoint(std::uint32_t point) { return std::uint64_t{point} << 32 | point; }

} // namespace

LevelLines followLevels(const FieldSamples& samples, const std::vector<double>& levels, const Program* field,
                        const PanelMap& map, const IsolineEffort& effort, bool areas) {
    LevelLines found;
    if (samples.values.empty() || samples.pointCount() == 0) return found;
    const LevelCounts counts(samples, levels);
    const Cells cells(samples, counts);
    const auto crossed = cells.crossed(levels.size());
    const auto border = areas ? cells.border() : std::vector<std::pair<std::uint32_t, std::uint32_t>>{};
    struct Followed {
        std::vector<LevelChain> chains, edges; ///< edges: of plateaus, on their upper side
        std::vector<Path> above;
        std::size_t evaluations = 0;
        bool finished = true;
    };
    std::vector<Followed> all(levels.size());
    tbb::parallel_for(std::size_t{0}, levels.size(), [&](std::size_t k) {
        const bool plateau = cells.hasPlateau(k, levels[k]);
        const auto follow = [&](bool strictly, const std::vector<std::uint32_t>& through) {
            Follower follower(samples, counts, cells, k, levels[k], plateau, strictly, field, map, effort,
                              effort.mostEvaluations / levels.size());
            std::vector<LevelChain> chains = follower.run(through);
            all[k].evaluations += follower.evaluations();
            all[k].finished = all[k].finished && follower.finished();
            return chains;
        };
        all[k].chains = follow(false, crossed[k]);
        if (plateau) all[k].edges = follow(true, cells.reaching(k, levels[k]));
        if (!areas) return;
        LevelRings rings(samples);
        for (const LevelChain& chain : all[k].chains) rings.line(chain);
        for (const auto& [a, b] : border) {
            const bool fromAbove = counts[a] > k, toAbove = counts[b] > k;
            if (fromAbove || toAbove)
                rings.border(fromAbove ? atPoint(a) : cellEdge(a, b), toAbove ? atPoint(b) : cellEdge(a, b));
        }
        all[k].above = rings.closed();
    });
    for (std::size_t k = 0; k < levels.size(); ++k) {
        for (const auto* chains : {&all[k].chains, &all[k].edges}) {
            for (const LevelChain& chain : *chains) found.lines.push_back({k, chain.closed, pathOf(chain.spots)});
        }
        if (areas) found.above.push_back(std::move(all[k].above));
        found.evaluations += all[k].evaluations;
        found.finished = found.finished && all[k].finished;
    }
    if (areas) {
        LevelRings rings(samples);
        for (const auto& [a, b] : border) rings.border(atPoint(a), atPoint(b));
        found.domain = rings.closed();
    }
    return found;
}

} // namespace coulter
