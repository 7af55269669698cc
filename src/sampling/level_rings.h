#pragma once
#include "sampling/edge_table.h"
#include "sampling/level_chain.h"

namespace coulter {

/// Rings out of lines and the parts of the border that are above, each with what is above on its left.
class LevelRings {
public:
    explicit LevelRings(const FieldSamples& samples) : samples_(samples) {}

    void line(const LevelChain& chain) {
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
        const std::vector<SheetSpot>* line; ///< null: straight along a border
    };

    void append(Path& ring, const Piece& piece) const {
        if (piece.line) {
            for (const SheetSpot& spot : *piece.line) append(ring, spot.x, spot.y);
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

} // namespace coulter
