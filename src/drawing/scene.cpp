#include "drawing/scene.h"

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

} // namespace coulter
