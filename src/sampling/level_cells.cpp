#include "sampling/level_cells.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <mutex>
#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>

namespace coulter {

namespace {

constexpr std::size_t stretch = 32; // values that are looked at together

/// Levels at or below each of a stretch of values: few levels lie between the least of them and the greatest.
/// @return false if one is undefined, and nothing is known
bool countStretch(const double* values, const std::vector<double>& levels, std::uint16_t* counts, char* touched) {
    constexpr std::size_t lanes = 8;
    std::array<double, lanes> least, most;
    std::array<std::int64_t, lanes> undefined{};
    std::copy_n(values, lanes, least.begin());
    std::copy_n(values, lanes, most.begin());
    for (std::size_t i = 0; i < stretch; i += lanes) {
        for (std::size_t k = 0; k < lanes; ++k) {
            const double value = values[i + k];
            least[k] = value < least[k] ? value : least[k];
            most[k] = value > most[k] ? value : most[k];
            undefined[k] |= value != value ? -1 : 0;
        }
    }
    for (const std::int64_t each : undefined) {
        if (each != 0) return false;
    }
    const double low = *std::ranges::min_element(least), high = *std::ranges::max_element(most);
    const auto first = std::ranges::lower_bound(levels, low), last = std::ranges::upper_bound(levels, high);
    std::fill_n(counts, stretch, static_cast<std::uint16_t>(first - levels.begin()));
    for (auto level = first; level != last; ++level) {
        std::int64_t equal = 0;
        for (std::size_t i = 0; i < stretch; ++i) {
            counts[i] = static_cast<std::uint16_t>(counts[i] + (values[i] >= *level ? 1 : 0));
            equal |= values[i] == *level ? -1 : 0;
        }
        if (equal != 0) touched[level - levels.begin()] = 1;
    }
    return true;
}

} // namespace

LevelCounts::LevelCounts(const FieldSamples& samples, const std::vector<double>& levels)
    : size_(samples.pointCount()), counts_(std::make_unique_for_overwrite<std::uint16_t[]>(size_)),
      touches_(levels.size(), 0) {
    std::mutex guard;
    const bool single = samples.values.size() == 1;
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, size_, 65'536), [&](const auto& range) {
        std::vector<char> touched(levels.size(), 0);
        const double* const values = samples.values[0].data();
        bool undefinedHere = false;
        for (std::size_t i = range.begin(); i < range.end();) {
            if (single && i + stretch <= range.end() &&
                countStretch(values + i, levels, counts_.get() + i, touched.data())) {
                i += stretch;
                continue;
            }
            for (const std::size_t end = std::min(range.end(), i + stretch); i < end; ++i) {
                const double value = single ? values[i] : samples.sizeAt(i);
                if (std::isnan(value)) {
                    counts_[i] = undefined;
                    undefinedHere = true;
                    continue;
                }
                const auto next = std::ranges::upper_bound(levels, value);
                counts_[i] = static_cast<std::uint16_t>(next - levels.begin());
                if (next != levels.begin() && *(next - 1) == value) touched[counts_[i] - 1U] = 1;
            }
        }
        const std::scoped_lock lock(guard);
        for (std::size_t k = 0; k < touched.size(); ++k) touches_[k] |= touched[k];
        anyUndefined_ = anyUndefined_ || undefinedHere;
    });
}

std::size_t Cells::size() const {
    if (samples_.isMesh()) return samples_.triangles.size();
    return samples_.columns.size() < 2 || samples_.rows.size() < 2
               ? 0
               : samples_.columns.size() * (samples_.rows.size() - 1); // the last of a row is none
}

Cell Cells::triangle(std::size_t cell) const {
    const auto& t = samples_.triangles[cell];
    const bool isDefined =
        std::ranges::none_of(t, [&](std::uint32_t p) { return counts_[p] == LevelCounts::undefined; });
    return isDefined ? Cell{{t[0], t[1], t[2]}, 3} : Cell{};
}

std::vector<std::vector<std::uint32_t>> Cells::crossed(std::size_t levels) const {
    constexpr std::size_t block = 1 << 16;
    const std::size_t blocks = (size() + block - 1) / block;
    std::vector<std::vector<std::vector<std::uint32_t>>> found(blocks, std::vector<std::vector<std::uint32_t>>(levels));
    const std::uint16_t* const counts = counts_.all();
    const std::size_t width = samples_.columns.size();
    tbb::parallel_for(std::size_t{0}, blocks, [&](std::size_t b) {
        const auto look = [&](std::size_t i) {
            const Cell cell = (*this)[i];
            if (cell.count == 0) return;
            std::uint16_t least = LevelCounts::undefined, most = 0;
            for (std::size_t k = 0; k < cell.count; ++k) {
                least = std::min(least, counts[cell.points[k]]);
                most = std::max(most, counts[cell.points[k]]);
            }
            for (std::size_t level = least; level < most; ++level)
                found[b][level].push_back(static_cast<std::uint32_t>(i));
        };
        const std::size_t end = std::min(size(), (b + 1) * block);
        std::size_t i = b * block;
        // Most cells of a grid lie between the same two levels, which is seen of several at once.
        constexpr std::size_t together = 32;
        for (; !samples_.isMesh() && i + together <= end && i + together + width < counts_.size(); i += together) {
            std::array<std::uint16_t, together> differ;
            const std::uint16_t* const low = counts + i;
            const std::uint16_t* const high = low + width;
            for (std::size_t k = 0; k < together; ++k)
                differ[k] =
                    static_cast<std::uint16_t>((low[k] ^ low[k + 1]) | (low[k] ^ high[k]) | (low[k] ^ high[k + 1]));
            for (std::size_t k = 0; k < together; k += 4) {
                std::uint64_t four = 0;
                std::memcpy(&four, &differ[k], sizeof four);
                for (std::size_t each = k; four != 0 && each < k + 4; ++each) {
                    if (differ[each] != 0) look(i + each);
                }
            }
        }
        for (; i < end; ++i) look(i);
    });
    std::vector<std::vector<std::uint32_t>> all(levels);
    for (const auto& part : found) {
        for (std::size_t level = 0; level < levels; ++level)
            all[level].insert(all[level].end(), part[level].begin(), part[level].end());
    }
    return all;
}

bool Cells::isFlat(const Cell& cell) const {
    const auto& p = cell.points;
    const auto hasArea = [&](std::uint32_t a, std::uint32_t b, std::uint32_t c) {
        const double x = samples_.xAt(a), y = samples_.yAt(a), x1 = samples_.xAt(b) - x, y1 = samples_.yAt(b) - y,
                     x2 = samples_.xAt(c) - x, y2 = samples_.yAt(c) - y;
        return std::abs(x1 * y2 - x2 * y1) > 1e-6 * std::hypot(x1, y1) * std::hypot(x2, y2);
    };
    return !hasArea(p[0], p[1], p[2]);
}

bool Cells::hasPlateau(std::size_t level, double value) const {
    for (std::size_t i = 0; counts_.touches(level) && i < size(); ++i) {
        if (counts_[samples_.isMesh() ? samples_.triangles[i][0] : i] != level + 1) continue;
        const Cell cell = (*this)[i];
        bool all = cell.count > 0 && !isFlat(cell);
        for (std::size_t k = 0; all && k < cell.count; ++k) all = samples_.sizeAt(cell.points[k]) == value;
        if (all) return true;
    }
    return false;
}

std::vector<std::uint32_t> Cells::reaching(std::size_t level, double value) const {
    std::vector<std::uint32_t> found;
    for (std::size_t i = 0; i < size(); ++i) {
        const Cell cell = (*this)[i];
        bool above = false, notAbove = false;
        for (std::size_t k = 0; k < cell.count; ++k)
            (counts_[cell.points[k]] > level && samples_.sizeAt(cell.points[k]) > value ? above : notAbove) = true;
        if (above && notAbove) found.push_back(static_cast<std::uint32_t>(i));
    }
    return found;
}

std::vector<std::pair<std::uint32_t, std::uint32_t>> Cells::border() const {
    std::vector<std::pair<std::uint32_t, std::uint32_t>> edges;
    const std::uint16_t* const counts = counts_.all();
    const std::size_t width = samples_.columns.size(), height = samples_.rows.size();
    if (!samples_.isMesh()) {
        const auto defined = [&](std::size_t point) { return counts[point] != LevelCounts::undefined; };
        // Whether the cell that has this lower left corner has at least three points.
        const auto isCell = [&](std::ptrdiff_t column, std::ptrdiff_t row) {
            if (column < 0 || row < 0 || column + 1 >= static_cast<std::ptrdiff_t>(width) ||
                row + 1 >= static_cast<std::ptrdiff_t>(height))
                return false;
            const std::size_t at = static_cast<std::size_t>(row) * width + static_cast<std::size_t>(column);
            return defined(at) + defined(at + 1) + defined(at + width) + defined(at + width + 1) >= 3;
        };
        for (std::size_t cell = 0; cell < size(); ++cell) {
            // Where everything is defined only the outermost cells have a border.
            if (!counts_.anyUndefined() && cell >= width && cell + width < size() && cell % width == 1 && width > 3)
                cell += width - 3;
            const auto column = static_cast<std::ptrdiff_t>(cell % width),
                       row = static_cast<std::ptrdiff_t>(cell / width);
            const bool inside = column > 0 && row > 0 && column + 2 < static_cast<std::ptrdiff_t>(width) &&
                                row + 2 < static_cast<std::ptrdiff_t>(height);
            const auto allDefined = [&](std::size_t first) {
                return defined(first) && defined(first + 1) && defined(first + 2) && defined(first + 3);
            };
            if (inside && allDefined(cell - width - 1) && allDefined(cell - 1) && allDefined(cell + width - 1) &&
                allDefined(cell + 2 * width - 1))
                continue; // most of them
            const Cell points = (*this)[cell];
            for (std::size_t k = 0; k < points.count; ++k) {
                const std::uint32_t a = points.points[k], b = points.points[(k + 1) % points.count];
                // The cell on the other side, by the direction in which the edge runs.
                const bool hasOther = b == a + 1                                   ? isCell(column, row - 1)
                                      : a == b + 1                                 ? isCell(column, row + 1)
                                      : b == a + static_cast<std::uint32_t>(width) ? isCell(column + 1, row)
                                      : a == b + static_cast<std::uint32_t>(width) ? isCell(column - 1, row)
                                                                                   : false;
                if (!hasOther) edges.emplace_back(a, b);
            }
        }
        return edges;
    }
    struct Side {
        CellEdge edge;
        std::uint32_t from, to;
    };
    std::vector<Side> sides;
    for (std::size_t i = 0; i < size(); ++i) {
        const Cell cell = (*this)[i];
        for (std::size_t k = 0; k < cell.count; ++k) {
            const std::uint32_t a = cell.points[k], b = cell.points[(k + 1) % cell.count];
            sides.push_back({cellEdge(a, b), a, b});
        }
    }
    std::ranges::stable_sort(sides, {}, &Side::edge);
    for (std::size_t i = 0; i < sides.size();) {
        std::size_t end = i + 1;
        while (end < sides.size() && sides[end].edge == sides[i].edge) ++end;
        if (end == i + 1) edges.emplace_back(sides[i].from, sides[i].to);
        i = end;
    }
    return edges;
}

} // namespace coulter
