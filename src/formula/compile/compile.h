#pragma once
#include "formula/page/page.h"
#include "formula/program/program.h"

#include <span>

namespace coulter {

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

} // namespace coulter
