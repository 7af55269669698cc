#include "files/recipe.h"

#include <charconv>
#include <nlohmann/json.hpp>

namespace coulter {
namespace {

using OrderedJson = nlohmann::ordered_json;

/// "panels[0].view.azimuth" as panels, 0, view, azimuth; none if it is misspelled.
std::optional<std::vector<std::string>> stepsOf(const std::string& path) {
    std::vector<std::string> steps{""};
    for (const char c : path) {
        if (c == '.' || c == '[')
            steps.emplace_back();
        else if (c != ']')
            steps.back() += c;
    }
    for (const std::string& step : steps) {
        if (step.empty()) return std::nullopt;
    }
    return steps;
}

} // namespace

RecipeRead withValueAt(const Document& document, const std::string& path, const std::string& value) {
    RecipeRead refused;
    const auto refuse = [&](std::string sentence, std::string suggestion) {
        refused.problem.sentence = std::move(sentence);
        refused.problem.suggestion = std::move(suggestion);
        return refused;
    };
    auto steps = stepsOf(path);
    if (!steps) return refuse("“" + path + "” is no path of a recipe.", "write one such as view.azimuth");
    OrderedJson recipe = OrderedJson::parse(writeRecipe(document));
    if (!recipe.contains((*steps)[0]) && (*steps)[0] != "sheet") steps->insert(steps->begin(), {"panels", "0"});
    OrderedJson* at = &recipe;
    for (const std::string& step : *steps) {
        if (at->is_array()) {
            std::size_t index = at->size();
            std::from_chars(step.data(), step.data() + step.size(), index);
            if (index >= at->size())
                return refuse("The recipe has no “" + step + "” in “" + path + "”: there are " +
                                  std::to_string(at->size()) + ", counted from 0.",
                              "name one of them");
            at = &(*at)[index];
        } else if (at->is_object() || at->is_null()) {
            at = &(*at)[step];
        } else {
            return refuse("“" + path + "” goes on within what is no object.", "leave out its end");
        }
    }
    const OrderedJson parsed = OrderedJson::parse(value, nullptr, false);
    *at = parsed.is_discarded() ? OrderedJson(value) : parsed;
    RecipeRead changed = readRecipe(recipe.dump());
    // Numbers that a recipe keeps in files are not in its text.
    if (changed.document && (*steps)[0] != "tables") changed.document->tables = document.tables;
    return changed;
}

} // namespace coulter
