#pragma once
#include "formula/page/page.h"

#include <span>

namespace coulter {

/// Longest page that is read, in lines.
inline constexpr std::size_t longestPage = 2'000;

/// Reads a page, over the tables that its lines name. Never fails: what cannot be read is a problem on its line.
/// @param carriesUnits  whether lines without a unit get the one that follows from their formulas
Page readPage(std::span<const std::string> lines, const DataTables& tables = {}, bool carriesUnits = true);

} // namespace coulter
