#pragma once
#include "figure/document.h"
#include "formula/lines/plotted.h"

#include <memory>

namespace coulter {

/// How many components what is plotted has: 1 is a number, 2 a vector in the plane, 3 one in space.
std::size_t componentCount(const Page& page, const Plotted& plotted);

/// (r cos φ, r sin φ)
ExprPtr polarPoint(const ExprPtr& radius, const std::string& angle);

} // namespace coulter
