#pragma once
#include "composition/findings.h"

#include <span>

namespace coulter {

/// What a careful referee would point out, besides what was found on the way: each a row with a function of its own.
struct Check {
    const char* name;    ///< a word or two
    const char* meaning; ///< one line, for the manual
    void (*look)(const Figure& figure, std::vector<Finding>& found);
};
/// All of them, in the order in which they are looked for.
std::span<const Check* const> refereeChecks();

/// A finding with its remedy.
Finding findingOf(std::string sentence, ItemPath where, std::string remedy = {}, std::optional<Document> fixed = {});

/// The document of a figure after one change.
template <typename Change> Document changed(const Figure& figure, const Change& change) {
    Document document = figure.document;
    change(document);
    return document;
}

/// What is drawn, as a person calls it: the name given by hand, or its formula, with its case if it is one of several.
std::string nameOf(const Drawn& drawn);

} // namespace coulter
