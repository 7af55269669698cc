#pragma once
#include "figure/document.h"
#include "formula/base/problem.h"

#include <optional>
#include <string>
#include <string_view>

namespace coulter {

/// Version of the recipe format that this program writes, and the newest that it reads.
inline constexpr int recipeVersion = newestFormat;

/// A document as recipe text: JSON with a fixed order of keys, one line of the formula page on each line, settings that
/// have their usual value left out. See docs/recipe.md and docs/recipe.schema.json.
std::string writeRecipe(const Document& document);

/// Result of reading: a document, or the problem (with its place) that there is none.
struct RecipeRead {
    std::optional<Document> document;
    Problem problem;
};

/// Reads recipe text. Unknown keys, wrong types and sizes that cannot be are refused with their path, such as
/// `panels[0].plots[1].style.width`.
RecipeRead readRecipe(std::string_view text);

/// A document with one value of its recipe set, by a path such as panels[0].view.azimuth or sheet.width, read as any
/// recipe is; a path without a panel is of the first one. Values are JSON, or else text.
RecipeRead withValueAt(const Document& document, const std::string& path, const std::string& value);

} // namespace coulter
