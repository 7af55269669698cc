#include "drawing/line_labels.h"

#include "drawing/nearness.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>

namespace coulter {
namespace {

constexpr double besideWords = 0.7; // mm free on both sides of words
constexpr double stride = 1;        // mm between places that are looked at
constexpr double mostBend = 0.15;   // of the words' height, that a line may leave its chord under them

/// A line by the way along it.
class Way {
public:
    explicit Way(const LabelledLine& from) : points_(from.line) {
        if (from.closed && !points_.empty()) points_.push_back(points_.front());
        for (std::size_t i = 0; i < points_.size(); ++i)
            at_.push_back(
                i == 0 ? 0 : at_[i - 1] + std::hypot(points_[i].x - points_[i - 1].x, points_[i].y - points_[i - 1].y));
    }
    double length() const { return at_.empty() ? 0 : at_.back(); }
    Point place(double mm) const {
        const std::size_t i = after(mm);
        const double span = at_[i] - at_[i - 1], part = span > 0 ? (mm - at_[i - 1]) / span : 0;
        return {points_[i - 1].x + part * (points_[i].x - points_[i - 1].x),
                points_[i - 1].y + part * (points_[i].y - points_[i - 1].y)};
    }
    std::vector<Point> part(double from, double to) const {
        std::vector<Point> some{place(from)};
        for (std::size_t i = after(from); i < points_.size() && at_[i] < to; ++i) {
            if (at_[i] > from) some.push_back(points_[i]);
        }
        some.push_back(place(to));
        return some;
    }
    /// How far it leaves its chord between two places.
    double bend(double from, double to) const {
        const Point a = place(from), b = place(to);
        const double dx = b.x - a.x, dy = b.y - a.y, chord = std::hypot(dx, dy);
        if (!(chord > 0.9 * (to - from))) return HUGE_VAL;
        double most = 0;
        for (std::size_t i = after(from); i < points_.size() && at_[i] < to; ++i)
            most = std::max(most, std::abs((points_[i].x - a.x) * dy - (points_[i].y - a.y) * dx) / chord);
        return most;
    }

private:
    std::size_t after(double mm) const {
        const auto next = std::ranges::upper_bound(at_, mm);
        return std::clamp<std::size_t>(static_cast<std::size_t>(next - at_.begin()), 1, at_.size() - 1);
    }
    std::vector<Point> points_;
    std::vector<double> at_;
};

/// Words as discs along their length: enough to keep them apart.
struct Discs {
    std::vector<Point> middles;
    double radius = 0;
};

Discs discsOf(const Point& a, const Point& b, double height) {
    Discs discs;
    discs.radius = height / 2;
    const double length = std::hypot(b.x - a.x, b.y - a.y);
    const int count = std::max(1, static_cast<int>(std::ceil(length / height)));
    for (int i = 0; i <= count; ++i)
        discs.middles.push_back({a.x + (b.x - a.x) * i / count, a.y + (b.y - a.y) * i / count});
    return discs;
}

/// All pieces of lines by squares of the sheet, to ask what passes a place.
class Pieces {
public:
    explicit Pieces(const std::vector<LabelledLine>& lines) {
        for (std::size_t k = 0; k < lines.size(); ++k) {
            const std::vector<Point>& points = lines[k].line;
            double at = 0;
            for (std::size_t i = 0; i + (lines[k].closed ? 0 : 1) < points.size(); ++i) {
                const Point &a = points[i], &b = points[(i + 1) % points.size()];
                const double length = std::hypot(b.x - a.x, b.y - a.y);
                if (!(length < 1e4)) continue;
                const int parts = std::max(1, static_cast<int>(std::ceil(length / square)));
                for (int p = 0; p < parts; ++p) {
                    const auto on = [&](double share) {
                        return Point{a.x + (b.x - a.x) * share, a.y + (b.y - a.y) * share};
                    };
                    const Point from = on(static_cast<double>(p) / parts), to = on((p + 1.0) / parts);
                    squares_[keyOf(from)].push_back({k, at + length * (p + 0.5) / parts, {from, to}});
                }
                at += length;
            }
        }
    }

    /// Whether a line passes within a distance: any but one line, of that one what is not between two of its places.
    bool passes(const Point& p, double within, std::size_t line, double from, double to) const {
        for (int dx = -1; dx <= 1; ++dx) {
            for (int dy = -1; dy <= 1; ++dy) {
                const auto found = squares_.find(keyOf({p.x + dx * square, p.y + dy * square}));
                if (found == squares_.end()) continue;
                for (const Piece& piece : found->second) {
                    if (piece.line == line && piece.at > from - square && piece.at < to + square) continue;
                    if (distanceTo({piece.ends.begin(), piece.ends.end()}, p) < within) return true;
                }
            }
        }
        return false;
    }

private:
    static constexpr double square = 3; // mm
    struct Piece {
        std::size_t line;
        double at; ///< of its middle, along the line
        std::array<Point, 2> ends;
    };
    static std::pair<long, long> keyOf(const Point& p) {
        return {static_cast<long>(std::floor(p.x / square)), static_cast<long>(std::floor(p.y / square))};
    }
    std::map<std::pair<long, long>, std::vector<Piece>> squares_;
};

bool overlap(const Discs& a, const Discs& b, double apart) {
    for (const Point& p : a.middles) {
        for (const Point& q : b.middles) {
            if (std::hypot(p.x - q.x, p.y - q.y) < a.radius + b.radius + apart) return true;
        }
    }
    return false;
}

} // namespace

LineLabels placeLabels(const std::vector<LabelledLine>& lines, const Rect& room, double every) {
    LineLabels placed;
    std::vector<Discs> taken;
    const Pieces pieces(lines);
    placed.lines.resize(lines.size());
    for (std::size_t k = 0; k < lines.size(); ++k) {
        const Box& label = lines[k].label;
        if (lines[k].line.size() < 2) continue;
        const Way way(lines[k]);
        const double need = label.width + 2 * besideWords, height = std::max(0.1, label.height());
        struct Start {
            double from, bend;
        };
        std::vector<Start> places;
        if (!label.glyphs.empty() && way.length() > 3 * need + 4) {
            for (double from = need / 4; from + 1.25 * need < way.length(); from += stride) {
                const double bend = way.bend(from, from + need);
                if (bend <= mostBend * height) places.push_back({from, bend});
            }
        }
        // The straightest first; of equally straight ones the one nearest to the middle of the line.
        std::ranges::stable_sort(places, [&](const Start& a, const Start& b) {
            const double grain = 0.02 * height, middle = (way.length() - need) / 2;
            const auto rank = [&](const Start& p) { return std::floor(p.bend / grain); };
            if (rank(a) != rank(b)) return rank(a) < rank(b);
            return std::abs(a.from - middle) < std::abs(b.from - middle);
        });
        std::vector<double> cuts;
        for (const Start& place : places) {
            const auto near = [&](double cut) { return std::abs(cut - place.from) < std::max(every, 1.5 * need); };
            if (std::ranges::any_of(cuts, near)) continue;
            const Point a = way.place(place.from + besideWords), b = way.place(place.from + need - besideWords);
            const Discs discs = discsOf(a, b, height);
            const Rect inside = room.grown(-height / 2 - 0.3);
            if (!std::ranges::all_of(discs.middles, [&](const Point& p) { return inside.contains(p); })) continue;
            if (std::ranges::any_of(taken, [&](const Discs& other) { return overlap(discs, other, 0.6); })) continue;
            if (std::ranges::any_of(discs.middles, [&](const Point& p) {
                    return pieces.passes(p, discs.radius + 0.15, k, place.from, place.from + need);
                }))
                continue;
            taken.push_back(discs);
            cuts.push_back(place.from);
            double turn = std::atan2(b.y - a.y, b.x - a.x);
            // Upright to the reader; what is nearly upright is read upwards, as everywhere.
            constexpr double nearlyUpright = 1.5;
            if (turn > nearlyUpright) turn -= std::numbers::pi;
            if (turn <= nearlyUpright - std::numbers::pi) turn += std::numbers::pi;
            placed.labels.push_back({k, {(a.x + b.x) / 2, (a.y + b.y) / 2}, turn});
        }
        std::ranges::sort(cuts);
        double from = 0;
        for (const double cut : cuts) {
            placed.lines[k].push_back(way.part(from, cut));
            from = cut + need;
        }
        if (cuts.empty()) {
            placed.lines[k].push_back(lines[k].line);
            if (lines[k].closed) placed.lines[k].back().push_back(lines[k].line.front());
        } else {
            std::vector<Point> rest = way.part(from, way.length());
            if (lines[k].closed) { // on across its first point
                rest.insert(rest.end(), placed.lines[k].front().begin() + 1, placed.lines[k].front().end());
                placed.lines[k].front() = std::move(rest);
            } else {
                placed.lines[k].push_back(std::move(rest));
            }
        }
    }
    return placed;
}

} // namespace coulter
