#include "drawing/scene_extent.h"

#include "typeset/font.h"

#include <algorithm>
#include <cmath>
#include <hb.h>

namespace coulter {
namespace {

class Holder {
public:
    void hold(Point p, double around = 0) {
        if (!std::isfinite(p.x) || !std::isfinite(p.y)) return;
        left_ = std::min(left_, p.x - around);
        right_ = std::max(right_, p.x + around);
        top_ = std::min(top_, p.y - around);
        bottom_ = std::max(bottom_, p.y + around);
    }
    void operator()(const StrokeItem& item) {
        for (const auto& line : item.lines) {
            for (const Point& p : line) hold(p, item.width / 2);
        }
    }
    void operator()(const FillItem& item) {
        for (const auto& polygon : item.polygons) {
            for (const Point& p : polygon) hold(p);
        }
    }
    void operator()(const ImageItem& item) {
        // Of its dots those that are not transparent.
        int left = item.width, right = -1, top = item.height, bottom = -1;
        for (int y = 0; y < item.height; ++y) {
            for (int x = 0; x < item.width; ++x) {
                const auto at =
                    static_cast<std::size_t>(y) * static_cast<std::size_t>(item.width) + static_cast<std::size_t>(x);
                if (item.pixels[at] >> 24 == 0) continue;
                left = std::min(left, x), right = std::max(right, x), top = std::min(top, y);
                bottom = y;
            }
        }
        const double across = item.rect.width / item.width, up = item.rect.height / item.height;
        const Rect& clip = item.clip;
        const Point first{std::max(clip.x, item.rect.x + left * across), std::max(clip.y, item.rect.y + top * up)},
            last{std::min(clip.right(), item.rect.x + (right + 1) * across),
                 std::min(clip.bottom(), item.rect.y + (bottom + 1) * up)};
        if (right < 0 || first.x >= last.x || first.y >= last.y) return;
        hold(first);
        hold(last);
    }
    void operator()(const GlyphItem& item) {
        const double c = std::cos(item.turn), s = std::sin(item.turn);
        for (const PlacedGlyph& glyph : item.glyphs) {
            hb_glyph_extents_t extents{};
            if (!hb_font_get_glyph_extents(shapingFont(glyph.font), glyph.glyph, &extents)) continue;
            constexpr double unitsOfEm = 65536;
            const double perUnit = glyph.size / unitsOfEm;
            for (const int right : {0, 1}) {
                for (const int below : {0, 1}) {
                    // Extents count upwards, and their height downwards.
                    const double x = glyph.x + perUnit * (extents.x_bearing + right * extents.width) - item.about.x,
                                 y = glyph.y - perUnit * (extents.y_bearing + below * extents.height) - item.about.y;
                    if (extents.width != 0) hold({item.about.x + c * x - s * y, item.about.y + s * x + c * y});
                }
            }
        }
    }
    Rect within(double width, double height) const {
        const double left = std::max(0.0, left_), top = std::max(0.0, top_), right = std::min(width, right_),
                     bottom = std::min(height, bottom_);
        return left < right && top < bottom ? Rect{left, top, right - left, bottom - top} : Rect{};
    }

private:
    double left_ = HUGE_VAL, right_ = -HUGE_VAL, top_ = HUGE_VAL, bottom_ = -HUGE_VAL;
};

struct Move {
    double x, y;
    void operator()(Point& p) const { p.x += x, p.y += y; }
    void operator()(Rect& r) const { r.x += x, r.y += y; }
    void operator()(StrokeItem& item) const {
        for (auto& line : item.lines) std::ranges::for_each(line, *this);
    }
    void operator()(FillItem& item) const {
        for (auto& polygon : item.polygons) std::ranges::for_each(polygon, *this);
    }
    void operator()(GlyphItem& item) const {
        for (PlacedGlyph& glyph : item.glyphs) glyph.x += x, glyph.y += y;
        (*this)(item.about);
    }
    void operator()(ImageItem& item) const {
        (*this)(item.rect);
        (*this)(item.clip);
    }
};

} // namespace

Rect extentOf(const Scene& scene) {
    Holder holder;
    for (const SceneItem& item : scene.items) std::visit(holder, item);
    return holder.within(scene.width, scene.height);
}

Scene cropped(Scene scene, const Rect& kept) {
    const Move move{-kept.x, -kept.y};
    for (SceneItem& item : scene.items) std::visit([&](auto& each) { move(each); }, item);
    scene.width = kept.width;
    scene.height = kept.height;
    return scene;
}

Scene croppedToContent(Scene scene, double margin) {
    const Rect extent = extentOf(scene);
    return extent.width == 0 ? scene : cropped(std::move(scene), extent.grown(margin));
}

} // namespace coulter
