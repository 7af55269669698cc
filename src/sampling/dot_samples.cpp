#include "sampling/dot_samples.h"

#include "sampling/field.h"
#include "sampling/passed_over.h"
#include "sampling/pieced_field.h"

#include <algorithm>
#include <cmath>
#include <tbb/parallel_for.h>

namespace coulter {
namespace {

constexpr std::size_t tileSide = 32;  // dots
constexpr double noticedShare = 0.02; // of what is shown

bool isWithin(const Interval& interval, double at) {
    return (interval.lowClosed ? at >= interval.low : at > interval.low) &&
           (interval.highClosed ? at <= interval.high : at < interval.high);
}

class DotSampler {
public:
    DotSampler(const Program& f, const std::array<Interval, 2>& intervals, const DotSide& across, const DotSide& down,
               const Interval& range, const std::stop_token& stop)
        : f_(f), intervals_(intervals), across_(across), down_(down), range_(range), stop_(stop),
          field_(f, PiecedField::Knows::Jumps, stop) {
        dots_.width = across.middles.size();
        dots_.height = down.middles.size();
        isDivided_.assign(dots_.width * dots_.height, 0);
    }

    DotSamples run() {
        dots_.values = valuesAt(across_.middles, down_.middles, &pieces_);
        markEdges();
        markHidden();
        divide();
        dots_.evaluations = field_.evaluations() + more_;
        if (stop_.stop_requested()) dots_.finished = false;
        return std::move(dots_);
    }

private:
    /// The values at all combinations of two sides, NaN beyond the intervals; all components finite, or none.
    std::vector<double> valuesAt(const std::vector<double>& xs, const std::vector<double>& ys,
                                 std::vector<PiecedField::Piece>* pieces) {
        std::vector<double> values(xs.size() * ys.size(), std::nan(""));
        if (!field_.hasPieces()) {
            valuesOfOnePiece(xs, ys, values);
            return values;
        }
        std::vector<double> x, y;
        std::vector<std::size_t> places;
        for (std::size_t j = 0; j < ys.size(); ++j) {
            for (std::size_t i = 0; i < xs.size(); ++i) {
                if (!isWithin(intervals_[0], xs[i]) || !isWithin(intervals_[1], ys[j])) continue;
                x.push_back(xs[i]);
                y.push_back(ys[j]);
                places.push_back(j * xs.size() + i);
            }
        }
        evaluate(x, y, places, values, pieces);
        return values;
    }

    void valuesOfOnePiece(const std::vector<double>& xs, const std::vector<double>& ys, std::vector<double>& values) {
        std::vector<double> columns, rows;
        std::vector<std::size_t> is, js;
        for (std::size_t i = 0; i < xs.size(); ++i) {
            if (isWithin(intervals_[0], xs[i])) columns.push_back(xs[i]), is.push_back(i);
        }
        for (std::size_t j = 0; j < ys.size(); ++j) {
            if (isWithin(intervals_[1], ys[j])) rows.push_back(ys[j]), js.push_back(j);
        }
        const FieldSamples grid = sampleMeshgrid(f_, std::move(columns), std::move(rows), stop_);
        more_ += grid.evaluations;
        tbb::parallel_for(std::size_t{0}, js.size(), [&](std::size_t row) {
            double* const into = values.data() + js[row] * xs.size();
            for (std::size_t i = 0; i < is.size(); ++i) {
                const double value = grid.sizeAt(row * is.size() + i);
                if (std::isfinite(value)) into[is[i]] = value;
            }
        });
    }

    void evaluate(const std::vector<double>& x, const std::vector<double>& y, const std::vector<std::size_t>& places,
                  std::vector<double>& values, std::vector<PiecedField::Piece>* pieces) {
        std::vector<std::vector<double>> components;
        std::vector<PiecedField::Piece> found;
        field_(x, y, components, found);
        if (pieces) pieces->assign(values.size(), 0);
        for (std::size_t i = 0; i < places.size(); ++i) {
            double value = components[0][i];
            if (components.size() > 1) {
                double sum = 0;
                for (const auto& component : components) sum += component[i] * component[i];
                value = std::sqrt(sum);
            }
            values[places[i]] = std::isfinite(value) ? value : std::nan("");
            if (pieces) (*pieces)[places[i]] = found[i];
        }
    }

    /// Dots whose neighbours are of another piece, or of which only one is defined. Of a straight edge through a dot
    /// one of its eight neighbours always lies on the other side.
    void markEdges() {
        const auto differ = [&](std::size_t a, std::size_t b) {
            const bool isOne = std::isnan(dots_.values[a]), isOther = std::isnan(dots_.values[b]);
            return isOne != isOther || (!isOne && !pieces_.empty() && pieces_[a] != pieces_[b]);
        };
        const auto isUndefined = [](double value) { return std::isnan(value); };
        if (pieces_.empty() && std::ranges::none_of(dots_.values, isUndefined)) return;
        const auto mark = [&](std::size_t a, std::size_t b) {
            if (differ(a, b)) isDivided_[a] = isDivided_[b] = 1;
        };
        const std::size_t width = dots_.width;
        for (std::size_t j = 0; j < dots_.height; ++j) {
            for (std::size_t i = 0; i < width; ++i) {
                const std::size_t at = j * width + i;
                const bool isLast = j + 1 == dots_.height;
                if (i + 1 < width) mark(at, at + 1);
                if (!isLast) mark(at, at + width);
                if (!isLast && i + 1 < width) mark(at, at + width + 1);
                if (!isLast && i > 0) mark(at, at + width - 1);
            }
        }
    }

    /// Dots with something that bounds show and no dot has, and those beside them.
    void markHidden() {
        if (f_.outputs.size() != 1) return;
        // Row of tiles by row: how many threads there are shows nowhere.
        std::vector<std::vector<SampledTile>> rows((dots_.height + tileSide - 1) / tileSide);
        tbb::parallel_for(std::size_t{0}, rows.size(), [&](std::size_t row) {
            for (std::size_t left = 0; left < dots_.width; left += tileSide) addTile(row * tileSide, left, rows[row]);
        });
        std::vector<SampledTile> tiles;
        for (const auto& row : rows) tiles.insert(tiles.end(), row.begin(), row.end());
        const double noticed = noticedShare * (range_.high - range_.low);
        const ToldApart told{noticed, {range_.low - noticed, range_.high + noticed}};
        for (const FieldRange::Place& place : passedOver(f_, tiles, told, stop_)) {
            const std::size_t i = dotAt(across_.edges, place.x), j = dotAt(down_.edges, place.y);
            for (std::size_t y = j > 0 ? j - 1 : 0; y < std::min(j + 2, dots_.height); ++y)
                for (std::size_t x = i > 0 ? i - 1 : 0; x < std::min(i + 2, dots_.width); ++x)
                    isDivided_[y * dots_.width + x] = 1;
        }
    }

    /// A tile without edges; at a jump, where no bounds are known, each dot is looked at closely anyway.
    void addTile(std::size_t top, std::size_t left, std::vector<SampledTile>& tiles) const {
        const std::size_t right = std::min(left + tileSide, dots_.width),
                          bottom = std::min(top + tileSide, dots_.height);
        double low = HUGE_VAL, high = -HUGE_VAL;
        for (std::size_t j = top; j < bottom; ++j) {
            for (std::size_t at = j * dots_.width + left; at < j * dots_.width + right; ++at) {
                const double value = dots_.values[at];
                if (isDivided_[at] || std::isnan(value)) return;
                low = std::min(low, value);
                high = std::max(high, value);
            }
        }
        tiles.push_back(
            {{boundsOf(across_.edges, left, right, intervals_[0]), boundsOf(down_.edges, top, bottom, intervals_[1])},
             {low, high}});
    }

    static Bounds boundsOf(const std::vector<double>& edges, std::size_t from, std::size_t to,
                           const Interval& interval) {
        const auto [low, high] = std::minmax(edges[from], edges[to]);
        return {std::max(low, interval.low), std::min(high, interval.high)};
    }

    static std::size_t dotAt(const std::vector<double>& edges, double at) {
        const bool falls = edges.front() > edges.back();
        const auto next =
            std::ranges::upper_bound(edges, falls ? -at : at, {}, [&](double edge) { return falls ? -edge : edge; });
        const auto index = std::max<std::ptrdiff_t>(0, next - edges.begin() - 1);
        return std::min(static_cast<std::size_t>(index), edges.size() - 2);
    }

    void divide() {
        std::vector<double> x, y;
        std::vector<std::size_t> places;
        constexpr std::size_t across = DotSamples::partsAcross;
        for (std::size_t dot = 0; dot < isDivided_.size(); ++dot) {
            if (!isDivided_[dot]) continue;
            if (dots_.divided.size() == mostDividedDots) {
                dots_.finished = false;
                break;
            }
            const std::size_t k = dots_.divided.size(), i = dot % dots_.width, j = dot / dots_.width;
            dots_.divided.push_back({static_cast<std::uint32_t>(dot), {}});
            dots_.divided.back().values.fill(std::nan(""));
            for (std::size_t part = 0; part < DotSamples::partsOfDot; ++part) {
                const double px = across_.parts[i * across + part % across],
                             py = down_.parts[j * across + part / across];
                if (!isWithin(intervals_[0], px) || !isWithin(intervals_[1], py)) continue;
                x.push_back(px);
                y.push_back(py);
                places.push_back(k * DotSamples::partsOfDot + part);
            }
        }
        std::vector<double> values(dots_.divided.size() * DotSamples::partsOfDot, std::nan(""));
        evaluate(x, y, places, values, nullptr);
        for (std::size_t k = 0; k < dots_.divided.size(); ++k)
            std::copy_n(values.begin() + static_cast<std::ptrdiff_t>(k * DotSamples::partsOfDot),
                        DotSamples::partsOfDot, dots_.divided[k].values.begin());
    }

    const Program& f_;
    const std::array<Interval, 2>& intervals_;
    const DotSide &across_, &down_;
    const Interval& range_;
    std::stop_token stop_;
    PiecedField field_;
    DotSamples dots_;
    std::size_t more_ = 0;                   ///< evaluations beside those of `field_`
    std::vector<PiecedField::Piece> pieces_; ///< of each dot
    std::vector<std::uint8_t> isDivided_;    ///< of each dot
};

} // namespace

DotSamples sampleDots(const Program& f, const std::array<Interval, 2>& intervals, const DotSide& across,
                      const DotSide& down, const Interval& range, std::stop_token stop) {
    return DotSampler(f, intervals, across, down, range, stop).run();
}

} // namespace coulter
