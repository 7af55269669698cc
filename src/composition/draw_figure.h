#pragma once
#include "composition/figure.h"
#include "composition/figure_watch.h"
#include "plots/sample_store.h"

#include <stop_token>

namespace coulter {

/// The whole way from the recipe to the drawing. A function of the document and the effort alone.
/// @param known  samples that may be there already, and where new ones are kept; never changes a bit of the result
Figure drawFigure(const Document& document, const Effort& effort, std::stop_token stop = {},
                  SampleStore* known = nullptr, const FigureWatch& watch = {});
/// With the effort that the sheet asks for.
Figure drawFigure(const Document& document, std::stop_token stop = {});

} // namespace coulter
