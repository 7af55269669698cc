#include "sampling/streamlines.h"

#include <algorithm>
#include <cmath>
#include <deque>
#include <optional>

namespace coulter {
namespace {

PlaceInMm operator+(const PlaceInMm& a, const PlaceInMm& b) { return {a[0] + b[0], a[1] + b[1]}; }
PlaceInMm operator-(const PlaceInMm& a, const PlaceInMm& b) { return {a[0] - b[0], a[1] - b[1]}; }
PlaceInMm operator*(double s, const PlaceInMm& a) { return {s * a[0], s * a[1]}; }
double dot(const PlaceInMm& a, const PlaceInMm& b) { return a[0] * b[0] + a[1] * b[1]; }
double distance(const PlaceInMm& a, const PlaceInMm& b) { return std::hypot(a[0] - b[0], a[1] - b[1]); }
bool isFinite(const PlaceInMm& a) { return std::isfinite(a[0]) && std::isfinite(a[1]); }

constexpr double longestStep = 3;     // mm
constexpr double shortestStep = 2e-4; // mm: where a step is shorter, the line ends
constexpr double mostTurn = 0.35;     // radians a step may turn by
constexpr std::size_t mostPoints = 200'000;

/// Points of lines that are there already, in squares of the panel.
class Neighbours {
public:
    Neighbours(double width, double height, double cell)
        : cell_(cell), columns_(static_cast<int>(width / cell) + 2), rows_(static_cast<int>(height / cell) + 2),
          cells_(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_)) {}

    void add(const PlaceInMm& place) {
        if (auto* cell = at(columnOf(place[0]), columnOf(place[1]))) cell->push_back(place);
    }
    /// Whether a point lies nearer than `reach`, at most one square.
    bool hasNear(const PlaceInMm& place, double reach) const {
        const int column = columnOf(place[0]), row = columnOf(place[1]);
        for (int i = column - 1; i <= column + 1; ++i) {
            for (int j = row - 1; j <= row + 1; ++j) {
                const auto* cell = const_cast<Neighbours*>(this)->at(i, j);
                if (cell && std::ranges::any_of(*cell, [&](const PlaceInMm& p) { return distance(p, place) < reach; }))
                    return true;
            }
        }
        return false;
    }

private:
    int columnOf(double mm) const { return static_cast<int>(std::floor(mm / cell_)); }
    std::vector<PlaceInMm>* at(int column, int row) {
        if (column < 0 || row < 0 || column >= columns_ || row >= rows_) return nullptr;
        return &cells_[static_cast<std::size_t>(row) * static_cast<std::size_t>(columns_) +
                       static_cast<std::size_t>(column)];
    }
    double cell_;
    int columns_, rows_;
    std::vector<std::vector<PlaceInMm>> cells_;
};

struct Step {
    PlaceInMm to, direction; ///< where it ends, and the direction there
    double error = 0;        ///< mm
};

/// One step of Dormand and Prince along the field, or against it; none where the field ends on the way.
std::optional<Step> step(const Direction& field, double sense, const PlaceInMm& from, const PlaceInMm& k1, double h) {
    const auto at = [&](const PlaceInMm& place) { return sense * field(place); };
    const PlaceInMm k2 = at(from + h / 5 * k1);
    const PlaceInMm k3 = at(from + h * (3.0 / 40 * k1 + 9.0 / 40 * k2));
    const PlaceInMm k4 = at(from + h * (44.0 / 45 * k1 + -56.0 / 15 * k2 + 32.0 / 9 * k3));
    const PlaceInMm k5 =
        at(from + h * (19372.0 / 6561 * k1 + -25360.0 / 2187 * k2 + 64448.0 / 6561 * k3 + -212.0 / 729 * k4));
    const PlaceInMm k6 = at(from + h * (9017.0 / 3168 * k1 + -355.0 / 33 * k2 + 46732.0 / 5247 * k3 + 49.0 / 176 * k4 +
                                        -5103.0 / 18656 * k5));
    const PlaceInMm to =
        from + h * (35.0 / 384 * k1 + 500.0 / 1113 * k3 + 125.0 / 192 * k4 + -2187.0 / 6784 * k5 + 11.0 / 84 * k6);
    if (!isFinite(to)) return std::nullopt;
    const PlaceInMm k7 = at(to);
    const PlaceInMm off = h * (71.0 / 57600 * k1 + -71.0 / 16695 * k3 + 71.0 / 1920 * k4 + -17253.0 / 339200 * k5 +
                               22.0 / 525 * k6 + -1.0 / 40 * k7);
    if (!isFinite(k7) || !isFinite(off)) return std::nullopt;
    return Step{to, k7, std::hypot(off[0], off[1])};
}

/// A place between two steps, on the cubic that has their places and directions.
PlaceInMm between(const PlaceInMm& a, const PlaceInMm& da, const PlaceInMm& b, const PlaceInMm& db, double h,
                  double t) {
    const double s = 1 - t;
    return s * s * (1 + 2 * t) * a + s * s * t * h * da + t * t * (3 - 2 * t) * b + -1 * s * t * t * h * db;
}

/// One way along the field from a place.
class Walk {
public:
    Walk(const Direction& field, double sense, const StreamRules& rules,
         const std::function<bool(const PlaceInMm&)>& stops)
        : field_(field), sense_(sense), rules_(rules), stops_(stops) {}

    /// Points behind the start.
    std::vector<PlaceInMm> points;
    StreamEnd end = StreamEnd::Edge;

    void run(const PlaceInMm& start) {
        PlaceInMm at = start, direction = sense_ * field_(start);
        if (!isFinite(direction)) return;
        const PlaceInMm outset = direction;
        const double allowed = 1e-4 * rules_.tolerance;
        double h = 0.5, length = 0;
        double turning = turningAcross(at, direction);
        while (length < rules_.longest && points.size() < mostPoints) {
            // Where half the tolerance to a side is another direction altogether, no line can be told from its
            // neighbours: a singular point, which a long step must not leap over.
            if (turning * rules_.tolerance > 1) {
                end = StreamEnd::Rest;
                return;
            }
            h = std::min({h, longestStep, std::max(shortestStep, 0.5 / turning)});
            const auto made = step(field_, sense_, at, direction, h);
            const bool turns = made && std::acos(std::clamp(dot(direction, made->direction), -1.0, 1.0)) > mostTurn;
            if (!made || turns || made->error > allowed * std::max(1.0, h)) {
                if (h <= shortestStep) {
                    if (made && over(at, direction)) continue; // a jump of the field's direction
                    end = made ? StreamEnd::Rest : endHere(at, direction);
                    return;
                }
                h = std::max(shortestStep, made && !turns
                                               ? h * std::clamp(0.9 * std::pow(allowed / made->error, 0.2), 0.1, 0.5)
                                               : h / 2);
                continue;
            }
            if (divide(start, outset, at, direction, *made, h, length)) return;
            length += h;
            at = made->to;
            direction = made->direction;
            turning = turningAcross(at, direction);
            const double growth = made->error > 0 ? 0.9 * std::pow(allowed / made->error, 0.2) : 4;
            h *= std::clamp(growth, 0.3, 2.5);
        }
        end = StreamEnd::TooLong;
    }

private:
    bool isInside(const PlaceInMm& p) const {
        return p[0] >= 0 && p[1] >= 0 && p[0] <= rules_.width && p[1] <= rules_.height;
    }

    /// By how much the direction turns for each mm to the side. Beside a jump of the direction it does not: looked at
    /// more closely there is none; nor upon one, where it is as large from nearby as from afar.
    double turningAcross(const PlaceInMm& at, const PlaceInMm& direction) const {
        const PlaceInMm normal{-direction[1], direction[0]};
        std::array<double, 2> asides{0.1 * rules_.tolerance, 0.002 * rules_.tolerance}, turns{};
        for (std::size_t k = 0; k < 2; ++k) {
            const PlaceInMm a = field_(at + asides[k] * normal), b = field_(at + -asides[k] * normal);
            if (!isFinite(a) || !isFinite(b)) return 0;
            turns[k] = distance(a, b);
        }
        if (turns[1] > 0.3 * turns[0]) return 0;
        return std::min(turns[0] / (2 * asides[0]), turns[1] / (2 * asides[1]));
    }

    /// Where the next step is not defined at all: the edge, unless the line comes to rest there.
    StreamEnd endHere(const PlaceInMm& at, const PlaceInMm& direction) const {
        const PlaceInMm ahead = sense_ * field_(at + 4 * shortestStep * direction);
        return isFinite(ahead) && dot(ahead, direction) < 0 ? StreamEnd::Rest : StreamEnd::Edge;
    }

    /// Steps over a place where the direction jumps, if it goes on beyond.
    bool over(PlaceInMm& at, PlaceInMm& direction) {
        const PlaceInMm to = at + 2 * shortestStep * direction, there = sense_ * field_(to);
        if (!isFinite(there) || dot(there, direction) < 0.1 || ++jumps_ > 1000) return false;
        points.push_back(to);
        at = to;
        direction = there;
        return true;
    }

    /// Adds the points of a step; whether the line ends within it.
    bool divide(const PlaceInMm& start, const PlaceInMm& outset, const PlaceInMm& at, const PlaceInMm& direction,
                const Step& made, double h, double length) {
        const double turn = std::acos(std::clamp(dot(direction, made.direction), -1.0, 1.0));
        // A chord of an arc is off its middle by length times angle over eight.
        const int parts = std::max(1, static_cast<int>(std::ceil(std::sqrt(h * turn / (4 * rules_.tolerance)))));
        PlaceInMm before = at;
        for (int i = 1; i <= parts; ++i) {
            const double t = static_cast<double>(i) / parts;
            const PlaceInMm p = between(at, direction, made.to, made.direction, h, t);
            if (!isInside(p)) {
                points.push_back(onEdge(before, p));
                end = StreamEnd::Edge;
                return true;
            }
            if (length > 1 && closes(start, outset, before, p)) {
                points.push_back(start);
                end = StreamEnd::Closed;
                return true;
            }
            if (stops_(p)) {
                end = StreamEnd::Near;
                return true;
            }
            points.push_back(p);
            before = p;
        }
        return false;
    }

    /// Whether a chord crosses the normal at the start, there and in the direction of the start.
    bool closes(const PlaceInMm& start, const PlaceInMm& outset, const PlaceInMm& a, const PlaceInMm& b) const {
        const double before = dot(a - start, outset), behind = dot(b - start, outset);
        if (!(before < 0 && behind >= 0)) return false;
        const PlaceInMm crossing = a + (before / (before - behind)) * (b - a);
        return distance(crossing, start) <= 2 * rules_.tolerance;
    }

    PlaceInMm onEdge(const PlaceInMm& a, const PlaceInMm& b) const {
        double part = 1;
        for (std::size_t k = 0; k < 2; ++k) {
            const double high = k == 0 ? rules_.width : rules_.height, far = b[k] - a[k];
            if (b[k] < 0) part = std::min(part, -a[k] / far);
            if (b[k] > high) part = std::min(part, (high - a[k]) / far);
        }
        return a + part * (b - a);
    }

    const Direction& field_;
    double sense_;
    const StreamRules& rules_;
    const std::function<bool(const PlaceInMm&)>& stops_;
    int jumps_ = 0;
};

Streamline both(const Direction& direction, const PlaceInMm& start, const StreamRules& rules,
                const std::function<bool(const PlaceInMm&)>& stops) {
    Streamline line;
    if (!isFinite(direction(start))) return line;
    Walk forwards(direction, 1, rules, stops);
    forwards.run(start);
    line.last = forwards.end;
    if (forwards.end == StreamEnd::Closed) {
        line.first = StreamEnd::Closed;
        line.points.push_back(start);
    } else {
        Walk backwards(direction, -1, rules, stops);
        backwards.run(start);
        line.first = backwards.end;
        line.points.assign(backwards.points.rbegin(), backwards.points.rend());
        line.start = line.points.size();
        line.points.push_back(start);
    }
    line.points.insert(line.points.end(), forwards.points.begin(), forwards.points.end());
    return line;
}

double lengthOf(const Streamline& line) {
    double length = 0;
    for (std::size_t i = 0; i + 1 < line.points.size(); ++i) length += distance(line.points[i], line.points[i + 1]);
    return length;
}

/// Places along a line about so far apart, with the direction there.
template <class Call> void along(const Streamline& line, double every, const Call& call) {
    double until = 0;
    for (std::size_t i = 0; i + 1 < line.points.size(); ++i) {
        const PlaceInMm &a = line.points[i], &b = line.points[i + 1];
        const double length = distance(a, b);
        for (; until <= length && length > 0; until += every)
            call(a + (until / length) * (b - a), (1 / length) * (b - a));
        until -= length;
    }
}

} // namespace

Streamline streamlineThrough(const Direction& direction, const PlaceInMm& start, const StreamRules& rules) {
    return both(direction, start, rules, [](const PlaceInMm&) { return false; });
}

std::vector<Streamline> evenStreamlines(const Direction& direction, double spacing, const StreamRules& rules) {
    std::vector<Streamline> lines;
    Neighbours others(rules.width, rules.height, spacing);
    const double nearest = 0.5 * spacing, grain = 0.2 * spacing;
    double total = 0;
    // Enough for every line of a panel that is filled, and some.
    const double most = 4 * rules.width * rules.height / spacing + 1000;
    const auto isFree = [&](const PlaceInMm& place) {
        return place[0] >= 0 && place[1] >= 0 && place[0] <= rules.width && place[1] <= rules.height &&
               !others.hasNear(place, spacing);
    };
    const auto begin = [&](const PlaceInMm& start) {
        if (total > most || !isFree(start)) return;
        // A line keeps away from itself as from others, but for the part that it has just walked.
        Neighbours own(rules.width, rules.height, spacing);
        std::deque<PlaceInMm> recent;
        PlaceInMm last = start;
        const std::function<bool(const PlaceInMm&)> stops = [&](const PlaceInMm& p) {
            if (others.hasNear(p, nearest) || own.hasNear(p, nearest)) return true;
            if (distance(p, last) < grain) return false;
            last = p;
            recent.push_back(p);
            while (recent.size() > 12) { // two and a half spacings behind
                own.add(recent.front());
                recent.pop_front();
            }
            return false;
        };
        Streamline line = both(direction, start, rules, stops);
        const double length = lengthOf(line);
        if (line.points.size() < 2 || (length < 1.5 * spacing && !line.isClosed())) return;
        total += length;
        along(line, grain, [&](const PlaceInMm& p, const PlaceInMm&) { others.add(p); });
        lines.push_back(std::move(line));
    };
    std::size_t done = 0;
    const auto beside = [&] {
        for (; done < lines.size() && total <= most; ++done) {
            const Streamline line = lines[done]; // lines grow while it is looked along
            along(line, spacing, [&](const PlaceInMm& p, const PlaceInMm& d) {
                for (const double side : {1.0, -1.0})
                    begin({p[0] - side * 1.0001 * spacing * d[1], p[1] + side * 1.0001 * spacing * d[0]});
            });
        }
    };
    begin({rules.width / 2, rules.height / 2});
    beside();
    for (double y = spacing / 2; y < rules.height; y += spacing) {
        for (double x = spacing / 2; x < rules.width; x += spacing) {
            begin({x, y});
            beside();
        }
    }
    return lines;
}

} // namespace coulter
