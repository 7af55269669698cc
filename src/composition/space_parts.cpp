#include "composition/space_parts.h"

#include "drawing/colours.h"

#include <array>
#include <cmath>

namespace coulter {
namespace {

constexpr double lineWidth = 0.18; // mm

class SpaceScalesDrawing {
public:
    SpaceScalesDrawing(Scene& scene, const PanelLayout& layout) : scene_(scene), layout_(layout) {}

    void run() {
        const auto& l = layout_.frame.space->limits;
        const double z = l[2].low;
        const std::array<Place, 4> floor{
            {{l[0].low, l[1].low, z}, {l[0].high, l[1].low, z}, {l[0].high, l[1].high, z}, {l[0].low, l[1].high, z}}};
        std::vector<Point> outline;
        for (const Place& corner : floor) outline.push_back(onSheet(corner));
        outline.push_back(outline.front());
        stroke({outline}, gridColour, 0.25);
        // Nearest the eye is what stands lowest on the sheet.
        std::size_t nearest = 0, left = 0;
        for (std::size_t i = 1; i < 4; ++i) {
            if (onSheet(floor[i]).y > onSheet(floor[nearest]).y) nearest = i;
            if (onSheet(floor[i]).x < onSheet(floor[left]).x) left = i;
        }
        const double yNear = floor[nearest][1], xNear = floor[nearest][0];
        corner_ = onSheet(floor[nearest]);
        centre_ = onSheet({(l[0].low + l[0].high) / 2, (l[1].low + l[1].high) / 2, z});
        scale(0, {0, yNear, z});
        scale(1, {xNear, 0, z});
        scale(2, {floor[left][0], floor[left][1], 0});
    }

private:
    Point onSheet(const Place& p) const { return layout_.frame.onSheet(p); }

    void stroke(std::vector<std::vector<Point>> lines, Colour colour, double width) {
        scene_.items.emplace_back(StrokeItem{std::move(lines), colour, width, {}, false});
    }

    /// The scale along one coordinate, through a place.
    void scale(std::size_t k, Place at) {
        const Limits& limits = layout_.frame.space->limits[k];
        const auto place = [&](double value) {
            at[k] = value;
            return onSheet(at);
        };
        const Point from = place(limits.low), to = place(limits.high);
        const double length = std::hypot(to.x - from.x, to.y - from.y);
        if (length < 5) return; // seen end on, there is nothing to read
        // Outwards: across the line, away from the floor's middle; the upright scale to the left.
        double nx = (to.y - from.y) / length, ny = -(to.x - from.x) / length;
        const Point middle{(from.x + to.x) / 2, (from.y + to.y) / 2};
        const bool inwards = k == 2 ? nx > 0 : nx * (middle.x - centre_.x) + ny * (middle.y - centre_.y) < 0;
        if (inwards) {
            nx = -nx;
            ny = -ny;
        }
        std::vector<std::vector<Point>> lines{{from, to}};
        const double size = layout_.sizes.number;
        double widest = 0;
        for (std::size_t i = 0; i < layout_.space.ticks[k].places.size(); ++i) {
            const Point p = place(layout_.space.ticks[k].places[i]);
            lines.push_back({p, {p.x + nx * distance::tick, p.y + ny * distance::tick}});
            // Both floor scales begin at one corner: only the first writes its number there.
            if (k == 1 && std::hypot(p.x - corner_.x, p.y - corner_.y) < 0.8 * size) continue;
            const Box box = tickBox(layout_.space.ticks[k].labels[i], size);
            const double reach = distance::tick + 0.8 + (std::abs(nx) * box.width + std::abs(ny) * 0.7 * size) / 2;
            addBox(scene_, box, p.x + nx * reach - box.width / 2, p.y + ny * reach + 0.33 * size, inkColour);
            widest = std::max(widest, std::abs(nx) * box.width + std::abs(ny) * size);
        }
        stroke(std::move(lines), inkColour, lineWidth);
        const Box& label = layout_.space.labels[k];
        if (label.height() == 0) return;
        if (k == 2) {
            addBox(scene_, label, to.x - label.width / 2, to.y - 1.5 - label.descent, inkColour);
            return;
        }
        const double reach =
            distance::tick + 1.6 + widest + (std::abs(nx) * label.width + std::abs(ny) * label.height()) / 2;
        addBox(scene_, label, middle.x + nx * reach - label.width / 2, middle.y + ny * reach + label.ascent / 2,
               inkColour);
    }

    Scene& scene_;
    const PanelLayout& layout_;
    Point centre_, corner_;
};

} // namespace

void drawSpaceScales(Scene& scene, const PanelLayout& layout) { SpaceScalesDrawing(scene, layout).run(); }

} // namespace coulter
