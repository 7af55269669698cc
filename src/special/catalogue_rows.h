#pragma once
#include "special/catalogue.h"

namespace coulter {

/// An entry as it is written down: `form` names the operands, `derivatives` holds the partial derivatives by them in
/// the same order, separated by "|", with "?" where none is known.
struct FunctionRow {
    std::string_view form;
    Implementation implementation;
    std::string_view meaning, domain, derivatives, plotted, interval, source;
};

std::span<const FunctionRow> elementaryRows(); ///< elementary_functions.cpp
std::span<const FunctionRow> specialRows();    ///< special_functions.cpp

} // namespace coulter
