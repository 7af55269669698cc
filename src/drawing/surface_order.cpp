#include "drawing/surface_order.h"

#include <atomic>
#include <queue>
#include <tbb/parallel_for.h>

namespace coulter {
namespace {

constexpr double level = 1e-6; // mm towards the eye that are no difference
constexpr std::size_t mostPairs = 4'000'000;

/// What two convex polygons have in common. Method: I. E. Sutherland and G. W. Hodgman, "Reentrant polygon clipping"
/// (1974).
std::vector<Point> common(const Piece& one, const Piece& other) {
    std::vector<Point> polygon, kept;
    for (const Corner& c : one.corners) polygon.push_back({c.x, c.y});
    const auto& edges = other.corners;
    for (std::size_t e = 0; e < edges.size() && !polygon.empty(); ++e) {
        const Corner &a = edges[e], &b = edges[(e + 1) % edges.size()];
        const auto inside = [&](Point p) { return (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x); };
        kept.clear();
        for (std::size_t i = 0; i < polygon.size(); ++i) {
            const Point p = polygon[i], q = polygon[(i + 1) % polygon.size()];
            const double from = inside(p), to = inside(q);
            if (from >= 0) kept.push_back(p);
            if ((from >= 0) != (to >= 0)) {
                const double share = from / (from - to);
                kept.push_back({p.x + share * (q.x - p.x), p.y + share * (q.y - p.y)});
            }
        }
        std::swap(polygon, kept);
    }
    return polygon;
}

enum class Order : std::uint8_t { None, FirstBehind, SecondBehind, Crossing };

/// Which of two pieces is painted first. Of what lies in one plane the surface that came first stays on top.
Order orderOf(const Piece& first, const Piece& second) {
    if (!first.box.intersects(second.box)) return Order::None;
    const std::vector<Point> both = common(first, second);
    if (both.size() < 3 || areaOf(both) < leastOverlap) return Order::None;
    double least = HUGE_VAL, most = -HUGE_VAL; // how much nearer the first is
    for (const Point& p : both) {
        const double nearer = first.depthAt(p.x, p.y) - second.depthAt(p.x, p.y);
        least = std::min(least, nearer);
        most = std::max(most, nearer);
    }
    if (most <= level && least >= -level)
        return first.surface <= second.surface ? Order::SecondBehind : Order::FirstBehind;
    if (least >= -level) return Order::SecondBehind;
    if (most <= level) return Order::FirstBehind;
    return Order::Crossing;
}

struct Pair {
    std::uint32_t first = 0, second = 0;
    Order order = Order::None;
};

/// All pairs that overlap, in an order that the number of threads does not change; none if they are too many, or it was
/// stopped.
std::optional<std::vector<Pair>> pairsOf(const std::vector<Piece>& pieces, const Rect& room,
                                         const std::stop_token& stop) {
    double sizes = 0;
    for (const Piece& piece : pieces) sizes += std::max(piece.box.width, piece.box.height);
    const double cell = std::max({2 * sizes / static_cast<double>(std::max<std::size_t>(1, pieces.size())),
                                  room.width / 512, room.height / 512, 1e-3});
    const int across = static_cast<int>(room.width / cell) + 1, down = static_cast<int>(room.height / cell) + 1;
    const auto columnAt = [&](double x) { return std::clamp(static_cast<int>((x - room.x) / cell), 0, across - 1); };
    const auto rowAt = [&](double y) { return std::clamp(static_cast<int>((y - room.y) / cell), 0, down - 1); };
    std::vector<std::vector<std::uint32_t>> held(static_cast<std::size_t>(across) * static_cast<std::size_t>(down));
    for (std::uint32_t i = 0; i < pieces.size(); ++i) {
        const Rect& box = pieces[i].box;
        for (int row = rowAt(box.y); row <= rowAt(box.bottom()); ++row) {
            for (int column = columnAt(box.x); column <= columnAt(box.right()); ++column)
                held[static_cast<std::size_t>(row * across + column)].push_back(i);
        }
    }
    std::vector<std::vector<Pair>> found(held.size());
    std::atomic<std::size_t> count = 0;
    tbb::parallel_for(std::size_t{0}, held.size(), [&](std::size_t at) {
        const auto& here = held[at];
        for (std::size_t i = 0; i < here.size() && count <= mostPairs && !stop.stop_requested(); ++i) {
            const std::size_t before = found[at].size();
            for (std::size_t k = i + 1; k < here.size(); ++k) {
                const Piece &a = pieces[here[i]], &b = pieces[here[k]];
                // Once, in the cell that has the upper left corner of what their boxes share.
                const int row = rowAt(std::max(a.box.y, b.box.y)), column = columnAt(std::max(a.box.x, b.box.x));
                if (static_cast<std::size_t>(row * across + column) != at) continue;
                const Order order = orderOf(a, b);
                if (order != Order::None) found[at].push_back({here[i], here[k], order});
            }
            count += found[at].size() - before;
        }
    });
    if (count > mostPairs || stop.stop_requested()) return std::nullopt;
    std::vector<Pair> all;
    for (const auto& part : found) all.insert(all.end(), part.begin(), part.end());
    return all;
}

/// In two across its longest side.
std::array<Piece, 2> halves(const Piece& piece, std::uint32_t number) {
    const auto& corners = piece.corners;
    std::size_t longest = 0;
    const auto side = [&](std::size_t i) { return sideLength(corners[i], corners[(i + 1) % corners.size()]); };
    for (std::size_t i = 1; i < corners.size(); ++i) longest = side(i) > side(longest) ? i : longest;
    const Corner &a = corners[longest], &b = corners[(longest + 1) % corners.size()], middle = mixed(a, b, 0.5);
    return cut(piece, number,
               [&](const Corner& c) { return (c.x - middle.x) * (b.x - a.x) + (c.y - middle.y) * (b.y - a.y); });
}

/// Cuts the smaller of two that cross where it passes through the other one: so there are fewest pieces.
void cutCrossings(std::vector<Piece>& pieces, const std::vector<Pair>& pairs, std::uint32_t& edges) {
    std::vector<std::vector<std::uint32_t>> through(pieces.size());
    for (const Pair& pair : pairs) {
        if (pair.order != Order::Crossing) continue;
        const auto size = [&](std::uint32_t i) { return pieces[i].box.width * pieces[i].box.height; };
        const bool first = size(pair.first) < size(pair.second);
        through[first ? pair.first : pair.second].push_back(first ? pair.second : pair.first);
    }
    const std::vector<Piece> whole = pieces;
    for (std::size_t i = 0; i < whole.size(); ++i) {
        if (through[i].empty()) continue;
        std::vector<Piece> parts{whole[i]};
        for (const std::uint32_t other : through[i]) {
            const Piece& plane = whole[other];
            const Corner& at = plane.corners[0];
            const auto height = [&](const Corner& c) {
                return c.depth - (at.depth + plane.across * (c.x - at.x) + plane.down * (c.y - at.y));
            };
            std::vector<Piece> next;
            for (Piece& part : parts) {
                if (orderOf(plane, part) != Order::Crossing) {
                    next.push_back(std::move(part));
                    continue;
                }
                for (Piece& side : cut(part, ++edges, height)) {
                    if (!side.corners.empty()) next.push_back(std::move(side));
                }
            }
            parts = std::move(next);
        }
        if (parts.empty()) continue;
        pieces[i] = std::move(parts[0]);
        for (std::size_t k = 1; k < parts.size(); ++k) pieces.push_back(std::move(parts[k]));
    }
}

/// Which of two that still cross is painted first: by what is between their middles.
bool firstIsBehind(const Piece& first, const Piece& second, Order order) {
    if (order != Order::Crossing) return order == Order::FirstBehind;
    double nearer = 0;
    for (const Point& p : common(first, second)) nearer += first.depthAt(p.x, p.y) - second.depthAt(p.x, p.y);
    return nearer < 0;
}

/// All pieces, what is behind before what hides it.
class Painting {
public:
    Painting(std::vector<Piece>& pieces, const std::vector<Pair>& pairs, std::uint32_t& edges)
        : pieces_(pieces), edges_(edges), before_(pieces.size()), after_(pieces.size()), waitsFor_(pieces.size(), 0),
          done_(pieces.size(), 0) {
        for (const Pair& pair : pairs) add(pair);
    }

    std::vector<std::uint32_t> order() {
        for (std::uint32_t i = 0; i < pieces_.size(); ++i) offer(i);
        std::vector<std::uint32_t> all;
        std::uint32_t from = 0; // before this one all are done
        while (true) {
            while (!ready_.empty()) {
                const std::uint32_t next = ready_.top().second;
                ready_.pop();
                if (done_[next] || waitsFor_[next] > 0) continue;
                all.push_back(next);
                finish(next);
            }
            while (from < pieces_.size() && done_[from]) ++from;
            if (from == pieces_.size()) return all;
            open(from);
        }
    }

private:
    void add(const Pair& pair) {
        const bool first = firstIsBehind(pieces_[pair.first], pieces_[pair.second], pair.order);
        const std::uint32_t behind = first ? pair.first : pair.second, front = first ? pair.second : pair.first;
        after_[behind].push_back(front);
        before_[front].push_back(behind);
        ++waitsFor_[front];
    }

    void offer(std::uint32_t i) {
        if (waitsFor_[i] == 0) ready_.emplace(pieces_[i].middle(), i);
    }

    void finish(std::uint32_t i) {
        done_[i] = 1;
        for (const std::uint32_t front : after_[i]) {
            if (--waitsFor_[front] == 0 && !done_[front]) offer(front);
        }
    }

    /// Each of some pieces waits for the next, in a ring: the largest of them is cut in two.
    void open(std::uint32_t start) {
        std::vector<std::uint32_t> way;
        std::vector<char> met(pieces_.size(), 0);
        std::uint32_t at = start;
        for (; !met[at]; at = *std::ranges::find_if(before_[at], [&](std::uint32_t i) { return !done_[i]; })) {
            met[at] = 1;
            way.push_back(at);
        }
        way.erase(way.begin(), std::ranges::find(way, at));
        const auto size = [&](std::uint32_t i) { return pieces_[i].box.width + pieces_[i].box.height; };
        std::uint32_t largest = way[0];
        for (const std::uint32_t each : way) largest = size(each) > size(largest) ? each : largest;
        if (size(largest) < smallestPiece || pieces_.size() > 2 * mostPieces) { // nobody sees it
            waitsFor_[largest] = 0;
            offer(largest);
            return;
        }
        std::array<Piece, 2> parts = halves(pieces_[largest], ++edges_);
        std::vector<std::uint32_t> others;
        for (const auto* list : {&before_[largest], &after_[largest]}) {
            for (const std::uint32_t each : *list) {
                if (!done_[each]) others.push_back(each);
            }
        }
        finish(largest); // it is painted as its halves
        for (Piece& part : parts) {
            if (part.corners.empty()) continue;
            const auto index = static_cast<std::uint32_t>(pieces_.size());
            pieces_.push_back(std::move(part));
            before_.emplace_back();
            after_.emplace_back();
            waitsFor_.push_back(0);
            done_.push_back(0);
            for (const std::uint32_t other : others) {
                const Order order = orderOf(pieces_[other], pieces_[index]);
                if (order != Order::None) add({other, index, order});
            }
            offer(index);
        }
    }

    using Waiting = std::pair<double, std::uint32_t>;
    std::vector<Piece>& pieces_;
    std::uint32_t& edges_;
    std::vector<std::vector<std::uint32_t>> before_, after_;
    std::vector<std::uint32_t> waitsFor_;
    std::vector<char> done_;
    std::priority_queue<Waiting, std::vector<Waiting>, std::greater<>> ready_; ///< the farthest first
};

} // namespace

std::optional<std::vector<std::uint32_t>> paintingOrder(Pieces& made, const Rect& room, const std::stop_token& stop) {
    auto pairs = pairsOf(made.pieces, room, stop);
    if (pairs && std::ranges::any_of(*pairs, [](const Pair& pair) { return pair.order == Order::Crossing; })) {
        cutCrossings(made.pieces, *pairs, made.edges);
        pairs = pairsOf(made.pieces, room, stop);
    }
    if (!pairs) return std::nullopt;
    return Painting(made.pieces, *pairs, made.edges).order();
}

} // namespace coulter
