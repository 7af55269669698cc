#include "figure/labels.h"

#include "formula/parser.h"
#include "formula/text.h"

#include <set>

namespace coulter {
namespace {

/// ISO 80000-1: the number that is shown is the quotient of quantity and unit.
std::string quantityLabel(const std::string& label, const std::string& symbol, const std::string& unit) {
    std::string text = label.empty() ? "$" + symbol + "$" : label + " $" + symbol + "$";
    if (!unit.empty() && unit != "1") {
        const std::string printed = printedUnit(unit);
        const bool compound = printed.find_first_of(" /") != std::string::npos;
        text += compound ? " / (" + printed + ")" : " / " + printed;
    }
    return text;
}

/// The function's line, if an expression is a call of a function of the page.
const Line* drawnFunction(const Page& page, const ExprPtr& expression) {
    if (!expression || expression->kind != ExprKind::Call) return nullptr;
    return page.find(expression->text, LineKind::Function);
}

std::string subscripted(const std::string& canonical) {
    const NameParts parts = nameParts(canonical);
    return parts.subscript.empty() ? parts.letter : parts.letter + "_{" + parts.subscript + "}";
}

} // namespace

std::string printedUnit(const std::string& unit) {
    static constexpr std::u32string_view raised = U"⁰¹²³⁴⁵⁶⁷⁸⁹";
    std::u32string out;
    const std::u32string text = decodeUtf8(unit);
    for (std::size_t i = 0; i < text.size(); ++i) {
        const char32_t c = text[i];
        const bool afterLetter = !out.empty() && out.back() != U' ' && out.back() != U'/';
        if (c == U'^') continue;
        if ((c == U'-' || c == U'−') && afterLetter)
            out.push_back(U'⁻');
        else if (isDigit(c) && afterLetter)
            out.push_back(raised[c - U'0']);
        else if (c == U'.' || c == U'*')
            out.push_back(U' ');
        else
            out.push_back(c);
    }
    return encodeUtf8(out);
}

namespace {

std::string variableLabel(const Page& page, const std::string& variable) {
    const Line* line = page.find(variable, LineKind::Variable);
    return line ? quantityLabel(line->label, subscripted(line->name), line->unit) : "";
}

/// A coordinate in the plane or in space, with the unit of the vectors that are drawn.
std::string coordinateLabel(const Page& page, const Panel& panel, const char* coordinate) {
    std::set<std::string> units;
    for (const Plot& plot : panel.plots) {
        const Line* line = drawnFunction(page, readPlot(page, plot).expression);
        units.insert(line ? line->unit : "");
    }
    return quantityLabel("", coordinate, units.size() == 1 ? *units.begin() : "");
}

/// From the functions that the plots of some kinds draw.
template <typename Wanted> std::string functionLabel(const Page& page, const Panel& panel, const Wanted& wanted) {
    std::set<std::string> labels;
    std::set<std::string> units;
    for (const Plot& plot : panel.plots) {
        if (!wanted(plot)) continue;
        const Plotted plotted = readPlot(page, plot);
        if (!plotted.expression) continue;
        const Line* line = drawnFunction(page, plotted.expression);
        if (!line) return "";
        labels.insert(quantityLabel(line->label, subscripted(line->name), line->unit));
        units.insert(line->unit);
    }
    if (labels.size() == 1) return *labels.begin();
    if (labels.empty() || units.size() > 1) return "";
    std::string all;
    for (const std::string& label : labels) {
        const auto end = label.rfind(" / ");
        all += (all.empty() ? "" : ", ") +
               (units.begin()->empty() || end == std::string::npos ? label : label.substr(0, end));
    }
    return units.begin()->empty() ? all : all + " / " + printedUnit(*units.begin());
}

} // namespace

std::string horizontalLabel(const Page& page, const Panel& panel, const PanelCurves& curves) {
    if (panel.x.label) return *panel.x.label;
    if (const std::string variable = curves.acrossVariable(); !variable.empty()) return variableLabel(page, variable);
    return curves.curves.empty() ? "" : coordinateLabel(page, panel, "x");
}

std::string verticalLabel(const Page& page, const Panel& panel, const PanelCurves& curves) {
    if (panel.y.label) return *panel.y.label;
    if (const std::string variable = curves.upVariable(); !variable.empty()) return variableLabel(page, variable);
    if (curves.acrossVariable().empty() && !curves.curves.empty()) return coordinateLabel(page, panel, "y");
    return functionLabel(page, panel, [](const Plot&) { return true; });
}

std::string colourLabel(const Page& page, const Panel& panel, const PanelCurves& curves) {
    if (panel.colour.label) return *panel.colour.label;
    if (curves.fields.empty()) return "";
    std::string label = functionLabel(page, panel, [](const Plot& plot) { return plot.kind == PlotKind::Heatmap; });
    // A vector is shown by its length.
    if (curves.fields[0].program->outputs.size() > 1 && label.starts_with("$")) {
        const auto end = label.find('$', 1);
        label = "$|" + label.substr(1, end - 1) + "|$" + label.substr(end + 1);
    }
    return label;
}

std::string uprightLabel(const Page& page, const Panel& panel, const PanelCurves& curves) {
    return curves.hasSpaceCurve() ? coordinateLabel(page, panel, "z") : "";
}

std::string withValues(const Page& page, const std::string& text) {
    std::string out;
    bool formula = false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text[i] == '$') formula = !formula;
        const auto end = text[i] == '{' && !formula ? text.find('}', i) : std::string::npos;
        if (end == std::string::npos) {
            out += text[i];
            continue;
        }
        const std::u32string inner = decodeUtf8(std::string_view(text).substr(i + 1, end - i - 1));
        const LexResult lexed = tokenize(inner, 0, inner.size());
        std::string name;
        const std::size_t length = readName(lexed.tokens, name);
        const Line* line =
            length > 0 && length + 1 == lexed.tokens.size() ? page.find(name, LineKind::Quantity) : nullptr;
        if (!line || !line->value) {
            out += text[i];
            continue;
        }
        out += "$" + roundedNumber(*line->value, 6) + "$";
        if (!line->unit.empty() && line->unit != "1") out += "\u2009" + printedUnit(line->unit);
        i = end;
    }
    return out;
}

} // namespace coulter
