#pragma once
#include <nlohmann/json.hpp>

namespace coulter {

/// What the JSON Schema of recipes says about plots, made from the table of kinds: the definition "plot" and one for
/// each kind, by name. docs/recipe.schema.json holds the same; scripts/kind-tables puts it there.
nlohmann::ordered_json plotDefinitions();

} // namespace coulter
