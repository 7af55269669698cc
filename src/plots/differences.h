#pragma once
#include "figure/document.h"
#include "formula/page/page.h"

#include <vector>

namespace coulter {

/// Plots of what lies between the plots of a panel and its first one: of curves f(x), g(x), … the curves g(x) − f(x),
/// …; where readings (t, s) stand beside a curve f(x), their residuals (t, s − f(t)). Plots of several cases, and those
/// that run along something else, are left out.
std::vector<Plot> differencesOf(const Page& page, const Panel& panel);

} // namespace coulter
