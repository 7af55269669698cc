#pragma once
#include "formula/page/page.h"

namespace coulter {

/// Follows units through the formulas of a page: from quantities, variables and columns that have one.
///
/// Where a sum, a comparison or an equation puts different kinds of quantity side by side (metres and seconds), or one
/// kind in different units (cm and m), its line gets a note: numbers are never converted behind anybody's back. The
/// same where a formula gives another unit than its line says, or a function is given another than its variable has.
///
/// Only what is sure is said. A name without a unit, and a number that may stand for one (9.81, 365), have an unknown
/// unit, and what is made with them has, too, as has a function whose variable has none; in a sum a plain number goes
/// with anything.
///
/// @param carries  whether lines without a unit get the one that follows from their formulas (v = s/t: "m s-1")
void followUnits(Page& page, bool carries);

/// The unit that follows for an expression over a page; empty if none is known. "1" is a pure number's.
std::string unitOfExpression(const Page& page, const ExprPtr& expression);

/// What is wrong with the units in an expression over a page; places are those of its text.
Problems unitProblems(const Page& page, const ExprPtr& expression);

/// The same of an expression as text, as it is tried out: its unit as UDUNITS writes it, and what is wrong.
struct UnitsOfText {
    std::string unit;
    Problems problems;
};
UnitsOfText unitsOfText(const Page& page, std::string_view text);

} // namespace coulter
