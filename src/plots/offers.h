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
    std::vector<std::string> lines = {}; ///< of the page, which define what it draws
};

/// Of a function its derivative, its integral from where its variable begins, its extrema and its zeros, and, of two
/// variables, a family: for whole numbers where the second one counts something, else for some small ones. Of two
/// equations over the same variables where both hold. Of a fit its residuals. Only what can be drawn as the page is.
std::vector<Offer> offersOf(const Page& page, const Line& line);

/// The document with what is offered, drawn in one of its panels; `index` becomes the number of the plot.
Document withOffer(const Document& document, std::size_t panel, const Offer& offer, std::size_t& index);

} // namespace coulter
