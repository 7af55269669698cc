#pragma once
#include "plots/plot_kind.h"

#include <functional>

namespace coulter {

// Reading plots as columns of numbers.

/// The columns that a further formula of a plot is worth, in one of its cases, with as many rows as the plot's own; a
/// mere number counts for every row. On a problem nothing, and the problem says which setting it is of.
std::vector<Column> furtherColumns(const ReadingContext& context, const Plotted& plotted, std::size_t caseIndex,
                                   const Setting& setting, const std::string& formula, std::size_t rows,
                                   Problems& problems);

/// What a plot draws as columns: of columns their numbers; of a formula along a variable with a count or a step, the
/// variable and the values. The first is the variable, or 1, 2, 3, … beside a single column.
struct CaseColumns {
    std::vector<std::string> names;
    std::vector<Column> numbers;
};
/// In one of its cases; a problem and no numbers if there are none.
CaseColumns columnsOfCase(const ReadingContext& context, const Plotted& plotted, std::size_t caseIndex,
                          Problems& problems);

/// What an expression is called in a table: a name, or how it is spelled.
std::string columnName(const ExprPtr& expression);

/// A source of columns, in a thing that is drawn.
void addColumns(Drawn& drawn, std::vector<std::string> names, std::vector<Column> numbers,
                std::array<int, 2> along = {0, 1}, bool arePlaces = false);

/// Where the pairs of a plot's rows stand; of columns and a frame that outlive it.
MarkPlaces marksAt(const Columns& columns, const Frame& frame);
/// Reads a plot as pairs (x, y), one set for each case.
/// @param further  adds what the kind needs beside them; may be empty
/// @param most     components that the kind understands: 3 if a value may stand behind the coordinates
using FurtherColumns = std::function<void(std::size_t caseIndex, CaseColumns& columns, Problems& problems)>;
Reading readPairs(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path,
                  const FurtherColumns& further = {}, std::size_t most = 2);
/// What of them is left out of its table: its second part, as hollow marks.
void drawLeftOut(const Drawn& drawn, const Frame& frame, Canvas& canvas);
/// Room for all of them.
void reachPairs(const Drawn& drawn, Extents& extents);

/// Whether it is pairs: columns, or numbers along a variable.
bool arePairs(const Signature& signature);

/// Legend entry of columns: their cases, or the last of a pair.
MathPtr columnEntry(const Page& page, const Plotted& plotted, std::size_t caseIndex);

/// Words of the scales of pairs (x, y), or of a single column.
void nameColumns(Reading& reading, const Page& page, const Plotted& plotted);

/// The row whose first two numbers are nearest to the pointer.
std::optional<Touched> tellPoint(const Drawn& drawn, const Frame& frame, Point mm, double reach);

/// Numbers 1, 2, 3, …
Column counting(std::size_t rows);

/// How many cases a plot has, at least one.
std::size_t casesOf(const Plotted& plotted);

} // namespace coulter
