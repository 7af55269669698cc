#pragma once
#include "plots/plot_kind.h"

namespace coulter {

// What the kinds share that draw a vector over two variables: arrows and streamlines.

/// A vector at a place: in coordinates, and as it lies on the sheet.
struct VectorAt {
    double x = 0, y = 0; ///< the place
    double u = 0, v = 0; ///< the vector's components
    double shown = 0;    ///< what colours show: its length, or the value of another function
    Point at;            ///< the place, mm on the sheet
    Point along;         ///< its direction on the sheet, of length 1; (0, 0) where the vector is zero
    double length() const;
    bool isDefined() const;
};

/// Evaluates the field at places; on all cores. Through scales that are not linear a direction is that of the tangent.
std::vector<VectorAt> vectorsAt(const Field& field, const Frame& frame, std::vector<double> xs, std::vector<double> ys);

/// How the field's components turn into a direction on the sheet at a place: mm for each unit of a coordinate, with the
/// sign of its direction on the sheet.
Point millimetresPerUnit(const Frame& frame, double x, double y);

/// Reads a vector of two components over two variables; the first component belongs to the variable that runs to the
/// right.
Reading readVectors(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path);

/// All of the field's domain, which lines or arrows fill: a legend has no place there.
void traceVectors(const Drawn& drawn, const Limits& x, const Limits& y, std::vector<double>& xs,
                  std::vector<double>& ys);

/// Whether it is a vector of two components over two variables.
bool isVectorOverTwo(const Signature& signature);

extern const Setting vectorColoursSetting;   ///< one colour, or by length
extern const Setting colouredByOtherSetting; ///< another function whose value colours show
bool showsByColour(const Drawn& drawn);
/// The colour of what a vector shows by it.
Colour colourOfShown(const Drawn& drawn, const Frame& frame, double shown);

extern const Setting headLengthSetting; ///< of arrows, mm

} // namespace coulter
