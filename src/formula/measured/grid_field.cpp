// Measured numbers on a grid as a function. See measured_field.h.
#include "formula/bounds/bounds_arithmetic.h"
#include "formula/measured/measured_field.h"

#include <algorithm>
#include <bit>
#include <cmath>

namespace coulter {
namespace {

/// Places of one variable, with the number of the piece that a coordinate lies in found quickly where they are even.
class Axis {
public:
    Axis(std::vector<double> places, bool isLinear) : places_(std::move(places)) {
        if (isLinear) {
            borders_ = places_;
        } else { // in the middle between places; outside as far from the place as the middle inside is
            const std::size_t n = places_.size();
            const auto half = [&](std::size_t i) { return n == 1 ? 0.5 : (places_[i + 1] - places_[i]) / 2; };
            borders_.push_back(places_[0] - half(0));
            for (std::size_t i = 0; i + 1 < n; ++i) borders_.push_back(places_[i] + half(i));
            borders_.push_back(places_[n - 1] + half(n < 2 ? 0 : n - 2));
        }
        setEven();
    }

    /// Squares of so many pieces each: the last may have fewer.
    Axis(const Axis& finer, std::size_t side, bool isLinear) {
        const std::size_t n = finer.places_.size();
        for (std::size_t i = 0; i < n; i += side) {
            const std::size_t last = std::min(n, i + side) - 1;
            const bool isFirst = i == 0, isLast = last + 1 == n;
            if (!isLinear) borders_.push_back(finer.borders_[i]);
            places_.push_back(isLinear && isFirst  ? finer.places_.front()
                              : isLinear && isLast ? finer.places_.back()
                                                   : (finer.places_[i] + finer.places_[last]) / 2);
        }
        if (isLinear)
            borders_ = places_;
        else
            borders_.push_back(finer.borders_.back());
        setEven();
    }

    const std::vector<double>& places() const { return places_; }
    const std::vector<double>& borders() const { return borders_; }
    std::size_t pieces() const { return std::max<std::size_t>(1, borders_.size() - 1); }
    bool holds(double at) const { return at >= low_ && at <= high_; }

    /// The piece that a coordinate within the borders lies in; a border belongs to the piece after it, the last border
    /// to the last piece.
    std::size_t pieceOf(double at) const {
        const double guess = (at - low_) * perPiece_;
        std::ptrdiff_t i = guess > 0 ? static_cast<std::ptrdiff_t>(std::min(guess, last_)) : 0;
        const double* border = borders_.data() + i;
        if (borders_.size() > 1 && at >= border[0] && at < border[1]) return static_cast<std::size_t>(i);
        const auto last = static_cast<std::ptrdiff_t>(pieces()) - 1;
        const auto isIn = [&](std::ptrdiff_t k) {
            return k >= 0 && k <= last && (k == 0 || at >= borders_[static_cast<std::size_t>(k)]) &&
                   (k == last || at < borders_[static_cast<std::size_t>(k) + 1]);
        };
        for (const std::ptrdiff_t k : {i, i - 1, i + 1}) { // evenly spaced but for rounding
            if (isIn(k)) return static_cast<std::size_t>(k);
        }
        i = std::clamp<std::ptrdiff_t>(std::ranges::upper_bound(borders_, at) - borders_.begin() - 1, 0, last);
        return static_cast<std::size_t>(i);
    }
    /// The same, first looked for in a piece and in the one behind it.
    std::size_t pieceNear(double at, std::size_t piece) const {
        const double* border = borders_.data() + piece;
        if (piece + 1 < borders_.size() && at >= border[0]) {
            if (at < border[1]) return piece;
            if (piece + 2 < borders_.size() && at < border[2]) return piece + 1;
        }
        return pieceOf(at);
    }
    /// Of a row with a number for each piece, the numbers at some coordinates; NaN outside.
    void pick(const double* row, const double* at, std::size_t count, double* into) const {
        const double* const borders = borders_.data();
        const std::size_t last = pieces() - 1;
        const double low = low_, high = high_;
        std::size_t piece = 0;
        for (std::size_t i = 0; i < count; ++i) {
            const double place = at[i];
            if (!(place >= low && place <= high)) {
                into[i] = std::nan("");
                continue;
            }
            // Neighbours lie in one piece or in the next.
            if (piece < last && place >= borders[piece + 1]) ++piece;
            if (place < borders[piece] || place >= borders[piece + 1]) piece = pieceOf(place);
            into[i] = row[piece];
        }
    }
    /// The piece that the upper end of an interval lies in, which does not count where it is a border.
    std::size_t lastPieceOf(double low, double high) const {
        const std::size_t i = pieceOf(high);
        return i > 0 && high == borders_[i] && low < high ? i - 1 : i;
    }

private:
    void setEven() {
        low_ = borders_.front();
        high_ = borders_.back();
        last_ = static_cast<double>(pieces() - 1);
        const double width = high_ - low_;
        perPiece_ = width > 0 ? static_cast<double>(pieces()) / width : 0;
    }

    std::vector<double> places_, borders_;
    double low_ = 0, high_ = 0; ///< the outer borders
    double last_ = 0;           ///< number of the last piece
    double perPiece_ = 1;
};

/// Numbers of a grid, in the memory or not.
struct Numbers {
    std::shared_ptr<const std::vector<double>> values; ///< null: they are in `far`
    std::shared_ptr<const GridNumbers> far;
    double operator[](std::size_t at) const { return values ? (*values)[at] : far->at(at); }
    /// From a number to the end of its row; until this thread asks for another.
    const double* from(std::size_t at) const { return values ? values->data() + at : far->from(at); }
};

/// Numbers in the memory, as those that are not.
class Near : public GridNumbers {
public:
    Near(std::shared_ptr<const std::vector<double>> values, std::size_t width, std::size_t height)
        : GridNumbers(width, height, values->size() / (width * height), 1, identityOf(*values)),
          values_(std::move(values)) {}

private:
    void readRows(std::size_t layer, std::size_t firstRow, std::size_t rows, std::span<double> into) const override {
        const std::size_t first = (layer * height() + firstRow) * width();
        std::copy_n(values_->begin() + static_cast<std::ptrdiff_t>(first), rows * width(), into.begin());
    }
    /// Their sum by FNV-1a, twice with another beginning.
    static std::string identityOf(const std::vector<double>& values) {
        std::array<std::uint64_t, 2> sums{14695981039346656037ULL, 1099511628211ULL};
        for (const double value : values) {
            for (std::uint64_t& sum : sums) sum = (sum ^ std::bit_cast<std::uint64_t>(value)) * 1099511628211ULL;
        }
        return std::to_string(sums[0]) + " " + std::to_string(sums[1]);
    }
    std::shared_ptr<const std::vector<double>> values_;
};

class GridField : public MeasuredField {
    static constexpr std::size_t most = 3; ///< variables

public:
    /// @param slopeOf  −1: values; else the slope along this variable
    GridField(std::shared_ptr<const std::vector<Axis>> axes, Numbers values, bool isLinear, int slopeOf = -1)
        : axes_(std::move(axes)), first_(axes_->data()), count_(axes_->size()), values_(std::move(values)),
          isLinear_(isLinear), slopeOf_(slopeOf) {
        std::size_t step = 1;
        for (const Axis& axis : *axes_) {
            steps_.push_back(step);
            step *= axis.places().size();
        }
    }

    std::size_t variables() const override { return count_; }
    bool hasCells() const override { return !isLinear_ || slopeOf_ >= 0; }
    void eachPart(const std::function<void(std::span<const double>)>& take) const override {
        const std::array<double, 2> kind{isLinear_ ? 1.0 : 0.0, static_cast<double>(slopeOf_)};
        take(kind);
        for (const Axis& axis : *axes_) take(axis.places());
        if (values_.values) return take(*values_.values);
        std::vector<double> identity; // their file and variable
        for (const char letter : values_.far->identity()) identity.push_back(letter);
        take(identity);
    }
    std::string trouble() const override { return values_.far ? values_.far->trouble() : ""; }

    std::shared_ptr<const MeasuredField> means(std::size_t side) const {
        std::vector<Axis> axes;
        for (std::size_t k = 0; k < variables(); ++k) axes.push_back(k < 2 ? Axis(axis(k), side, isLinear_) : axis(k));
        const auto all = values_.far
                             ? values_.far
                             : std::make_shared<Near>(values_.values, axis(0).places().size(), axis(1).places().size());
        return std::make_shared<GridField>(std::make_shared<const std::vector<Axis>>(std::move(axes)),
                                           Numbers{nullptr, meansOf(all, side)}, isLinear_, slopeOf_);
    }
    std::span<const double> places(std::size_t variable) const override { return axis(variable).places(); }
    double pieceOf(std::size_t variable, double at) const override {
        return std::isnan(at) ? 0 : static_cast<double>(axis(variable).pieceOf(at));
    }
    std::shared_ptr<const MeasuredField> slope(std::size_t variable) const override {
        if (hasCells()) return nullptr;
        return std::make_shared<GridField>(axes_, values_, true, static_cast<int>(variable));
    }

    double at(const double* place) const override {
        std::array<std::size_t, most> piece{};
        for (std::size_t k = 0; k < variables(); ++k) {
            if (!axis(k).holds(place[k])) return std::nan("");
            piece[k] = axis(k).pieceOf(place[k]);
        }
        return valueIn(piece, place);
    }

    void values(const std::array<const double*, 3>& places, std::size_t count, double* values) const override {
        std::array<std::size_t, most> piece{};
        std::array<double, most> place{};
        for (std::size_t i = 0, end = 0; i < count; i = end) {
            // So far only the first coordinate changes: along one row.
            end = count;
            for (std::size_t k = 1; k < count_; ++k) {
                const double* const along = places[k];
                std::size_t same = i + 1;
                while (same < end && along[same] == along[i]) ++same;
                end = same;
            }
            bool isInside = true;
            for (std::size_t k = 1; k < count_ && isInside; ++k) {
                place[k] = places[k][i];
                isInside = axis(k).holds(place[k]);
                if (isInside) piece[k] = axis(k).pieceNear(place[k], piece[k]);
            }
            if (isInside && !isLinear_) {
                axis(0).pick(values_.from(rowOf(piece)), places[0] + i, end - i, values + i);
                continue;
            }
            for (std::size_t at = i; at < end; ++at) {
                place[0] = places[0][at];
                if (!isInside || !axis(0).holds(place[0])) {
                    values[at] = std::nan("");
                    continue;
                }
                piece[0] = axis(0).pieceNear(place[0], piece[0]);
                values[at] = valueIn(piece, place.data());
            }
        }
    }

    Over over(std::span<const Bounds> box) const override {
        Over result;
        result.isDefined = true;
        std::array<Bounds, most> inside{};
        std::array<std::size_t, most> first{}, last{};
        bool onePiece = true;
        for (std::size_t k = 0; k < variables(); ++k) {
            const Axis& a = axis(k);
            inside[k] = {std::max(box[k].low, a.borders().front()), std::min(box[k].high, a.borders().back())};
            if (inside[k].low > inside[k].high) return {};
            result.isDefined = result.isDefined && a.holds(box[k].low) && a.holds(box[k].high);
            first[k] = a.pieceOf(inside[k].low);
            last[k] = isLinear_ ? a.lastPieceOf(inside[k].low, inside[k].high) : a.pieceOf(inside[k].high);
            onePiece = onePiece && first[k] == last[k];
        }
        result.isContinuous = onePiece || !hasCells();
        result.isConstant = onePiece && !isLinear_;
        if (values_.far) { // nothing is known of more of them than are looked at in a moment
            double pieces = 1;
            for (std::size_t k = 0; k < variables(); ++k) pieces *= static_cast<double>(last[k] - first[k] + 1);
            if (pieces > mostPiecesFar) {
                result.isDefined = false;
                result.values = {-HUGE_VAL, HUGE_VAL};
                return result;
            }
        }
        // The extremes of what is linear in each variable lie at the corners of the pieces' parts.
        Bounds all{HUGE_VAL, -HUGE_VAL};
        double size = 0;
        eachPiece(first, last, [&](const std::array<std::size_t, most>& piece) {
            eachCorner(piece, inside, [&](const double* place) {
                const double value = valueIn(piece, place);
                if (std::isnan(value)) {
                    result.isDefined = false;
                    return;
                }
                all = {std::min(all.low, value), std::max(all.high, value)};
            });
            size = std::max(size, sizeIn(piece));
        });
        if (all.low > all.high) return {};
        if (isLinear_) { // few roundings, each small beside the numbers that the value lies between
            const double margin = 32 * 0x1p-53 * size;
            all = {all.low - margin, all.high + margin};
        }
        result.values = all;
        return result;
    }

    Bounds slopeOver(std::size_t variable, std::span<const Bounds> box, bool& isStraight) const override {
        if (slopeOf_ >= 0) return MeasuredField::slopeOver(variable, box, isStraight);
        if (!isLinear_) { // constant within its cells
            isStraight = true;
            for (std::size_t k = 0; k < variables(); ++k)
                isStraight = isStraight && axis(k).pieceOf(box[k].low) == axis(k).pieceOf(box[k].high);
            return isStraight ? Bounds{0, 0} : Bounds{-HUGE_VAL, HUGE_VAL};
        }
        const Axis& a = axis(variable);
        isStraight = a.pieceOf(box[variable].low) == a.lastPieceOf(box[variable].low, box[variable].high);
        for (std::size_t k = 0; k < variables(); ++k) {
            if (k != variable) isStraight = isStraight && box[k].low == box[k].high;
        }
        return GridField(axes_, values_, true, static_cast<int>(variable)).over(box).values;
    }

private:
    static constexpr double mostPiecesFar = 1e5;
    const Axis& axis(std::size_t k) const { return first_[k]; }

    /// Where the row of a piece begins.
    std::size_t rowOf(const std::array<std::size_t, most>& piece) const {
        std::size_t at = 0;
        for (std::size_t k = 1; k < variables(); ++k) at += piece[k] * steps_[k];
        return at;
    }
    /// The value, or the slope, of one piece continued to a place in it.
    double valueIn(const std::array<std::size_t, most>& piece, const double* place) const {
        std::size_t at = 0;
        for (std::size_t k = 0; k < variables(); ++k) at += piece[k] * steps_[k];
        if (!isLinear_) return values_[at];
        return linearIn(variables(), at, piece, place);
    }
    double linearIn(std::size_t count, std::size_t at, const std::array<std::size_t, most>& piece,
                    const double* place) const {
        if (count == 0) return values_[at];
        const std::size_t k = count - 1;
        const std::vector<double>& x = axis(k).borders();
        if (x.size() == 1) return slopeOf_ == static_cast<int>(k) ? 0 : linearIn(k, at, piece, place);
        const std::size_t i = piece[k];
        const double width = x[i + 1] - x[i], left = place[k] - x[i], right = x[i + 1] - place[k];
        const bool isSlope = slopeOf_ == static_cast<int>(k);
        // At a place its own value counts alone: a missing one beside it does not matter.
        if (!isSlope && left == 0) return linearIn(k, at, piece, place);
        if (!isSlope && right == 0) return linearIn(k, at + steps_[k], piece, place);
        const double low = linearIn(k, at, piece, place), high = linearIn(k, at + steps_[k], piece, place);
        if (isSlope) return (high - low) / width;
        // From the nearer end, so that both ends have their own values.
        return left <= right ? low + left / width * (high - low) : high - right / width * (high - low);
    }
    /// The largest number that a piece lies between; of slopes what divides it, too.
    double sizeIn(const std::array<std::size_t, most>& piece) const {
        double size = 0;
        for (std::size_t corner = 0; corner < (std::size_t{1} << variables()); ++corner) {
            std::size_t at = 0;
            for (std::size_t k = 0; k < variables(); ++k) {
                const std::size_t up = (corner >> k & 1) != 0 && axis(k).borders().size() > 1 && isLinear_ ? 1 : 0;
                at += (piece[k] + up) * steps_[k];
            }
            if (!std::isnan(values_[at])) size = std::max(size, std::abs(values_[at]));
        }
        if (slopeOf_ < 0) return size;
        const std::vector<double>& x = axis(static_cast<std::size_t>(slopeOf_)).borders();
        const std::size_t i = piece[static_cast<std::size_t>(slopeOf_)];
        return x.size() > 1 ? 2 * size / (x[i + 1] - x[i]) : 0;
    }

    template <class Visit>
    void eachPiece(const std::array<std::size_t, most>& first, const std::array<std::size_t, most>& last,
                   const Visit& visit) const {
        std::array<std::size_t, most> piece = first;
        for (;;) {
            visit(piece);
            std::size_t k = 0;
            while (k < variables() && piece[k] == last[k]) piece[k] = first[k], ++k;
            if (k == variables()) return;
            ++piece[k];
        }
    }
    template <class Visit>
    void eachCorner(const std::array<std::size_t, most>& piece, const std::array<Bounds, most>& inside,
                    const Visit& visit) const {
        if (!isLinear_) {
            const std::array<double, most> place{inside[0].low, inside[1].low, inside[2].low};
            return visit(place.data());
        }
        for (std::size_t corner = 0; corner < (std::size_t{1} << variables()); ++corner) {
            std::array<double, most> place{};
            for (std::size_t k = 0; k < variables(); ++k) {
                const std::vector<double>& x = axis(k).borders();
                const std::size_t i = piece[k], next = std::min(i + 1, x.size() - 1);
                place[k] = (corner >> k & 1) != 0 ? std::min(inside[k].high, x[next]) : std::max(inside[k].low, x[i]);
            }
            visit(place.data());
        }
    }

    std::shared_ptr<const std::vector<Axis>> axes_;
    const Axis* first_; ///< of them: asked for with every value
    std::size_t count_;
    Numbers values_;
    std::vector<std::size_t> steps_;
    bool isLinear_;
    int slopeOf_;
};

} // namespace

std::shared_ptr<const MeasuredField> fieldOfGrid(MeasuredGrid grid) {
    std::vector<Axis> axes;
    for (std::vector<double>& places : grid.places) axes.emplace_back(std::move(places), grid.isLinear);
    return std::make_shared<GridField>(std::make_shared<const std::vector<Axis>>(std::move(axes)),
                                       Numbers{std::move(grid.values), std::move(grid.far)}, grid.isLinear);
}

std::shared_ptr<const MeasuredField> fieldOfMeans(const MeasuredField& grid, std::size_t side) {
    const auto* field = dynamic_cast<const GridField*>(&grid);
    return field && side > 1 ? field->means(side) : nullptr;
}

} // namespace coulter
