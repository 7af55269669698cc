#pragma once
#include "figure/document.h"
#include "formula/page/page.h"

#include <string>
#include <vector>

namespace coulter {

/// Something that can be drawn of a line of a page, beside the line itself.
struct Offer {
    std::string words; ///< "Curve of the derivative of f(x)"
    Plot plot;
};

/// Of a function its derivative, its integral from where its variable begins, and, of two variables, a family: for
/// whole numbers where the second one counts something, else for some small ones. Of a fit its residuals. Only what can
/// be drawn as the page is.
std::vector<Offer> offersOf(const Page& page, const Line& line);

} // namespace coulter
