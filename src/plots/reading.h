#pragma once
#include "formula/compile/compile.h"
#include "plots/plot_kind.h"

namespace coulter {

// What the readers of all sources share.

/// Adds a problem about all of the formula.
void refuse(Reading& reading, const Plotted& plotted, std::string sentence, std::string suggestion);

FixedValues caseValues(const Plotted& plotted, std::size_t index);

/// "z = 0.5 m" of a family, with the units that the page gives; else the formula.
MathPtr entryOf(const Page& page, const Plotted& plotted, std::size_t index);

/// A case of a plot, with its colour; without parts.
Drawn drawnOf(const ReadingContext& context, const Plot& plot, const ItemPath& path, std::size_t caseIndex,
              std::size_t caseCount);

/// The two variables of a field: to the right, upwards.
std::array<std::string, 2> acrossAndUp(const Plot& plot, const Plotted& plotted);

ScaleWord quantityWord(const Page& page, const std::string& name);
ScaleWord variableWord(const Page& page, const std::string& variable, ScaleWord::Rank rank);
/// Of the function of the page that an expression calls; without a symbol if it is no such call.
ScaleWord functionWord(const Page& page, const ExprPtr& expression, ScaleWord::Rank rank);

/// Of one component of a vector: the function that it calls, or the variable or column that it is; else a coordinate.
ScaleWord componentWord(const Page& page, const ExprPtr& expression);

} // namespace coulter
