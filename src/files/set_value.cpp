#include "files/set_value.h"

#include "figure/edits.h"

namespace coulter {

RecipeRead withNamedValue(const Document& document, const std::string& name, const std::string& value) {
    if (const auto changed = withQuantity(document, name, value)) return {*changed, {}};
    // What is no quantity may be a setting: of the view by its name, any other by its path.
    const bool ofView = name == "azimuth" || name == "elevation" || name == "distance" || name == "height";
    if (ofView || name.find('.') != std::string::npos)
        return withValueAt(document, ofView ? "view." + name : name, value);
    Problem problem;
    problem.sentence = "The page has no quantity “" + name + "” that could be set.";
    problem.suggestion = "settings are named by their path, such as view.azimuth or sheet.width";
    return {std::nullopt, problem};
}

} // namespace coulter
