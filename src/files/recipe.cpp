#include "files/recipe.h"

#include "figure/scale_settings.h"
#include "files/json_reader.h"
#include "formula/page.h"
#include "formula/plotted.h"
#include "plots/plot_kind.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace coulter {
namespace {

using Ordered = nlohmann::ordered_json;
using Json = JsonReader::Json;

constexpr std::size_t mostPlots = 200;
constexpr std::size_t mostFinerStretches = 100;

Ordered writeValue(const SettingValue& value) {
    if (const Colour* colour = std::get_if<Colour>(&value)) return spelled(*colour);
    if (const bool* on = std::get_if<bool>(&value)) return *on;
    if (const double* number = std::get_if<double>(&value)) return *number;
    return std::get<std::string>(value);
}

/// Settings that differ from the usual ones, in the order of their table.
void writeSettings(Ordered& out, const Settings& settings, std::span<const Setting* const> table) {
    for (const Setting* setting : table) {
        const auto at = settings.find(setting->key);
        if (at != settings.end()) out[setting->key] = writeValue(at->second);
    }
}

Ordered writeEnd(const std::optional<double>& end) { return end ? Ordered(*end) : Ordered(nullptr); }

Ordered writeAxis(const Axis& axis, std::span<const Setting* const> settings = scaleSettings()) {
    Ordered out = Ordered::object();
    if (axis.label) out["label"] = *axis.label;
    if (axis.limits) out["limits"] = {writeEnd(axis.limits.low), writeEnd(axis.limits.high)};
    if (axis.scale) out["scale"] = scaleNames[static_cast<std::size_t>(*axis.scale)];
    writeSettings(out, axis.settings, settings);
    return out;
}

/// The settings of a kind that stand in one place of a plot's recipe.
std::vector<const Setting*> settingsOf(const PlotKind& kind, bool style) {
    std::vector<const Setting*> some;
    std::ranges::copy_if(kind.settings, std::back_inserter(some),
                         [style](const Setting* each) { return each->isStyle == style; });
    return some;
}

Ordered writePlot(const Plot& plot) {
    Ordered out = {{"kind", plot.kind}, {"of", plot.of}};
    if (plot.name) out["name"] = *plot.name;
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

Ordered writePanel(const Panel& panel) {
    Ordered out = Ordered::object();
    if (!panel.title.empty()) out["title"] = panel.title;
    if (const Ordered x = writeAxis(panel.x); !x.empty()) out["x"] = x;
    if (const Ordered y = writeAxis(panel.y); !y.empty()) out["y"] = y;
    if (const Ordered z = writeAxis(panel.z); !z.empty()) out["z"] = z;
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
    if (!legend.empty()) out["legend"] = legend;
    out["plots"] = Ordered::array();
    for (const Plot& plot : panel.plots) out["plots"].push_back(writePlot(plot));
    return out;
}

std::optional<SettingValue> readValue(JsonReader& reader, const Json& parent, const std::string& path,
                                      const Setting& setting) {
    const char* key = setting.key;
    switch (setting.type) {
    case SettingType::Truth: return reader.truth(parent, path, key);
    case SettingType::Number: return reader.number(parent, path, key, setting.least, setting.greatest);
    case SettingType::Word:
        if (const auto word = reader.word(parent, path, key, setting.words)) return std::string(setting.words[*word]);
        return std::nullopt;
    case SettingType::Colour: {
        const auto text = reader.text(parent, path, key);
        if (!text) return std::nullopt;
        const auto colour = readColour(*text);
        if (!colour) reader.refuse(joined(path, key), "is not a colour.", "write it as \"#rrggbb\"");
        return colour;
    }
    case SettingType::Formula:
    case SettingType::Text:
    case SettingType::Variable: break;
    }
    return reader.text(parent, path, key);
}

void readSettings(JsonReader& reader, const Json& parent, const std::string& path, Settings& settings,
                  std::span<const Setting* const> table) {
    for (const Setting* setting : table) set(settings, *setting, readValue(reader, parent, path, *setting));
}

/// Keys beside those of a table.
std::vector<const char*> withKeys(std::vector<const char*> known, std::span<const Setting* const> table) {
    for (const Setting* setting : table) known.push_back(setting->key);
    return known;
}

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

Axis readAxis(JsonReader& reader, const Json& parent, const std::string& path, const char* key,
              std::span<const Setting* const> settings = scaleSettings()) {
    Axis axis;
    const auto at = parent.find(key);
    if (at == parent.end()) return axis;
    const std::string here = joined(path, key);
    if (!reader.isObject(*at, here)) return axis;
    reader.keys(*at, here, withKeys({"label", "limits", "scale"}, settings));
    if (const auto scale = reader.word(*at, here, "scale", scaleNames)) axis.scale = static_cast<ScaleKind>(*scale);
    axis.label = reader.text(*at, here, "label");
    axis.limits = readLimits(reader, *at, here, axis.scale == ScaleKind::Logarithmic);
    readSettings(reader, *at, here, axis.settings, settings);
    return axis;
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
            if (auto own = readValue(reader, *style, joined(path, "style"), *setting))
                member.settings[setting->key] = *own;
        }
    }
    return member;
}

Plot readPlot(JsonReader& reader, const Json& value, const std::string& path) {
    Plot plot;
    if (!reader.isObject(value, path)) return plot;
    std::vector<const char*> names;
    for (const PlotKind* kind : plotKinds()) names.push_back(kind->name);
    const PlotKind& kind = *plotKinds()[reader.word(value, path, "kind", names).value_or(0)];
    plot.kind = kind.name;
    std::vector<const char*> keys = withKeys({"kind", "of", "name"}, settingsOf(kind, false));
    keys.insert(keys.end(), {"style", "members", "finer"});
    reader.keys(value, path, keys);
    readSettings(reader, value, path, plot.settings, settingsOf(kind, false));
    const auto of = reader.text(value, path, "of");
    if (!of) reader.refuse(joined(path, "of"), "is missing: it says what is drawn.", "write \"of\": \"f(x)\"");
    plot.of = of.value_or("");
    plot.name = reader.text(value, path, "name");
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

Panel readPanel(JsonReader& reader, const Json& value, const std::string& path) {
    Panel panel;
    if (!reader.isObject(value, path)) return panel;
    reader.keys(value, path, {"title", "x", "y", "z", "colour", "equal scales", "view", "angle", "legend", "plots"});
    panel.title = reader.text(value, path, "title").value_or("");
    panel.x = readAxis(reader, value, path, "x");
    panel.y = readAxis(reader, value, path, "y");
    panel.z = readAxis(reader, value, path, "z");
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
        reader.keys(*legend, here, {"place", "at"});
        panel.legend.place =
            static_cast<LegendPlace>(reader.word(*legend, here, "place", legendPlaceNames).value_or(0));
        if (const auto at = reader.pair(*legend, here, "at")) panel.legend.at = {at->first, at->second};
    }
    if (const Json* plots = reader.list(value, path, "plots", mostPlots)) {
        for (std::size_t i = 0; i < plots->size(); ++i) {
            panel.plots.push_back(readPlot(reader, (*plots)[i], joined(path, "plots") + "[" + std::to_string(i) + "]"));
        }
    }
    return panel;
}

Sheet readSheet(JsonReader& reader, const Json& root) {
    Sheet sheet;
    const auto at = root.find("sheet");
    if (at == root.end() || !reader.isObject(*at, "sheet")) return sheet;
    reader.keys(*at, "sheet", {"width", "height", "text size", "tolerance", "resolution"});
    sheet.width = reader.number(*at, "sheet", "width", leastSheet, greatestSheet).value_or(sheet.width);
    sheet.height = reader.number(*at, "sheet", "height", leastSheet, greatestSheet).value_or(sheet.height);
    sheet.textSize = reader.number(*at, "sheet", "text size", 2, 100).value_or(sheet.textSize);
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
    reader.keys(root, "", {"coulter", "page", "sheet", "panels"});
    if (const Json* page = reader.list(root, "", "page", longestPage)) {
        for (std::size_t i = 0; i < page->size(); ++i) {
            if (!(*page)[i].is_string())
                reader.refuse("page[" + std::to_string(i) + "]", "must be text in quotation marks.");
            else
                document.page.push_back((*page)[i].get<std::string>());
        }
    }
    document.sheet = readSheet(reader, root);
    if (const Json* panels = reader.list(root, "", "panels", 1)) {
        document.panels.clear();
        for (std::size_t i = 0; i < panels->size(); ++i)
            document.panels.push_back(readPanel(reader, (*panels)[i], "panels[" + std::to_string(i) + "]"));
        if (panels->empty()) reader.refuse("panels", "is empty; a sheet has one panel.");
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

std::string writeRecipe(const Document& document) {
    Ordered out;
    out["coulter"] = document.format;
    out["page"] = document.page;
    const Sheet usual;
    Ordered sheet = {{"width", document.sheet.width}, {"height", document.sheet.height}};
    if (document.sheet.textSize != usual.textSize) sheet["text size"] = document.sheet.textSize;
    if (document.sheet.tolerance != usual.tolerance) sheet["tolerance"] = document.sheet.tolerance;
    if (document.sheet.resolution != usual.resolution) sheet["resolution"] = document.sheet.resolution;
    out["sheet"] = sheet;
    out["panels"] = Ordered::array();
    for (const Panel& panel : document.panels) out["panels"].push_back(writePanel(panel));
    return out.dump(2, ' ', false, Ordered::error_handler_t::replace) + "\n";
}

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
