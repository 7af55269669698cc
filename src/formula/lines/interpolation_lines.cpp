#include "formula/lines/interpolation_lines.h"

#include "formula/base/text.h"
#include "formula/compile/columns.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace coulter {
namespace {

InterpolationAnswer interpolationRefused(Span span, std::string sentence, std::string suggestion = "") {
    return {nullptr, {{-1, span.first, span.last, std::move(sentence), std::move(suggestion)}}};
}

} // namespace

InterpolationAnswer interpolationLine(const Page& page, const Line& line) {
    std::vector<Column> columns;
    for (const ExprPtr& argument : line.arguments) {
        if (!argument) return {};
        if (!isColumn(page, argument))
            return interpolationRefused(argument->span, "A column of numbers is wanted here.");
        ColumnAnswer found = columnsOf(page, argument);
        if (found.columns.empty()) return {nullptr, found.problems};
        if (found.columns.size() > 1)
            return interpolationRefused(argument->span, "A column holds numbers, and this is a vector.");
        columns.push_back(found.columns[0]);
    }
    const Span place = line.arguments[0]->span;
    if (columns[0]->size() != columns[1]->size())
        return interpolationRefused(place,
                                    "There are " + std::to_string(columns[0]->size()) + " places and " +
                                        std::to_string(columns[1]->size()) + " values.",
                                    "give both as many numbers");
    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < columns[0]->size(); ++i) {
        if (std::isfinite((*columns[0])[i]) && std::isfinite((*columns[1])[i])) order.push_back(i);
    }
    std::ranges::stable_sort(order, {}, [&](std::size_t i) { return (*columns[0])[i]; });
    auto points = std::make_shared<Interpolation>();
    for (const std::size_t i : order) {
        if (!points->x.empty() && points->x.back() == (*columns[0])[i])
            return interpolationRefused(place,
                                        "Two rows stand at the same place, " + roundedNumber((*columns[0])[i], 6) + ".",
                                        "leave out one of them");
        points->x.push_back((*columns[0])[i]);
        points->y.push_back((*columns[1])[i]);
    }
    if (points->x.size() < 2) return interpolationRefused(place, "Between fewer than two points there is nothing.");
    return {std::move(points), {}};
}

} // namespace coulter
