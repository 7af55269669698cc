#include "formula/measured/statistics.h"

#include "formula/base/total.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace coulter {
namespace {

using Values = std::span<const double>;

double total(Values values, Values) {
    Total sum;
    for (const double value : values) sum.add(value);
    return sum.value();
}

double mean(Values values, Values) { return total(values, {}) / static_cast<double>(values.size()); }

/// With n − 1, as an estimate from a sample.
double standardDeviation(Values values, Values) {
    if (values.size() < 2) return std::nan("");
    const double middle = mean(values, {});
    Total squares, rest;
    for (const double value : values) {
        squares.add((value - middle) * (value - middle));
        rest.add(value - middle);
    }
    const auto n = static_cast<double>(values.size());
    return std::sqrt(std::max(0.0, squares.value() - rest.value() * rest.value() / n) / (n - 1));
}

double quantile(Values values, Values further) {
    const double p = further[0];
    if (!(p >= 0 && p <= 1)) return std::nan("");
    std::vector<double> sorted(values.begin(), values.end());
    const double place = p * static_cast<double>(sorted.size() - 1);
    const auto low = static_cast<std::size_t>(place);
    std::ranges::nth_element(sorted, sorted.begin() + static_cast<std::ptrdiff_t>(low));
    const double below = sorted[low], share = place - static_cast<double>(low);
    if (share == 0) return below;
    const double above = *std::min_element(sorted.begin() + static_cast<std::ptrdiff_t>(low) + 1, sorted.end());
    return below == above ? below : below + share * (above - below);
}

double median(Values values, Values) {
    const double half = 0.5;
    return quantile(values, {&half, 1});
}

double least(Values values, Values) { return *std::ranges::min_element(values); }
double greatest(Values values, Values) { return *std::ranges::max_element(values); }
double count(Values values, Values) { return static_cast<double>(values.size()); }

std::vector<double> cumulative(Values rows) {
    std::vector<double> sums;
    Total sum;
    for (const double row : rows) {
        if (!std::isnan(row)) sum.add(row);
        sums.push_back(std::isnan(row) ? row : sum.value());
    }
    return sums;
}

std::vector<double> differences(Values rows) {
    std::vector<double> steps(rows.size(), std::nan(""));
    for (std::size_t i = 1; i < rows.size(); ++i) steps[i] = rows[i] - rows[i - 1];
    return steps;
}

constexpr std::array<Statistic, 10> table{{
    {"mean(s)", "mean", "arithmetic mean", 0, mean, nullptr, "ISO 3534-1"},
    {"median(s)", "median", "middle value", 0, median, nullptr, "ISO 3534-1"},
    {"sd(s)", "sd", "standard deviation of a sample, with n − 1", 0, standardDeviation, nullptr, "ISO 3534-1"},
    {"quantile(s, p)", "quantile", "value below which the share p lies, linear between the sorted values", 1, quantile,
     nullptr, "R. J. Hyndman and Y. Fan, “Sample quantiles in statistical packages”, 1996, definition 7"},
    {"total(s)", "total", "sum", 0, total, nullptr, "ISO 80000-2"},
    {"least(s)", "least", "smallest value", 0, least, nullptr, "ISO 80000-2"},
    {"greatest(s)", "greatest", "largest value", 0, greatest, nullptr, "ISO 80000-2"},
    {"number(s)", "number", "how many rows have a value", 0, count, nullptr, "ISO 80000-2"},
    {"cumulative(s)", "cumulative", "in each row the sum up to it", 0, nullptr, cumulative, "ISO 80000-2"},
    {"differences(s)", "differences", "in each row what it is more than the one before", 0, nullptr, differences,
     "ISO 80000-2"},
}};

} // namespace

std::span<const Statistic> statistics() { return table; }

const Statistic* findStatistic(std::string_view name) {
    const auto at = std::ranges::find(table, name, &Statistic::name);
    return at == table.end() ? nullptr : at;
}

double statisticOf(const Statistic& statistic, const Column& column, std::span<const double> further) {
    std::vector<double> values;
    for (const double value : *column) {
        if (!std::isnan(value)) values.push_back(value);
    }
    const bool needsOne = statistic.number != count && statistic.number != total;
    return values.empty() && needsOne ? std::nan("") : statistic.number(values, further);
}

} // namespace coulter
