#include "drawing/scene.h"

#include <cmath>

namespace coulter {

void addBox(Scene& scene, const Box& box, double x, double y, Colour colour) {
    if (!box.glyphs.empty()) {
        GlyphItem item{box.glyphs, colour};
        for (PlacedGlyph& glyph : item.glyphs) {
            glyph.x += x;
            glyph.y += y;
        }
        scene.items.emplace_back(std::move(item));
    }
    if (!box.rules.empty()) {
        FillItem item{{}, colour};
        for (const PlacedRule& rule : box.rules) {
            const double l = x + rule.x, t = y + rule.y;
            item.polygons.push_back(
                {{l, t}, {l + rule.width, t}, {l + rule.width, t + rule.height}, {l, t + rule.height}});
        }
        scene.items.emplace_back(std::move(item));
    }
}

void addTurnedBox(Scene& scene, const Box& box, Point middle, double turn, Colour colour) {
    const std::size_t first = scene.items.size();
    addBox(scene, box, middle.x - box.width / 2, middle.y + (box.ascent - box.descent) / 2, colour);
    const double c = std::cos(turn), s = std::sin(turn);
    for (std::size_t i = first; i < scene.items.size(); ++i) {
        if (auto* glyphs = std::get_if<GlyphItem>(&scene.items[i])) {
            glyphs->turn = turn;
            glyphs->about = middle;
        } else if (auto* fill = std::get_if<FillItem>(&scene.items[i])) {
            for (auto& polygon : fill->polygons) {
                for (Point& p : polygon) {
                    const double dx = p.x - middle.x, dy = p.y - middle.y;
                    p = {middle.x + c * dx - s * dy, middle.y + s * dx + c * dy};
                }
            }
        }
    }
}

} // namespace coulter
