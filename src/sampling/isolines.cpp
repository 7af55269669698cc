#include "sampling/isolines.h"

#include "sampling/edge_table.h"
#include "sampling/level_cells.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <tbb/parallel_for.h>

namespace coulter {
namespace {

/// A place in the user's coordinates, and in mm from the panel's lower left corner.
struct Spot {
    double x = 0, y = 0, u = 0, v = 0;
};

/// A line between two edges of cells, or round.
struct Chain {
    bool closed = false;
    CellEdge first = 0, last = 0;
    std::vector<Spot> spots;
};

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
        if (field) evaluator_.emplace(*field);
        if (field) outputs_ = field->outputs.size();
        if (evaluator_) evaluator_->limit(stop_, std::numeric_limits<std::int64_t>::max());
    }

    std::vector<Chain> run(const std::vector<std::uint32_t>& crossed) {
        for (const std::uint32_t cell : crossed) cut(cells_[cell]);
        std::vector<Chain> chains = linked();
        for (Chain& chain : chains) {
            if (stop_.stop_requested()) break;
            if (evaluator_) refine(chain);
            straighten(chain, (evaluator_ ? 0.4 : 0.1) * tolerance_);
        }
        return chains;
    }

    std::size_t evaluations() const { return evaluations_; }
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
        if (evaluator_) {
            const double value = at(betweenByShare(map_.x.kind, samples_.xAt(p[0]), samples_.xAt(p[2]), 0.5),
                                    betweenByShare(map_.y.kind, samples_.yAt(p[0]), samples_.yAt(p[2]), 0.5));
            if (!std::isnan(value)) return isHigh(value);
        }
        const double a = samples_.sizeAt(p[0]), b = samples_.sizeAt(p[1]), c = samples_.sizeAt(p[2]),
                     d = samples_.sizeAt(p[3]);
        return isHigh((a * c - b * d) / (a + c - b - d)); // at the saddle of what is bilinear
    }

    /// Pieces end to end, first those that end somewhere; in the order of their cells.
    std::vector<Chain> linked() {
        const std::size_t count = pieces_.size();
        EdgeTable from(count);
        for (const Piece& piece : pieces_) from.add(piece.from);
        std::vector<std::uint32_t> next(count);
        std::vector<char> used(count, 0), entered(count, 0);
        for (std::size_t i = 0; i < count; ++i) {
            next[i] = from.first(pieces_[i].to);
            if (next[i] != EdgeTable::none) entered[next[i]] = 1;
        }
        std::vector<Chain> chains;
        for (const bool closed : {false, true}) {
            for (std::uint32_t start = 0; start < count; ++start) {
                if (used[start] || (!closed && entered[start])) continue;
                Chain chain;
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

    Spot spot(double x, double y) const { return {x, y, map_.x.toSheet(x), map_.y.toSheet(y)}; }
    Spot fromSheet(double u, double v) const { return {map_.x.fromSheet(u), map_.y.fromSheet(v), u, v}; }

    /// The field's value; NaN where it has none, or if enough was evaluated.
    double at(double x, double y) {
        if (evaluations_ >= left_ || stop_.stop_requested()) {
            finished_ = false;
            return std::numeric_limits<double>::quiet_NaN();
        }
        ++evaluations_;
        std::array<double, 8> values{};
        std::array<double*, 8> out{};
        for (std::size_t k = 0; k < outputs_; ++k) out[k] = &values[k];
        const double* const in[] = {&x, &y};
        (*evaluator_)(in, std::span(out.data(), outputs_), 1);
        if (outputs_ == 1) return values[0];
        double sum = 0;
        for (std::size_t k = 0; k < outputs_; ++k) sum += values[k] * values[k];
        return std::sqrt(sum);
    }

    /// The coordinates of a point of the samples.
    std::array<double, 2> placeOf(std::uint32_t point) const {
        if (samples_.isMesh()) return {samples_.x[point], samples_.y[point]};
        return {samples_.columns[point % width_], samples_.rows[point / width_]};
    }

    /// Where the line passes an edge: to a thousandth of the tolerance, between two places of which one is above.
    Spot crossing(CellEdge edge) {
        const std::uint32_t p = firstPoint(edge), q = secondPoint(edge);
        const std::array<double, 2> from = placeOf(p), to = placeOf(q);
        const double fp = samples_.sizeAt(p) - level_, fq = samples_.sizeAt(q) - level_;
        const auto along = [&](double share) {
            return spot(betweenByShare(map_.x.kind, from[0], to[0], share),
                        betweenByShare(map_.y.kind, from[1], to[1], share));
        };
        const double share = std::clamp(fp / (fp - fq), 0.0, 1.0);
        if (!evaluator_) return along(std::isnan(share) ? 0.5 : share);
        const Spot a = along(0), b = along(1);
        const double length = std::hypot(b.u - a.u, b.v - a.v);
        // At a plateau, one end at the level does not say how far that goes.
        if (!(length > 0) || (!plateau_ && (fp == 0 || fq == 0))) return along(std::isnan(share) ? 0.5 : share);
        const double close = 1e-3 * tolerance_ / length;
        double nearest = HUGE_VAL; // to the level, of the values met
        const double found = solve(0, 1, fp, fq, isHigh(fp + level_), close, [&](double s) {
            const Spot here = along(s);
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

    void refine(Chain& chain) {
        std::vector<Spot> fine;
        const std::size_t n = chain.spots.size();
        for (std::size_t i = 0; i < n; ++i) {
            fine.push_back(chain.spots[i]);
            if (i + 1 < n || chain.closed) put(chain.spots[i], chain.spots[(i + 1) % n], 0, fine);
        }
        chain.spots = std::move(fine);
    }

    /// Further places between two, until half the tolerance is kept.
    void put(const Spot& a, const Spot& b, int depth, std::vector<Spot>& into) {
        const double du = b.u - a.u, dv = b.v - a.v, length = std::hypot(du, dv);
        if (!(length > tolerance_) || depth > 14) return;
        if (std::ranges::all_of(std::array{0.5, 0.25, 0.75}, [&](double share) { return isNear(a, b, share); })) return;
        const std::optional<Spot> middle = beside(a, b, length);
        if (!middle) return;
        put(a, *middle, depth + 1, into);
        into.push_back(*middle);
        put(*middle, b, depth + 1, into);
    }

    /// A place beside a chord: so many mm to the left of a share of its way.
    Spot left(const Spot& a, const Spot& b, double share, double mm) const {
        const double du = b.u - a.u, dv = b.v - a.v, length = std::hypot(du, dv);
        return fromSheet(a.u + share * du - mm * dv / length, a.v + share * dv + mm * du / length);
    }

    /// Whether the line passes within half the tolerance of a place on a chord. To its left the field is greater.
    bool isNear(const Spot& a, const Spot& b, double share) {
        const Spot on = left(a, b, share, 0);
        const double value = at(on.x, on.y);
        if (std::isnan(value)) return true; // nothing more can be known here
        const bool high = isHigh(value);
        const Spot side = left(a, b, share, (high ? -0.5 : 0.5) * tolerance_);
        const double other = at(side.x, side.y);
        return std::isnan(other) || isHigh(other) != high;
    }

    /// Where the line is at the middle of a chord, if it is near.
    std::optional<Spot> beside(const Spot& a, const Spot& b, double length) {
        double from = 0;
        const auto value = [&](double mm) {
            const Spot here = left(a, b, 0.5, mm);
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

    // --- as few places as needed ------------------------------------------------------------------------------------

    static double away(const Spot& p, const Spot& a, const Spot& b) {
        const double du = b.u - a.u, dv = b.v - a.v, square = du * du + dv * dv;
        const double share = square > 0 ? std::clamp(((p.u - a.u) * du + (p.v - a.v) * dv) / square, 0.0, 1.0) : 0;
        return std::hypot(p.u - a.u - share * du, p.v - a.v - share * dv);
    }

    /// Leaves out what is no farther than so many mm from the pieces that stay (D. H. Douglas, T. K. Peucker 1973).
    static void straighten(Chain& chain, double mm) {
        std::vector<Spot>& all = chain.spots;
        if (chain.closed) all.push_back(all.front());
        std::vector<char> kept(all.size(), 0);
        kept.front() = kept.back() = 1;
        std::vector<std::pair<std::size_t, std::size_t>> open{{0, all.size() - 1}};
        if (chain.closed && all.size() > 3) { // from the place that is farthest, and one on either side: never a line
            std::size_t far = 1;
            const auto square = [&](std::size_t i) {
                const double du = all[i].u - all[0].u, dv = all[i].v - all[0].v;
                return du * du + dv * dv;
            };
            const auto distance = [&](std::size_t i) { return std::hypot(all[i].u - all[0].u, all[i].v - all[0].v); };
            double most = square(far);
            for (std::size_t i = 2; i + 1 < all.size(); ++i) {
                const double here = square(i);
                if (here < 0.999999 * most || (here < 1.000001 * most && !(distance(i) > distance(far)))) continue;
                far = i;
                most = here;
            }
            kept[far] = 1;
            open = {{0, far}, {far, all.size() - 1}};
        }
        while (!open.empty()) {
            const auto [first, last] = open.back();
            open.pop_back();
            std::size_t farthest = first;
            double most = mm * mm;
            // A few multiplications say of nearly all which is farther; only what is all but equal is looked at
            // closely.
            const Spot &a = all[first], &b = all[last];
            const double du = b.u - a.u, dv = b.v - a.v, square = du * du + dv * dv, per = square > 0 ? 1 / square : 0;
            for (std::size_t i = first + 1; i < last; ++i) {
                const double pu = all[i].u - a.u, pv = all[i].v - a.v,
                             share = std::clamp((pu * du + pv * dv) * per, 0.0, 1.0), eu = pu - share * du,
                             ev = pv - share * dv, here = eu * eu + ev * ev;
                if (here < 0.999999 * most) continue;
                if (here < 1.000001 * most) {
                    const double before = farthest == first ? mm : away(all[farthest], a, b);
                    if (!(away(all[i], a, b) > before)) continue;
                }
                most = here;
                farthest = i;
            }
            if (farthest == first) continue;
            kept[farthest] = 1;
            open.emplace_back(first, farthest);
            open.emplace_back(farthest, last);
        }
        std::vector<Spot> some;
        for (std::size_t i = 0; i < all.size(); ++i) {
            if (kept[i]) some.push_back(all[i]);
        }
        if (chain.closed) some.pop_back();
        all = std::move(some);
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
    std::size_t left_ = 0, evaluations_ = 0, outputs_ = 1;
    std::optional<Evaluator> evaluator_;
    std::vector<Piece> pieces_;
    bool finished_ = true;
};

Path pathOf(const std::vector<Spot>& spots) {
    Path path;
    path.x.reserve(spots.size());
    path.y.reserve(spots.size());
    for (const Spot& spot : spots) {
        path.x.push_back(spot.x);
        path.y.push_back(spot.y);
    }
    return path;
}

/// Rings out of lines and the parts of the border that are above, each with what is above on its left.
class Rings {
public:
    explicit Rings(const FieldSamples& samples) : samples_(samples) {}

    void line(const Chain& chain) {
        pieces_.push_back({chain.first, chain.closed ? chain.first : chain.last, &chain.spots});
    }
    /// Along a border from one point of the samples, or from where a line ends, to another.
    void border(CellEdge from, CellEdge to) { pieces_.push_back({from, to, nullptr}); }

    std::vector<Path> closed() {
        EdgeTable starts(pieces_.size());
        for (const Piece& piece : pieces_) starts.add(piece.from);
        std::vector<Path> rings;
        std::vector<char> used(pieces_.size(), 0);
        for (std::uint32_t start = 0; start < pieces_.size(); ++start) {
            if (used[start]) continue;
            Path ring;
            for (std::uint32_t i = start; i != EdgeTable::none;) {
                used[i] = 1;
                append(ring, pieces_[i]);
                if (pieces_[i].to == pieces_[start].from) break;
                i = starts.first(pieces_[i].to);
                while (i != EdgeTable::none && used[i]) i = starts.after(i);
            }
            if (ring.size() > 1 && ring.x.front() == ring.x.back() && ring.y.front() == ring.y.back()) {
                ring.x.pop_back();
                ring.y.pop_back();
            }
            if (ring.size() > 2) rings.push_back(std::move(ring));
        }
        return rings;
    }

private:
    struct Piece {
        CellEdge from, to;
        const std::vector<Spot>* line; ///< null: straight along a border
    };

    void append(Path& ring, const Piece& piece) const {
        if (piece.line) {
            for (const Spot& spot : *piece.line) append(ring, spot.x, spot.y);
            return;
        }
        for (const CellEdge each : {piece.from, piece.to}) {
            if (firstPoint(each) != secondPoint(each)) continue; // the line has that place
            append(ring, samples_.xAt(firstPoint(each)), samples_.yAt(firstPoint(each)));
        }
    }

    /// Without doubled places, and without those in the middle of an upright or level side.
    static void append(Path& ring, double x, double y) {
        const std::size_t n = ring.size();
        if (n > 0 && ring.x[n - 1] == x && ring.y[n - 1] == y) return;
        const auto inLine = [&](const std::vector<double>& a, double end) {
            return a[n - 2] == a[n - 1] && a[n - 1] == end;
        };
        const auto goesOn = [&](const std::vector<double>& a, double end) {
            return (a[n - 1] - a[n - 2]) * (end - a[n - 1]) > 0;
        };
        if (n > 1 && ((inLine(ring.x, x) && goesOn(ring.y, y)) || (inLine(ring.y, y) && goesOn(ring.x, x)))) {
            ring.x[n - 1] = x;
            ring.y[n - 1] = y;
            return;
        }
        ring.x.push_back(x);
        ring.y.push_back(y);
    }

    const FieldSamples& samples_;
    std::vector<Piece> pieces_;
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
        std::vector<Chain> chains, edges; ///< edges: of plateaus, on their upper side
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
            std::vector<Chain> chains = follower.run(through);
            all[k].evaluations += follower.evaluations();
            all[k].finished = all[k].finished && follower.finished();
            return chains;
        };
        all[k].chains = follow(false, crossed[k]);
        if (plateau) all[k].edges = follow(true, cells.reaching(k, levels[k]));
        if (!areas) return;
        Rings rings(samples);
        for (const Chain& chain : all[k].chains) rings.line(chain);
        for (const auto& [a, b] : border) {
            const bool fromAbove = counts[a] > k, toAbove = counts[b] > k;
            if (fromAbove || toAbove)
                rings.border(fromAbove ? atPoint(a) : cellEdge(a, b), toAbove ? atPoint(b) : cellEdge(a, b));
        }
        all[k].above = rings.closed();
    });
    for (std::size_t k = 0; k < levels.size(); ++k) {
        for (const auto* chains : {&all[k].chains, &all[k].edges}) {
            for (const Chain& chain : *chains) found.lines.push_back({k, chain.closed, pathOf(chain.spots)});
        }
        if (areas) found.above.push_back(std::move(all[k].above));
        found.evaluations += all[k].evaluations;
        found.finished = found.finished && all[k].finished;
    }
    if (areas) {
        Rings rings(samples);
        for (const auto& [a, b] : border) rings.border(atPoint(a), atPoint(b));
        found.domain = rings.closed();
    }
    return found;
}

} // namespace coulter
