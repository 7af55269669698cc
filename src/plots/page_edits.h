#pragma once
#include "figure/item_path.h"
#include "formula/page/line.h"

#include <optional>
#include <string>
#include <vector>

namespace coulter {

/// A function's line as a call with its own parameters: "T(z, t)".
std::string callText(const Line& function);

/// The document with one line replaced, or added when `index` is the page's length. A new function that can be drawn
/// at once is: it gets a plot, and its variable an interval if the page has none; a plot of a function that is renamed
/// follows the name. The line is taken as it was meant (formula/lines/typed_line.h), as long as that leaves it without
/// a problem; an interval that was assumed gives way to one that is said.
Document withLine(const Document& document, std::size_t index, const std::string& text);

/// The document with a line put in before the one at `index`, or at the end; drawn as above.
Document withInsertedLine(const Document& document, std::size_t index, const std::string& text);

/// The document with several lines put in, each as if it were typed. `next` becomes the place behind the last.
Document withInsertedLines(const Document& document, std::size_t index, const std::vector<std::string>& lines,
                           std::size_t& next);

/// The document with something more drawn in one of its panels; `index` becomes the number of the plot.
Document withPlot(const Document& document, std::size_t panel, const Plot& plot, std::size_t& index);

/// The document with lines [first, last] moved by so many places, as far as the page goes. Order means nothing to what
/// is computed.
Document withMovedLines(const Document& document, std::size_t first, std::size_t last, int by);

/// The first plot that draws the function which a line defines; none if there is none.
std::optional<ItemPath> plotOfLine(const Document& document, std::size_t line);

/// The document without lines [first, last], and without the plots that drew only what they defined.
Document withoutLines(const Document& document, std::size_t first, std::size_t last);
inline Document withoutLine(const Document& document, std::size_t index) {
    return withoutLines(document, index, index);
}

} // namespace coulter
