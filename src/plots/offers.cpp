#include "plots/offers.h"

#include "formula/base/text.h"
#include "formula/lines/plotted.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/names.h"
#include "formula/page/free_names.h"
#include "plots/page_edits.h"
#include "plots/plot_kind.h"

#include <algorithm>
#include <array>

namespace coulter {
namespace {

bool canBeDrawn(const Page& page, const std::string& of, std::size_t variables) {
    const Plotted plotted = readPlotted(page, of, variables);
    return plotted.expression && plotted.problems.empty();
}

/// Letters that usually count something.
bool isCounter(const std::string& name) {
    static constexpr std::array<std::string_view, 8> counters{"n", "N", "m", "M", "k", "K", "i", "j"};
    return std::ranges::find(counters, nameParts(name).letter) != counters.end();
}

/// A letter for what an integral runs over, which means nothing else.
std::string innerName(const Page& page, const Line& function) {
    for (const char* letter : {"u", "v", "w", "s"}) {
        if (!page.defined.contains(letter) && std::ranges::count(function.parameters, letter) == 0) return letter;
    }
    return "u_{1}";
}

/// A limit as it is written behind the sign of an integral.
std::string asLimit(const std::string& text) { return text.size() == 1 ? text : "{" + text + "}"; }

void addOfFunction(const Page& page, const Line& function, std::vector<Offer>& offers) {
    const std::string call = callText(function), name = spelledName(function.name);
    const auto offer = [&](const std::string& words, const std::string& of) {
        if (canBeDrawn(page, of, 1)) offers.push_back({words, plotOf(of)});
    };
    if (function.parameters.size() == 1) {
        const std::string variable = spelledName(function.parameters[0]);
        offer("Curve of the derivative of " + call, name + "'(" + variable + ")");
        const Line* along = page.find(function.parameters[0], LineKind::Variable);
        if (along && along->good()) {
            const std::string inner = innerName(page, function);
            offer("Curve of the integral of " + call, "int_" + asLimit(shortestNumber(along->interval.low)) + "^" +
                                                          asLimit(variable) + " " + name + "(" + inner + ") d" + inner);
        }
    }
    if (function.parameters.size() == 2) {
        for (const std::size_t member : {std::size_t{1}, std::size_t{0}}) {
            const std::string& by = function.parameters[member];
            const bool counts = isCounter(by);
            if (member == 0 && !counts) continue; // what comes first is the variable, unless it counts
            offer("Family of " + call + " by " + spelledName(by),
                  call + " for " + spelledName(by) + " in " + (counts ? "{1, 3, 10}" : "{0.5, 1, 2}"));
            if (counts) return;
        }
    }
}

/// What is measured less what the fit says, over the first column that the fit has in it.
void addOfFit(const Page& page, const Line& fit, std::vector<Offer>& offers) {
    if (fit.equations.empty() || fit.equations[0]->operands.size() != 2) return;
    const ExprPtr &measured = fit.equations[0]->operands[0], &formula = fit.equations[0]->operands[1];
    const std::vector<std::string> along = freeColumns(page, formula);
    if (along.empty()) return;
    const std::string of = "(" + spelledName(along[0]) + ", " + spelled(*measured) + " - (" + spelled(*formula) + "))";
    if (canBeDrawn(page, of, 0)) offers.push_back({"Residuals of " + spelled(*fit.equations[0]), plotOf(of, "points")});
}

} // namespace

std::vector<Offer> offersOf(const Page& page, const Line& line) {
    std::vector<Offer> offers;
    if (!line.good()) return offers;
    if (line.kind == LineKind::Function && line.body) addOfFunction(page, line, offers);
    if (line.kind == LineKind::Fit) addOfFit(page, line, offers);
    return offers;
}

} // namespace coulter
