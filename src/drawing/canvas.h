#pragma once
#include "drawing/mark_places.h"
#include "drawing/scene.h"

#include <vector>

namespace coulter {

using Polylines = std::vector<std::vector<Point>>;

/// How a line is drawn.
struct Pen {
    Colour colour;
    double width = 0.2; ///< mm
    std::vector<double> dashes = {};
    bool roundEnds = true;
    double opacity = 1;
};

/// The dashes of a pattern of lines, by its name among `linePatterns`, for a line so wide (mm).
inline constexpr const char* linePatterns[] = {"solid",       "dashed",      "dotted",
                                               "dash-dotted", "long-dashed", "dash-dot-dotted"};
std::vector<double> dashesOf(std::size_t pattern, double width);

/// A straight line between two places.
struct Segment {
    Point a, b;
};

/// How an area is filled.
struct Paint {
    Colour colour;
    double opacity = 1;
};

class SpaceCanvas;

/// Where kinds of plot draw: everything in mm on the sheet, and nothing leaves the panel.
class Canvas {
public:
    /// @param dotsPerMm   for what is made of dots: those of a bitmap of the sheet
    /// @param letterSize  of words, mm of one em
    /// @param thins       what is more than anyone can see is thinned out (recipes of the first format were not)
    Canvas(Scene& scene, const Rect& clip, double dotsPerMm, Em letterSize = 3, bool thins = true)
        : scene_(scene), clip_(clip), dotsPerMm_(dotsPerMm), letterSize_(letterSize), thins_(thins) {}

    /// Lines, cut at the panel's edges; a line of one point is a dot. Places far away or infinite are cut as well.
    void stroke(const Polylines& lines, const Pen& pen);
    /// Polygons as one area, even-odd, cut at the panel's edges.
    void fill(const Polylines& polygons, const Paint& paint);
    /// One shape round each of several places, whole wherever the place itself is in the panel; overlapping shapes
    /// stay filled.
    /// @param shape  closed outline round (0, 0), mm; an open shape such as a cross has no filling
    void marks(const MarkPlaces& places, const Polylines& shape, const Paint* filling, const Pen* outline);
    void marks(const std::vector<Point>& places, const Polylines& shape, const Paint* filling, const Pen* outline) {
        marks(marksAt(places), shape, filling, outline);
    }
    void image(ImageItem item) { scene_.items.emplace_back(std::move(item)); }
    /// Words, wherever there is room for them.
    void text(const Box& box, Point at, Colour colour) { addBox(scene_, box, at.x, at.y, colour); }
    /// Words with their middle at a place, turned by so many radians clockwise.
    void turnedText(const Box& box, Point middle, double turn, Colour colour) {
        addTurnedBox(scene_, box, middle, turn, colour);
    }
    /// In space, where some of what is drawn hides other; null: nothing does.
    SpaceCanvas* space() const { return space_; }
    void inSpace(SpaceCanvas& space) { space_ = &space; }
    double dotsPerMm() const { return dotsPerMm_; }
    Em letterSize() const { return letterSize_; }

private:
    Scene& scene_;
    Rect clip_;
    double dotsPerMm_;
    Em letterSize_;
    bool thins_;
    SpaceCanvas* space_ = nullptr;
};

/// A circle round (0, 0) as a polygon; its corners are nowhere seen at a few mm.
std::vector<Point> circle(double radius);

} // namespace coulter
