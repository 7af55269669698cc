#pragma once
#include "formula/line.h"
#include "formula/names.h"
#include "formula/program.h"

#include <map>
#include <span>
#include <string>
#include <vector>

namespace coulter {

/// A formula page, read and resolved: order-free, circles named, quantities and questions computed.
/// A line with a problem does not take down the lines that do not need it.
struct Page {
    std::vector<Line> lines;
    KnownNames names;                           ///< of all good definitions
    std::map<std::string, std::size_t> defined; ///< canonical name → its line
    std::map<std::string, std::size_t> periods; ///< canonical name of a function → the line that continues it

    /// The line that defines a name, if it is of this kind and good; else null.
    const Line* find(const std::string& name, LineKind kind) const;
    /// All problems and notes, in the order of the lines.
    Problems problems() const;
};

/// Longest page that is read, in lines.
inline constexpr std::size_t longestPage = 2'000;

/// Reads a page. Never fails: what cannot be read is a problem on its line.
Page readPage(std::span<const std::string> lines);

/// Values that take the place of names while compiling: the cases of a family.
using FixedValues = std::map<std::string, double>;

/// Result of compiling: without a program there is at least one problem.
struct Compiled {
    std::shared_ptr<const Program> program;
    Problems problems;
};

/// Compiles an expression over the page, with the named inputs as the program's inputs, in this order.
/// Quantities become constants, functions of the page are written out in place.
/// A name that is neither input, fixed, quantity nor constant is a problem.
Compiled compile(const Page& page, const ExprPtr& expression, std::span<const std::string> inputs,
                 const FixedValues& fixed = {});

/// What keeps a function's line from being computed, whatever its parameters are. The page's variables may be used in
/// it without being parameters.
Problems checkBody(const Page& page, const Line& line);

/// Reads and evaluates one expression that needs no variable; `value` is NaN where it is undefined.
struct Answer {
    double value = 0;
    Problems problems;
};
Answer evaluate(const Page& page, std::string_view expression);

/// Names of the page's variables that an expression depends on, directly or through functions, without parameters.
std::vector<std::string> freeVariables(const Page& page, const ExprPtr& expression);

} // namespace coulter
