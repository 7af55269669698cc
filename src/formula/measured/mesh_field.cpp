// Measured numbers on triangles and quadrilaterals as a function. See measured_field.h.
#include "formula/measured/measured_field.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace coulter {
namespace {

struct Spot {
    double x = 0, y = 0;
    friend Spot operator-(Spot a, Spot b) { return {a.x - b.x, a.y - b.y}; }
};
double cross(Spot a, Spot b) { return a.x * b.y - a.y * b.x; }

/// How far outside of an element a place may be, as a share of its size, and still belong to it: a place on an edge
/// must not fall between two elements by rounding.
constexpr double nearEnough = 1e-12;

/// Which elements lie near a place.
class ElementFinder {
public:
    explicit ElementFinder(const ElementMesh& mesh) {
        low_ = {HUGE_VAL, HUGE_VAL};
        high_ = {-HUGE_VAL, -HUGE_VAL};
        for (std::size_t i = 0; i < mesh.x.size(); ++i) {
            low_ = {std::min(low_.x, mesh.x[i]), std::min(low_.y, mesh.y[i])};
            high_ = {std::max(high_.x, mesh.x[i]), std::max(high_.y, mesh.y[i])};
        }
        // About as many cells as elements, as square as may be.
        const double width = std::max(high_.x - low_.x, 1e-300), height = std::max(high_.y - low_.y, 1e-300);
        const double cells = static_cast<double>(mesh.elements.size()) + 1;
        const auto along = [&](double a, double b) {
            return static_cast<std::size_t>(std::clamp(std::ceil(std::sqrt(cells * a / b)), 1.0, 4096.0));
        };
        columns_ = along(width, height);
        rows_ = along(height, width);
        perX_ = static_cast<double>(columns_) / width;
        perY_ = static_cast<double>(rows_) / height;
        begins_.assign(columns_ * rows_ + 1, 0);
        const auto each = [&](const auto& take) {
            for (std::size_t e = 0; e < mesh.elements.size(); ++e) {
                Spot a{HUGE_VAL, HUGE_VAL}, b{-HUGE_VAL, -HUGE_VAL};
                for (std::size_t k = 0; k < mesh.cornersOf(e); ++k) {
                    const std::uint32_t node = mesh.elements[e][k];
                    a = {std::min(a.x, mesh.x[node]), std::min(a.y, mesh.y[node])};
                    b = {std::max(b.x, mesh.x[node]), std::max(b.y, mesh.y[node])};
                }
                const double reachX = (b.x - a.x) * nearEnough, reachY = (b.y - a.y) * nearEnough;
                cellsOf({a.x - reachX, b.x + reachX}, {a.y - reachY, b.y + reachY},
                        [&](std::size_t cell) { take(cell, static_cast<std::uint32_t>(e)); });
            }
        };
        each([&](std::size_t cell, std::uint32_t) { ++begins_[cell + 1]; });
        for (std::size_t i = 1; i < begins_.size(); ++i) begins_[i] += begins_[i - 1];
        elements_.resize(begins_.back());
        std::vector<std::size_t> next(begins_.begin(), begins_.end() - 1);
        each([&](std::size_t cell, std::uint32_t element) { elements_[next[cell]++] = element; });
    }

    /// Elements that may hold a place, in ascending order.
    std::span<const std::uint32_t> near(Spot at) const {
        if (!(at.x >= low_.x && at.x <= high_.x && at.y >= low_.y && at.y <= high_.y)) return {};
        return in(row(at.y) * columns_ + column(at.x));
    }
    template <class Visit> void over(const Bounds& x, const Bounds& y, const Visit& visit) const {
        if (x.high < low_.x || x.low > high_.x || y.high < low_.y || y.low > high_.y) return;
        cellsOf(x, y, [&](std::size_t cell) {
            for (const std::uint32_t element : in(cell)) visit(element);
        });
    }

private:
    std::span<const std::uint32_t> in(std::size_t cell) const {
        return std::span(elements_).subspan(begins_[cell], begins_[cell + 1] - begins_[cell]);
    }
    static std::size_t clamped(double at, std::size_t count) {
        return static_cast<std::size_t>(std::clamp(at, 0.0, static_cast<double>(count) - 1));
    }
    std::size_t column(double x) const { return clamped((x - low_.x) * perX_, columns_); }
    std::size_t row(double y) const { return clamped((y - low_.y) * perY_, rows_); }
    template <class Visit> void cellsOf(const Bounds& x, const Bounds& y, const Visit& visit) const {
        for (std::size_t j = row(y.low); j <= row(y.high); ++j) {
            for (std::size_t i = column(x.low); i <= column(x.high); ++i) visit(j * columns_ + i);
        }
    }

    Spot low_, high_;
    std::size_t columns_ = 1, rows_ = 1;
    double perX_ = 1, perY_ = 1;
    std::vector<std::size_t> begins_; ///< of each cell in `elements_`
    std::vector<std::uint32_t> elements_;
};

class MeshField : public MeasuredField {
public:
    MeshField(std::shared_ptr<const ElementMesh> mesh, std::shared_ptr<const ElementFinder> finder,
              std::shared_ptr<const std::vector<double>> values, bool byElement, int slopeOf = -1)
        : mesh_(std::move(mesh)), finder_(std::move(finder)), values_(std::move(values)), byElement_(byElement),
          slopeOf_(slopeOf) {}

    std::size_t variables() const override { return 2; }
    bool hasCells() const override { return byElement_ || slopeOf_ >= 0; }
    void eachPart(const std::function<void(std::span<const double>)>& take) const override {
        const std::array<double, 2> kind{byElement_ ? 1.0 : 0.0, static_cast<double>(slopeOf_)};
        take(kind);
        take(mesh_->x);
        take(mesh_->y);
        for (const auto& [a, b, c, d] : mesh_->elements) {
            const std::array<double, 4> nodes{static_cast<double>(a), static_cast<double>(b), static_cast<double>(c),
                                              static_cast<double>(d)};
            take(nodes);
        }
        take(*values_);
    }
    const std::shared_ptr<const ElementMesh>& mesh() const override { return mesh_; }
    std::shared_ptr<const MeasuredField> slope(std::size_t variable) const override {
        if (hasCells()) return nullptr;
        return std::make_shared<MeshField>(mesh_, finder_, values_, false, static_cast<int>(variable));
    }

    double at(const double* place) const override {
        const Spot spot{place[0], place[1]};
        for (const std::uint32_t element : finder_->near(spot)) {
            if (const auto local = localIn(element, spot)) return valueIn(element, *local);
        }
        return std::nan("");
    }

    Over over(std::span<const Bounds> box) const override {
        Over result;
        Bounds all{HUGE_VAL, -HUGE_VAL};
        double size = 0;
        const std::array<Spot, 4> corners{Spot{box[0].low, box[1].low}, Spot{box[0].high, box[1].low},
                                          Spot{box[0].high, box[1].high}, Spot{box[0].low, box[1].high}};
        result.isContinuous = !hasCells();
        finder_->over(box[0], box[1], [&](std::uint32_t element) {
            const Bounds values = boundsIn(element);
            all = {std::min(all.low, values.low), std::max(all.high, values.high)};
            size = std::max({size, std::abs(values.low), std::abs(values.high)});
            // What lies within one triangle is defined, and has no jump.
            if (mesh_->cornersOf(element) == 3 && std::isfinite(values.low) &&
                std::ranges::all_of(corners, [&](Spot corner) { return localIn(element, corner).has_value(); }))
                result.isDefined = result.isContinuous = true;
        });
        if (all.low > all.high) return result;
        const double margin = 64 * 0x1p-53 * size;
        result.values = {all.low - margin, all.high + margin};
        return result;
    }

private:
    Spot node(std::uint32_t element, std::size_t corner) const {
        const std::uint32_t i = mesh_->elements[element][corner];
        return {mesh_->x[i], mesh_->y[i]};
    }
    double nodeValue(std::uint32_t element, std::size_t corner) const {
        return (*values_)[mesh_->elements[element][corner]];
    }

    /// Coordinates within an element: of a triangle the shares of its second and third node; of a quadrilateral those
    /// along its first side and across. None if the place lies outside.
    std::optional<Spot> localIn(std::uint32_t element, Spot at) const {
        const Spot a = node(element, 0), h = at - a, e = node(element, 1) - a;
        if (mesh_->cornersOf(element) == 3) {
            const Spot f = node(element, 2) - a;
            const double area = cross(e, f), s = cross(h, f) / area, t = cross(e, h) / area;
            if (s < -nearEnough || t < -nearEnough || s + t > 1 + nearEnough) return std::nullopt;
            return Spot{s, t};
        }
        const Spot f = node(element, 3) - a;
        const Spot c = node(element, 2) - a, g{c.x - e.x - f.x, c.y - e.y - f.y};
        // h = s e + t f + s t g: a quadratic equation for t.
        const double k2 = cross(g, f), k1 = cross(e, f) + cross(h, g), k0 = cross(h, e);
        const double root = k1 * k1 - 4 * k2 * k0;
        if (root < 0) return std::nullopt;
        const double q = -(k1 + std::copysign(std::sqrt(root), k1)) / 2;
        for (const double t : {k0 / q, q / k2}) { // without cancelling; the second is infinite where sides are parallel
            if (!(t >= -nearEnough && t <= 1 + nearEnough)) continue;
            const Spot across{e.x + t * g.x, e.y + t * g.y}, rest{h.x - t * f.x, h.y - t * f.y};
            const double s = std::abs(across.x) > std::abs(across.y) ? rest.x / across.x : rest.y / across.y;
            if (s >= -nearEnough && s <= 1 + nearEnough) return Spot{s, t};
        }
        return std::nullopt;
    }

    double valueIn(std::uint32_t element, Spot local) const {
        if (byElement_) return (*values_)[element];
        const double v0 = nodeValue(element, 0), v1 = nodeValue(element, 1), v2 = nodeValue(element, 2);
        const auto [s, t] = local;
        if (mesh_->cornersOf(element) == 3) {
            if (slopeOf_ >= 0) return slopeIn(element, {}, v1 - v0, v2 - v0);
            if (s <= nearEnough && t <= nearEnough) return v0; // at a node its own value
            return (1 - s - t) * v0 + s * v1 + t * v2;
        }
        const double v3 = nodeValue(element, 3);
        if (slopeOf_ >= 0)
            return slopeIn(element, local, (1 - t) * (v1 - v0) + t * (v2 - v3), (1 - s) * (v3 - v0) + s * (v2 - v1));
        return (1 - t) * ((1 - s) * v0 + s * v1) + t * ((1 - s) * v3 + s * v2);
    }
    /// The slope, from those along both local coordinates.
    double slopeIn(std::uint32_t element, Spot local, double alongS, double alongT) const {
        const Spot a = node(element, 0), b = node(element, 1), c = node(element, 2);
        Spot e = b - a, f = c - a;
        if (mesh_->cornersOf(element) == 4) {
            const Spot d = node(element, 3), g{c.x - b.x - d.x + a.x, c.y - b.y - d.y + a.y};
            e = {e.x + local.y * g.x, e.y + local.y * g.y};
            f = {d.x - a.x + local.x * g.x, d.y - a.y + local.x * g.y};
        }
        return slopeOf_ == 0 ? (alongS * f.y - alongT * e.y) / cross(e, f)
                             : (alongT * e.x - alongS * f.x) / cross(e, f);
    }
    Bounds boundsIn(std::uint32_t element) const {
        if (byElement_) return {(*values_)[element], (*values_)[element]};
        if (slopeOf_ >= 0) {
            if (mesh_->cornersOf(element) == 4) return {-HUGE_VAL, HUGE_VAL};
            const double slope = valueIn(element, {});
            return {slope, slope};
        }
        Bounds all{HUGE_VAL, -HUGE_VAL};
        for (std::size_t k = 0; k < mesh_->cornersOf(element); ++k) {
            const double value = nodeValue(element, k);
            if (std::isnan(value)) return {-HUGE_VAL, HUGE_VAL};
            all = {std::min(all.low, value), std::max(all.high, value)};
        }
        return all;
    }

    std::shared_ptr<const ElementMesh> mesh_;
    std::shared_ptr<const ElementFinder> finder_;
    std::shared_ptr<const std::vector<double>> values_;
    bool byElement_;
    int slopeOf_;
};

} // namespace

std::shared_ptr<const MeasuredField> fieldOfMesh(std::shared_ptr<const ElementMesh> mesh, std::vector<double> values,
                                                 bool byElement) {
    auto finder = std::make_shared<const ElementFinder>(*mesh);
    return std::make_shared<MeshField>(std::move(mesh), std::move(finder),
                                       std::make_shared<const std::vector<double>>(std::move(values)), byElement);
}

} // namespace coulter
