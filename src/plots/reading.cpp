#include "plots/reading.h"

#include "drawing/colours.h"
#include "formula/compile/compile.h"
#include "plots/common_settings.h"
#include "plots/field_source.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <iterator>

namespace coulter {
namespace {

std::string subscripted(const std::string& canonical) {
    const NameParts parts = nameParts(canonical);
    return parts.subscript.empty() ? parts.letter : parts.letter + "_{" + parts.subscript + "}";
}

ScaleWord wordOf(const Page& page, const std::string& name, ScaleWord::Rank rank) {
    return {rank, page.labelOf(name), subscripted(name), page.unitOf(name)};
}

ScaleWord withoutSymbol(ScaleWord::Rank rank) { return {rank, "", "", ""}; }

} // namespace

void refuse(Reading& reading, const Plotted& plotted, std::string sentence, std::string suggestion) {
    const Span place = plotted.expression->span;
    reading.problems.push_back({-1, place.first, place.last, std::move(sentence), std::move(suggestion)});
}

FixedValues caseValues(const Plotted& plotted, std::size_t index) {
    FixedValues fixed;
    for (std::size_t k = 0; k < plotted.caseNames.size(); ++k) fixed[plotted.caseNames[k]] = plotted.cases[index][k];
    return fixed;
}

MathPtr entryOf(const Page& page, const Plotted& plotted, std::size_t index) {
    if (plotted.caseNames.empty()) return formulaMath(*plotted.expression);
    std::vector<MathPtr> parts;
    for (std::size_t k = 0; k < plotted.caseNames.size(); ++k) {
        if (k > 0) {
            parts.push_back(mathSymbol(",", MathClass::Punctuation));
            parts.push_back(mathSpace(0.2));
        }
        const std::string& name = plotted.caseNames[k];
        parts.push_back(nameMath(name));
        parts.push_back(mathSymbol("=", MathClass::Relation));
        parts.push_back(formulaMath(*plotted.spelled[index][k]));
        if (page.defined.contains(name)) {
            const std::string unit = page.unitOf(name);
            if (!unit.empty() && unit != "1") {
                parts.push_back(mathSpace(0.22));
                parts.push_back(unitMath(unit));
            }
        }
    }
    return mathRow(std::move(parts));
}

namespace {

/// The settings of a plot with what its run and the member itself say.
Settings settingsOfMember(const Plot& plot, std::size_t index, std::size_t count) {
    Settings settings = plot.settings;
    const auto run = static_cast<MembersBy>(word(plot.settings, runSetting));
    if (count > 1 && run == MembersBy::Patterns)
        set(settings, patternSetting, std::string(linePatterns[index % std::size(linePatterns)]));
    if (count > 1 && run == MembersBy::Widths) { // from half the width to one and a half
        const double share = 0.5 + static_cast<double>(index) / static_cast<double>(count - 1);
        set(settings, widthSetting, number(plot.settings, widthSetting) * share);
    }
    if (index < plot.members.size()) {
        for (const auto& [key, value] : plot.members[index].settings) settings[key] = value;
    }
    return settings;
}

} // namespace

Drawn drawnOf(const ReadingContext& context, const Plot& plot, const ItemPath& path, std::size_t caseIndex,
              std::size_t caseCount) {
    Drawn drawn;
    drawn.path = path;
    drawn.path.part = caseIndex;
    drawn.scale = std::min(plot.scale, context.panel.further.size());
    drawn.kind = findPlotKind(plot.kind);
    drawn.settings = settingsOfMember(plot, caseIndex, caseCount);
    drawn.finer = plot.finer;
    drawn.of = plot.of;
    drawn.name = plot.name;
    if (caseIndex < plot.members.size() && plot.members[caseIndex].name) {
        drawn.name = plot.members[caseIndex].name;
        drawn.isNamedAlone = true;
    }
    drawn.caseCount = caseCount;
    drawn.wordsOnPaper = context.format.wordsOnPaper;
    const auto memberColour = context.format.newFamilyColours ? caseColour : firstCaseColour;
    const bool byColour =
        caseCount > 1 && word(plot.settings, runSetting) == static_cast<std::size_t>(MembersBy::Colours);
    drawn.colour = colour(drawn.settings, colourSetting)
                       .value_or(byColour ? memberColour(caseIndex, caseCount) : plotColour(path.index));
    return drawn;
}

std::array<std::string, 2> acrossAndUp(const Plot& plot, const Plotted& plotted) {
    std::array<std::string, 2> order{plotted.variables[0], plotted.variables[1]};
    if (text(plot.settings, acrossSetting) == order[1]) std::swap(order[0], order[1]);
    return order;
}

ScaleWord variableWord(const Page& page, const std::string& variable, ScaleWord::Rank rank) {
    return page.find(variable, LineKind::Variable) ? wordOf(page, variable, rank) : withoutSymbol(rank);
}

ScaleWord quantityWord(const Page& page, const std::string& name) {
    return wordOf(page, name, ScaleWord::Rank::Function);
}

ScaleWord functionWord(const Page& page, const ExprPtr& expression, ScaleWord::Rank rank) {
    const bool call = expression && expression->kind == ExprKind::Call;
    const bool isOnPage = call && page.find(expression->text, LineKind::Function);
    return isOnPage ? wordOf(page, expression->text, rank) : withoutSymbol(rank);
}

ScaleWord componentWord(const Page& page, const ExprPtr& expression) {
    ScaleWord word = functionWord(page, expression, ScaleWord::Rank::Function);
    if (word.symbol.empty() && expression->kind == ExprKind::Name) {
        const std::string& name = expression->text;
        if (page.find(name, LineKind::Variable) || page.columnOf(name))
            word = wordOf(page, name, ScaleWord::Rank::Function);
    }
    if (word.symbol.empty()) word.rank = ScaleWord::Rank::Coordinate;
    return word;
}

} // namespace coulter
