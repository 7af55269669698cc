#include "figure/panel_grid.h"

#include <algorithm>

namespace coulter {
namespace {

/// One direction of the grid: what is said of columns holds for rows, too.
struct Along {
    int Cell::*first;
    int Cell::*count;
    int Cell::*acrossFirst;
    int Cell::*acrossCount;
    std::vector<double> Sheet::*weights;
};
constexpr Along columns{&Cell::column, &Cell::columns, &Cell::row, &Cell::rows, &Sheet::columnWidths};
constexpr Along rows{&Cell::row, &Cell::rows, &Cell::column, &Cell::columns, &Sheet::rowHeights};

bool isAcross(Side side) { return side == Side::Left || side == Side::Right; }
bool isBefore(Side side) { return side == Side::Left || side == Side::Above; }
const Along& alongOf(Side side) { return isAcross(side) ? columns : rows; }

int endOf(const Cell& cell, const Along& along) { return cell.*along.first + cell.*along.count; }

/// Whether two cells lie beside each other somewhere, seen along the direction.
bool faces(const Cell& a, const Cell& b, const Along& along) {
    return a.*along.acrossFirst < b.*along.acrossFirst + b.*along.acrossCount &&
           b.*along.acrossFirst < a.*along.acrossFirst + a.*along.acrossCount;
}

bool overlap(const Cell& a, const Cell& b) { return faces(a, b, columns) && faces(a, b, rows); }

double weightAt(const std::vector<double>& weights, int index) {
    const auto at = static_cast<std::size_t>(index);
    return at < weights.size() ? weights[at] : 1;
}

std::vector<double> filled(const std::vector<double>& weights, int count) {
    std::vector<double> all;
    for (int i = 0; i < count; ++i) all.push_back(weightAt(weights, i));
    return all;
}

/// Cells that are said only where they are not usual, weights only as far as any differs from 1.
Document tidy(Document document, std::vector<Cell> cells) {
    // No row or column stays empty.
    for (const Along* along : {&columns, &rows}) {
        for (int at = 0; at < mostCells * 2; ++at) {
            const auto covers = [&](const Cell& c) { return c.*along->first <= at && at < endOf(c, *along); };
            const auto starts = [&](const Cell& c) { return c.*along->first == at; };
            const auto beyond = [&](const Cell& c) { return c.*along->first > at; };
            if (std::ranges::none_of(cells, starts) && at > 0 && std::ranges::any_of(cells, covers) &&
                std::ranges::none_of(cells, [&](const Cell& c) { return endOf(c, *along) == at; })) {
                // All that lies here began before and ends later: two columns that are one.
                std::vector<double>& weights = document.sheet.*along->weights;
                const GridSize size = gridSize(cells);
                weights = filled(weights, along == &columns ? size.columns : size.rows);
                weights[static_cast<std::size_t>(at) - 1] += weights[static_cast<std::size_t>(at)];
                weights.erase(weights.begin() + at);
                for (Cell& c : cells) {
                    if (covers(c)) --(c.*along->count);
                    if (beyond(c)) --(c.*along->first);
                }
                --at;
                continue;
            }
            if (std::ranges::none_of(cells, covers) && std::ranges::any_of(cells, beyond)) {
                std::vector<double>& weights = document.sheet.*along->weights;
                if (static_cast<std::size_t>(at) < weights.size()) weights.erase(weights.begin() + at);
                for (Cell& c : cells) {
                    if (beyond(c)) --(c.*along->first);
                }
                --at;
            }
        }
        const GridSize size = gridSize(cells);
        std::vector<double>& weights = document.sheet.*along->weights;
        weights.resize(
            std::min(weights.size(), static_cast<std::size_t>(along == &columns ? size.columns : size.rows)));
        while (!weights.empty() && weights.back() == 1) weights.pop_back();
    }
    for (std::size_t p = 0; p < cells.size(); ++p) document.panels[p].cell = cells[p];
    // What would lie there anyway need not be said.
    Document bare = document;
    for (Panel& panel : bare.panels) panel.cell.reset();
    if (cellsOf(bare) == cells) return bare;
    return document;
}

/// Makes room for a new row or column at `at`, where the anchor begins or ends; what begins or ends there besides
/// reaches over it.
void insertLine(std::vector<Cell>& cells, const Cell& anchor, int at, bool before, const Along& along) {
    for (Cell& c : cells) {
        const bool touches = !faces(c, anchor, along) && (before ? c.*along.first : endOf(c, along)) == at;
        if (!touches && c.*along.first >= at)
            ++(c.*along.first);
        else if (touches || endOf(c, along) > at)
            ++(c.*along.count);
    }
}

Document placed(const Document& document, std::size_t panel, Side side, Panel added, bool split) {
    if (panel >= document.panels.size() || document.panels.size() >= static_cast<std::size_t>(mostPanels))
        return document;
    Document changed = document;
    std::vector<Cell> cells = cellsOf(document);
    const Along& along = alongOf(side);
    const GridSize size = gridSize(cells);
    const int count = isAcross(side) ? size.columns : size.rows;
    Cell fresh = cells[panel];
    std::vector<double> weights = filled(changed.sheet.*along.weights, count);
    if (split && cells[panel].*along.count > 1) { // it has several: some of them go
        const int kept = (cells[panel].*along.count + 1) / 2, given = cells[panel].*along.count - kept;
        fresh.*along.count = given;
        cells[panel].*along.count = kept;
        if (isBefore(side))
            cells[panel].*along.first += given;
        else
            fresh.*along.first += kept;
    } else {
        if (count >= mostCells) return document;
        const int at = isBefore(side) ? cells[panel].*along.first : endOf(cells[panel], along);
        const int own = isBefore(side) ? at : at - 1;
        double weight = 1;
        if (split) {
            double& had = weights[static_cast<std::size_t>(own)];
            weight = had = std::max(had / 2, leastWeight);
        }
        weights.insert(weights.begin() + at, weight);
        insertLine(cells, fresh, at, isBefore(side), along);
        fresh.*along.first = at;
        fresh.*along.count = 1;
    }
    changed.sheet.*along.weights = weights;
    changed.panels.push_back(std::move(added));
    cells.push_back(fresh);
    return tidy(std::move(changed), std::move(cells));
}

/// Neighbours that together are as long as a side take what lies there.
void takeRoom(std::vector<Cell>& cells, const Cell& hole) {
    for (const Side side : {Side::Left, Side::Right, Side::Above, Side::Below}) {
        const Along& along = alongOf(side);
        std::vector<Cell*> takers;
        int covered = 0;
        for (Cell& c : cells) {
            const bool touches =
                isBefore(side) ? endOf(c, along) == hole.*along.first : c.*along.first == endOf(hole, along);
            if (!touches || !faces(c, hole, along)) continue;
            takers.push_back(&c);
            const bool within =
                c.*along.acrossFirst >= hole.*along.acrossFirst &&
                c.*along.acrossFirst + c.*along.acrossCount <= hole.*along.acrossFirst + hole.*along.acrossCount;
            covered += within ? c.*along.acrossCount : mostCells;
        }
        if (covered != hole.*along.acrossCount) continue;
        for (Cell* c : takers) {
            if (!isBefore(side)) c->*along.first = hole.*along.first;
            c->*along.count += hole.*along.count;
        }
        return;
    }
}

} // namespace

std::vector<Cell> cellsOf(const Document& document) {
    std::vector<Cell> cells;
    int below = 0;
    for (const Panel& panel : document.panels) {
        Cell cell;
        cell.row = below;
        if (panel.cell) cell = *panel.cell;
        cells.push_back(cell);
        below = std::max(below, cell.row + cell.rows);
    }
    return cells;
}

GridSize gridSize(const std::vector<Cell>& cells) {
    GridSize size;
    for (const Cell& cell : cells) {
        size.rows = std::max(size.rows, cell.row + cell.rows);
        size.columns = std::max(size.columns, cell.column + cell.columns);
    }
    return size;
}

std::vector<double> rowWeights(const Document& document) {
    return filled(document.sheet.rowHeights, gridSize(cellsOf(document)).rows);
}
std::vector<double> columnWeights(const Document& document) {
    return filled(document.sheet.columnWidths, gridSize(cellsOf(document)).columns);
}

std::optional<std::pair<std::size_t, std::size_t>> overlapping(const std::vector<Cell>& cells) {
    for (std::size_t b = 1; b < cells.size(); ++b) {
        for (std::size_t a = 0; a < b; ++a) {
            if (overlap(cells[a], cells[b])) return std::pair{a, b};
        }
    }
    return std::nullopt;
}

std::optional<std::size_t> neighbourOf(const Document& document, std::size_t panel, Side side) {
    const std::vector<Cell> cells = cellsOf(document);
    if (panel >= cells.size()) return std::nullopt;
    const Along& along = alongOf(side);
    const Cell& own = cells[panel];
    std::optional<std::size_t> best;
    int nearest = 0;
    for (std::size_t p = 0; p < cells.size(); ++p) {
        if (p == panel || !faces(cells[p], own, along)) continue;
        const int away =
            isBefore(side) ? own.*along.first - endOf(cells[p], along) : cells[p].*along.first - endOf(own, along);
        if (away < 0 || (best && away >= nearest)) continue;
        best = p;
        nearest = away;
    }
    return best;
}

Document withPanelBeside(const Document& document, std::size_t panel, Side side, Panel added) {
    return placed(document, panel, side, std::move(added), false);
}

Document withPanelSplit(const Document& document, std::size_t panel, Side side, Panel added) {
    return placed(document, panel, side, std::move(added), true);
}

Document withoutPanel(const Document& document, std::size_t panel) {
    if (panel >= document.panels.size()) return document;
    Document changed = document;
    if (document.panels.size() == 1) {
        changed.panels[0] = Panel{};
        return changed;
    }
    std::vector<Cell> cells = cellsOf(document);
    const Cell hole = cells[panel];
    cells.erase(cells.begin() + static_cast<std::ptrdiff_t>(panel));
    changed.panels.erase(changed.panels.begin() + static_cast<std::ptrdiff_t>(panel));
    takeRoom(cells, hole);
    return tidy(std::move(changed), std::move(cells));
}

Document withPanelsExchanged(const Document& document, std::size_t one, std::size_t other) {
    if (std::max(one, other) >= document.panels.size() || one == other) return document;
    std::vector<Cell> cells = cellsOf(document);
    std::swap(cells[one], cells[other]);
    return tidy(document, std::move(cells));
}

Document withPanelMoved(const Document& document, std::size_t panel, std::size_t beside, Side side) {
    if (std::max(panel, beside) >= document.panels.size() || panel == beside) return document;
    Document changed = withoutPanel(document, panel);
    changed = placed(changed, beside > panel ? beside - 1 : beside, side, document.panels[panel], false);
    if (changed.panels.size() != document.panels.size()) return document;
    // It comes last now; back to where it was among the panels, so that paths to it still hold.
    std::vector<Cell> cells = cellsOf(changed);
    const auto at = static_cast<std::ptrdiff_t>(panel);
    std::rotate(changed.panels.begin() + at, changed.panels.end() - 1, changed.panels.end());
    std::rotate(cells.begin() + at, cells.end() - 1, cells.end());
    return tidy(std::move(changed), std::move(cells));
}

} // namespace coulter
