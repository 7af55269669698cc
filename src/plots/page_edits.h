#pragma once
#include "figure/item_path.h"
#include "formula/line.h"

#include <optional>
#include <string>

namespace coulter {

/// A function's line as a call with its own parameters: "T(z, t)".
std::string callText(const Line& function);

/// The document with one line replaced, or added when `index` is the page's length. A new function that can be drawn
/// at once is: it gets a plot, and its variable an interval if the page has none; a plot of a function that is renamed
/// follows the name.
Document withLine(const Document& document, std::size_t index, const std::string& text);

/// The first plot that draws the function which a line defines; none if there is none.
std::optional<ItemPath> plotOfLine(const Document& document, std::size_t line);

/// The document without one line, and without the plots that drew only what it defined.
Document withoutLine(const Document& document, std::size_t index);

} // namespace coulter
