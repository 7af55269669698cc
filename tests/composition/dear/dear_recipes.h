#pragma once
#include "figure/document.h"

#include <string>
#include <vector>

/// A document made to be dear: in what is typed, in what is sampled, or in how much there is of it.
struct DearRecipe {
    std::string name;
    coulter::Document document;
};
std::vector<DearRecipe> dearRecipes();
