#include "plots/curve_source.h"

#include "formula/base/text.h"
#include "formula/compile/compile.h"
#include "formula/notation/parser.h"
#include "plots/curve_programs.h"
#include "plots/reading.h"
#include "plots/seen_in.h"

namespace coulter {
void nameCoordinates(Reading& reading, const ReadingContext& context, const ExprPtr& drawn, bool inSpace) {
    const Page& page = context.page;
    if (drawn->kind == ExprKind::Vector && context.format.coordinatesByName) {
        reading.words.across = componentWord(page, drawn->operands[0]);
        reading.words.up = componentWord(page, drawn->operands[1]);
        if (inSpace) reading.words.upright = componentWord(page, drawn->operands[2]);
        return;
    }
    const ScaleWord word = functionWord(page, drawn, ScaleWord::Rank::Coordinate);
    reading.words.across = reading.words.up = word;
    if (inSpace) reading.words.upright = word;
}

bool isCurve(const Signature& signature) { return signature.variables == 1 && signature.components <= 3; }
bool isNumberAlongOne(const Signature& signature) { return signature.variables == 1 && signature.components == 1; }

namespace {

Reading read(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path,
             bool polar) {
    const Page& page = context.page;
    Reading reading;
    const std::string& variable = plotted.variables[0];
    const Line& line = *page.find(variable, LineKind::Variable);
    const std::size_t count = std::max<std::size_t>(1, plotted.cases.size());
    const std::size_t components = componentCount(page, plotted);
    if (polar && components > 1) {
        refuse(reading, plotted, "A polar plot draws a radius over an angle, and this is a vector.",
               "plot it as a line");
        return reading;
    }
    const bool round = polar && context.format.radiusInItsFrame;
    if ((polar && !round) || components > 1) {
        nameCoordinates(reading, context, plotted.expression, components == 3);
    } else {
        reading.words.across = variableWord(page, variable, ScaleWord::Rank::Variable);
        reading.words.up = functionWord(page, plotted.expression, ScaleWord::Rank::Function);
    }
    const ExprPtr shown = polar && !round ? polarPoint(plotted.expression, variable) : plotted.expression;
    for (std::size_t c = 0; c < count; ++c) {
        const FixedValues fixed = caseValues(plotted, c);
        Compiled point = compile(page, shown, std::span(&variable, 1), fixed);
        if (!point.program) {
            reading.problems = point.problems;
            break;
        }
        Curve curve;
        curve.provesIntegrals = context.format.provesIntegrals;
        curve.program = std::move(point.program);
        if (components == 3) {
            curve.inSpace = curve.program;
            curve.program = seenFrom(context.panel.view, *curve.inSpace);
        }
        if (round) curve.radius = curve.program;
        curve.variable = variable;
        curve.interval = line.interval;
        curve.grid = line.grid;
        Drawn drawn = drawnOf(context, plot, path, c, count);
        drawn.parts.push_back({std::make_shared<const Source>(std::move(curve)), nullptr});
        drawn.entry = entryOf(page, plotted, c);
        reading.drawn.push_back(std::move(drawn));
    }
    return reading;
}

} // namespace

Reading readCurves(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    return read(context, plot, plotted, path, false);
}

Reading readPolarCurves(const ReadingContext& context, const Plot& plot, const Plotted& plotted, const ItemPath& path) {
    return read(context, plot, plotted, path, true);
}

const Setting toSetting{.key = "to",
                        .label = "down to",
                        .meaning = "the other edge: a number, or a formula of the same variable",
                        .type = SettingType::Formula,
                        .usual = std::string("0"),
                        .isStyle = false};

ExprPtr furtherExpression(const ReadingContext& context, const Plotted& plotted, const std::string& formula,
                          Problems& problems) {
    KnownNames known = context.page.names;
    for (const std::string& name : plotted.caseNames) known.values.insert(name);
    const ParsedExpression parsed = parseExpression(decodeUtf8(formula), known);
    if (!parsed.expression) problems = parsed.problems;
    return parsed.expression;
}

namespace {

/// A further curve y = g(x) along the variable of a plot, in one of its cases; a problem and null if there is none.
std::shared_ptr<const Source> furtherCurve(const ReadingContext& context, const Plotted& plotted, std::size_t caseIndex,
                                           const std::string& formula, Problems& problems) {
    const std::string& variable = plotted.variables[0];
    const ExprPtr expression = furtherExpression(context, plotted, formula, problems);
    if (!expression) return nullptr;
    const FixedValues fixed = caseValues(plotted, caseIndex);
    Compiled value = compile(context.page, expression, std::span(&variable, 1), fixed);
    if (!value.program) {
        problems = value.problems;
        return nullptr;
    }
    if (value.program->outputs.size() != 1) {
        problems = {{-1, 1, 1, "This is a vector, and a number is wanted here.", "write one of its components"}};
        return nullptr;
    }
    const Line& line = *context.page.find(variable, LineKind::Variable);
    Curve curve;
    curve.provesIntegrals = context.format.provesIntegrals;
    curve.program = std::move(value.program);
    curve.variable = variable;
    curve.interval = line.interval;
    curve.grid = line.grid;
    return std::make_shared<const Source>(std::move(curve));
}

} // namespace

Reading readCurvesWithFoot(const ReadingContext& context, const Plot& plot, const Plotted& plotted,
                           const ItemPath& path) {
    Reading reading = readCurves(context, plot, plotted, path);
    if (!reading.drawn.empty() && !curveOf(reading.drawn[0])->isFunction()) {
        refuse(reading, plotted, "This is a vector, and a number along one variable is wanted here.",
               "draw it as a line");
        reading.drawn.clear();
    }
    for (Drawn& drawn : reading.drawn) {
        auto foot = furtherCurve(context, plotted, drawn.path.part, text(plot.settings, toSetting), reading.problems);
        if (!foot) {
            for (Problem& problem : reading.problems)
                problem.sentence = "The other edge “" + text(plot.settings, toSetting) + "”: " + problem.sentence;
            reading.drawn.clear();
            break;
        }
        drawn.parts.push_back({std::move(foot), nullptr});
    }
    return reading;
}

} // namespace coulter
