#pragma once
#include "formula/page/page.h"

namespace coulter {

/// Names of the page's variables that an expression depends on, directly or through functions, without parameters.
std::vector<std::string> freeVariables(const Page& page, const ExprPtr& expression);
/// The same for the page's columns.
std::vector<std::string> freeColumns(const Page& page, const ExprPtr& expression);

} // namespace coulter
