#pragma once
#include "figure/document.h"

/// A document with these lines and a plot of each of these expressions.
inline coulter::Document document(std::vector<std::string> page, std::vector<std::string> plots) {
    coulter::Document d;
    d.page = std::move(page);
    for (auto& of : plots) d.panels[0].plots.push_back(coulter::plotOf(of));
    return d;
}
