#include "drawing/surface_vectors.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <queue>
#include <tbb/parallel_for.h>

namespace coulter {
namespace {

constexpr double seam = 0.13;         // mm that a polygon reaches under one that is painted later beside it
constexpr double level = 1e-6;        // mm towards the eye that are no difference
constexpr double leastOverlap = 1e-9; // mm²; less is an edge in common
constexpr double smallest = 0.05;     // mm; what is smaller is not cut
constexpr double leastStrip = 1e-3;   // mm² of what a strip has of a piece; less shows nothing
constexpr int mostDifference = 6;     // of 255, between corners of one colour
constexpr std::size_t mostPieces = 300'000;

/// An edge that polygons on either side of it have in common; no number: none, or all lie on one side.
struct Shared {
    std::uint32_t number = 0;
    std::uint8_t side = 0;
};

struct Corner {
    double x = 0, y = 0, depth = 0, place = 0, light = 1;
    Shared edge = {}; ///< to the next corner
};

Corner mixed(const Corner& a, const Corner& b, double share) {
    const auto mix = [&](double p, double q) { return p + share * (q - p); };
    return {mix(a.x, b.x), mix(a.y, b.y), mix(a.depth, b.depth), mix(a.place, b.place), mix(a.light, b.light), a.edge};
}

double sideLength(const Corner& a, const Corner& b) { return std::hypot(b.x - a.x, b.y - a.y); }

/// A convex polygon in a plane of space.
struct Piece {
    std::vector<Corner> corners;
    Colour colour;
    Rect box;
    double across = 0, down = 0;    ///< mm towards the eye for each mm of the sheet
    double least = 0, greatest = 0; ///< towards the eye
    std::uint32_t surface = 0;

    double depthAt(double x, double y) const {
        const Corner& at = corners[0];
        return std::clamp(at.depth + across * (x - at.x) + down * (y - at.y), least, greatest);
    }
    double middle() const { return (least + greatest) / 2; }
    void measure() {
        double left = HUGE_VAL, right = -HUGE_VAL, top = HUGE_VAL, bottom = -HUGE_VAL;
        least = HUGE_VAL;
        greatest = -HUGE_VAL;
        for (const Corner& c : corners) {
            left = std::min(left, c.x);
            right = std::max(right, c.x);
            top = std::min(top, c.y);
            bottom = std::max(bottom, c.y);
            least = std::min(least, c.depth);
            greatest = std::max(greatest, c.depth);
        }
        box = {left, top, right - left, bottom - top};
    }
};

double areaOf(const std::vector<Point>& polygon) {
    double twice = 0;
    for (std::size_t i = 0; i < polygon.size(); ++i) {
        const Point &a = polygon[i], &b = polygon[(i + 1) % polygon.size()];
        twice += a.x * b.y - b.x * a.y;
    }
    return std::abs(twice) / 2;
}

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

/// All pairs that overlap, in an order that the number of threads does not change.
std::vector<Pair> pairsOf(const std::vector<Piece>& pieces, const Rect& room) {
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
    tbb::parallel_for(std::size_t{0}, held.size(), [&](std::size_t at) {
        const auto& here = held[at];
        for (std::size_t i = 0; i < here.size(); ++i) {
            for (std::size_t k = i + 1; k < here.size(); ++k) {
                const Piece &a = pieces[here[i]], &b = pieces[here[k]];
                // Once, in the cell that has the upper left corner of what their boxes share.
                const int row = rowAt(std::max(a.box.y, b.box.y)), column = columnAt(std::max(a.box.x, b.box.x));
                if (static_cast<std::size_t>(row * across + column) != at) continue;
                const Order order = orderOf(a, b);
                if (order != Order::None) found[at].push_back({here[i], here[k], order});
            }
        }
    });
    std::vector<Pair> all;
    for (const auto& part : found) all.insert(all.end(), part.begin(), part.end());
    return all;
}

/// A piece on both sides of a line of the sheet, by a height over it that is linear; empty where there is nothing.
/// @param number  of the edge that both get
std::array<Piece, 2> cut(const Piece& piece, std::uint32_t number, const std::function<double(const Corner&)>& height) {
    std::array<Piece, 2> parts{piece, piece};
    for (Piece& part : parts) part.corners.clear();
    const auto& corners = piece.corners;
    const auto add = [&](std::size_t side, Corner corner, bool alongCut) {
        if (alongCut) corner.edge = {number, static_cast<std::uint8_t>(side)};
        parts[side].corners.push_back(corner);
    };
    for (std::size_t i = 0; i < corners.size(); ++i) {
        const Corner &a = corners[i], &b = corners[(i + 1) % corners.size()];
        const double from = height(a), to = height(b);
        if (from >= 0) add(0, a, from == 0 && to < 0);
        if (from <= 0) add(1, a, from == 0 && to > 0);
        if ((from > 0 && to < 0) || (from < 0 && to > 0)) {
            const Corner on = mixed(a, b, from / (from - to));
            add(0, on, from > 0);
            add(1, on, from < 0);
        }
    }
    for (Piece& part : parts) {
        if (part.corners.size() < 3)
            part.corners.clear();
        else
            part.measure();
    }
    return parts;
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

// --- from triangles to pieces ---------------------------------------------------------------------------------------

/// The edges that triangles of one surface have in common, on the sheet on both sides of it.
class SharedEdges {
public:
    SharedEdges(const Faces& faces, std::uint32_t& numbers) : faces_(faces), numbers_(numbers) {
        // Points at one place count as one, as where a surface closes.
        std::map<std::array<long long, 3>, std::uint32_t> places;
        for (const SeenPoint& p : faces.points) {
            const auto rounded = [](double mm) { return std::llround(std::clamp(mm, -1e9, 1e9) * 1e6); };
            const std::array<long long, 3> place{rounded(p.x), rounded(p.y), rounded(p.towards)};
            point_.push_back(places.try_emplace(place, static_cast<std::uint32_t>(places.size())).first->second);
        }
        for (const auto& t : faces.triangles) {
            for (std::size_t k = 0; k < 3; ++k) {
                Edge& edge = edges_[key(t[k], t[(k + 1) % 3])];
                if (edge.number == 0) edge.number = ++numbers_;
                edge.isOn[sideOf(t[k], t[(k + 1) % 3], t[(k + 2) % 3])] = true;
            }
        }
    }
    Shared of(std::uint32_t a, std::uint32_t b, std::uint32_t third) const {
        const Edge& edge = edges_.at(key(a, b));
        return edge.isOn[0] && edge.isOn[1] ? Shared{edge.number, sideOf(a, b, third)} : Shared{};
    }

private:
    struct Edge {
        std::uint32_t number = 0;
        std::array<bool, 2> isOn{};
    };
    std::pair<std::uint32_t, std::uint32_t> key(std::uint32_t a, std::uint32_t b) const {
        return std::minmax(point_[a], point_[b]);
    }
    std::uint8_t sideOf(std::uint32_t a, std::uint32_t b, std::uint32_t third) const {
        if (point_[a] > point_[b]) std::swap(a, b);
        const SeenPoint &p = faces_.points[a], &q = faces_.points[b], &r = faces_.points[third];
        return (q.x - p.x) * (r.y - p.y) - (r.x - p.x) * (q.y - p.y) > 0 ? 1 : 0;
    }
    const Faces& faces_;
    std::uint32_t& numbers_;
    std::vector<std::uint32_t> point_;
    std::map<std::pair<std::uint32_t, std::uint32_t>, Edge> edges_;
};

/// Triangles, each cut until its colours are nearly one.
class Pieces {
public:
    Pieces(const Rect& room, int difference) : room_(room), difference_(difference) {}

    void add(const Faces& faces, std::uint32_t surface) {
        faces_ = &faces;
        surface_ = surface;
        const SharedEdges shared(faces, edges);
        for (auto t : faces.triangles) {
            if (turnOf(faces.points[t[0]], faces.points[t[1]], faces.points[t[2]]) < 0) std::swap(t[1], t[2]);
            std::array<Corner, 3> corners;
            for (std::size_t k = 0; k < 3; ++k)
                corners[k] = {faces.points[t[k]].x,
                              faces.points[t[k]].y,
                              faces.points[t[k]].towards,
                              faces.place[t[k]],
                              faces.light.empty() ? 1.0 : static_cast<double>(faces.light[t[k]]),
                              shared.of(t[k], t[(k + 1) % 3], t[(k + 2) % 3])};
            if (turnOf(corners[0], corners[1], corners[2]) > 1e-12) triangle(corners); // else it is seen edge on
            if (pieces.size() > mostPieces) return;
        }
    }

    std::vector<Piece> pieces;
    std::uint32_t edges = 0; ///< numbers of edges in common so far

private:
    Colour colourOf(double place, double light) const {
        return faces_->shade(static_cast<float>(place), static_cast<float>(light));
    }

    template <typename At> static double turnOf(const At& a, const At& b, const At& c) {
        return (b.x - a.x) * (c.y - a.y) - (c.x - a.x) * (b.y - a.y);
    }

    void triangle(const std::array<Corner, 3>& corners) {
        Piece piece;
        piece.corners.assign(corners.begin(), corners.end());
        piece.surface = surface_;
        piece.measure();
        if (!piece.box.intersects(room_)) return;
        const Corner &a = corners[0], &b = corners[1], &c = corners[2];
        const double det = turnOf(a, b, c);
        piece.across = ((b.depth - a.depth) * (c.y - a.y) - (c.depth - a.depth) * (b.y - a.y)) / det;
        piece.down = ((c.depth - a.depth) * (b.x - a.x) - (b.depth - a.depth) * (c.x - a.x)) / det;
        put(std::move(piece), 0);
    }

    /// Cut along lines of one place among the colours, or of one brightness, whichever changes the colour more.
    void put(Piece piece, int depth) {
        const auto [place, light] = rangesOf(piece);
        const double middle = (place.first + place.second) / 2, bright = (light.first + light.second) / 2;
        const int byPlace = apart(colourOf(place.first, bright), colourOf(place.second, bright)),
                  byLight = apart(colourOf(middle, light.first), colourOf(middle, light.second));
        const bool isLarge = std::max(piece.box.width, piece.box.height) > 8 * smallest;
        if (!faces_->flat && depth < 12 && isLarge && std::max(byPlace, byLight) > difference_) {
            const bool ofPlace = byPlace >= byLight;
            for (Piece& part :
                 cut(piece, ++edges, [&](const Corner& c) { return ofPlace ? c.place - middle : c.light - bright; })) {
                if (!part.corners.empty()) put(std::move(part), depth + 1);
            }
            return;
        }
        double meanPlace = 0, meanLight = 0;
        for (const Corner& c : piece.corners) {
            meanPlace += c.place / static_cast<double>(piece.corners.size());
            meanLight += c.light / static_cast<double>(piece.corners.size());
        }
        piece.colour = colourOf(meanPlace, meanLight);
        pieces.push_back(std::move(piece));
    }

    static std::array<std::pair<double, double>, 2> rangesOf(const Piece& piece) {
        const auto place = std::ranges::minmax(piece.corners, {}, &Corner::place),
                   light = std::ranges::minmax(piece.corners, {}, &Corner::light);
        return {std::pair{place.min.place, place.max.place}, std::pair{light.min.light, light.max.light}};
    }

    static int apart(const Colour& p, const Colour& q) {
        return std::max({std::abs(p.red - q.red), std::abs(p.green - q.green), std::abs(p.blue - q.blue)});
    }

    Rect room_;
    int difference_;
    const Faces* faces_ = nullptr;
    std::uint32_t surface_ = 0;
};

Pieces piecesOf(const std::vector<Faces>& surfaces, const Rect& room) {
    for (int difference = mostDifference;; difference *= 2) {
        Pieces made(room, difference);
        for (std::uint32_t i = 0; i < surfaces.size(); ++i) made.add(surfaces[i], i);
        if (made.pieces.size() <= mostPieces || difference > 255) return made;
    }
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
        if (size(largest) < smallest || pieces_.size() > 2 * mostPieces) { // nobody sees it
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

/// Who has an edge in common, on either side of it, and when they are painted.
class Neighbours {
public:
    Neighbours(const std::vector<Piece>& pieces, const std::vector<std::uint32_t>& order, std::uint32_t edges)
        : pieces_(pieces), users_(edges + 1) {
        for (std::size_t when = 0; when < order.size(); ++when) {
            const Piece& piece = pieces[order[when]];
            for (std::size_t i = 0; i < piece.corners.size(); ++i) {
                const Shared& edge = piece.corners[i].edge;
                if (edge.number > 0) users_[edge.number][edge.side].push_back({when, order[when], i});
            }
        }
    }

    /// A piece with strips along its edges of those beside it that are painted later: under them, so that they need
    /// not reach it. The first polygon is its own, larger by the strips along whole edges.
    std::vector<std::vector<Point>> outline(std::uint32_t index, std::size_t when) const {
        const auto& corners = pieces_[index].corners;
        std::vector<std::vector<Point>> polygons(1);
        for (std::size_t i = 0; i < corners.size(); ++i) {
            const Corner &a = corners[i], &b = corners[(i + 1) % corners.size()];
            polygons[0].push_back({a.x, a.y});
            if (a.edge.number == 0) continue;
            for (const User& user : users_[a.edge.number][1U - a.edge.side]) {
                if (user.when <= when) continue;
                std::vector<Point> strip = stripOf(user, a, b);
                if (strip.size() < 3 || !hasPartOf(strip, a, b)) continue; // it is beside another part of the edge
                const bool isWhole = isAt(strip[0], b) && isAt(strip[1], a);
                if (isWhole)
                    polygons[0].insert(polygons[0].end(), strip.begin() + 2, strip.end());
                else
                    polygons.push_back(std::move(strip));
                addBehind(user, a, b, when, index, polygons);
            }
        }
        return polygons;
    }

private:
    struct User {
        std::size_t when;
        std::uint32_t piece;
        std::size_t corner; ///< at which the edge begins
    };
    static bool isAt(Point p, const Corner& c) { return std::hypot(p.x - c.x, p.y - c.y) < 1e-7; }

    /// The first side of a strip lies along the edge.
    static bool hasPartOf(const std::vector<Point>& strip, const Corner& a, const Corner& b) {
        const double length = sideLength(a, b), dx = (b.x - a.x) / length, dy = (b.y - a.y) / length;
        const auto along = [&](const Point& p) { return std::clamp((p.x - a.x) * dx + (p.y - a.y) * dy, 0.0, length); };
        return std::abs(along(strip[0]) - along(strip[1])) > 1e-6;
    }

    /// Where pieces are narrower than a strip, what it has of those beyond them.
    void addBehind(const User& first, const Corner& a, const Corner& b, std::size_t when, std::uint32_t own,
                   std::vector<std::vector<Point>>& polygons) const {
        constexpr std::size_t most = 24;
        std::vector<std::uint32_t> met{own, first.piece};
        for (std::size_t at = 1; at < met.size() && met.size() < most; ++at) {
            for (const Corner& c : pieces_[met[at]].corners) {
                if (c.edge.number == 0) continue;
                for (const User& user : users_[c.edge.number][1U - c.edge.side]) {
                    if (user.when <= when || std::ranges::find(met, user.piece) != met.end()) continue;
                    std::vector<Point> strip = stripOf(user, a, b);
                    if (strip.size() < 3 || areaOf(strip) < leastStrip) continue;
                    met.push_back(user.piece);
                    polygons.push_back(std::move(strip));
                }
            }
        }
    }

    /// What of a piece is within the width of a strip along an edge, first where the edge ends.
    std::vector<Point> stripOf(const User& user, const Corner& a, const Corner& b) const {
        const auto& corners = pieces_[user.piece].corners;
        const double length = sideLength(a, b);
        if (!(length > 1e-7)) return {};
        std::vector<Point> polygon, kept;
        for (std::size_t i = 0; i < corners.size(); ++i) {
            const Corner& c = corners[(user.corner + i) % corners.size()];
            polygon.push_back({c.x, c.y});
        }
        const double dx = (b.x - a.x) / length, dy = (b.y - a.y) / length;
        const auto keep = [&](const auto& room) { // where it is not negative
            kept.clear();
            for (std::size_t i = 0; i < polygon.size(); ++i) {
                const Point p = polygon[i], q = polygon[(i + 1) % polygon.size()];
                const double from = room(p), to = room(q);
                if (from >= 0) kept.push_back(p);
                if ((from > 0 && to < 0) || (from < 0 && to > 0)) {
                    const double share = from / (from - to);
                    kept.push_back({p.x + share * (q.x - p.x), p.y + share * (q.y - p.y)});
                }
            }
            std::swap(polygon, kept);
        };
        constexpr double near = 1e-8; // mm
        keep([&](Point p) { return seam - std::abs((p.x - a.x) * dy - (p.y - a.y) * dx); });
        keep([&](Point p) { return (p.x - a.x) * dx + (p.y - a.y) * dy + seam + near; });
        keep([&](Point p) { return seam + near - (p.x - b.x) * dx - (p.y - b.y) * dy; });
        return polygon;
    }

    const std::vector<Piece>& pieces_;
    std::vector<std::array<std::vector<User>, 2>> users_;
};

} // namespace

std::vector<FillItem> surfaceVectors(const std::vector<Faces>& surfaces, const Rect& room) {
    Pieces made = piecesOf(surfaces, room);
    std::vector<Piece>& pieces = made.pieces;
    std::vector<Pair> pairs = pairsOf(pieces, room);
    if (std::ranges::any_of(pairs, [](const Pair& pair) { return pair.order == Order::Crossing; })) {
        cutCrossings(pieces, pairs, made.edges);
        pairs = pairsOf(pieces, room);
    }
    const std::vector<std::uint32_t> order = Painting(pieces, pairs, made.edges).order();
    const Neighbours neighbours(pieces, order, made.edges);
    std::vector<FillItem> items;
    for (std::size_t when = 0; when < order.size(); ++when)
        items.push_back({neighbours.outline(order[when], when), pieces[order[when]].colour, 1, false});
    return items;
}

} // namespace coulter
