#include "composition/labels.h"

#include <algorithm>
#include <set>

namespace coulter {
namespace {

/// A unit of several names stands in brackets.
std::string withUnit(const std::string& text, const std::string& unit) {
    if (unit.empty() || unit == "1") return text;
    const std::string printed = printedUnit(unit);
    const bool compound = printed.find_first_of(" /") != std::string::npos;
    return text + (compound ? " / (" + printed + ")" : " / " + printed);
}

/// ISO 80000-1: the number that is shown is the quotient of quantity and unit.
std::string quantityLabel(const std::string& label, const std::string& symbol, const std::string& unit) {
    std::string text = symbol.empty() ? label : label.empty() ? "$" + symbol + "$" : label + " $" + symbol + "$";
    return withUnit(text, unit);
}

} // namespace

namespace {

using Rank = ScaleWord::Rank;

/// Several symbols with one label and unit: "Drawdown $h$, $s$ / m"; empty if they share neither.
std::string sharedLabel(const std::vector<ScaleWord>& words) {
    std::set<std::string> symbols;
    for (const ScaleWord& word : words) {
        if (word.label.empty() || word.label != words[0].label || word.unit != words[0].unit) return "";
        if (!word.symbol.empty()) symbols.insert(word.symbol);
    }
    std::string all;
    for (const std::string& symbol : symbols) all += (all.empty() ? "" : "$, $") + symbol;
    return quantityLabel(words[0].label, all, words[0].unit);
}

/// From the functions that plots draw: their common label, or their names with the common unit.
std::string functionLabel(const std::vector<ScaleWord>& words, const FormatRules& format) {
    if (const std::string shared = format.saysLabelsOnce ? sharedLabel(words) : ""; !shared.empty()) return shared;
    std::set<std::string> labels, units;
    for (const ScaleWord& word : words) {
        if (word.symbol.empty() && word.label.empty()) return "";
        labels.insert(quantityLabel(word.label, word.symbol, word.unit));
        units.insert(word.unit);
    }
    if (labels.size() == 1) return *labels.begin();
    if (labels.empty() || units.size() > 1) return "";
    std::string all;
    for (const std::string& label : labels) {
        const auto end = label.rfind(" / ");
        all += (all.empty() ? "" : ", ") +
               (units.begin()->empty() || end == std::string::npos ? label : label.substr(0, end));
    }
    return format.bracketsUnits     ? withUnit(all, *units.begin())
           : units.begin()->empty() ? all
                                    : all + " / " + printedUnit(*units.begin());
}

/// A coordinate in the plane or in space, with the unit of the vectors that are drawn.
std::string coordinateLabel(const std::vector<ScaleWord>& words, const char* coordinate) {
    std::set<std::string> units;
    for (const ScaleWord& word : words) units.insert(word.unit);
    return quantityLabel("", coordinate, units.size() == 1 ? *units.begin() : "");
}

/// What ranks highest decides: the variable of a field, any variable, functions, mere coordinates.
std::vector<ScaleWord> decidingWords(const PanelReading& reading, ScaleWord PlotWords::*which) {
    std::vector<ScaleWord> words;
    for (const PlotWords& each : reading.words) {
        if ((each.*which).rank != Rank::None) words.push_back(each.*which);
    }
    const auto first = std::ranges::max_element(words, {}, &ScaleWord::rank);
    if (first == words.end()) return words;
    if (first->rank == Rank::Variable || first->rank == Rank::FieldVariable) return {*first};
    return words;
}

/// The one unit of all words; empty if they have several.
std::string commonUnit(const std::vector<ScaleWord>& words) {
    std::set<std::string> units;
    for (const ScaleWord& word : words) units.insert(word.unit);
    return units.size() == 1 ? *units.begin() : "";
}

/// @param shown  the unit of the label, where the words have one
std::string label(const PanelReading& reading, ScaleWord PlotWords::*which, const char* coordinate,
                  const std::string& shown) {
    std::vector<ScaleWord> words = decidingWords(reading, which);
    if (words.empty()) return "";
    if (!commonUnit(words).empty()) {
        for (ScaleWord& word : words) word.unit = shown;
    }
    const Rank rank = std::ranges::max_element(words, {}, &ScaleWord::rank)->rank;
    if (rank == Rank::Coordinate) return coordinateLabel(words, coordinate);
    if (rank == Rank::Function) return functionLabel(words, reading.format);
    return quantityLabel(words[0].label, words[0].symbol, words[0].unit);
}

} // namespace

PanelUnits unitsOf(const PanelReading& reading) {
    PanelUnits units;
    ScaleWord PlotWords::*const which[] = {&PlotWords::across, &PlotWords::up, &PlotWords::colour, &PlotWords::upright};
    for (std::size_t k = 0; k < 4; ++k) units[k] = commonUnit(decidingWords(reading, which[k]));
    return units;
}

PanelLabels derivedLabels(const PanelReading& reading, const PanelUnits& shown) {
    return {label(reading, &PlotWords::across, "x", shown[0]), label(reading, &PlotWords::up, "y", shown[1]),
            label(reading, &PlotWords::upright, "z", shown[3]), label(reading, &PlotWords::colour, "", shown[2])};
}

PanelLabels labelsOf(const Panel& panel, const PanelReading& reading, const PanelUnits& shown) {
    PanelLabels labels = derivedLabels(reading, shown);
    if (panel.x.label) labels.across = *panel.x.label;
    if (panel.y.label) labels.up = *panel.y.label;
    if (panel.z.label) labels.upright = *panel.z.label;
    if (panel.colour.label) labels.colour = *panel.colour.label;
    return labels;
}

} // namespace coulter
