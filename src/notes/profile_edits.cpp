#include "notes/profile_edits.h"

#include "figure/edits.h"
#include "figure/panel_grid.h"
#include "formula/base/text.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"
#include "formula/notation/names.h"
#include "formula/page/page.h"
#include "notes/note_settings.h"
#include "plots/handles.h"
#include "plots/page_edits.h"
#include "plots/plot_kind.h"

#include <cmath>
#include <set>

namespace coulter {
namespace {

/// Names that nothing has yet.
class FreeNames {
public:
    explicit FreeNames(const Page& page) : page_(page) {}
    std::string oneOf(std::string_view letters) {
        for (const char letter : letters) {
            if (take(std::string(1, letter))) return {letter};
        }
        return numbered(letters.front(), 1);
    }
    /// "x_1", or the next one that is free.
    std::string numbered(char letter, int from) {
        for (int i = from;; ++i) {
            const std::string name = letter + ("_" + std::to_string(i));
            if (take(name)) return name;
        }
    }

private:
    bool take(const std::string& name) {
        return !page_.defined.contains(name) && std::isnan(constantValue(name)) && taken_.insert(name).second;
    }
    const Page& page_;
    std::set<std::string> taken_;
};

bool isQuantity(const Page& page, const std::string& text) { return page.find(text, LineKind::Quantity) != nullptr; }

/// The quantity that a coordinate of the line's end is; a new line of the page if it is none yet.
std::string endOf(Document& document, const Page& page, FreeNames& names, const std::string& coordinate,
                  const std::string& variable, const Interval& interval) {
    if (isQuantity(page, coordinate)) return coordinate;
    const char letter = variable.empty() || variable[0] < 'A' || variable[0] > 'z' ? 'x' : variable[0];
    const std::string name = names.numbered(letter, 1), unit = page.unitOf(variable);
    std::string line = name + " = " + coordinate;
    double number = 0;
    if (isPlainNumber(coordinate, number) && number >= interval.low && number <= interval.high)
        line += ", from " + roundedNumber(interval.low, 12) + " to " + roundedNumber(interval.high, 12);
    document.page.push_back(line + (unit.empty() ? "" : ", unit " + unit));
    return name;
}

} // namespace

std::variant<Document, Problem> withProfile(const Document& document, const ItemPath& note, const ItemPath& plot,
                                            std::array<ScaleKind, 2> scales) {
    const Page page = readPage(document);
    Document changed = document;
    Note* line = noteAt(changed, note);
    const Plot* drawn = plotAt(document, plot);
    if (!line || !drawn || line->at.size() != 2 || word(line->settings, anchorSetting) != 0)
        return saying("A profile runs along a line between two places of the panel.", "draw a line over the field");
    const Plotted plotted = readPlotted(page, drawn->of, 2);
    if (!plotted.expression || plotted.variables.size() != 2 || plotted.condition || !plotted.cases.empty())
        return saying("There is no field of two variables under the line.", "draw it over a field of one case");
    for (const NotePlace& place : line->at) {
        if (place.size() != 2) return saying("A place of the plane has two coordinates.", "leave out the third one");
    }
    FreeNames names(page);
    const std::array<std::string, 2> runs{plotted.variables[0], plotted.variables[1]};
    // The note's coordinates go to the right and upwards, as the plot has its variables.
    const PanelReading reading = readPlots(page, document.panels[plot.panel], plot.panel, rulesOf(document.format));
    const Field* field = nullptr;
    for (const Drawn& each : reading.drawn) {
        if (each.path.index == plot.index) field = fieldOf(each);
    }
    if (!field || field->inSpace) return saying("There is no field in the plane under the line.", "draw it over one");
    std::array<std::array<std::string, 2>, 2> ends; // of the line, then by direction
    for (std::size_t end = 0; end < 2; ++end) {
        for (std::size_t k = 0; k < 2; ++k) {
            ends[end][k] = endOf(changed, page, names, line->at[end][k], field->variables[k], field->intervals[k]);
            line->at[end][k] = ends[end][k];
        }
    }
    // Of two directions with one unit the way is a length; else a share.
    const std::string unit = page.unitOf(field->variables[0]);
    const bool isLength =
        unit == page.unitOf(field->variables[1]) && scales[0] == ScaleKind::Linear && scales[1] == ScaleKind::Linear;
    const std::string way = names.oneOf("suw"), profile = names.oneOf("pqrg");
    std::string length;
    if (isLength) {
        length = names.numbered('l', 1);
        changed.page.push_back(length + " = sqrt((" + ends[1][0] + " - " + ends[0][0] + ")^2 + (" + ends[1][1] + " - " +
                               ends[0][1] + ")^2)" + (unit.empty() ? "" : ", unit " + unit));
    }
    const std::string share = isLength ? way + "/" + length : way;
    const auto along = [&](std::size_t k) {
        const std::string &from = ends[0][k], &to = ends[1][k];
        return scales[k] == ScaleKind::Logarithmic ? from + " (" + to + "/" + from + ")^(" + share + ")"
                                                   : from + " + (" + to + " - " + from + ") " + share;
    };
    // Called as it is if it is a function of just these variables, else by a name of its own.
    const Expr& body = *plotted.expression;
    const Line* called = body.kind == ExprKind::Call ? page.find(body.text, LineKind::Function) : nullptr;
    bool isPlain = called && body.below + body.above == 0 && body.orders.empty() && body.operands.size() == 2;
    std::vector<std::string> arguments;
    for (std::size_t i = 0; isPlain && i < 2; ++i) {
        const Expr& operand = *body.operands[i];
        isPlain = operand.kind == ExprKind::Name &&
                  (operand.text == field->variables[0] || operand.text == field->variables[1]);
        arguments.push_back(along(operand.text == field->variables[0] ? 0 : 1));
    }
    isPlain = isPlain && body.operands[0]->text != body.operands[1]->text;
    std::string function = spelledName(body.text);
    if (!isPlain) {
        function = names.oneOf("ghmn");
        arguments = {along(0), along(1)};
        changed.page.push_back(function + "(" + spelledName(field->variables[0]) + ", " +
                               spelledName(field->variables[1]) + ") = " + drawn->of);
    }
    changed.page.push_back(profile + "(" + way + ") = " + function + "(" + arguments[0] + ", " + arguments[1] + ")");
    changed.page.push_back(way + " in [0, " + (isLength ? length : "1") + "]" +
                           (isLength && !unit.empty() ? ", unit " + unit : ""));
    Panel added;
    added.plots.push_back(plotOf(profile + "(" + way + ")", "line"));
    return withPanelBeside(changed, note.panel, Side::Below, std::move(added));
}

void putNotePlace(Document& document, const ItemPath& note, std::size_t index, const NotePlace& place) {
    Note* found = noteAt(document, note);
    if (!found || index >= found->at.size()) return;
    NotePlace kept = place;
    for (std::size_t k = 0; k < std::min(place.size(), found->at[index].size()); ++k) {
        const std::string before = found->at[index][k];
        double number = 0;
        if (isPlainNumber(before, number)) continue;
        const Page page = readPage(document);
        const Line* quantity = page.find(before, LineKind::Quantity);
        const Expr* body = quantity ? quantity->body.get() : nullptr;
        if (body && body->kind == ExprKind::Negate) body = body->operands[0].get();
        if (!body || body->kind != ExprKind::Number) continue;
        if (auto changed = withQuantity(document, before, place[k])) {
            document = std::move(*changed);
            found = noteAt(document, note);
            kept[k] = before;
        }
    }
    found->at[index] = kept;
}

} // namespace coulter
