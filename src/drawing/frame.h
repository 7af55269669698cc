#pragma once
#include "drawing/colour_maps.h"
#include "drawing/scene.h"
#include "drawing/sheet_ink.h"
#include "figure/document.h"

#include <array>
#include <optional>

namespace coulter {

/// A place in space, in the user's coordinates.
using Place = std::array<double, 3>;

/// Directions of a view: what x, y, z add to the right and upwards.
struct ViewAxes {
    std::array<double, 3> right{}, up{};
    std::array<double, 3> towards{}; ///< and towards the eye
};
ViewAxes viewAxes(const View& view);

/// A place as it is seen: mm on the sheet, and mm towards the eye.
struct SeenPoint {
    double x = 0, y = 0, towards = 0;
};

/// A side of the box round what is shown in space, by the coordinate that is the same all over it.
enum class Face : std::uint8_t { WallAcrossX, WallAcrossY, Floor };

/// The box round what a panel shows in space, and how it is seen. Along a linear scale the box has the user's own
/// coordinates, so that a unit means the same in all directions; along a logarithmic one it is as long as its map.
struct SpaceBox {
    std::array<AxisMap, 3> maps;
    std::array<bool, 3> reversed{};
    ViewAxes axes;
    std::array<double, 3> stretch{1, 1, 1}; ///< part of `axes`: how much longer a unit is than that of the first
    double distance = 0; ///< of the eye from the box's middle, in its own lengths; 0: infinite, without perspective

    /// Whether all scales are linear, none is reversed, and a unit means the same along each.
    bool isPlain() const;
    /// To the right, upwards and towards the eye, of a place by its coordinates.
    std::array<double, 3> seen(const Place& place) const;
    /// A coordinate's place along the box.
    double along(std::size_t k, double value) const;
    /// The place of a face: the floor is the lowest, walls are those away from the eye.
    double faceAt(Face face) const;
    /// The same as a coordinate.
    double faceValue(Face face) const;
};

/// A radius over an angle, round a middle.
struct PolarFrame {
    Point middle;            ///< mm on the sheet
    AxisMap radius;          ///< outwards from the middle
    double zero = 0;         ///< direction of the angle zero, counterclockwise from the right
    double sense = 1;        ///< 1 counterclockwise, −1 clockwise
    double from = 0, to = 0; ///< angles of the part that is shown; a full turn or more: all of it
    bool isWhole() const;    ///< whether all directions are shown
    double turned(double angle) const { return zero + sense * angle; }
    Point onSheet(double angle, double r) const;
};

/// A panel on the sheet, and the only way from coordinates to it.
struct Frame {
    Rect rect;    ///< mm
    PanelMap map; ///< within the rectangle, from its lower left; of a view of space: to the right and upwards as seen;
                  ///< of a radius over an angle: in mm from its middle
    bool leftwards = false, downwards = false; ///< reversed: from the right, from the top
    /// A vertical scale besides the first.
    struct Upwards {
        AxisMap map;
        bool downwards = false;
    };
    std::vector<Upwards> further;
    AxisMap colour;          ///< of values that are shown by colours
    ColourRun shades;        ///< and these colours
    SheetInk ink;            ///< what the sheet makes of colours, for pictures that show some
    double tolerance = 0.02; ///< mm between what is drawn and what it stands for
    std::optional<SpaceBox> space;
    std::optional<PolarFrame> polar;

    bool isPlane() const { return !space && !polar; }
    /// The same panel with another of its vertical scales as the one that counts; 0 is the first.
    Frame onScale(std::size_t number) const;
    Point onSheet(double x, double y) const { return {acrossSheet(x), downSheet(y)}; }
    double acrossSheet(double x) const {
        return leftwards ? rect.right() - map.x.toSheet(x) : rect.x + map.x.toSheet(x);
    }
    double downSheet(double y) const {
        return downwards ? rect.y + map.y.toSheet(y) : rect.bottom() - map.y.toSheet(y);
    }
    Point onSheet(const Place& place) const;
    /// The same with how near it is to the eye.
    SeenPoint seen(const Place& place) const;
    /// The coordinates of a place of the sheet.
    double xAt(double mm) const { return map.x.fromSheet(leftwards ? rect.right() - mm : mm - rect.x); }
    double yAt(double mm) const { return map.y.fromSheet(downwards ? mm - rect.y : rect.bottom() - mm); }
    /// A place far below what a logarithmic scale shows, where its zero is.
    double beyondZero() const { return downwards ? rect.y - 1 : rect.bottom() + 1; }
};

/// Places of a plane panel, on all of the processor's cores; what has no place is not finite.
std::vector<Point> onSheet(const Frame& frame, const std::vector<double>& x, const std::vector<double>& y);

} // namespace coulter
