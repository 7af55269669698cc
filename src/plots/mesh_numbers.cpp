#include "plots/mesh_numbers.h"

#include "drawing/colours.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <unordered_map>

namespace coulter {
namespace {

/// Rectangles on the sheet of which no two overlap.
class Room {
public:
    explicit Room(double cell) : cell_(cell) {}

    bool take(const Rect& rect) {
        bool isFree = true;
        eachCell(rect, [&](std::int64_t key) {
            const auto at = taken_.find(key);
            if (at == taken_.end()) return;
            isFree =
                isFree && std::ranges::none_of(at->second, [&](const Rect& other) { return rect.intersects(other); });
        });
        if (isFree) eachCell(rect, [&](std::int64_t key) { taken_[key].push_back(rect); });
        return isFree;
    }

private:
    template <class Visit> void eachCell(const Rect& rect, const Visit& visit) const {
        const auto cell = [&](double mm) { return static_cast<std::int64_t>(std::floor(mm / cell_)); };
        for (std::int64_t y = cell(rect.y); y <= cell(rect.bottom()); ++y) {
            for (std::int64_t x = cell(rect.x); x <= cell(rect.right()); ++x) visit((y << 32) + x);
        }
    }

    double cell_;
    std::unordered_map<std::int64_t, std::vector<Rect>> taken_;
};

class Numbers {
public:
    Numbers(const Frame& frame, Canvas& canvas)
        : frame_(frame), canvas_(canvas), size_(0.7 * canvas.letterSize()), room_(4.0 * size_) {}

    void write(std::uint64_t number, Point middle, FontId font) {
        if (!frame_.rect.contains(middle)) return;
        const Box box = labelBox(std::to_string(number), font, size_, {});
        const double around = 0.12 * size_, width = box.width + 2 * around, height = box.height() + 2 * around;
        const Rect& panel = frame_.rect;
        if (width > panel.width || height > panel.height) return;
        // At the panel's edge it stands a little inwards.
        const Rect plate{std::clamp(middle.x - width / 2, panel.x, panel.right() - width),
                         std::clamp(middle.y - height / 2, panel.y, panel.bottom() - height), width, height};
        if (!room_.take(plate)) return;
        // Readable over any colour.
        canvas_.fill({{{plate.x, plate.y},
                       {plate.right(), plate.y},
                       {plate.right(), plate.bottom()},
                       {plate.x, plate.bottom()}}},
                     {paperColour, 0.75});
        canvas_.text(box, {plate.x + around, plate.y + around + box.ascent}, inkColour);
    }

private:
    const Frame& frame_;
    Canvas& canvas_;
    Em size_;
    Room room_;
};

} // namespace

void drawMeshNumbers(const ElementMesh& mesh, const Frame& frame, Canvas& canvas, bool ofNodes, bool ofElements) {
    Numbers numbers(frame, canvas);
    if (ofNodes) {
        std::vector<bool> isUsed(mesh.x.size());
        for (std::size_t e = 0; e < mesh.elements.size(); ++e) {
            for (std::size_t k = 0; k < mesh.cornersOf(e); ++k) isUsed[mesh.elements[e][k]] = true;
        }
        for (std::size_t i = 0; i < mesh.x.size(); ++i) {
            if (isUsed[i]) numbers.write(i + mesh.firstNode, frame.onSheet(mesh.x[i], mesh.y[i]), FontId::Text);
        }
    }
    for (std::size_t e = 0; e < mesh.elements.size() && ofElements; ++e) {
        const std::size_t corners = mesh.cornersOf(e);
        Point middle{0, 0};
        for (std::size_t k = 0; k < corners; ++k) {
            const Point at = frame.onSheet(mesh.x[mesh.elements[e][k]], mesh.y[mesh.elements[e][k]]);
            middle.x += at.x / static_cast<double>(corners);
            middle.y += at.y / static_cast<double>(corners);
        }
        numbers.write(mesh.rows.empty() ? e + 1 : mesh.rows[e], middle, FontId::TextItalic);
    }
}

} // namespace coulter
