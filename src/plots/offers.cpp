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

/// A name for what is found of something: its letter with a subscript, x_e or x_{e2}, that means nothing yet.
std::string foundName(const Page& page, const std::string& of, const std::string& subscript) {
    const std::string letter = nameParts(of).letter;
    for (int k = 1;; ++k) {
        const std::string name = letter + "_" + (k == 1 ? subscript : subscript + std::to_string(k));
        if (!page.defined.contains(name)) return spelledName(name);
    }
}

bool haveIntervals(const Page& page, const std::vector<std::string>& variables) {
    return std::ranges::all_of(variables, [&](const auto& each) { return page.find(each, LineKind::Variable); });
}

/// Extrema as places with their values beside them; of one variable the zeros, too.
void addOfSearches(const Page& page, const Line& function, std::vector<Offer>& offers) {
    const std::vector<std::string>& variables = function.parameters;
    if (!haveIntervals(page, variables)) return;
    if (std::ranges::any_of(variables, isCounter)) return;
    const std::string call = callText(function), value = foundName(page, function.name, "e");
    std::string places, along;
    for (const std::string& each : variables) {
        places += foundName(page, each, "e") + ", ";
        along += (along.empty() ? "" : ", ") + spelledName(each);
    }
    Plot marks = plotOf("(" + places + value + ")", "points");
    marks.settings["beside"] = std::string(variables.size() == 1 ? "coordinates" : "values");
    offers.push_back({"Extrema of " + call + ", marked",
                      marks,
                      {"(" + places + value + ") = extrema of " + call + " for " + along}});
    if (variables.size() != 1) return;
    const std::string zero = foundName(page, variables[0], "0"), name = spelledName(function.name);
    Plot zeros = plotOf("(" + zero + ", " + name + "(" + zero + "))", "points");
    zeros.settings["beside"] = std::string("places");
    offers.push_back({"Zeros of " + call + ", marked", zeros, {zero + " = zeros of " + call + " for " + along}});
}

/// What says of a line where it is zero in the plane, and over which variables; nothing of others.
struct PlaneEquation {
    std::string difference, words;
    std::vector<std::string> variables;
};
std::optional<PlaneEquation> planeEquationOf(const Page& page, const Line& line) {
    if (!line.good() || !line.body) return std::nullopt;
    if (line.kind == LineKind::Function && line.parameters.size() == 2)
        return PlaneEquation{callText(line), callText(line) + " = 0", line.parameters};
    const Expr& e = *line.body;
    if (line.kind != LineKind::Drawn || !line.unknowns.empty() || e.kind != ExprKind::Compare ||
        e.relations != std::vector<std::string>{"="})
        return std::nullopt;
    std::vector<std::string> variables = freeVariables(page, line.body);
    if (variables.size() != 2) return std::nullopt;
    return PlaneEquation{spelled(*withBrackets(nodeExpr(ExprKind::Subtract, e.operands))), spelled(e), variables};
}

/// Where a line's equation holds together with that of another line.
void addOfCrossings(const Page& page, const Line& line, std::vector<Offer>& offers) {
    const auto own = planeEquationOf(page, line);
    if (!own || !haveIntervals(page, own->variables)) return;
    constexpr std::size_t most = 4;
    std::size_t made = 0;
    for (const Line& each : page.lines) {
        const auto other = &each == &line ? std::nullopt : planeEquationOf(page, each);
        if (!other || each.kind != line.kind || ++made > most) continue;
        std::vector<std::string> mine = own->variables, theirs = other->variables;
        std::ranges::sort(mine);
        std::ranges::sort(theirs);
        if (mine != theirs) continue;
        const bool isBefore = &each < &line;
        const PlaneEquation &first = isBefore ? *other : *own, &second = isBefore ? *own : *other;
        const std::string names = "(" + foundName(page, own->variables[0], "c") + ", " +
                                  foundName(page, own->variables[1], "c") + ")",
                          along = spelledName(own->variables[0]) + ", " + spelledName(own->variables[1]);
        Plot marks = plotOf(names, "points");
        marks.settings["beside"] = std::string("coordinates");
        offers.push_back({"Where " + first.words + " and " + second.words,
                          marks,
                          {names + " = zeros of (" + first.difference + ", " + second.difference + ") for " + along}});
    }
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
    if (line.kind == LineKind::Function && line.body && line.parameters.size() <= 2) addOfSearches(page, line, offers);
    addOfCrossings(page, line, offers);
    if (line.kind == LineKind::Fit) addOfFit(page, line, offers);
    return offers;
}

Document withOffer(const Document& document, std::size_t panel, const Offer& offer, std::size_t& index) {
    Document changed = withPlot(document, panel, offer.plot, index);
    changed.page.insert(changed.page.end(), offer.lines.begin(), offer.lines.end());
    return changed;
}

} // namespace coulter
