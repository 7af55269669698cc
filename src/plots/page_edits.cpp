#include "plots/page_edits.h"

#include "formula/base/text.h"
#include "formula/lines/read_page.h"
#include "formula/lines/typed_line.h"
#include "formula/notation/parser.h"
#include "formula/page/line_parser.h"
#include "plots/plot_kind.h"

#include <algorithm>
#include <set>

namespace coulter {

namespace {

/// Whether a plot is already a call of this function.
bool draws(const Page& page, const Plot& plot, const std::string& function) {
    const PlotKind* kind = findPlotKind(plot.kind);
    const Plotted plotted = readPlotted(page, plot.of, kind ? variablesOf(*kind) : 1);
    return plotted.expression && plotted.expression->kind == ExprKind::Call && plotted.expression->text == function;
}

/// Functions of the page that a formula calls; a derivative by a prime is a call of its function.
void collectCalls(const Page& page, const Expr& e, std::set<std::string>& calls) {
    if (e.kind == ExprKind::Call) {
        const std::string name = e.text.substr(0, e.text.find('\''));
        if (page.find(name, LineKind::Function)) calls.insert(name);
    }
    for (const ExprPtr& each : e.operands) collectCalls(page, *each, calls);
}

/// Whether a plot draws a function and no other one, however: itself, its derivative, an integral of it.
bool drawsOnly(const Page& page, const Plot& plot, const std::string& function) {
    const PlotKind* kind = findPlotKind(plot.kind);
    const Plotted plotted = readPlotted(page, plot.of, kind ? variablesOf(*kind) : 1);
    std::set<std::string> calls;
    if (plotted.expression) collectCalls(page, *plotted.expression, calls);
    return calls == std::set{function};
}

/// A new function of one variable is drawn at once, and so is one of two on an empty panel, in the first kind that
/// fits; variables without an interval get a usual one, which is said to be assumed.
void drawNewFunction(Document& document, std::size_t index, bool roundAngle) {
    Page page = readPage(document);
    const Line line = page.lines[index];
    std::vector<Plot>& plots = document.panels[0].plots;
    const std::size_t count = line.parameters.size();
    const std::optional<Signature> signature = signatureOf(page, line);
    if (!signature || count == 0 || (count > 1 && !plots.empty())) return;
    const auto kind = std::ranges::find_if(plotKinds(), [&](const PlotKind* each) { return each->fits(*signature); });
    if (kind == plotKinds().end()) return;
    for (const std::string& variable : line.parameters) {
        if (page.defined.contains(variable) && !page.find(variable, LineKind::Variable)) return;
    }
    for (auto variable = line.parameters.rbegin(); variable != line.parameters.rend(); ++variable) {
        if (page.defined.contains(*variable)) continue;
        document.page.insert(document.page.begin() + static_cast<std::ptrdiff_t>(index) + 1,
                             spelledName(*variable) + " in [-5, 5], assumed");
    }
    page = readPage(document);
    if (std::ranges::any_of(plots, [&](const Plot& plot) { return draws(page, plot, line.name); })) return;
    const PlotKind* polar = findPlotKind("polar");
    const bool isPolar = roundAngle && polar && polar->fits(*signature);
    plots.push_back(plotOf(callText(line), isPolar ? polar->name : (*kind)->name));
}

Panel panelOf(Plot plot) {
    Panel panel;
    panel.plots.push_back(std::move(plot));
    return panel;
}

/// What a line draws that has no name of its own: a formula as it stands, or a column of numbers.
void drawUnnamed(Document& document, const std::string& of, const std::string& before) {
    std::vector<Plot>& plots = document.panels[0].plots;
    const auto same = [&](const std::string& text) { return std::ranges::find(plots, text, &Plot::of); };
    if (same(of) != plots.end()) return;
    if (const auto old = same(before); !before.empty() && old != plots.end()) {
        old->of = of;
        return;
    }
    // Of a condition the border is drawn where it is an equation, and else where it holds.
    const Page page = readPage(document);
    const Plotted plotted = readPlotted(page, of, 2);
    const bool isEquation = plotted.condition && plotted.condition->kind == ExprKind::Compare &&
                            plotted.condition->relations == std::vector<std::string>{"="};
    const auto fits = [&](const PlotKind* each) {
        if (plotted.condition && (!each->takesConditions || (each->layer == Layer::Line) != isEquation)) return false;
        const auto signature = signatureOf(page, plotOf(of, each->name));
        return signature && each->fits(*signature) && !readPlots(page, panelOf(plotOf(of, each->name))).drawn.empty();
    };
    const auto kind = std::ranges::find_if(plotKinds(), fits);
    if (kind == plotKinds().end()) return;
    // A circle is round.
    if (plotted.condition && plots.empty() && !document.panels[0].equalScales) document.panels[0].equalScales = true;
    plots.push_back(plotOf(of, (*kind)->name));
}

/// Takes away what was assumed and is said now, and puts in what nobody said.
void settleAssumed(Document& document, std::size_t& index, const TypedLine& typed) {
    std::set<std::string> said, saidIntervals;
    const auto say = [&](const std::string& text) {
        const Line line = outlineLine(text).line;
        if (line.isAssumed) return;
        if (!line.name.empty()) said.insert(line.name);
        said.insert(line.unknowns.begin(), line.unknowns.end());
        if (line.kind == LineKind::Variable) saidIntervals.insert(line.name);
    };
    say(typed.text);
    for (const std::string& line : typed.given) say(line);
    const bool behindFormula = !typed.given.empty();
    for (std::size_t i = document.page.size(); i-- > 0;) {
        if (i == index) continue;
        const Line line = outlineLine(document.page[i]).line;
        const bool isInterval = line.kind == LineKind::Variable && (line.isAssumed || behindFormula),
                   isNumber = line.kind == LineKind::Quantity && line.isAssumed;
        if (!(isInterval && saidIntervals.contains(line.name)) && !(isNumber && said.contains(line.name))) continue;
        document.page.erase(document.page.begin() + static_cast<std::ptrdiff_t>(i));
        if (i < index) --index;
    }
    std::size_t at = index + 1;
    for (const std::vector<std::string>* lines : {&typed.given, &typed.assumed}) {
        for (const std::string& line : *lines)
            document.page.insert(document.page.begin() + static_cast<std::ptrdiff_t>(at++), line);
    }
}

/// A formula with a function's name replaced, where it stands as a name before a bracket.
std::string renamed(const std::string& formula, const std::string& before, const std::string& after) {
    const std::u32string text = decodeUtf8(formula);
    const LexResult lexed = tokenize(text, 0, text.size());
    for (std::size_t i = lexed.tokens.size(); i-- > 0;) {
        std::string name;
        const std::size_t length = readName(std::span(lexed.tokens).subspan(i), name);
        if (length == 0 || name != before || lexed.tokens[i + length].text != "(") continue;
        const auto first = static_cast<std::size_t>(lexed.tokens[i].span.first - 1);
        const auto last = static_cast<std::size_t>(lexed.tokens[i + length - 1].span.last);
        return encodeUtf8(std::u32string_view(text).substr(0, first)) + spelledName(after) +
               encodeUtf8(std::u32string_view(text).substr(last));
    }
    return formula;
}

void renamePlots(Document& document, const std::string& before, const std::string& after) {
    for (Panel& panel : document.panels) {
        for (Plot& plot : panel.plots) {
            plot.of = renamed(plot.of, before, after);
            const PlotKind* kind = findPlotKind(plot.kind);
            for (const Setting* each : kind ? kind->settings : std::span<const Setting* const>{}) {
                if (each->type == SettingType::Formula)
                    set(plot.settings, *each, renamed(text(plot.settings, *each), before, after));
            }
        }
    }
}

} // namespace

std::string callText(const Line& line) {
    std::string text = spelledName(line.name) + "(";
    for (std::size_t i = 0; i < line.parameters.size(); ++i)
        text += (i > 0 ? ", " : "") + spelledName(line.parameters[i]);
    return text + ")";
}

Document withLine(const Document& document, std::size_t index, const std::string& text) {
    Document changed = document;
    const bool isNew = index >= changed.page.size();
    const Page before = readPage(document);
    if (isNew) {
        index = changed.page.size();
        changed.page.emplace_back();
    }
    const std::size_t place = index; // of the line as it was
    const std::string old = changed.page[index];
    changed.page[index].clear();
    // While a new line is typed the page without it is the one that was there.
    std::optional<Page> others;
    if (!old.empty()) others = readPage(changed);
    const TypedLine typed = readTyped(others ? *others : before, text);
    changed.page[index] = typed.text;
    settleAssumed(changed, index, typed);
    Page after = readPage(changed);
    if (typed.text != text && !after.lines[index].good()) { // nothing is known better than what was typed
        changed = document;
        if (isNew) changed.page.emplace_back();
        index = place;
        changed.page[index] = text;
        after = readPage(changed);
    }
    const Line& line = after.lines[index];
    // A chosen seed is kept, so that the numbers stay what they are when the line is changed.
    const auto chosen =
        std::ranges::find_if(line.problems, [](const Problem& each) { return each.remedy.has_value(); });
    if (line.kind == LineKind::Random && line.good() && !line.seed && chosen != line.problems.end())
        changed.page[index] += chosen->remedy->text;
    if (line.kind == LineKind::Random && line.good() && (isNew || before.lines[place].kind != LineKind::Random) &&
        changed.panels[0].plots.empty())
        changed.panels[0].plots.push_back(plotOf(spelledName(line.name), "histogram"));
    if (line.good() && line.kind == LineKind::Drawn) drawUnnamed(changed, line.source, old);
    for (const std::string& given : typed.given) {
        if (outlineLine(given).line.kind == LineKind::Drawn) drawUnnamed(changed, given, "");
    }
    if (!typed.drawn.empty()) {
        drawUnnamed(changed, typed.drawn, "");
        return changed;
    }
    // The second coordinate of points whose first one stands there by itself.
    std::vector<Plot>& plots = changed.panels[0].plots;
    if (line.good() && line.kind == LineKind::Numbers && line.name == "y" && plots.size() == 1 && plots[0].of == "x" &&
        after.columnOf("x") && after.columnOf("y") && after.columnOf("x")->size() == after.columnOf("y")->size()) {
        plots[0].of = "(x, y)";
        return changed;
    }
    // Numbers by themselves are drawn; a column of another name may be meant for cases.
    const bool isShown = text.starts_with('{') || isUsualVariable(line.name);
    if (line.good() && line.kind == LineKind::Numbers && isShown && (isNew || old.empty()) &&
        changed.panels[0].plots.empty())
        drawUnnamed(changed, spelledName(line.name), "");
    if (!line.good() || line.kind != LineKind::Function) return changed;
    const Line was = outlineLine(old).line;
    const bool wasFunction = was.kind == LineKind::Function, wasGood = !isNew && before.lines[place].good();
    if (wasFunction && was.name != line.name && !after.defined.contains(was.name))
        renamePlots(changed, was.name, line.name);
    else if (!wasFunction || !wasGood)
        drawNewFunction(changed, index, typed.isRoundAngle);
    return changed;
}

std::optional<ItemPath> plotOfLine(const Document& document, std::size_t index) {
    const Page page = readPage(document);
    if (index >= page.lines.size() || page.lines[index].kind != LineKind::Function) return std::nullopt;
    for (std::size_t p = 0; p < document.panels.size(); ++p) {
        const std::vector<Plot>& plots = document.panels[p].plots;
        for (std::size_t i = 0; i < plots.size(); ++i) {
            if (draws(page, plots[i], page.lines[index].name)) return ItemPath{ItemKind::Plot, p, i, 0};
        }
    }
    return std::nullopt;
}

Document withInsertedLine(const Document& document, std::size_t index, const std::string& text) {
    Document longer = document;
    index = std::min(index, longer.page.size());
    longer.page.insert(longer.page.begin() + static_cast<std::ptrdiff_t>(index), "");
    return withLine(longer, index, text);
}

Document withInsertedLines(const Document& document, std::size_t index, const std::vector<std::string>& lines,
                           std::size_t& next) {
    // All of them first, so that what each defines is known when the next one is looked at.
    Document changed = document;
    index = std::min(index, changed.page.size());
    changed.page.insert(changed.page.begin() + static_cast<std::ptrdiff_t>(index), lines.begin(), lines.end());
    next = index;
    for (const std::string& line : lines) {
        const std::size_t before = changed.page.size();
        changed.page[next].clear();
        changed = withLine(changed, next, line);
        next += 1 + changed.page.size() - before;
    }
    return changed;
}

Document withPlot(const Document& document, std::size_t panel, const Plot& plot, std::size_t& index) {
    Document changed = document;
    std::vector<Plot>& plots = changed.panels[panel].plots;
    plots.push_back(plot);
    index = plots.size() - 1;
    return changed;
}

Document withMovedLines(const Document& document, std::size_t first, std::size_t last, int by) {
    Document changed = document;
    if (first > last || last >= changed.page.size()) return changed;
    const auto at = [&](std::size_t i) { return changed.page.begin() + static_cast<std::ptrdiff_t>(i); };
    if (by < 0) {
        const std::size_t to = first - std::min(first, static_cast<std::size_t>(-by));
        std::rotate(at(to), at(first), at(last) + 1);
    } else {
        const std::size_t to = std::min(changed.page.size() - 1, last + static_cast<std::size_t>(by));
        std::rotate(at(first), at(last) + 1, at(to) + 1);
    }
    return changed;
}

Document withoutLines(const Document& document, std::size_t first, std::size_t last) {
    Document changed = document;
    if (first > last || first >= changed.page.size()) return changed;
    last = std::min(last, changed.page.size() - 1);
    const Page page = readPage(document);
    for (std::size_t i = first; i <= last; ++i) {
        if (page.lines[i].kind == LineKind::Drawn) {
            for (Panel& panel : changed.panels)
                std::erase_if(panel.plots, [&](const Plot& plot) { return plot.of == page.lines[i].source; });
        }
        if (page.lines[i].kind != LineKind::Function) continue;
        for (Panel& panel : changed.panels)
            std::erase_if(panel.plots, [&](const Plot& plot) { return drawsOnly(page, plot, page.lines[i].name); });
    }
    changed.page.erase(changed.page.begin() + static_cast<std::ptrdiff_t>(first),
                       changed.page.begin() + static_cast<std::ptrdiff_t>(last) + 1);
    return changed;
}

} // namespace coulter
