#pragma once
#include "composition/read_panel.h"

namespace coulter {

/// Where one legend stands for all panels, a colour means one formula: whatever is drawn in the figure's own colours
/// gets that of its formula, in the order in which formulas come. Families and colours by hand stay.
void shareLooks(const Document& document, std::vector<ReadPanel>& panels);

} // namespace coulter
