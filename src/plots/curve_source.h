#pragma once
#include "plots/plot_kind.h"

namespace coulter {

/// Reads a plot as curves: y = f(x), in the plane or in space, by the components of its formula; one for each case.
Reading readCurves(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path);

/// The same as a radius over an angle.
Reading readPolarCurves(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path);

/// The setting of kinds that reach from a curve to another one: the other one's formula.
extern const Setting toSetting;

/// Reads a plot as curves y = f(x), each with a second part: the curve that its setting `to` names.
Reading readCurvesWithFoot(const ReadingContext& context, const Plot& plot, const Plotted& plotted,
                           const ItemPath& path);

/// Coordinates in the plane or in space: each by what stands in its place, as in (T(z), z), or with the unit of the
/// vector that is drawn.
void nameCoordinates(Reading& reading, const ReadingContext& context, const ExprPtr& drawn, bool inSpace);

/// A further formula of a plot, read with its cases known; a problem and null if it cannot be.
ExprPtr furtherExpression(const ReadingContext& context, const Plotted& plotted, const std::string& formula,
                          Problems& problems);

/// Whether it is a curve of any sort, in the plane or in space.
bool isCurve(const Signature& signature);
/// What `fits` of most kinds of curve answers: a number along one variable.
bool isNumberAlongOne(const Signature& signature);

} // namespace coulter
