#include "plots/dashes.h"

#include "formula/compile/columns.h"

#include <algorithm>
#include <cmath>

namespace coulter {

const Setting dashesSetting{.key = "dashes",
                            .label = "own dashes",
                            .meaning = "a list such as {3, 1, 0.5, 1}: mm on, mm off, and so on, instead of a pattern "
                                       "with a name; 0 is a dot of a line with round ends",
                            .type = SettingType::Formula,
                            .usual = std::string(),
                            .rare = true};

std::vector<double> readDashes(const Page& page, const Settings& settings, std::optional<Problem>& problem) {
    constexpr std::size_t most = 24;
    constexpr double longest = 1000, dot = 0.01, least = 0.05; // mm
    const std::string given = text(settings, dashesSetting);
    if (given.empty()) return {};
    const auto refused = [&](std::string sentence, std::string way) {
        problem = Problem{-1, 1, 1, "“dashes”: " + std::move(sentence), std::move(way)};
        return std::vector<double>{};
    };
    const ColumnAnswer found = columnsOf(page, given);
    if (found.columns.size() != 1)
        return refused(found.problems.empty() ? "This is no list of numbers." : found.problems.front().sentence,
                       "write one such as {3, 1, 0.5, 1}: mm on, mm off, and so on");
    std::vector<double> dashes(found.columns[0]->begin(), found.columns[0]->end());
    if (dashes.size() < 2 || dashes.size() > most || dashes.size() % 2 != 0)
        return refused("This list has " + std::to_string(dashes.size()) +
                           (dashes.size() == 1 ? " length." : " lengths."),
                       "give pairs, mm on and mm off: at least one, at most " + std::to_string(most / 2));
    double sum = 0;
    for (std::size_t i = 0; i < dashes.size(); ++i) {
        if (!(dashes[i] >= 0 && dashes[i] <= longest))
            return refused("Length " + std::to_string(i + 1) + " is not between 0 and 1000 mm.",
                           "give lengths in mm on paper");
        sum += dashes[i];
        if (i % 2 == 0) dashes[i] = std::max(dashes[i], dot);
    }
    if (!(sum >= least)) return refused("The lengths are less than 0.05 mm together.", "make some of them longer");
    return dashes;
}

} // namespace coulter
