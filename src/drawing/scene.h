#pragma once
#include "figure/colour.h"
#include "typeset/box.h"

#include <cstdint>
#include <variant>
#include <vector>

namespace coulter {

/// Everything in a scene is in millimetres from the sheet's upper left corner, y downwards.
struct Point {
    double x = 0, y = 0;
};

struct Rect {
    double x = 0, y = 0, width = 0, height = 0;
    double right() const { return x + width; }
    double bottom() const { return y + height; }
    bool contains(Point p) const { return p.x >= x && p.x <= right() && p.y >= y && p.y <= bottom(); }
    Rect grown(double by) const { return {x - by, y - by, width + 2 * by, height + 2 * by}; }
    bool intersects(const Rect& o) const { return x < o.right() && o.x < right() && y < o.bottom() && o.y < bottom(); }
};

/// Stroked polylines of one look.
struct StrokeItem {
    std::vector<std::vector<Point>> lines;
    Colour colour;
    double width = 0.2;
    std::vector<double> dashes; ///< mm on, mm off, …; empty: unbroken
    bool roundEnds = true;
    double opacity = 1;
};

/// A filled area of polygons, even-odd; or, where they are alike shapes that may overlap, all that is inside one.
struct FillItem {
    std::vector<std::vector<Point>> polygons;
    Colour colour;
    double opacity = 1;
    bool evenOdd = true;
};

/// Glyphs at their places on the sheet.
struct GlyphItem {
    std::vector<PlacedGlyph> glyphs;
    Colour colour;
    double turn = 0; ///< radians clockwise, about
    Point about = {};
};

/// Dots of one colour each, row by row from the top, 0xAARRGGBB with the colour multiplied by its opacity; seen within
/// `clip`. Never blurred: enlarged dots stay rectangles.
struct ImageItem {
    Rect rect; ///< of all dots
    Rect clip;
    int width = 0, height = 0;
    std::vector<std::uint32_t> pixels;
};

using SceneItem = std::variant<StrokeItem, FillItem, GlyphItem, ImageItem>;

/// A drawing, complete: a backend decides nothing.
struct Scene {
    double width = 0, height = 0; ///< mm
    std::vector<SceneItem> items;
    Colour paper{0xff, 0xff, 0xff}; ///< under all of them
};

/// Adds a typeset box with its origin at (x, y).
void addBox(Scene& scene, const Box& box, double x, double y, Colour colour);
/// Adds a box with its middle at a place, turned about it by so many radians clockwise.
void addTurnedBox(Scene& scene, const Box& box, Point middle, double turn, Colour colour);

} // namespace coulter
