#include "plots/field_source.h"

#include "plots/reading.h"

namespace coulter {

constexpr Setting acrossSetting{.key = "across",
                                .label = "to the right",
                                .meaning = "the variable that runs to the right; left out: the first",
                                .type = SettingType::Variable,
                                .isStyle = false};

Reading readField(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    Reading reading;
    if (plotted.cases.size() > 1) {
        refuse(reading, plotted, "A field shows one case; several would cover each other.",
               "leave one case in the list");
        return reading;
    }
    Field field;
    field.variables = acrossAndUp(plot, plotted);
    Compiled compiled = compile(context.page, plotted.expression, field.variables,
                                plotted.cases.empty() ? FixedValues{} : caseValues(plotted, 0));
    if (!compiled.program) {
        reading.problems = compiled.problems;
        return reading;
    }
    field.program = std::move(compiled.program);
    for (std::size_t k = 0; k < 2; ++k) {
        const Line& line = *context.page.find(field.variables[k], LineKind::Variable);
        field.intervals[k] = line.interval;
        field.grids[k] = line.grid;
    }
    reading.words.across = variableWord(context.page, field.variables[0], ScaleWord::Rank::FieldVariable);
    reading.words.up = variableWord(context.page, field.variables[1], ScaleWord::Rank::FieldVariable);
    reading.words.colour = functionWord(context.page, plotted.expression, ScaleWord::Rank::Function);
    // A vector is shown by its length.
    const ScaleWord& colour = reading.words.colour;
    if (field.program->outputs.size() > 1 && !colour.symbol.empty() && colour.label.empty())
        reading.words.colour.symbol = "|" + reading.words.colour.symbol + "|";
    Drawn drawn = drawnOf(context, plot, path, 0, 1);
    drawn.parts.push_back({std::make_shared<const Source>(std::move(field)), nullptr});
    drawn.entry = entryOf(context.page, plotted, 0);
    reading.drawn.push_back(std::move(drawn));
    return reading;
}

} // namespace coulter
