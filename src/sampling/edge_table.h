#pragma once
#include "sampling/level_cells.h"

#include <bit>
#include <cstdint>
#include <vector>

namespace coulter {

/// Which pieces of lines start at an edge of cells; those of one edge in the order in which they came.
/// Method: open addressing with linear probing; nothing depends on where in the table an edge stands.
class EdgeTable {
public:
    static constexpr std::uint32_t none = ~std::uint32_t{0};

    /// @param pieces  the most that are added
    explicit EdgeTable(std::size_t pieces)
        : slots_(std::bit_ceil(2 * pieces + 2)), shift_(64 - std::countr_zero(slots_.size())) {
        after_.reserve(pieces);
    }

    /// Adds the next piece; the first has the number 0.
    void add(CellEdge edge) {
        const auto piece = static_cast<std::uint32_t>(after_.size());
        after_.push_back(none);
        Slot& slot = slots_[place(edge)];
        if (slot.first == none) {
            slot = {edge, piece, piece};
        } else {
            after_[slot.last] = piece;
            slot.last = piece;
        }
    }
    /// The first piece that starts there.
    std::uint32_t first(CellEdge edge) const { return slots_[place(edge)].first; }
    /// The next that starts where this one does.
    std::uint32_t after(std::uint32_t piece) const { return after_[piece]; }

private:
    struct Slot {
        CellEdge edge = 0;
        std::uint32_t first = none, last = none;
    };
    std::size_t place(CellEdge edge) const {
        std::size_t at = edge * 0x9e3779b97f4a7c15U >> shift_;
        while (slots_[at].first != none && slots_[at].edge != edge) at = (at + 1) & (slots_.size() - 1);
        return at;
    }
    std::vector<Slot> slots_;
    int shift_;
    std::vector<std::uint32_t> after_;
};

} // namespace coulter
