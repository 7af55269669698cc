#include "sampling/element_samples.h"

#include <algorithm>
#include <cmath>
#include <unordered_map>

namespace coulter {
namespace {

/// How far inside an element its own points are evaluated, as a share of the way to its middle.
constexpr double inside = 1e-7;

class Refiner {
public:
    Refiner(const Program& f, bool hasCells, const PanelMap& map, const FieldTolerance& tolerance, std::stop_token stop,
            const std::function<void(std::size_t)>& evaluated)
        : f_(f), hasCells_(hasCells), map_(map), tolerance_(tolerance), stop_(std::move(stop)), evaluated_(evaluated) {
        samples_.values.resize(f.outputs.size());
    }

    FieldSamples run(const ElementMesh& mesh, const std::array<Interval, 2>& within) {
        begin(mesh);
        for (std::size_t k = 0; k < 2; ++k) {
            cut(k, within[k].low, 1);
            cut(k, within[k].high, -1);
        }
        evaluateFrom(0);
        while (!stop_.stop_requested()) {
            const std::size_t before = samples_.x.size();
            addMiddles();
            evaluateFrom(before);
            const bool follows = followsField();
            if (!follows && samples_.x.size() <= mostMeshPoints) {
                quarter();
                continue;
            }
            forget(before);
            samples_.finished = follows;
            break;
        }
        if (stop_.stop_requested()) samples_.finished = false;
        return std::move(samples_);
    }

private:
    using Triangle = std::array<std::uint32_t, 3>;
    struct Spot {
        double x, y;
    };

    std::uint32_t add(Spot at, Spot middle) {
        samples_.x.push_back(at.x);
        samples_.y.push_back(at.y);
        if (hasCells_) middles_.push_back(middle);
        return static_cast<std::uint32_t>(samples_.x.size() - 1);
    }

    void begin(const ElementMesh& mesh) {
        if (!hasCells_) {
            samples_.x = mesh.x;
            samples_.y = mesh.y;
        }
        for (std::size_t e = 0; e < mesh.elements.size(); ++e) {
            const std::size_t corners = mesh.cornersOf(e);
            Spot middle{0, 0};
            for (std::size_t k = 0; k < corners; ++k) {
                middle.x += mesh.x[mesh.elements[e][k]] / static_cast<double>(corners);
                middle.y += mesh.y[mesh.elements[e][k]] / static_cast<double>(corners);
            }
            std::array<std::uint32_t, 4> nodes = mesh.elements[e];
            for (std::size_t k = 0; k < corners && hasCells_; ++k)
                nodes[k] = add({mesh.x[nodes[k]], mesh.y[nodes[k]]}, middle);
            if (corners == 3) {
                samples_.triangles.push_back({nodes[0], nodes[1], nodes[2]});
                continue;
            }
            const std::uint32_t centre = add(middle, middle);
            for (std::size_t k = 0; k < 4; ++k) samples_.triangles.push_back({nodes[k], nodes[(k + 1) % 4], centre});
        }
    }

    /// Leaves of all triangles what lies on one side of a line x = at (or y = at): above it for a sign of 1, below it
    /// for −1. Triangles that share an edge share the point at which it is cut.
    void cut(std::size_t variable, double at, double sign) {
        const auto along = [&](std::uint32_t p) { return variable == 0 ? samples_.x[p] : samples_.y[p]; };
        const auto isIn = [&](std::uint32_t p) { return sign * (along(p) - at) >= 0; };
        if (std::ranges::all_of(samples_.triangles, [&](const Triangle& t) { return std::ranges::all_of(t, isIn); }))
            return;
        ofEdges_.clear();
        const auto cutOf = [&](std::uint32_t p, std::uint32_t q) {
            const auto [a, b] = std::minmax(p, q);
            const auto [found, isNew] =
                ofEdges_.try_emplace(std::uint64_t{a} << 32U | b, static_cast<std::uint32_t>(samples_.x.size()));
            if (isNew) {
                const double share = (at - along(a)) / (along(b) - along(a));
                Spot spot{samples_.x[a] + share * (samples_.x[b] - samples_.x[a]),
                          samples_.y[a] + share * (samples_.y[b] - samples_.y[a])};
                (variable == 0 ? spot.x : spot.y) = at;
                add(spot, hasCells_ ? middles_[a] : Spot{});
            }
            return found->second;
        };
        std::vector<Triangle> kept;
        for (Triangle t : samples_.triangles) {
            const auto count = std::ranges::count_if(t, isIn);
            if (count == 3) kept.push_back(t);
            if (count == 0 || count == 3) continue;
            // Turned so that the corner that stands alone is the first one.
            while (isIn(t[0]) != (count == 1)) std::rotate(t.begin(), t.begin() + 1, t.end());
            const std::uint32_t after = cutOf(t[0], t[1]), before = cutOf(t[2], t[0]);
            if (count == 1) {
                kept.push_back({t[0], after, before});
            } else {
                kept.push_back({after, t[1], t[2]});
                kept.push_back({after, t[2], before});
            }
        }
        samples_.triangles = std::move(kept);
    }

    void evaluateFrom(std::size_t first) {
        const std::size_t count = samples_.x.size() - first;
        std::vector<double> x(samples_.x.begin() + static_cast<std::ptrdiff_t>(first), samples_.x.end()),
            y(samples_.y.begin() + static_cast<std::ptrdiff_t>(first), samples_.y.end());
        for (std::size_t i = 0; i < count && hasCells_; ++i) {
            x[i] += inside * (middles_[first + i].x - x[i]);
            y[i] += inside * (middles_[first + i].y - y[i]);
        }
        const double* const in[] = {x.data(), y.data()};
        std::vector<double*> out;
        for (auto& component : samples_.values) {
            component.resize(first + count, 0); // all of them, should it be stopped
            out.push_back(component.data() + first);
        }
        evaluateInParallel(f_, in, out, count, stop_, evaluated_);
        samples_.evaluations += count;
    }

    /// The middle of each edge, once for both of its triangles.
    void addMiddles() {
        ofEdges_.clear();
        ofTriangles_.clear();
        ofTriangles_.reserve(samples_.triangles.size());
        for (const Triangle& t : samples_.triangles) {
            Triangle& middles = ofTriangles_.emplace_back();
            for (std::size_t k = 0; k < 3; ++k) {
                const std::uint32_t a = std::min(t[k], t[(k + 1) % 3]), b = std::max(t[k], t[(k + 1) % 3]);
                const auto [at, isNew] =
                    ofEdges_.try_emplace(std::uint64_t{a} << 32U | b, static_cast<std::uint32_t>(samples_.x.size()));
                if (isNew)
                    add({samples_.x[a] / 2 + samples_.x[b] / 2, samples_.y[a] / 2 + samples_.y[b] / 2},
                        hasCells_ ? middles_[a] : Spot{});
                middles[k] = at->second;
            }
        }
    }
    void forget(std::size_t before) {
        samples_.x.resize(before);
        samples_.y.resize(before);
        for (auto& component : samples_.values) component.resize(before);
        if (hasCells_) middles_.resize(before);
    }

    /// Whether values at the middles are those between their ends, to the tolerance.
    bool followsField() const {
        const double range = tolerance_.high - tolerance_.low, least = range / (4 * map_.y.length);
        for (std::size_t i = 0; i < samples_.triangles.size(); ++i) {
            const Triangle &t = samples_.triangles[i], &middles = ofTriangles_[i];
            double lowX = HUGE_VAL, highX = -HUGE_VAL, lowY = HUGE_VAL, highY = -HUGE_VAL;
            for (const std::uint32_t p : t) {
                const double u = map_.x.toSheet(samples_.x[p]), v = map_.y.toSheet(samples_.y[p]);
                lowX = std::min(lowX, u), highX = std::max(highX, u), lowY = std::min(lowY, v),
                highY = std::max(highY, v);
            }
            const double size = std::max({highX - lowX, highY - lowY, 1e-9});
            for (const auto& z : samples_.values) {
                const auto [low, high] = std::minmax({z[t[0]], z[t[1]], z[t[2]]});
                const double slope = std::max(least, (high - low) / size);
                for (std::size_t k = 0; k < 3; ++k) {
                    const double off = std::abs(z[middles[k]] - (z[t[k]] / 2 + z[t[(k + 1) % 3]] / 2));
                    if (off > tolerance_.millimetres * slope) return false;
                }
            }
        }
        return true;
    }

    void quarter() {
        std::vector<Triangle> finer;
        finer.reserve(4 * samples_.triangles.size());
        for (std::size_t i = 0; i < samples_.triangles.size(); ++i) {
            const auto [a, b, c] = samples_.triangles[i];
            const auto [ab, bc, ca] = ofTriangles_[i];
            finer.push_back({a, ab, ca});
            finer.push_back({ab, b, bc});
            finer.push_back({ca, bc, c});
            finer.push_back({ab, bc, ca});
        }
        samples_.triangles = std::move(finer);
    }

    const Program& f_;
    bool hasCells_;
    PanelMap map_;
    FieldTolerance tolerance_;
    std::stop_token stop_;
    const std::function<void(std::size_t)>& evaluated_;
    FieldSamples samples_;
    std::vector<Spot> middles_; ///< of cells: of the element that each point belongs to
    std::unordered_map<std::uint64_t, std::uint32_t> ofEdges_;
    std::vector<Triangle> ofTriangles_;
};

} // namespace

FieldSamples sampleElements(const Program& f, const ElementMesh& mesh, const std::array<Interval, 2>& within,
                            bool hasCells, const PanelMap& map, const FieldTolerance& tolerance, std::stop_token stop,
                            const std::function<void(std::size_t)>& evaluated) {
    return Refiner(f, hasCells, map, tolerance, std::move(stop), evaluated).run(mesh, within);
}

} // namespace coulter
