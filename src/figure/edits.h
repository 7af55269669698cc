#pragma once
#include "figure/document.h"
#include "formula/page/page.h"

#include <optional>
#include <string>

namespace coulter {

/// The document with the value of a quantity replaced by new text, its clauses kept.
/// None if the page has no such quantity.
std::optional<Document> withQuantity(const Document& document, const std::string& name, const std::string& value);

/// The line of a quantity with its value replaced.
std::string lineWithValue(const Line& line, const std::string& value);

enum class SamplingWay { Adaptive, Count, Step };

/// How a variable of the page is sampled.
SamplingWay samplingWay(const Grid& grid);

/// The document with a variable sampled in another way: its clause replaced, added or taken away, all else kept.
/// @param value  number of points or step as spelled; ignored for adaptive sampling
/// None if the page has no such variable.
std::optional<Document> withSampling(const Document& document, const std::string& variable, SamplingWay way,
                                     const std::string& value);

/// Stretches with one more in which more points are wanted: twice as many as before along all of it.
std::vector<FinerStretch> withFiner(const std::vector<FinerStretch>& stretches, double low, double high);

/// Moves the entries of a plot in its panel's legend before those of the plot before (−1), or behind those of the next
/// (1). False if there is none.
bool moveInLegend(Panel& panel, std::size_t plot, int by);

/// A spelled number moved by a number of steps of its last digit (of one digit more when `fine`), within a range if
/// there is one. "9.50" by 3 is "9.53".
std::string scrubbedNumber(const std::string& spelled, double steps, bool fine, const std::optional<Interval>& range);

} // namespace coulter
