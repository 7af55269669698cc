#include "files/sweep.h"

#include "formula/base/text.h"
#include "formula/compile/columns.h"

#include <charconv>
#include <cmath>

namespace coulter {
namespace {

std::optional<double> numberOf(std::string_view text) {
    double value = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    return error == std::errc{} && end == text.data() + text.size() && std::isfinite(value) ? std::optional(value)
                                                                                            : std::nullopt;
}

} // namespace

std::optional<Sweep> sweepOf(const std::string& set, std::size_t count, bool logarithmic, Problem& problem) {
    const auto equals = set.find('=');
    if (equals == std::string::npos) return std::nullopt;
    Sweep sweep{set.substr(0, equals), {}};
    const std::string value = set.substr(equals + 1);
    if (value.starts_with('{')) {
        const ColumnAnswer found = columnsOf(Page{}, value);
        if (found.columns.size() != 1) {
            problem = Problem{-1, 0, 0, "“" + value + "” is no list of numbers.",
                              "write one such as {1, 2, 5} or {0, 0.5, ..., 3}"};
            return sweep;
        }
        for (const double each : *found.columns[0]) sweep.values.push_back(shortestNumber(each));
    } else if (const auto dots = value.find(".."); dots != std::string::npos) {
        const auto low = numberOf(std::string_view(value).substr(0, dots)),
                   high = numberOf(std::string_view(value).substr(dots + 2));
        if (!low || !high) return std::nullopt; // two dots may stand in a text
        if (count < 2 || count > mostSwept) {
            problem = Problem{-1, 0, 0,
                              "How many values from " + value.substr(0, dots) + " to " + value.substr(dots + 2) + "?",
                              "say it with --count, from 2 to " + std::to_string(mostSwept)};
            return sweep;
        }
        if (logarithmic && !(*low * *high > 0)) {
            problem =
                Problem{-1, 0, 0, "A logarithm needs both ends of one sign and neither zero.", "begin above zero"};
            return sweep;
        }
        for (std::size_t i = 0; i < count; ++i) {
            const double part = static_cast<double>(i) / static_cast<double>(count - 1);
            const double at = i + 1 == count ? *high
                              : logarithmic  ? *low * std::pow(*high / *low, part)
                                             : *low + (*high - *low) * part;
            // Evenly spaced numbers are mostly meant to be short.
            sweep.values.push_back(roundedNumber(at, 12));
        }
    } else {
        return std::nullopt;
    }
    return sweep;
}

} // namespace coulter
