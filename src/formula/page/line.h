#pragma once
#include "formula/base/interval.h"
#include "formula/base/problem.h"
#include "formula/measured/data_table.h"
#include "formula/notation/expr.h"
#include "formula/page/places.h"

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
    Numbers,  ///< d = {0.1, 0.2}, and what is computed from columns
    Random,   ///< X ~ N(2, 0.5^2), count 500, seed 7
    Table,    ///< (t, s) from "readings.csv"
    Fit,      ///< (a, b) fits s = a + b t
    Search,   ///< f(x) = 0 for x in [0, 20]
    Fourier,  ///< (n, a, b) = Fourier coefficients of r(t)
    Matrix,   ///< A = ((2, 1), (1, 3)), b = (1, 2), and what is computed from such
    Drawn,    ///< x^2 + y^2 = 1; f(x, k) for k in {1, 2}: a formula that has no name, and is drawn
    Unread,   ///< could not be read; see its problems
};

/// What Fourier's analysis makes of a function or of samples; a sum is a function of the page.
enum class Transform { None, Coefficients, ComplexCoefficients, Overshoot, Sum, Derivative, Spectrum };

/// What a quantity or a question may ask of a curve over an interval, or of a surface over a region.
enum class Measure { None, Length, Mean, Area, Volume };

enum class Distribution { Normal, Uniform };

/// How a variable is sampled. Without count and step: adaptively, to the figure's tolerance.
struct Grid {
    std::optional<double> count;
    std::optional<double> step;
    bool logarithmic = false;
    std::shared_ptr<const std::vector<double>> places = {}; ///< where a field was measured, if it is looked at there
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
    std::vector<std::string> unknowns;   ///< of a solution or a fit; the columns of a table or a transform; canonical
    std::vector<ExprPtr> equations;      ///< of a solution; of a fit: one; of Fourier coefficients: their formulas
    std::string table;                   ///< of a table or a measured function: what its numbers are read from
    std::vector<std::string> picked;     ///< of a table: its columns by heading or number; empty: by name or in order
    std::vector<std::string> units;      ///< of a table: of each column, as the line or its heading says; of a fit:
                                         ///< of each coefficient, as it follows
    std::vector<std::string> labels;     ///< of a table: words of each column's heading
    Sought sought = Sought::Zeros;       ///< of a search
    bool interpolates = false;           ///< a function is linear between numbers: the pairs in `arguments`, the
                                         ///< nodes and elements there, or those of `table`
    std::vector<ExprPtr> pitch, origin;  ///< of a measured function: width of its numbers, and where its grid begins
    bool rowsUpwards = false;            ///< of a measured function: the first row of its file lies lowest
    int quarters = 0;                    ///< of a measured function: of a turn, counter-clockwise
    Transform transform = Transform::None;
    Measure measure = Measure::None;
    ExprPtr period, harmonics, along; ///< of a transform: clauses, and the column where samples stand or the place of a
                                      ///< jump; may be null
    ExprPtr low, high;                ///< ends of a variable's interval
    ExprPtr from, to;                 ///< range in which a quantity can be scrubbed
    ExprPtr count, step;
    Distribution distribution = Distribution::Normal;
    std::vector<ExprPtr> arguments; ///< of a distribution: mean and variance, or both ends; of a measure over a region:
                                    ///< both ends of its second variable
    ExprPtr seed;                   ///< of random numbers; null: chosen
    ExprPtr where;                  ///< condition that chooses the rows of columns, or a region; null: all count
    ExprPtr weights;                ///< of a fit; null: all rows weigh the same
    std::string unit;               ///< UDUNITS string, as written
    std::string label;
    bool isAssumed = false; ///< of a variable or a quantity: nobody said it, and the next line about it replaces it
    std::optional<Span> plainNumber; ///< where a quantity's value is a plain number: what scrubbing changes
    Problems problems;               ///< errors and notes on this line

    bool throughInfinity = false; ///< of a quantity: an infinite value was made on the way to it
    std::optional<double> value;  ///< of a quantity or an answered question; the period of a transform
    std::vector<double> values;   ///< of a solution or a fit, by unknown; of a question about a vector, by component
    std::vector<double> errors;   ///< of an answered question: bound of the error of each value; inf if none is known;
                                  ///< of a fit: standard error of each value
    std::vector<Column> columns;  ///< of a column or random numbers: one; of a table: each; of an answered question: by
                                  ///< component
    std::shared_ptr<const Places> places;               ///< what a search found
    std::shared_ptr<const struct Interpolation> points; ///< of a function that interpolates columns
    std::shared_ptr<const class MeasuredField> field;   ///< of a measured function of several variables
    ExprPtr formula;                                    ///< of a question about a derivative: the answer
    std::shared_ptr<const struct MatrixValue> matrix;   ///< of a matrix, or a question about one
    std::optional<Interval> range;                      ///< of a quantity with from … to …
    Interval interval;                                  ///< of a variable or a search
    Interval across; ///< of a search over two variables: which ends of the second one belong to it
    Grid grid;       ///< of a variable

    /// Whether it is a function whose values are measured.
    bool isMeasured() const { return kind == LineKind::Function && (interpolates || !table.empty()); }
    /// Whether the line has no error and can be used by others.
    bool good() const;
};

} // namespace coulter
