#pragma once
#include "formula/line.h"
#include "formula/names.h"
#include "formula/program.h"

#include <limits>
#include <map>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace coulter {

/// A formula page, read and resolved: order-free, circles named, quantities and questions computed.
/// A line with a problem does not take down the lines that do not need it.
struct Page {
    std::vector<Line> lines;
    KnownNames names;                           ///< of all good definitions
    KnownNames inQuestions;                     ///< the same, and the parameters of functions
    std::map<std::string, std::size_t> defined; ///< canonical name → its line
    std::map<std::string, std::size_t> periods; ///< canonical name of a function → the line that continues it
    std::shared_ptr<const Page> whole; ///< of a page of left-out rows: that of the others, which statistics are about

    /// The line that defines a name, if it is of this kind and good; else null.
    const Line* find(const std::string& name, LineKind kind) const;
    /// What a name of this page is worth, if it is a quantity or found by a solution or a fit.
    std::optional<double> valueOf(const std::string& name) const;
    /// The column of this name; null if there is none.
    Column columnOf(const std::string& name) const;
    /// The unit and the label that a name has on its line; empty where it has none.
    std::string unitOf(const std::string& name) const;
    std::string labelOf(const std::string& name) const;
    /// All problems and notes, in the order of the lines.
    Problems problems() const;
};

/// Longest page that is read, in lines.
inline constexpr std::size_t longestPage = 2'000;

/// Reads a page, over the tables that its lines name. Never fails: what cannot be read is a problem on its line.
/// @param carriesUnits  whether lines without a unit get the one that follows from their formulas
Page readPage(std::span<const std::string> lines, const DataTables& tables = {}, bool carriesUnits = true);

/// Values that take the place of names while compiling: the cases of a family.
using FixedValues = std::map<std::string, double>;

/// Result of compiling: without a program there is at least one problem.
struct Compiled {
    std::shared_ptr<const Program> program;
    Problems problems;
    bool metInfinity = false; ///< constants made something infinite, which may be on nobody's way
};

/// Compiles an expression over the page, with the named inputs as the program's inputs, in this order.
/// Quantities become constants, functions of the page are written out in place.
/// A name that is neither input, fixed, quantity nor constant is a problem. A vector has an output for each component.
Compiled compile(const Page& page, const ExprPtr& expression, std::span<const std::string> inputs,
                 const FixedValues& fixed = {});

/// The same for an expression without inputs, with every step kept that folding would have done at once, down to the
/// formulas of quantities: what interval arithmetic needs to bound the error of an answer.
Compiled compileStepByStep(const Page& page, const ExprPtr& expression);

/// What keeps a function's line from being computed, whatever its parameters are. The page's variables may be used in
/// it without being parameters.
Problems checkBody(const Page& page, const Line& line);

/// What an expression without variables is worth.
struct Answer {
    std::vector<double> values;   ///< one, or the components of a vector; NaN where undefined
    std::vector<double> errors;   ///< bound of the error of each value; inf where none is known
    std::vector<Column> columns;  ///< of an expression with columns: one, or one for each component; then no values
    bool throughInfinity = false; ///< an infinite value was made on the way to a finite one: there is no bound then
    bool unsettled = false;       ///< undefined because a series or an integral in it has no value that could be found
    bool isEstimated = false;     ///< the errors rest on estimates of integrals or series, and are no bounds
    bool isStandardError = false; ///< the errors are standard errors of a fit, and no bounds
    std::string exact;            ///< its exact form, if it was asked for by text and says more than its digits
    ExprPtr formula;              ///< of a derivative by a name that has no value: the formula
    std::shared_ptr<const Places> places;      ///< of a search, such as sin(x) = 0 for x in [1, 10]; then no values
    std::shared_ptr<const MatrixValue> matrix; ///< of an expression with matrices; then no values
    Sought sought = Sought::Zeros;
    Problems problems;

    /// The value, if it is a single number; else NaN.
    double value() const { return values.size() == 1 ? values[0] : std::numeric_limits<double>::quiet_NaN(); }
};
Answer answer(const Page& page, const ExprPtr& expression);
/// The same for text, in which the parameters of the page's functions may stand for themselves; a search as well.
Answer evaluate(const Page& page, std::string_view expression);

/// Names of the page's variables that an expression depends on, directly or through functions, without parameters.
std::vector<std::string> freeVariables(const Page& page, const ExprPtr& expression);
/// The same for the page's columns.
std::vector<std::string> freeColumns(const Page& page, const ExprPtr& expression);

} // namespace coulter
