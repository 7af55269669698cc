#include "sampling/bisected_mesh.h"
#include "sampling/curve_sampler.h"
#include "sampling/field.h"
#include "sampling/field_cut.h"
#include "sampling/passed_over.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <unordered_map>

namespace coulter {
namespace {

using Vertex = BisectedMesh::Vertex;

constexpr double firstSquare = 5;            // mm, about
constexpr std::int32_t squareSize = 1 << 12; // lattice units, so that the finest edge is far below any pen
constexpr double borderEdge = 0.5;           // mm: longest edge of a triangle that is cut by a border or a jump
constexpr double finestEdge = 0.03;          // mm: steeper than that is taken for a jump or left as it is
constexpr double flattest = 0.25;            // part of range per height below which isolines are not held closer
constexpr double flattestAtLevel = 1e-6;     // and along levels that are followed
/// Part of what is allowed that the places looked at must keep: between them it can be a little more.
constexpr double keptPart = 0.7;
constexpr int mostSearches = 4; // for peaks that the points pass over
/// A step over an edge this many times what is allowed may be a jump.
constexpr double suspicious = 8;
/// Past a level a step that halving an edge ten times leaves is one.
constexpr double smallestJump = 1e-3;

class MeshSampler {
public:
    MeshSampler(const Program& f, const std::array<Interval, 2>& intervals, const PanelMap& map,
                const FieldTolerance& tolerance, std::stop_token stop, std::size_t mostEvaluations)
        : f_(f),
          field_(f, tolerance.knowsPieces ? PiecedField::Knows::JumpsAndCorners : PiecedField::Knows::Nothing, stop),
          intervals_(intervals), map_(map), stop_(std::move(stop)), mostEvaluations_(mostEvaluations),
          components_(f.outputs.size()), mesh_(squares(0), squares(1), squareSize),
          peaks_({tolerance.low, tolerance.high}, tolerance.levels, tolerance.followsLevels), levels_(tolerance.levels),
          followsLevels_(tolerance.followsLevels) {
        for (std::size_t k = 0; k < 2; ++k) {
            start_[k] = axis(k).toSheet(intervals_[k].low);
            perUnit_[k] = (axis(k).toSheet(intervals_[k].high) - start_[k]) / (squares(k) * double(squareSize));
        }
        const double height = std::max(1.0, map.y.length);
        low_ = tolerance.low;
        high_ = tolerance.high;
        knowsPieces_ = field_.hasPieces();
        looksForPeaks_ = tolerance.looksForPeaks && components_ == 1;
        perMillimetre_ = (high_ - low_) / height;
        allowed_ = tolerance.millimetres * perMillimetre_;
        millimetres_ = tolerance.millimetres;
        values_.resize(components_);
    }

    FieldSamples run() {
        evaluateNew();
        std::vector<std::size_t> open(mesh_.triangles().size());
        for (std::size_t i = 0; i < open.size(); ++i) open[i] = i;
        while (!open.empty() && !stopped()) open = refine(open);
        followLevels();
        for (int search = 0; looksForPeaks_ && search < mostSearches && !stopped(); ++search) {
            open = besidePeaks();
            if (open.empty()) break;
            while (!open.empty() && !stopped()) open = refine(open);
        }
        return collect();
    }

    /// Along levels with a part of what may be spent, for the mesh has to be whole in any case.
    void followLevels() {
        looksAtLevels_ = followsLevels_ && components_ == 1 && !levels_.empty();
        if (!looksAtLevels_) return;
        std::vector<std::size_t> open;
        for (std::size_t t = 0; t < mesh_.triangles().size(); ++t) {
            if (mesh_.triangles()[t].leaf) open.push_back(t);
        }
        const auto isSpent = [&] {
            return stopped() || mesh_.triangles().size() > 2 * mostMeshPoints ||
                   field_.evaluations() > mostEvaluations_ / 2;
        };
        while (!open.empty() && !isSpent()) open = refine(open);
        looksAtLevels_ = !isSpent();
    }

private:
    const AxisMap& axis(std::size_t k) const { return k == 0 ? map_.x : map_.y; }

    int squares(std::size_t k) const {
        const double length = std::abs(axis(k).toSheet(intervals_[k].high) - axis(k).toSheet(intervals_[k].low));
        return std::clamp(static_cast<int>(std::ceil(length / firstSquare)), 4, 64);
    }

    bool stopped() const {
        return stop_.stop_requested() || mesh_.triangles().size() > 4 * mostMeshPoints ||
               field_.evaluations() > mostEvaluations_;
    }

    /// The user's coordinate of a place along one side; the ends of the interval exactly, and open ends just inside.
    double coordinate(std::size_t k, double lattice) const {
        const Interval& interval = intervals_[k];
        if (lattice <= 0) return interval.lowClosed ? interval.low : std::nextafter(interval.low, interval.high);
        if (lattice >= squares(k) * double(squareSize))
            return interval.highClosed ? interval.high : std::nextafter(interval.high, interval.low);
        return std::clamp(axis(k).fromSheet(start_[k] + lattice * perUnit_[k]), interval.low, interval.high);
    }

    /// Values of the vertices that have none yet.
    void evaluateNew() {
        const auto& places = mesh_.places();
        for (std::size_t i = x_.size(); i < places.size(); ++i) {
            x_.push_back(coordinate(0, places[i].x));
            y_.push_back(coordinate(1, places[i].y));
        }
        const std::size_t known = values_[0].size();
        if (known == x_.size()) return;
        std::vector<std::vector<double>> fresh;
        std::vector<PiecedField::Piece> pieces;
        field_({x_.begin() + static_cast<std::ptrdiff_t>(known), x_.end()},
               {y_.begin() + static_cast<std::ptrdiff_t>(known), y_.end()}, fresh, pieces);
        pieces_.insert(pieces_.end(), pieces.begin(), pieces.end());
        for (std::size_t k = 0; k < components_; ++k)
            values_[k].insert(values_[k].end(), fresh[k].begin(), fresh[k].end());
    }

    bool defined(Vertex v) const {
        return std::ranges::all_of(values_, [&](const auto& column) { return std::isfinite(column[v]); });
    }

    double u(Vertex v) const { return mesh_.places()[v].x * perUnit_[0]; } // mm
    double v(Vertex v) const { return mesh_.places()[v].y * perUnit_[1]; }
    double length(Vertex a, Vertex b) const { return std::hypot(u(b) - u(a), v(b) - v(a)); }

    /// Looks at triangles, splits those that need it, and returns the leaves that came of that.
    std::vector<std::size_t> refine(const std::vector<std::size_t>& open) {
        std::vector<std::size_t> looked, wanted;
        for (const std::size_t t : open) {
            if (!mesh_.triangles()[t].leaf || !mesh_.canSplit(t)) continue;
            looked.push_back(t);
            mesh_.middles(t);
        }
        evaluateNew();
        for (const std::size_t t : looked) {
            if (stop_.stop_requested()) return {};
            if (needsSplit(t)) wanted.push_back(t);
        }
        const std::size_t before = mesh_.triangles().size();
        for (const std::size_t t : wanted) {
            if (stopped()) break;
            mesh_.split(t);
        }
        evaluateNew();
        std::vector<std::size_t> next;
        for (std::size_t t = before; t < mesh_.triangles().size(); ++t) {
            if (mesh_.triangles()[t].leaf) next.push_back(t);
        }
        return next;
    }

    bool needsSplit(std::size_t t) {
        const auto& corner = mesh_.triangles()[t].v;
        const double longest = length(corner[0], corner[1]);
        const std::array<Vertex, 3> middle = mesh_.middles(t);
        int good = 0;
        for (const Vertex v : corner) good += defined(v);
        for (const Vertex v : middle) good += defined(v);
        if (!peaks_.empty() && longest > finestEdge && hidesPeak(corner)) return true;
        if (good == 0) return false;
        if (good < 6) return longest > borderEdge; // a border runs through it
        if (components_ == 1 && isBeyond(corner, middle)) return false;
        if (!isOnePiece(corner, middle))
            return longest > borderEdge || (longest > finestEdge && !isCutCleanly(corner, middle));
        if (followsLevels_ && longest <= borderEdge && isAcross(corner, middle) && isPartedOnce(corner)) return false;
        double worst = 0; // over what is allowed
        for (const auto& z : values_) {
            std::array<double, 3> off{};
            for (std::size_t k = 0; k < 3; ++k)
                off[k] = std::abs(z[middle[k]] - (z[corner[k]] + z[corner[(k + 1) % 3]]) / 2);
            // What bends evenly is off by so much in the triangle's middle, if it is off to one side.
            const double inside = 4.0 / 9 * (off[0] + off[1] + off[2]);
            const double farthest = std::max({off[0], off[1], off[2], inside}),
                         steep = steepness(corner, z[corner[0]], z[corner[1]], z[corner[2]]);
            const bool isClose = looksAtLevels_ && mayHaveLevel(corner, middle, farthest);
            worst = std::max(worst, farthest / (isClose ? allowedAtLevel(steep) : allowedBy(steep)));
        }
        if (worst <= 1) return false;
        if (longest <= finestEdge) return false;
        // Halving twice takes the error of a smooth field down to a quarter; a jump stays and is cut instead.
        return worst < suspicious || longest > borderEdge || !jumps(corner);
    }

    /// Whether all values are below, or all above what is shown, so that nothing of them can be told apart.
    bool isBeyond(const std::array<Vertex, 3>& corner, const std::array<Vertex, 3>& middle) const {
        const auto all = [&](const auto& beyond) {
            const auto here = [&](Vertex v) { return beyond(values_[0][v]); };
            return std::ranges::all_of(corner, here) && std::ranges::all_of(middle, here);
        };
        if (!all([&](double value) { return value < low_; }) && !all([&](double value) { return value > high_; }))
            return false;
        return std::ranges::none_of(levels_, [&](double level) {
            return !all([&](double value) { return value < level; }) &&
                   !all([&](double value) { return value > level; });
        });
    }

    /// Whether a field of numbers is below all that is shown on one side of a triangle, and above it on the other, as
    /// beside a pole.
    bool isAcross(const std::array<Vertex, 3>& corner, const std::array<Vertex, 3>& middle) const {
        const Bounds all = shownAndLevels();
        const auto isOutside = [&](Vertex v) { return values_[0][v] < all.low || values_[0][v] > all.high; };
        return components_ == 1 && std::ranges::all_of(corner, isOutside) && std::ranges::all_of(middle, isOutside);
    }
    Bounds shownAndLevels() const {
        if (levels_.empty()) return {low_, high_};
        return {std::min(low_, levels_.front()), std::max(high_, levels_.back())};
    }
    bool isPartedOnce(const std::array<Vertex, 3>& corner) {
        int cuts = 0;
        for (std::size_t k = 0; k < 3; ++k) {
            const Cut* cut = cutOf(corner[k], corner[(k + 1) % 3]);
            cuts += cut && cut->parts;
        }
        return cuts == 2;
    }

    // --- peaks between the points -----------------------------------------------------------------------------------

    /// The first squares with the values that their points have.
    std::vector<SampledTile> tiles() const {
        const int across = squares(0), up = squares(1);
        std::vector<SampledTile> all(static_cast<std::size_t>(across) * static_cast<std::size_t>(up));
        const auto tile = [&](int i, int j) -> SampledTile& {
            return all[static_cast<std::size_t>(j) * static_cast<std::size_t>(across) + static_cast<std::size_t>(i)];
        };
        for (int j = 0; j < up; ++j) {
            for (int i = 0; i < across; ++i) {
                const std::array<int, 2> at{i, j};
                for (std::size_t k = 0; k < 2; ++k)
                    tile(i, j).box[k] = {coordinate(k, at[k] * double(squareSize)),
                                         coordinate(k, (at[k] + 1) * double(squareSize))};
            }
        }
        for (std::size_t v = 0; v < values_[0].size(); ++v) {
            const double value = values_[0][v];
            if (!std::isfinite(value)) continue;
            const BisectedMesh::Place& place = mesh_.places()[v];
            for (int j = std::max(0, (place.y - 1) / squareSize); j <= std::min(up - 1, place.y / squareSize); ++j) {
                for (int i = std::max(0, (place.x - 1) / squareSize); i <= std::min(across - 1, place.x / squareSize);
                     ++i) {
                    Bounds& known = tile(i, j).known;
                    known = {std::min(known.low, value), std::max(known.high, value)};
                }
            }
        }
        return all;
    }

    /// Looks for peaks that the points pass over; the triangles that hide them.
    std::vector<std::size_t> besidePeaks() {
        for (const FieldRange::Place& peak : passedOver(f_, tiles(), peaks_.told(), stop_))
            peaks_.add({(axis(0).toSheet(peak.x) - start_[0]) / perUnit_[0],
                        (axis(1).toSheet(peak.y) - start_[1]) / perUnit_[1], peak.value});
        std::vector<std::size_t> open;
        for (std::size_t t = 0; !peaks_.empty() && t < mesh_.triangles().size(); ++t) {
            const auto& triangle = mesh_.triangles()[t];
            if (triangle.leaf && length(triangle.v[0], triangle.v[1]) > finestEdge && hidesPeak(triangle.v))
                open.push_back(t);
        }
        return open;
    }

    /// Whether a triangle hides a peak that was found.
    bool hidesPeak(const std::array<Vertex, 3>& corner) const {
        std::array<FieldRange::Place, 3> corners;
        for (std::size_t k = 0; k < 3; ++k) {
            const BisectedMesh::Place& place = mesh_.places()[corner[k]];
            corners[k] = {double(place.x), double(place.y), values_[0][corner[k]]};
        }
        return peaks_.hiddenIn(corners);
    }

    /// Rise per mm of the plane through three values.
    double steepness(const std::array<Vertex, 3>& corner, double a, double b, double c) const {
        const double u1 = u(corner[1]) - u(corner[0]), v1 = v(corner[1]) - v(corner[0]),
                     u2 = u(corner[2]) - u(corner[0]), v2 = v(corner[2]) - v(corner[0]), det = u1 * v2 - u2 * v1;
        return std::hypot((b - a) * v2 - (c - a) * v1, (c - a) * u1 - (b - a) * u2) / std::abs(det);
    }
    /// Whether one of the levels lies among the values of a triangle, or as near to them as they may be off.
    bool mayHaveLevel(const std::array<Vertex, 3>& corner, const std::array<Vertex, 3>& middle, double off) const {
        double low = HUGE_VAL, high = -HUGE_VAL;
        for (const auto* three : {&corner, &middle}) {
            for (const Vertex v : *three) low = std::min(low, values_[0][v]), high = std::max(high, values_[0][v]);
        }
        const auto level = std::ranges::lower_bound(levels_, low - off);
        return level != levels_.end() && *level <= high + off;
    }
    double allowedAtLevel(double steep) const {
        return keptPart * millimetres_ * std::max(steep, flattestAtLevel * perMillimetre_);
    }
    double allowedBy(double steep) const {
        return keptPart * millimetres_ * std::max(steep, flattest * perMillimetre_);
    }

    /// Where an edge crosses a border of the domain, a jump or a line where pieces meet.
    struct Cut : FieldCut {
        std::optional<std::uint32_t> pointFirst, pointSecond; ///< once they are points of the result
    };

    static std::uint64_t key(Vertex a, Vertex b) {
        return (static_cast<std::uint64_t>(std::min(a, b)) << 32) | std::max(a, b);
    }

    bool jumps(const std::array<Vertex, 3>& corner) {
        for (std::size_t k = 0; k < 3; ++k) {
            const Cut* cut = cutOf(corner[k], corner[(k + 1) % 3]);
            if (cut && cut->parts) return true;
        }
        return false;
    }

    /// The cut of an edge, found once; null if the field goes on along it.
    const Cut* cutOf(Vertex a, Vertex b) {
        const bool first = defined(a), second = defined(b);
        if (!first && !second) return nullptr;
        CutSteps steps{suspicious * allowed_, 1e-3 * allowed_};
        if (followsLevels_ && components_ == 1) {
            steps.besideBorders = true;
            const Bounds all = shownAndLevels();
            steps.shown = {all.low - (high_ - low_), all.high + (high_ - low_)};
        }
        if (first && second && pieces_[a] == pieces_[b]) {
            const double step = stepBetween(a, b);
            const bool passes = passesLevel(a, b);
            if (step < steps.jump && !passes) return nullptr; // most edges, so without a search
            if (passes) steps.jump = std::min(steps.jump, smallestJump * step);
        }
        if (a > b) std::swap(a, b);
        const auto known = cuts_.find(key(a, b));
        if (known != cuts_.end()) return known->second ? &*known->second : nullptr;
        std::optional<Cut> found;
        if (!stop_.stop_requested() && field_.evaluations() <= mostEvaluations_) {
            if (auto cut = findCut(field_, spot(a), spot(b), steps, stop_)) found = Cut{std::move(*cut), {}, {}};
        }
        const auto at = cuts_.emplace(key(a, b), std::move(found)).first;
        return at->second ? &*at->second : nullptr;
    }

    /// Whether a level that is followed lies between the values of two vertices, so that a jump matters however low.
    bool passesLevel(Vertex a, Vertex b) const {
        if (!followsLevels_ || components_ != 1) return false;
        const auto [low, high] = std::minmax(values_[0][a], values_[0][b]);
        const auto level = std::ranges::lower_bound(levels_, low);
        return low < high && level != levels_.end() && *level <= high;
    }

    double stepBetween(Vertex a, Vertex b) const {
        double step = 0;
        for (const auto& column : values_) step = std::max(step, std::abs(column[a] - column[b]));
        return step;
    }

    PiecedField::Spot spot(Vertex v) const {
        PiecedField::Spot at{x_[v], y_[v], {}, pieces_[v], defined(v)};
        for (const auto& column : values_) at.values.push_back(column[v]);
        return at;
    }

    bool isOnePiece(const std::array<Vertex, 3>& corner, const std::array<Vertex, 3>& middle) const {
        const auto isSame = [&](Vertex v) { return pieces_[v] == pieces_[corner[0]]; };
        return std::ranges::all_of(corner, isSame) && std::ranges::all_of(middle, isSame);
    }

    /// Whether one line parts a triangle into two pieces, and on each side its edges are as straight as they should be.
    bool isCutCleanly(const std::array<Vertex, 3>& corner, const std::array<Vertex, 3>& middle) {
        int cuts = 0;
        for (std::size_t k = 0; k < 3; ++k) {
            const Vertex a = corner[k], b = corner[(k + 1) % 3], m = middle[k];
            if (pieces_[a] == pieces_[b]) {
                if (pieces_[m] != pieces_[a] || !isStraight(spot(a), spot(b), m)) return false;
                continue;
            }
            const Cut* cut = cutOf(a, b);
            if (!cut || !cut->isSingle) return false;
            ++cuts;
            if (pieces_[m] == pieces_[std::min(a, b)] ? !isStraight(spot(std::min(a, b)), cut->first, m)
                                                      : !isStraight(spot(std::max(a, b)), cut->second, m))
                return false;
        }
        return cuts == 2;
    }

    /// Whether a vertex between two places of its piece is about as high as the straight line between these.
    bool isStraight(const PiecedField::Spot& a, const PiecedField::Spot& b, Vertex m) const {
        const auto apart = [&](double x, double y) {
            return std::hypot(map_.x.toSheet(x) - map_.x.toSheet(a.x), map_.y.toSheet(y) - map_.y.toSheet(a.y));
        };
        const double all = apart(b.x, b.y), share = apart(x_[m], y_[m]) / all;
        for (std::size_t k = 0; all > 0 && share < 1 && k < components_; ++k) {
            const double rise = b.values[k] - a.values[k], off = std::abs(a.values[k] + share * rise - values_[k][m]);
            if (off > allowedBy(std::abs(rise) / all)) return false;
        }
        return true;
    }

    // --- the result -------------------------------------------------------------------------------------------------

    FieldSamples collect() {
        FieldSamples samples;
        samples.values.resize(components_);
        kept_.assign(x_.size(), none);
        for (std::size_t t = 0; t < mesh_.triangles().size() && !stop_.stop_requested(); ++t) {
            if (mesh_.triangles()[t].leaf) emitTriangle(mesh_.triangles()[t].v, samples);
        }
        samples.evaluations = field_.evaluations();
        samples.finished = !stopped();
        samples.tooDear = field_.evaluations() > mostEvaluations_ && mostEvaluations_ < mostMeshEvaluations;
        return samples;
    }

    std::uint32_t point(Vertex v, FieldSamples& samples) {
        if (kept_[v] == none) {
            kept_[v] = static_cast<std::uint32_t>(samples.x.size());
            samples.x.push_back(x_[v]);
            samples.y.push_back(y_[v]);
            for (std::size_t k = 0; k < components_; ++k) samples.values[k].push_back(values_[k][v]);
        }
        return kept_[v];
    }

    /// The point where the edge from `here` to `there` is cut, with the value on the side of `here`.
    std::uint32_t cutPoint(Vertex here, Vertex there, FieldSamples& samples) {
        Cut& cut = *cuts_.at(key(here, there));
        const bool isFirst = here < there || !cut.isJump;
        std::optional<std::uint32_t>& known = isFirst ? cut.pointFirst : cut.pointSecond;
        if (known) return *known;
        const PiecedField::Spot& at = isFirst ? cut.first : cut.second;
        // Through a vertex itself, as along the axes.
        for (const Vertex v : {std::min(here, there), std::max(here, there)}) {
            const bool isThere = knowsPieces_ && at.x == x_[v] && at.y == y_[v] && (v == here || !cut.isJump);
            if (isThere && !known) known = point(v, samples);
        }
        if (!known) {
            known = static_cast<std::uint32_t>(samples.x.size());
            samples.x.push_back(at.x);
            samples.y.push_back(at.y);
            for (std::size_t k = 0; k < components_; ++k) samples.values[k].push_back(at.values[k]);
        }
        if (knowsPieces_ && cut.isJump) {
            samples.atJump.resize(std::max<std::size_t>(samples.atJump.size(), *known + 1), false);
            samples.atJump[*known] = true;
        }
        return *known;
    }

    void emit(std::uint32_t a, std::uint32_t b, std::uint32_t c, FieldSamples& samples) {
        if (a != b && b != c && c != a) samples.triangles.push_back({a, b, c});
    }

    /// Whether an edge that ends at a place without a value passes a pole before, as beside a circle of them.
    bool runsOverPole(Vertex a, Vertex b, const Cut& cut) const {
        if (components_ != 1 || cut.parts || defined(a) == defined(b)) return false;
        const Bounds all = shownAndLevels();
        const double from = values_[0][defined(a) ? a : b], to = cut.first.values[0];
        return (from > all.high && to < all.low) || (from < all.low && to > all.high);
    }

    void emitTriangle(const std::array<Vertex, 3>& v, FieldSamples& samples) {
        std::array<const Cut*, 3> cut{};
        const bool fine = length(v[0], v[1]) <= borderEdge;
        for (std::size_t k = 0; k < 3; ++k) {
            const Vertex a = v[k], b = v[(k + 1) % 3];
            if (fine || defined(a) != defined(b)) cut[k] = cutOf(a, b);
        }
        const int good = defined(v[0]) + defined(v[1]) + defined(v[2]);
        const auto count = std::ranges::count_if(cut, [](const Cut* each) { return each != nullptr; });
        if (good == 0) return;
        // Beside a pole that cannot be cut along nothing is better than a bridge over it.
        if (followsLevels_ && good == 3 && count % 2 == 1 && isAcross(v, v)) return;
        if (good == 3 && count != 2) {
            emit(point(v[0], samples), point(v[1], samples), point(v[2], samples), samples);
            return;
        }
        // The corner that the cut parts from the other two.
        std::size_t alone = 0;
        if (good == 3) {
            while (!cut[alone] || !cut[(alone + 2) % 3]) ++alone;
        } else {
            const bool wanted = good == 1;
            while (defined(v[alone]) != wanted) ++alone;
        }
        const Vertex a = v[alone], b = v[(alone + 1) % 3], c = v[(alone + 2) % 3];
        if (!cut[alone] || !cut[(alone + 2) % 3]) return;
        if (followsLevels_ && (runsOverPole(a, b, *cut[alone]) || runsOverPole(a, c, *cut[(alone + 2) % 3]))) return;
        if (good == 2 && followsLevels_) { // a pole through one corner parts the others
            const Cut* opposite = cutOf(b, c);
            if (opposite && opposite->parts) {
                emit(point(b, samples), cutPoint(b, c, samples), cutPoint(b, a, samples), samples);
                emit(point(c, samples), cutPoint(c, a, samples), cutPoint(c, b, samples), samples);
                return;
            }
        }
        if (good != 2) emit(point(a, samples), cutPoint(a, b, samples), cutPoint(a, c, samples), samples);
        if (good != 1) {
            const std::uint32_t p = cutPoint(b, a, samples), q = cutPoint(c, a, samples);
            emit(point(b, samples), point(c, samples), q, samples);
            emit(point(b, samples), q, p, samples);
        }
    }

    static constexpr std::uint32_t none = 0xffffffffU;

    const Program& f_;
    PiecedField field_;
    std::array<Interval, 2> intervals_;
    PanelMap map_;
    std::stop_token stop_;
    std::size_t mostEvaluations_;
    std::size_t components_;
    BisectedMesh mesh_;
    std::array<double, 2> start_{}, perUnit_{};
    double low_ = 0, high_ = 1, perMillimetre_ = 1, allowed_ = 1, millimetres_ = 1;
    std::vector<double> x_, y_; ///< of vertices
    std::vector<PiecedField::Piece> pieces_;
    std::vector<std::vector<double>> values_;
    std::unordered_map<std::uint64_t, std::optional<Cut>> cuts_;
    std::vector<std::uint32_t> kept_;
    HiddenPeaks peaks_; ///< in lattice units
    std::vector<double> levels_;
    bool looksForPeaks_ = false, knowsPieces_ = false, followsLevels_ = false, looksAtLevels_ = false;
};

} // namespace

FieldSamples sampleMesh(const Program& f, const std::array<Interval, 2>& intervals, const PanelMap& map,
                        const FieldTolerance& tolerance, std::stop_token stop, std::size_t mostEvaluations) {
    return MeshSampler(f, intervals, map, tolerance, std::move(stop), mostEvaluations).run();
}

} // namespace coulter
