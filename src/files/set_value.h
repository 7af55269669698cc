#pragma once
#include "files/recipe.h"

namespace coulter {

/// A document with another value for a quantity of its page, or for a setting by its path (see withValueAt); settings
/// of the view by their names alone: azimuth, elevation, distance, height.
RecipeRead withNamedValue(const Document& document, const std::string& name, const std::string& value);

} // namespace coulter
