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

/// What `fits` of most kinds of curve answers: a number along one variable.
bool isNumberAlongOne(const Signature& signature);

} // namespace coulter
