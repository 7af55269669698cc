#include "formula/measured/element_mesh.h"

#include "formula/measured/mesh_holes.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace coulter {
namespace {

constexpr std::uint32_t none = ElementMesh::none;
/// An element whose area is a smaller share of the square of its extent has none but for rounding.
constexpr double leastArea = 1e-13;

/// "Element 3", "Elements 3, 7, 12 and 40 others".
std::string elementsNamed(const std::vector<std::size_t>& rows) {
    constexpr std::size_t most = 5;
    std::string text = rows.size() == 1 ? "Element " : "Elements ";
    for (std::size_t i = 0; i < std::min(rows.size(), most); ++i)
        text += (i == 0 ? "" : i + 1 == rows.size() ? " and " : ", ") + std::to_string(rows[i] + 1);
    if (rows.size() > most) text += " and " + std::to_string(rows.size() - most) + " others";
    return text;
}

using Nodes = std::array<std::uint32_t, 4>;

class Reader {
public:
    Reader(std::span<const Column> places, std::span<const Column> corners, std::optional<double> first)
        : corners_(corners), first_(first.value_or(1)) {
        mesh_.x = *places[0];
        mesh_.y = *places[1];
        for (const Column& column : corners) {
            for (const double number : *column) first_ = number == 0 ? 0 : first_;
        }
    }

    MeshOfColumns run() {
        const std::size_t count = corners_[0]->size();
        std::vector<std::optional<Nodes>> all(count);
        for (std::size_t row = 0; row < count; ++row) all[row] = nodesOf(row);
        leaveOutDoubled(all);
        for (std::size_t row = 0; row < count; ++row) {
            if (all[row]) take(row, *all[row]);
        }
        MeshOfColumns result;
        const auto note = [&](const std::vector<std::size_t>& rows, const char* one, const char* several) {
            if (!rows.empty()) result.notes.push_back(elementsNamed(rows) + (rows.size() == 1 ? one : several));
        };
        if (!missing_.empty())
            result.notes.push_back(elementsNamed(missing_) + (missing_.size() == 1 ? " names" : " name") +
                                   " nodes that are not there, such as " + missingNode_ + " of " +
                                   std::to_string(mesh_.x.size()) + "; left out.");
        note(placeless_, " has a node without a place; left out.", " have nodes without a place; left out.");
        note(flat_, " has no area; left out.", " have no area; left out.");
        note(crossing_, " crosses itself; left out.", " cross themselves; left out.");
        note(doubled_, " stands there already; left out.", " stand there already; left out.");
        note(turned_, " runs clockwise; turned round.", " run clockwise; turned round.");
        note(bent_, " has a corner inwards; divided into triangles there.",
             " have a corner inwards; divided into triangles there.");
        noteHoles(result.notes);
        for (const std::size_t row : rows_) mesh_.rows.push_back(static_cast<std::uint32_t>(row) + 1);
        mesh_.firstNode = first_ == 0 ? 0 : 1;
        result.rows = std::move(rows_);
        if (mesh_.elements.empty())
            result.trouble = count == 0             ? "There are no elements."
                             : result.notes.empty() ? "No element can be drawn."
                                                    : "No element can be drawn: " + result.notes.front();
        else
            result.mesh = std::make_shared<const ElementMesh>(std::move(mesh_));
        return result;
    }

private:
    void noteHoles(std::vector<std::string>& notes) const {
        const auto holes = holesOf(mesh_);
        if (holes.empty()) return;
        constexpr std::size_t most = 8;
        std::string nodes;
        const auto& first = holes.front();
        for (std::size_t i = 0; i < std::min(most, first.size()); ++i)
            nodes += (i == 0                  ? ""
                      : i + 1 == first.size() ? " and "
                                              : ", ") +
                     std::to_string(first[i] + (first_ == 0 ? 0U : 1U));
        if (first.size() > most) nodes += " and " + std::to_string(first.size() - most) + " more";
        notes.push_back(holes.size() == 1
                            ? "There is a hole between nodes " + nodes + "; nothing is drawn in it."
                            : "There are " + std::to_string(holes.size()) + " holes, the first one between nodes " +
                                  nodes + "; nothing is drawn in them.");
    }

    std::optional<Nodes> nodesOf(std::size_t row) {
        Nodes nodes{none, none, none, none};
        for (std::size_t k = 0; k < corners_.size(); ++k) {
            const double number = (*corners_[k])[row];
            if (k == 3 && std::isnan(number)) continue;
            const double index = number - first_;
            if (!(index >= 0 && index < static_cast<double>(mesh_.x.size()) && index == std::floor(index))) {
                missing_.push_back(row);
                if (missingNode_.empty())
                    missingNode_ = std::isnan(number)
                                       ? "none"
                                       : std::to_string(static_cast<long long>(std::clamp(number, -9e15, 9e15)));
                return std::nullopt;
            }
            nodes[k] = static_cast<std::uint32_t>(index);
            if (!std::isfinite(mesh_.x[nodes[k]]) || !std::isfinite(mesh_.y[nodes[k]])) {
                placeless_.push_back(row);
                return std::nullopt;
            }
        }
        if (nodes[3] == nodes[2] || nodes[3] == nodes[0]) nodes[3] = none; // a triangle written as a quadrilateral
        return nodes;
    }

    /// Of elements between the same nodes, in whatever order, the first one stays.
    void leaveOutDoubled(std::vector<std::optional<Nodes>>& all) {
        std::vector<std::pair<Nodes, std::size_t>> sorted;
        for (std::size_t row = 0; row < all.size(); ++row) {
            if (!all[row]) continue;
            sorted.emplace_back(*all[row], row);
            std::ranges::sort(sorted.back().first);
        }
        std::ranges::sort(sorted);
        for (std::size_t i = 1; i < sorted.size(); ++i) {
            if (sorted[i].first == sorted[i - 1].first) doubled_.push_back(sorted[i].second);
        }
        std::ranges::sort(doubled_);
        for (const std::size_t row : doubled_) all[row].reset();
    }

    /// Twice the area of a triangle, counter-clockwise.
    double area(std::uint32_t a, std::uint32_t b, std::uint32_t c) const {
        return (mesh_.x[b] - mesh_.x[a]) * (mesh_.y[c] - mesh_.y[a]) -
               (mesh_.y[b] - mesh_.y[a]) * (mesh_.x[c] - mesh_.x[a]);
    }
    double extentOf(const Nodes& nodes, std::size_t corners) const {
        double size = 0;
        for (std::size_t k = 1; k < corners; ++k)
            size = std::max({size, std::abs(mesh_.x[nodes[k]] - mesh_.x[nodes[0]]),
                             std::abs(mesh_.y[nodes[k]] - mesh_.y[nodes[0]])});
        return size * size;
    }

    void keep(std::size_t row, const Nodes& nodes) {
        mesh_.elements.push_back(nodes);
        rows_.push_back(row);
    }

    void take(std::size_t row, Nodes nodes) {
        const std::size_t corners = nodes[3] == none ? 3 : 4;
        const double least = leastArea * extentOf(nodes, corners);
        if (corners == 3) {
            const double size = area(nodes[0], nodes[1], nodes[2]);
            if (!(std::abs(size) > least)) return flat_.push_back(row);
            if (size < 0) {
                turned_.push_back(row);
                std::swap(nodes[1], nodes[2]);
            }
            return keep(row, nodes);
        }
        const double whole = area(nodes[0], nodes[1], nodes[2]) + area(nodes[0], nodes[2], nodes[3]);
        if (whole < 0) std::swap(nodes[1], nodes[3]);
        std::array<double, 4> at{}; // the corners' own triangles
        for (std::size_t k = 0; k < 4; ++k) at[k] = area(nodes[(k + 3) % 4], nodes[k], nodes[(k + 1) % 4]);
        const auto inwards = std::ranges::count_if(at, [&](double size) { return size < -least; });
        if (inwards > 1) return crossing_.push_back(row);
        if (!(std::abs(whole) > least)) return flat_.push_back(row);
        if (whole < 0) turned_.push_back(row);
        const auto corner = static_cast<std::size_t>(std::ranges::min_element(at) - at.begin());
        if (at[corner] > least) return keep(row, nodes);
        if (inwards == 1) bent_.push_back(row);
        // Two triangles meet in the corner that is flat or turned inwards.
        const std::uint32_t a = nodes[corner], b = nodes[(corner + 1) % 4], c = nodes[(corner + 2) % 4],
                            d = nodes[(corner + 3) % 4];
        if (area(a, b, c) > least) keep(row, {a, b, c, none});
        if (area(a, c, d) > least) keep(row, {a, c, d, none});
    }

    std::span<const Column> corners_;
    double first_;
    ElementMesh mesh_;
    std::vector<std::size_t> rows_, missing_, placeless_, flat_, crossing_, doubled_, turned_, bent_;
    std::string missingNode_;
};

} // namespace

MeshOfColumns meshOf(std::span<const Column> places, std::span<const Column> corners, std::optional<double> first) {
    return Reader(places, corners, first).run();
}

} // namespace coulter
