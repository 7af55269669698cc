#pragma once
#include "composition/read_panel.h"

namespace coulter {

/// Gives the panels of a sheet the scales that they share: those of a column or a row, or of all, as the sheet says.
/// Panels that are no plane, or whose scale is of another kind or unit than that of the first, keep their own.
///
/// The ends of a shared scale are the first that any of its panels was given, else those that show what each of them
/// would show. The numbers stand at the lowest panel of a column, at the leftmost of a row.
/// @param panels  read and looked at; those whose scale changes are looked at again
void shareScales(const Document& document, std::vector<ReadPanel>& panels, double operations,
                 const std::stop_token& stop);

} // namespace coulter
