#include "files/recipe.h"

#include "figure/panel_grid.h"
#include "figure/scale_settings.h"
#include "figure/sheet_settings.h"
#include "files/json_reader.h"
#include "files/kind_settings.h"
#include "files/recipe_tables.h"
#include "files/settings_json.h"
#include "formula/base/text.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"
#include "formula/page/page.h"
#include "notes/note_kind.h"
#include "plots/plot_kind.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace coulter {
namespace {

using Json = JsonReader::Json;

constexpr std::size_t mostPlots = 200, mostNotes = 500;
constexpr std::size_t mostFinerStretches = 100;

/// Both ends of a scale; null is one that was not set.
AxisLimits readLimits(JsonReader& reader, const Json& axis, const std::string& path, bool logarithmic) {
    AxisLimits limits;
    const auto at = axis.find("limits");
    if (at == axis.end()) return limits;
    const std::string here = joined(path, "limits");
    const auto isEnd = [](const Json& each) { return each.is_null() || each.is_number(); };
    if (!at->is_array() || at->size() != 2 || !isEnd((*at)[0]) || !isEnd((*at)[1])) {
        reader.refuse(here, "must be two numbers in square brackets.", "write null for an end that is automatic");
        return limits;
    }
    if (!(*at)[0].is_null()) limits.low = (*at)[0].get<double>();
    if (!(*at)[1].is_null()) limits.high = (*at)[1].get<double>();
    const double low = limits.low.value_or(limits.high.value_or(1) - 1), high = limits.high.value_or(low + 1);
    if (!std::isfinite(low) || !std::isfinite(high) || (limits.both() && !(low < high && std::isfinite(high - low))))
        reader.refuse(here, "must be two finite numbers, the smaller one first.");
    if (logarithmic && ((limits.low && !(*limits.low > 0)) || (limits.high && !(*limits.high > 0))))
        reader.refuse(here, "must be positive on a logarithmic scale.", "begin above zero");
    return limits;
}

Axis readAxis(JsonReader& reader, const Json& value, const std::string& path,
              std::span<const Setting* const> settings) {
    Axis axis;
    if (!reader.isObject(value, path)) return axis;
    reader.keys(value, path, withKeys({"label", "limits", "scale"}, settings));
    if (const auto scale = reader.word(value, path, "scale", scaleNames)) axis.scale = static_cast<ScaleKind>(*scale);
    axis.label = reader.text(value, path, "label");
    axis.limits = readLimits(reader, value, path, axis.scale == ScaleKind::Logarithmic);
    readSettings(reader, value, path, axis.settings, settings);
    return axis;
}

Axis readAxis(JsonReader& reader, const Json& parent, const std::string& path, const char* key,
              std::span<const Setting* const> settings = scaleSettings()) {
    const auto at = parent.find(key);
    return at == parent.end() ? Axis{} : readAxis(reader, *at, joined(path, key), settings);
}

FinerStretch readFiner(JsonReader& reader, const Json& value, const std::string& path) {
    FinerStretch finer;
    if (!reader.isObject(value, path)) return finer;
    reader.keys(value, path, {"from", "to", "times"});
    const auto from = reader.number(value, path, "from", -1e300, 1e300),
               to = reader.number(value, path, "to", -1e300, 1e300);
    if (!from || !to || !(*from < *to))
        reader.refuse(path, "needs two numbers “from” and “to”, the smaller one first.");
    finer.low = from.value_or(0);
    finer.high = to.value_or(1);
    finer.times = reader.number(value, path, "times", 1, mostTimesFiner).value_or(finer.times);
    return finer;
}

Member readMember(JsonReader& reader, const Json& value, const std::string& path, const PlotKind& kind) {
    Member member;
    if (!reader.isObject(value, path)) return member;
    reader.keys(value, path, {"name", "style"});
    member.name = reader.text(value, path, "name");
    const auto style = value.find("style");
    if (style != value.end() && reader.isObject(*style, joined(path, "style"))) {
        reader.keys(*style, joined(path, "style"), withKeys({}, settingsOf(kind, true)));
        // What is usual for a plot is something of its own for a member.
        for (const Setting* setting : settingsOf(kind, true)) {
            if (auto own = readSetting(reader, *style, joined(path, "style"), *setting))
                member.settings[setting->key] = *own;
        }
    }
    return member;
}

std::optional<int> wholeNumber(JsonReader& reader, const Json& parent, const std::string& path, const char* key,
                               int least, int greatest) {
    const auto number = reader.number(parent, path, key, least, greatest);
    if (!number) return std::nullopt;
    if (*number != std::floor(*number)) reader.refuse(joined(path, key), "must be a whole number.");
    return static_cast<int>(*number);
}

Cell readCell(JsonReader& reader, const Json& value, const std::string& path) {
    Cell cell;
    if (!reader.isObject(value, path)) return cell;
    reader.keys(value, path, {"row", "column", "rows", "columns"});
    cell.row = wholeNumber(reader, value, path, "row", 1, mostCells).value_or(1) - 1;
    cell.column = wholeNumber(reader, value, path, "column", 1, mostCells).value_or(1) - 1;
    cell.rows = wholeNumber(reader, value, path, "rows", 1, mostCells - cell.row).value_or(1);
    cell.columns = wholeNumber(reader, value, path, "columns", 1, mostCells - cell.column).value_or(1);
    return cell;
}

Plot readPlot(JsonReader& reader, const Json& value, const std::string& path) {
    Plot plot;
    if (!reader.isObject(value, path)) return plot;
    std::vector<const char*> names;
    for (const PlotKind* kind : plotKinds()) names.push_back(kind->name);
    const PlotKind& kind = *plotKinds()[reader.word(value, path, "kind", names).value_or(0)];
    plot.kind = kind.name;
    std::vector<const char*> keys = withKeys({"kind", "of", "name", "scale"}, settingsOf(kind, false));
    keys.insert(keys.end(), {"style", "members", "finer", "order"});
    reader.keys(value, path, keys);
    readSettings(reader, value, path, plot.settings, settingsOf(kind, false));
    const auto of = reader.text(value, path, "of");
    if (!of) reader.refuse(joined(path, "of"), "is missing: it says what is drawn.", "write \"of\": \"f(x)\"");
    plot.of = of.value_or("");
    plot.name = reader.text(value, path, "name");
    plot.scale = wholeNumber(reader, value, path, "scale", 0, mostFurtherScales).value_or(0);
    plot.order = wholeNumber(reader, value, path, "order", -greatestOrder, greatestOrder).value_or(0);
    if (const Json* finer = reader.list(value, path, "finer", mostFinerStretches)) {
        for (std::size_t i = 0; i < finer->size(); ++i)
            plot.finer.push_back(readFiner(reader, (*finer)[i], joined(path, "finer") + "[" + std::to_string(i) + "]"));
    }
    if (const Json* members = reader.list(value, path, "members", mostCases)) {
        for (std::size_t i = 0; i < members->size(); ++i)
            plot.members.push_back(
                readMember(reader, (*members)[i], joined(path, "members") + "[" + std::to_string(i) + "]", kind));
        trimMembers(plot);
    }
    const auto style = value.find("style");
    if (style != value.end() && reader.isObject(*style, joined(path, "style"))) {
        reader.keys(*style, joined(path, "style"), withKeys({}, settingsOf(kind, true)));
        readSettings(reader, *style, joined(path, "style"), plot.settings, settingsOf(kind, true));
    }
    return plot;
}

/// Two coordinates or three, each a number or a formula.
NotePlace readPlace(JsonReader& reader, const Json& value, const std::string& path) {
    NotePlace place;
    if (!value.is_array() || value.size() < 2 || value.size() > 3) {
        reader.refuse(path, "must be two coordinates in square brackets, or three in space.");
        return place;
    }
    for (const Json& coordinate : value) {
        if (coordinate.is_number())
            place.push_back(shortestNumber(coordinate.get<double>()));
        else if (coordinate.is_string())
            place.push_back(coordinate.get<std::string>());
        else
            reader.refuse(path, "must have numbers as coordinates, or formulas in quotation marks.");
    }
    return place;
}

Note readNote(JsonReader& reader, const Json& value, const std::string& path) {
    Note note;
    if (!reader.isObject(value, path)) return note;
    std::vector<const char*> names;
    for (const NoteKind* kind : noteKinds()) names.push_back(kind->name);
    const NoteKind& kind = *noteKinds()[reader.word(value, path, "kind", names).value_or(0)];
    note.kind = kind.name;
    std::vector<const char*> keys = withKeys({"kind", "at", "words"}, settingsOf(kind, false));
    keys.push_back("style");
    reader.keys(value, path, keys);
    readSettings(reader, value, path, note.settings, settingsOf(kind, false));
    note.words = reader.text(value, path, "words").value_or("");
    const Json* at = reader.list(value, path, "at", kind.mostPlaces);
    for (std::size_t i = 0; at && i < at->size(); ++i)
        note.at.push_back(readPlace(reader, (*at)[i], joined(path, "at") + "[" + std::to_string(i) + "]"));
    if (note.at.size() < kind.leastPlaces)
        reader.refuse(joined(path, "at"), "has " + std::to_string(note.at.size()) + " places, and the note “" +
                                              kind.name + "” needs " + std::to_string(kind.leastPlaces) + ".");
    const auto style = value.find("style");
    if (style != value.end() && reader.isObject(*style, joined(path, "style"))) {
        reader.keys(*style, joined(path, "style"), withKeys({}, settingsOf(kind, true)));
        readSettings(reader, *style, joined(path, "style"), note.settings, settingsOf(kind, true));
    }
    return note;
}

Panel readPanel(JsonReader& reader, const Json& value, const std::string& path) {
    Panel panel;
    if (!reader.isObject(value, path)) return panel;
    reader.keys(value, path,
                {"cell", "title", "x", "y", "further", "z", "colour", "equal scales", "view", "angle", "legend",
                 "plots", "notes"});
    if (const auto cell = value.find("cell"); cell != value.end())
        panel.cell = readCell(reader, *cell, joined(path, "cell"));
    if (const Json* further = reader.list(value, path, "further", mostFurtherScales)) {
        for (std::size_t i = 0; i < further->size(); ++i)
            panel.further.push_back(readAxis(reader, (*further)[i],
                                             joined(path, "further") + "[" + std::to_string(i) + "]", scaleSettings()));
    }
    panel.title = reader.text(value, path, "title").value_or("");
    panel.x = readAxis(reader, value, path, "x");
    panel.y = readAxis(reader, value, path, "y");
    panel.z = readAxis(reader, value, path, "z", uprightScaleSettings());
    panel.colour = readAxis(reader, value, path, "colour", colourScaleSettings());
    if (const auto angle = value.find("angle");
        angle != value.end() && reader.isObject(*angle, joined(path, "angle"))) {
        reader.keys(*angle, joined(path, "angle"), withKeys({}, angleSettings()));
        readSettings(reader, *angle, joined(path, "angle"), panel.angle, angleSettings());
    }
    panel.equalScales = reader.truth(value, path, "equal scales");
    if (const auto view = value.find("view"); view != value.end() && reader.isObject(*view, joined(path, "view"))) {
        const std::string here = joined(path, "view");
        reader.keys(*view, here, {"azimuth", "elevation", "distance", "height"});
        panel.view.distance = reader.number(*view, here, "distance", 0, greatestDistance).value_or(0);
        if (panel.view.distance > 0 && panel.view.distance < leastDistance)
            reader.refuse(here, "has an eye within the box: a distance is 0 (none) or at least 0.6 diagonals.");
        panel.view.height = reader.number(*view, here, "height", leastHeight, greatestHeight).value_or(1);
        panel.view.azimuth = reader.number(*view, here, "azimuth", -360, 360).value_or(panel.view.azimuth);
        panel.view.elevation = reader.number(*view, here, "elevation", -90, 90).value_or(panel.view.elevation);
    }
    if (const auto legend = value.find("legend");
        legend != value.end() && reader.isObject(*legend, joined(path, "legend"))) {
        const std::string here = joined(path, "legend");
        reader.keys(*legend, here, {"place", "at", "columns"});
        panel.legend.columns = wholeNumber(reader, *legend, here, "columns", 0, mostLegendColumns).value_or(0);
        panel.legend.place =
            static_cast<LegendPlace>(reader.word(*legend, here, "place", legendPlaceNames).value_or(0));
        if (const auto at = reader.pair(*legend, here, "at")) panel.legend.at = {at->first, at->second};
    }
    if (const Json* plots = reader.list(value, path, "plots", mostPlots)) {
        for (std::size_t i = 0; i < plots->size(); ++i) {
            const std::string here = joined(path, "plots") + "[" + std::to_string(i) + "]";
            panel.plots.push_back(readPlot(reader, (*plots)[i], here));
            if (panel.plots.back().scale > panel.further.size())
                reader.refuse(joined(here, "scale"),
                              "is " + std::to_string(panel.plots.back().scale) + ", and the panel has " +
                                  std::to_string(panel.further.size()) + " further scales.",
                              "add one to “further”");
        }
    }
    if (const Json* notes = reader.list(value, path, "notes", mostNotes)) {
        for (std::size_t i = 0; i < notes->size(); ++i)
            panel.notes.push_back(readNote(reader, (*notes)[i], joined(path, "notes") + "[" + std::to_string(i) + "]"));
    }
    return panel;
}

/// Positive numbers of a list; those at its end that are usual mean nothing.
std::vector<double> readWeights(JsonReader& reader, const Json& sheet, const char* key) {
    std::vector<double> weights;
    const Json* list = reader.list(sheet, "sheet", key, mostCells);
    for (std::size_t i = 0; list && i < list->size(); ++i) {
        const bool good = (*list)[i].is_number() && (*list)[i].get<double>() >= leastWeight &&
                          (*list)[i].get<double>() <= greatestWeight;
        if (!good)
            reader.refuse("sheet." + std::string(key) + "[" + std::to_string(i) + "]",
                          "must be a number from 0.05 to 100: how many times as large as a usual one.");
        weights.push_back(good ? (*list)[i].get<double>() : 1);
    }
    while (!weights.empty() && weights.back() == 1) weights.pop_back();
    return weights;
}

Sheet readSheet(JsonReader& reader, const Json& root) {
    Sheet sheet;
    const auto at = root.find("sheet");
    if (at == root.end() || !reader.isObject(*at, "sheet")) return sheet;
    reader.keys(*at, "sheet",
                withKeys({"width", "height", "text size", "tolerance", "resolution", "row heights", "column widths"},
                         sheetSettings()));
    sheet.rowHeights = readWeights(reader, *at, "row heights");
    sheet.columnWidths = readWeights(reader, *at, "column widths");
    readSettings(reader, *at, "sheet", sheet.settings, sheetSettings());
    sheet.width = reader.number(*at, "sheet", "width", leastSheet, greatestSheet).value_or(sheet.width);
    sheet.height = reader.number(*at, "sheet", "height", leastSheet, greatestSheet).value_or(sheet.height);
    sheet.textSize = reader.number(*at, "sheet", "text size", leastLetters, greatestLetters).value_or(sheet.textSize);
    sheet.tolerance = reader.number(*at, "sheet", "tolerance", 0.001, 10).value_or(sheet.tolerance);
    sheet.resolution =
        reader.number(*at, "sheet", "resolution", leastResolution, greatestResolution).value_or(sheet.resolution);
    return sheet;
}

Document readDocument(JsonReader& reader, const Json& root) {
    Document document;
    if (!reader.isObject(root, "")) return document;
    const auto version = root.find("coulter");
    if (version == root.end() || !version->is_number_integer()) {
        reader.refuse("", "is not one of Coulter's: it does not start with the key “coulter” and a format number.");
        return document;
    }
    if (*version < 1 || *version > recipeVersion) {
        reader.refuse("",
                      "has format " + version->dump() + "; this program reads formats up to " +
                          std::to_string(recipeVersion) + ".",
                      "open it with a newer Coulter");
        return document;
    }
    document.format = version->get<int>();
    reader.keys(root, "", {"coulter", "page", "sheet", "panels", "tables"});
    if (const Json* page = reader.list(root, "", "page", longestPage)) {
        for (std::size_t i = 0; i < page->size(); ++i) {
            if (!(*page)[i].is_string())
                reader.refuse("page[" + std::to_string(i) + "]", "must be text in quotation marks.");
            else
                document.page.push_back((*page)[i].get<std::string>());
        }
    }
    document.tables = readTables(reader, root);
    document.sheet = readSheet(reader, root);
    if (const Json* panels = reader.list(root, "", "panels", mostPanels)) {
        document.panels.clear();
        for (std::size_t i = 0; i < panels->size(); ++i)
            document.panels.push_back(readPanel(reader, (*panels)[i], "panels[" + std::to_string(i) + "]"));
        if (panels->empty()) reader.refuse("panels", "is empty; a sheet has a panel at least.");
        if (const auto two = overlapping(cellsOf(document)))
            reader.refuse("panels[" + std::to_string(two->second) + "]",
                          "lies over panels[" + std::to_string(two->first) + "].",
                          "give it another row or column in its “cell”");
    }
    return document;
}

Problem damaged(std::string_view text, std::size_t byte, const std::string& what) {
    std::size_t line = 1, column = 1;
    for (std::size_t i = 0; i + 1 < byte && i < text.size(); ++i) {
        ++column;
        if (text[i] == '\n') {
            ++line;
            column = 1;
        }
    }
    Problem problem;
    problem.sentence =
        "The recipe is damaged at line " + std::to_string(line) + ", column " + std::to_string(column) + ": " + what;
    problem.suggestion = "restore it from a copy, or from an exported figure";
    return problem;
}

} // namespace

RecipeRead readRecipe(std::string_view text) {
    // JSON allows a key twice and keeps the last; a recipe in which that happened was not meant so.
    std::vector<std::set<std::string>> seen;
    std::string twice;
    const Json::parser_callback_t watch = [&](int, Json::parse_event_t event, Json& parsed) {
        if (event == Json::parse_event_t::object_start) seen.emplace_back();
        if (event == Json::parse_event_t::object_end && !seen.empty()) seen.pop_back();
        if (event == Json::parse_event_t::key && !seen.back().insert(parsed.get<std::string>()).second)
            twice = parsed.get<std::string>();
        return true;
    };
    try {
        const Json root = Json::parse(text, watch);
        JsonReader reader;
        if (!twice.empty()) reader.refuse(twice, "stands twice in the same place.", "remove one of the two");
        Document document = readDocument(reader, root);
        if (reader.problem()) return {std::nullopt, *reader.problem()};
        return {std::move(document), {}};
    } catch (const Json::parse_error& error) {
        const bool early = error.byte > text.size();
        return {std::nullopt, damaged(text, error.byte, early ? "it ends too early." : "this is not JSON.")};
    } catch (const Json::exception&) {
        return {std::nullopt, damaged(text, 1, "it cannot be read.")};
    }
}

} // namespace coulter
