#include "composition/space_parts.h"

#include "drawing/colours.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace coulter {
namespace {

constexpr double lineWidth = 0.18; // mm

class SpaceScalesDrawing {
public:
    SpaceScalesDrawing(Scene& scene, std::vector<Hit>& hits, std::size_t panel, const PanelLayout& layout)
        : scene_(scene), hits_(hits), panel_(panel), layout_(layout) {}

    void floor() {
        std::vector<Point> outline;
        for (const Place& corner : corners()) outline.push_back(onSheet(corner));
        outline.push_back(outline.front());
        stroke({outline}, gridColour, 0.25);
    }

    void scales() {
        const std::array<Place, 4> floor = corners();
        const double z = floor[0][2];
        // Nearest the eye is what stands lowest on the sheet.
        std::size_t nearest = 0, left = 0;
        for (std::size_t i = 1; i < 4; ++i) {
            if (onSheet(floor[i]).y > onSheet(floor[nearest]).y) nearest = i;
            if (onSheet(floor[i]).x < onSheet(floor[left]).x) left = i;
        }
        const double yNear = floor[nearest][1], xNear = floor[nearest][0];
        corner_ = onSheet(floor[nearest]);
        const Point one = onSheet(floor[0]), other = onSheet(floor[2]);
        centre_ = {(one.x + other.x) / 2, (one.y + other.y) / 2};
        scale(0, {0, yNear, z});
        scale(1, {xNear, 0, z});
        scale(2, {floor[left][0], floor[left][1], 0});
        floorLabels();
        exaggeration();
    }

private:
    Point onSheet(const Place& p) const { return layout_.frame.onSheet(p); }
    std::array<Place, 4> corners() const {
        const auto& l = layout_.frame.space->maps;
        const double z = layout_.frame.space->faceValue(Face::Floor);
        return {
            {{l[0].low, l[1].low, z}, {l[0].high, l[1].low, z}, {l[0].high, l[1].high, z}, {l[0].low, l[1].high, z}}};
    }

    void stroke(std::vector<std::vector<Point>> lines, Colour colour, double width) {
        scene_.items.emplace_back(StrokeItem{std::move(lines), colour, width, {}, false});
    }

    /// In the lower right corner of the panel's room, where no scale reaches.
    void exaggeration() {
        const Box& words = layout_.space.exaggeration;
        if (words.height() == 0) return;
        const Rect& room = layout_.room;
        const double x = room.right() - distance::edge - words.width,
                     y = room.bottom() - distance::edge - words.descent;
        addBox(scene_, words, x, y, inkColour);
        hits_.push_back(
            {{ItemKind::Scale, panel_, uprightScale, 0}, {x, y - words.ascent, words.width, words.height()}});
    }

    /// The scale along one coordinate, through a place.
    void scale(std::size_t k, Place at) {
        const AxisMap& limits = layout_.frame.space->maps[k];
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
        const double outwards = nx * (middle.x - centre_.x) + ny * (middle.y - centre_.y);
        // A floor that is a line has free paper below it; up to format 5 chance decided.
        const bool isEdgeOn = layout_.format.spaceFillsRoom && std::abs(outwards) < 1e-6;
        const bool inwards = k == 2 ? nx > 0 : isEdgeOn ? ny < 0 : outwards < 0;
        if (inwards) {
            nx = -nx;
            ny = -ny;
        }
        std::vector<std::vector<Point>> lines{{from, to}};
        const Em size = layout_.sizes.number;
        double widest = 0;
        std::vector<Rect> numbers;
        for (std::size_t i = 0; i < layout_.space.ticks[k].places.size(); ++i) {
            const Point p = place(layout_.space.ticks[k].places[i]);
            lines.push_back({p, {p.x + nx * distance::tick, p.y + ny * distance::tick}});
            // Both floor scales begin at one corner: only the first writes its number there.
            if (k == 1 && std::hypot(p.x - corner_.x, p.y - corner_.y) < 0.8 * size) continue;
            if (layout_.space.ticks[k].labels[i].empty()) continue;
            const Box box = tickBox(layout_.space.ticks[k], i, size);
            const double reach = distance::tick + 0.8 + (std::abs(nx) * box.width + std::abs(ny) * 0.7 * size) / 2;
            const Rect rect{p.x + nx * reach - box.width / 2, p.y + ny * reach - 0.4 * size, box.width, 0.8 * size};
            // The first format let numbers touch.
            if (layout_.format.numbersKeepApart &&
                std::ranges::any_of(taken_, [&](const Rect& each) { return each.grown(0.1 * size).intersects(rect); }))
                continue;
            taken_.push_back(rect);
            numbers.push_back(rect);
            addBox(scene_, box, p.x + nx * reach - box.width / 2, p.y + ny * reach + 0.33 * size, inkColour);
            widest = std::max(widest, std::abs(nx) * box.width + std::abs(ny) * size);
        }
        stroke(std::move(lines), inkColour, lineWidth);
        static constexpr std::size_t scaleOf[] = {acrossScale, upScale, uprightScale};
        const auto hit = [&](ItemKind kind, const Rect& rect) {
            hits_.push_back({{kind, panel_, scaleOf[k], 0}, rect});
        };
        for (const Rect& number : numbers) hit(ItemKind::Scale, number);
        const Box& label = layout_.space.labels[k];
        if (label.height() == 0) return;
        if (k == 2) {
            const Point& upper = to.y < from.y ? to : from;
            // Up to format 5 it stood over the scale's middle, and so on the surface if it was wide.
            const double x = layout_.format.spaceFillsRoom
                                 ? std::max(layout_.space.first, upper.x + distance::labelOver - label.width)
                                 : upper.x - label.width / 2,
                         over = layout_.format.spaceFillsRoom ? std::max(1.5, 0.36 * size + 0.6) : 1.5,
                         baseline = upper.y - over - label.descent;
            addBox(scene_, label, x, baseline, inkColour);
            return hit(ItemKind::ScaleLabel, {x, baseline - label.ascent, label.width, label.height()});
        }
        const double reach =
            distance::tick + 1.6 + widest + (std::abs(nx) * label.width + std::abs(ny) * label.height()) / 2;
        const Rect rect{middle.x + nx * reach - label.width / 2, middle.y + ny * reach - label.ascent / 2, label.width,
                        label.height()};
        if (layout_.format.spaceFillsRoom)
            floorLabels_.emplace_back(k, rect);
        else
            floorLabel(k, rect);
    }

    void floorLabel(std::size_t k, const Rect& rect) {
        addBox(scene_, layout_.space.labels[k], rect.x, rect.y + layout_.space.labels[k].ascent, inkColour);
        hits_.push_back({{ItemKind::ScaleLabel, panel_, k == 0 ? acrossScale : upScale, 0}, rect});
    }

    /// Beside the middles of their scales; on the paper and clear of numbers and of each other before that.
    void floorLabels() {
        for (auto& label : floorLabels_) {
            Rect& rect = label.second;
            rect.x =
                std::clamp(rect.x, layout_.space.first, std::max(layout_.space.first, layout_.space.last - rect.width));
            const auto touches = [&](const Rect& each) { return each.grown(0.3).intersects(rect); };
            for (auto other = std::ranges::find_if(taken_, touches); other != taken_.end();
                 other = std::ranges::find_if(taken_, touches))
                rect.y = other->bottom() + 1;
            taken_.push_back(rect);
            floorLabel(label.first, rect);
        }
    }

    Scene& scene_;
    std::vector<Hit>& hits_;
    std::size_t panel_;
    const PanelLayout& layout_;
    Point centre_, corner_;
    std::vector<Rect> taken_;                               ///< by numbers and labels
    std::vector<std::pair<std::size_t, Rect>> floorLabels_; ///< with the number of their scale
};

} // namespace

void drawFloor(Scene& scene, const PanelLayout& layout) {
    std::vector<Hit> none;
    SpaceScalesDrawing(scene, none, 0, layout).floor();
}

void drawSpaceScales(Scene& scene, std::vector<Hit>& hits, std::size_t panel, const PanelLayout& layout) {
    SpaceScalesDrawing(scene, hits, panel, layout).scales();
}

} // namespace coulter
