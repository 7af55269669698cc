#pragma once
#include "plots/plot_kind.h"

namespace coulter {

/// Reads a plot as curves: y = f(x), in the plane or in space, by the components of its formula; one for each case.
Reading readCurves(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path);

/// The same as a radius over an angle.
Reading readPolarCurves(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path);

/// A further curve y = g(x) along the variable of a plot, in one of its cases, such as the other edge of an area.
/// Adds a problem and returns null if it cannot be compiled.
std::shared_ptr<const Source> furtherCurve(const ReadingContext& context, const Plotted& plotted, std::size_t caseIndex,
                                           const std::string& formula, Problems& problems);

/// What `fits` of most kinds of curve answers: a number along one variable.
bool isNumberAlongOne(const Signature& signature);

} // namespace coulter
