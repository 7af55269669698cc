#include "files/plot_schema.h"

#include "figure/scale_settings.h"
#include "figure/sheet_settings.h"
#include "notes/note_kind.h"
#include "plots/plot_kind.h"

namespace coulter {
namespace {

using OrderedJson = nlohmann::ordered_json;

OrderedJson schemaOf(const Setting& setting) {
    OrderedJson out;
    switch (setting.type) {
    case SettingType::Truth:
        out["type"] = "boolean";
        out["default"] = std::get<bool>(setting.usual);
        break;
    case SettingType::Number:
        out["type"] = "number";
        out["minimum"] = setting.least;
        out["maximum"] = setting.greatest;
        out["default"] = std::get<double>(setting.usual);
        break;
    case SettingType::Word:
        for (const char* word : setting.words) out["enum"].push_back(word);
        out["default"] = std::get<std::string>(setting.usual);
        break;
    case SettingType::Text:
    case SettingType::Formula:
        out["type"] = "string";
        out["default"] = std::get<std::string>(setting.usual);
        break;
    case SettingType::Variable: out["type"] = "string"; break;
    case SettingType::Colour:
        out["type"] = "string";
        out["pattern"] = "^#[0-9a-fA-F]{6}$";
        break;
    }
    out["description"] = std::string(setting.meaning) + (*setting.unit ? ", in " + std::string(setting.unit) : "");
    return out;
}

OrderedJson schemaOf(const PlotKind& kind) {
    OrderedJson style = {{"type", "object"}, {"additionalProperties", false}, {"properties", OrderedJson::object()}};
    OrderedJson properties = {
        {"kind", {{"const", kind.name}, {"description", kind.meaning}}},
        {"of",
         {{"type", "string"}, {"description", "what is drawn, in the notation: f(x), or T(z, t) for z in {0.1, 0.5}"}}},
        {"name",
         {{"type", "string"}, {"description", "legend entry; absent: derived from what is drawn; empty: none"}}}};
    for (const Setting* setting : kind.settings)
        (setting->isStyle ? style["properties"] : properties)[setting->key] = schemaOf(*setting);
    properties["style"] = style;
    properties["members"] = {
        {"type", "array"},
        {"maxItems", mostCases},
        {"description", "of a family: what each member has to itself, in the order of the cases"},
        {"items",
         {{"type", "object"},
          {"additionalProperties", false},
          {"properties",
           {{"name", {{"type", "string"}, {"description", "legend entry; empty: none"}}}, {"style", style}}}}}};
    properties["scale"] = {{"type", "integer"},
                           {"minimum", 0},
                           {"maximum", mostFurtherScales},
                           {"default", 0},
                           {"description", "the vertical scale it lies on: 0 the left one, 1 the first of “further”"}};
    properties["order"] = {
        {"type", "integer"},
        {"minimum", -greatestOrder},
        {"maximum", greatestOrder},
        {"default", 0},
        {"description", "of its entries in the legend: lower ones first, equal ones as they are drawn"}};
    properties["finer"] = {{"$ref", "#/$defs/finer"}};
    return {{"type", "object"}, {"additionalProperties", false}, {"properties", properties}};
}

OrderedJson schemaOf(const NoteKind& kind) {
    OrderedJson style = {{"type", "object"}, {"additionalProperties", false}, {"properties", OrderedJson::object()}};
    OrderedJson properties = {
        {"kind", {{"const", kind.name}, {"description", kind.meaning}}},
        {"at",
         {{"type", "array"},
          {"minItems", kind.leastPlaces},
          {"maxItems", kind.mostPlaces},
          {"items", {{"$ref", "#/$defs/place"}}}}},
        {"words", {{"type", "string"}, {"description", "formulas stand between $, values of the page in braces"}}}};
    for (const Setting* setting : kind.settings)
        (setting->isStyle ? style["properties"] : properties)[setting->key] = schemaOf(*setting);
    properties["style"] = style;
    return {{"type", "object"}, {"required", {"at"}}, {"additionalProperties", false}, {"properties", properties}};
}

OrderedJson axisSchema(std::span<const Setting* const> settings) {
    OrderedJson properties;
    properties["label"] = {
        {"type", "string"},
        {"description",
         "text with formulas between $ and values of quantities in braces; absent: derived from the page"}};
    properties["limits"] = {
        {"type", "array"},
        {"minItems", 2},
        {"maxItems", 2},
        {"items", {{"type", {"number", "null"}}}},
        {"description",
         "smaller number first, positive on a logarithmic scale; null: this end is automatic; absent: both are"}};
    properties["scale"] = {{"enum", scaleNames},
                           {"description", "absent: logarithmic where the variable is sampled so, else linear"}};
    for (const Setting* setting : settings) properties[setting->key] = schemaOf(*setting);
    return {{"type", "object"}, {"additionalProperties", false}, {"properties", properties}};
}

} // namespace

OrderedJson plotDefinitions() {
    OrderedJson all;
    all["axis"] = axisSchema(scaleSettings());
    all["upright axis"] = axisSchema(uprightScaleSettings());
    all["colour axis"] = axisSchema(colourScaleSettings());
    all["angle"] = {{"type", "object"}, {"additionalProperties", false}, {"properties", OrderedJson::object()}};
    for (const Setting* setting : angleSettings()) all["angle"]["properties"][setting->key] = schemaOf(*setting);
    OrderedJson names = OrderedJson::array(), each = OrderedJson::array();
    for (const PlotKind* kind : plotKinds()) {
        names.push_back(kind->name);
        each.push_back({{"$ref", "#/$defs/plot, " + std::string(kind->name)}});
    }
    all["plot"] = {{"type", "object"},
                   {"required", {"of"}},
                   {"properties", {{"kind", {{"enum", names}, {"default", names[0]}}}}},
                   {"anyOf", each}};
    for (const PlotKind* kind : plotKinds()) all["plot, " + std::string(kind->name)] = schemaOf(*kind);
    all["place"] = {{"type", "array"},
                    {"minItems", 2},
                    {"maxItems", 3},
                    {"items", {{"type", {"number", "string"}}}},
                    {"description", "coordinates, each a number or a formula of the page; three of them in space"}};
    OrderedJson notes = OrderedJson::array(), noteNames = OrderedJson::array();
    for (const NoteKind* kind : noteKinds()) {
        noteNames.push_back(kind->name);
        notes.push_back({{"$ref", "#/$defs/note, " + std::string(kind->name)}});
    }
    all["note"] = {{"type", "object"},
                   {"required", {"at"}},
                   {"properties", {{"kind", {{"enum", noteNames}, {"default", noteNames[0]}}}}},
                   {"anyOf", notes}};
    for (const NoteKind* kind : noteKinds()) all["note, " + std::string(kind->name)] = schemaOf(*kind);
    all["sheet settings"] = OrderedJson::object();
    for (const Setting* setting : sheetSettings()) all["sheet settings"][setting->key] = schemaOf(*setting);
    return all;
}

} // namespace coulter
