#pragma once
#include "formula/measured/data_table.h"

#include <span>
#include <string_view>

namespace coulter {

/// What is computed from all numbers of a column. Rows without a value do not count.
struct Statistic {
    std::string_view form;    ///< "quantile(s, p)"
    std::string_view name;    ///< "quantile"
    std::string_view meaning; ///< one line for people
    std::size_t further = 0;  ///< numbers besides the column
    /// Of the values that there are, in the order of the rows; null for what makes a column.
    double (*number)(std::span<const double> values, std::span<const double> further) = nullptr;
    /// A column of the same length, undefined where the column is; null for what makes a number.
    std::vector<double> (*column)(std::span<const double> rows) = nullptr;
    std::string_view source; ///< of the definition
};

/// All of them, in the order of the manual's table.
std::span<const Statistic> statistics();
/// By name; null if there is none.
const Statistic* findStatistic(std::string_view name);

/// What a statistic makes of a column; NaN of one without values.
double statisticOf(const Statistic& statistic, const Column& column, std::span<const double> further);

} // namespace coulter
