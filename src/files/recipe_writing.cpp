// A document as the text of its recipe. See recipe.h.
#include "figure/scale_settings.h"
#include "figure/sheet_settings.h"
#include "files/kind_settings.h"
#include "files/recipe.h"
#include "files/recipe_tables.h"
#include "files/settings_json.h"
#include "formula/base/text.h"
#include "notes/note_kind.h"
#include "plots/plot_kind.h"

#include <charconv>
#include <cmath>
#include <nlohmann/json.hpp>

namespace coulter {
namespace {

using Ordered = nlohmann::ordered_json;

Ordered writeEnd(const std::optional<double>& end) { return end ? Ordered(*end) : Ordered(nullptr); }

Ordered writeAxis(const Axis& axis, std::span<const Setting* const> settings = scaleSettings()) {
    Ordered out = Ordered::object();
    if (axis.label) out["label"] = *axis.label;
    if (axis.limits) out["limits"] = {writeEnd(axis.limits.low), writeEnd(axis.limits.high)};
    if (axis.scale) out["scale"] = scaleNames[static_cast<std::size_t>(*axis.scale)];
    writeSettings(out, axis.settings, settings);
    return out;
}

Ordered writePlot(const Plot& plot) {
    Ordered out = {{"kind", plot.kind}, {"of", plot.of}};
    if (plot.name) out["name"] = *plot.name;
    if (plot.scale > 0) out["scale"] = plot.scale;
    if (plot.order != 0) out["order"] = plot.order;
    if (const PlotKind* kind = findPlotKind(plot.kind)) {
        writeSettings(out, plot.settings, settingsOf(*kind, false));
        Ordered style = Ordered::object();
        writeSettings(style, plot.settings, settingsOf(*kind, true));
        if (!style.empty()) out["style"] = style;
    }
    if (!plot.members.empty()) out["members"] = Ordered::array();
    for (const Member& member : plot.members) {
        Ordered one = Ordered::object(), style = Ordered::object();
        if (member.name) one["name"] = *member.name;
        if (const PlotKind* kind = findPlotKind(plot.kind))
            writeSettings(style, member.settings, settingsOf(*kind, true));
        if (!style.empty()) one["style"] = style;
        out["members"].push_back(one);
    }
    if (!plot.finer.empty()) out["finer"] = Ordered::array();
    for (const FinerStretch& finer : plot.finer)
        out["finer"].push_back({{"from", finer.low}, {"to", finer.high}, {"times", finer.times}});
    return out;
}

/// A number where it is spelled as one is written, else text.
Ordered writeCoordinate(const std::string& text) {
    double value = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    const bool isNumber = error == std::errc{} && end == text.data() + text.size() && std::isfinite(value);
    return isNumber && shortestNumber(value) == text ? Ordered(value) : Ordered(text);
}

Ordered writeNote(const Note& note) {
    Ordered out = {{"kind", note.kind}, {"at", Ordered::array()}};
    for (const NotePlace& place : note.at) {
        Ordered one = Ordered::array();
        for (const std::string& coordinate : place) one.push_back(writeCoordinate(coordinate));
        out["at"].push_back(one);
    }
    if (!note.words.empty()) out["words"] = note.words;
    if (const NoteKind* kind = findNoteKind(note.kind)) {
        writeSettings(out, note.settings, settingsOf(*kind, false));
        Ordered style = Ordered::object();
        writeSettings(style, note.settings, settingsOf(*kind, true));
        if (!style.empty()) out["style"] = style;
    }
    return out;
}

Ordered writePanel(const Panel& panel) {
    Ordered out = Ordered::object();
    if (panel.cell) {
        const Cell& cell = *panel.cell;
        out["cell"] = {{"row", cell.row + 1}, {"column", cell.column + 1}};
        if (cell.rows != 1) out["cell"]["rows"] = cell.rows;
        if (cell.columns != 1) out["cell"]["columns"] = cell.columns;
    }
    if (!panel.title.empty()) out["title"] = panel.title;
    if (const Ordered x = writeAxis(panel.x); !x.empty()) out["x"] = x;
    if (const Ordered y = writeAxis(panel.y); !y.empty()) out["y"] = y;
    for (const Axis& axis : panel.further) out["further"].push_back(writeAxis(axis));
    if (const Ordered z = writeAxis(panel.z, uprightScaleSettings()); !z.empty()) out["z"] = z;
    if (const Ordered colour = writeAxis(panel.colour, colourScaleSettings()); !colour.empty()) out["colour"] = colour;
    if (panel.equalScales) out["equal scales"] = *panel.equalScales;
    if (panel.view != View{}) {
        out["view"] = {{"azimuth", panel.view.azimuth}, {"elevation", panel.view.elevation}};
        if (panel.view.distance != 0) out["view"]["distance"] = panel.view.distance;
        if (panel.view.height != 1) out["view"]["height"] = panel.view.height;
    }
    Ordered angle = Ordered::object();
    writeSettings(angle, panel.angle, angleSettings());
    if (!angle.empty()) out["angle"] = angle;
    Ordered legend = Ordered::object();
    if (panel.legend.place != LegendPlace::Automatic)
        legend["place"] = legendPlaceNames[static_cast<std::size_t>(panel.legend.place)];
    if (panel.legend.at) legend["at"] = {(*panel.legend.at)[0], (*panel.legend.at)[1]};
    if (panel.legend.columns > 0) legend["columns"] = panel.legend.columns;
    if (!legend.empty()) out["legend"] = legend;
    out["plots"] = Ordered::array();
    for (const Plot& plot : panel.plots) out["plots"].push_back(writePlot(plot));
    for (const Note& note : panel.notes) out["notes"].push_back(writeNote(note));
    return out;
}

} // namespace

std::string writeRecipe(const Document& document) {
    Ordered out;
    out["coulter"] = document.format;
    out["page"] = document.page;
    const Sheet usual;
    Ordered sheet = {{"width", document.sheet.width}, {"height", document.sheet.height}};
    if (document.sheet.textSize != usual.textSize) sheet["text size"] = document.sheet.textSize;
    if (document.sheet.tolerance != usual.tolerance) sheet["tolerance"] = document.sheet.tolerance;
    if (document.sheet.resolution != usual.resolution) sheet["resolution"] = document.sheet.resolution;
    if (!document.sheet.rowHeights.empty()) sheet["row heights"] = document.sheet.rowHeights;
    if (!document.sheet.columnWidths.empty()) sheet["column widths"] = document.sheet.columnWidths;
    writeSettings(sheet, document.sheet.settings, sheetSettings());
    out["sheet"] = sheet;
    out["panels"] = Ordered::array();
    for (const Panel& panel : document.panels) out["panels"].push_back(writePanel(panel));
    std::string text = out.dump(2, ' ', false, Ordered::error_handler_t::replace);
    // Numbers stand last, where they are in nobody's way.
    if (const std::string tables = writeTables(document); !tables.empty())
        text = text.substr(0, text.size() - 2) + ",\n" + tables + "\n}";
    return text + "\n";
}

} // namespace coulter
