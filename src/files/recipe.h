#pragma once
#include "figure/document.h"
#include "formula/problem.h"

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

} // namespace coulter
