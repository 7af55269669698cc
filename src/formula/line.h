#pragma once
#include "formula/expr.h"
#include "formula/interval.h"
#include "formula/problem.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace coulter {

enum class LineKind {
    Blank,
    Prose,    ///< # text
    Quantity, ///< q = 1.5, from 0 to 6
    Function, ///< f(x, y) = …
    Variable, ///< x in [a, b], count 101
    Period,   ///< r(t + 6) = r(t)
    Question, ///< f(2) = ?
    Solution, ///< (a, b) solves 2a + b = 5, a - 4b = 1
    Column,   ///< d = {0.1, 0.2}, and what is computed from columns
    Random,   ///< X ~ N(2, 0.5^2), count 500, seed 7
    Unread,   ///< could not be read; see its problems
};

/// A column: numbers side by side.
using Column = std::shared_ptr<const std::vector<double>>;

enum class Distribution { Normal, Uniform };

/// How a variable is sampled. Without count and step: adaptively, to the figure's tolerance.
struct Grid {
    std::optional<double> count;
    std::optional<double> step;
    bool logarithmic = false;
    friend bool operator==(const Grid&, const Grid&) = default;
};

/// One line of the page: as spelled, as read, and (after resolution) what it is worth.
struct Line {
    LineKind kind = LineKind::Blank;
    std::string source;
    std::string name; ///< canonical name of what is defined
    Span nameSpan;
    std::vector<std::string> parameters; ///< of a function, canonical
    ExprPtr body;                        ///< of a quantity, function or question; text of prose is in `source`
    std::vector<std::string> unknowns;   ///< of a solution, canonical
    std::vector<ExprPtr> equations;      ///< of a solution
    ExprPtr low, high;                   ///< ends of a variable's interval
    ExprPtr from, to;                    ///< range in which a quantity can be scrubbed
    ExprPtr count, step;
    Distribution distribution = Distribution::Normal;
    std::vector<ExprPtr> arguments; ///< of a distribution: mean and variance, or both ends
    ExprPtr seed;                   ///< of random numbers; null: chosen
    std::string unit;               ///< UDUNITS string, as written
    std::string label;
    std::optional<Span> plainNumber; ///< where a quantity's value is a plain number: what scrubbing changes
    Problems problems;               ///< errors and notes on this line

    std::optional<double> value;   ///< of a quantity or an answered question
    std::vector<double> values;    ///< of a solution, by unknown; of a question about a vector, by component
    std::vector<double> errors;    ///< of an answered question: bound of the error of each value; inf if none is known
    std::vector<Column> columns;   ///< of a column or random numbers: one; of an answered question: by component
    ExprPtr formula;               ///< of a question about a derivative: the answer
    std::optional<Interval> range; ///< of a quantity with from … to …
    Interval interval;             ///< of a variable
    Grid grid;                     ///< of a variable

    /// Whether the line has no error and can be used by others.
    bool good() const;
};

} // namespace coulter
