#include "figure/scale_settings.h"
#include "figure/sheet_settings.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/plot_schema.h"
#include "files/recipe.h"
#include "notes/note_kind.h"
#include "plots/plot_kind.h"

#include "../plots/other_value.h"
#include "formula/lines/read_page.h"

#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <nlohmann/json.hpp>

using namespace coulter;
using Json = nlohmann::json;
namespace fs = std::filesystem;

namespace {

fs::path source() { return std::getenv("COULTER_SOURCE"); }

std::vector<fs::path> demos() {
    std::vector<fs::path> found;
    for (const auto& entry : fs::recursive_directory_iterator(source() / "demos")) {
        if (entry.path().extension() == ".coulter") found.push_back(entry.path());
    }
    return found;
}

/// Checks a recipe's value against the part of the schema for it: every key known, every choice listed, every bound
/// kept.
void conforms(const Json& value, Json schema, const Json& root, const std::string& path) {
    if (schema.contains("$ref")) schema = root.at(Json::json_pointer(schema["$ref"].get<std::string>().substr(1)));
    INFO(path);
    if (schema.contains("enum")) CHECK(std::ranges::find(schema["enum"], value) != schema["enum"].end());
    if (schema.contains("const")) CHECK(value == schema["const"]);
    if (schema.contains("minimum")) CHECK(value >= schema["minimum"]);
    if (schema.contains("maximum")) CHECK(value <= schema["maximum"]);
    if (schema.contains("anyOf")) { // a plot or a note: the definition of its kind
        const std::string first = schema["anyOf"][0]["$ref"].get<std::string>().substr(1);
        const std::string kind = value.value("kind", first.substr(first.find(", ") + 2));
        schema = root.at(Json::json_pointer(first.substr(0, first.find(", ") + 2) + kind));
    }
    if (value.is_object()) {
        for (const auto& [key, inner] : value.items()) {
            REQUIRE(schema["properties"].contains(key));
            conforms(inner, schema["properties"][key], root, path + "/" + key);
        }
        if (schema.contains("required")) {
            for (const auto& key : schema["required"]) CHECK(value.contains(key));
        }
    }
    if (value.is_array() && schema.contains("items")) {
        for (std::size_t i = 0; i < value.size(); ++i)
            conforms(value[i], schema["items"], root, path + "/" + std::to_string(i));
    }
}

Json schema() { return Json::parse(*readFile(source() / "docs/recipe.schema.json").bytes); }

template <std::size_t N> void sameWords(const Json& listed, const std::array<const char*, N>& names) {
    REQUIRE(listed.size() == N);
    for (std::size_t i = 0; i < N; ++i) CHECK(listed[i] == names[i]);
}

} // namespace

TEST_CASE("the gallery shows every demo, with its recipe and its data") {
    const std::string gallery = *readFile(source() / "docs/gallery.md").bytes;
    for (const fs::path& demo : demos()) {
        INFO(demo);
        const std::string name = demo.stem().string();
        CHECK(fs::exists(source() / "docs/gallery" / (name + ".png")));
        CHECK(gallery.find("gallery/" + name + ".png") != std::string::npos);
        for (const auto& file : fs::directory_iterator(demo.parent_path()))
            CHECK(gallery.find("(../demos/" + name + "/" + file.path().filename().string() + ")") != std::string::npos);
    }
}

TEST_CASE("every demo reads, has no problem, is spelled as it would be written, and rebuilds") {
    REQUIRE(demos().size() >= 3);
    for (const fs::path& demo : demos()) {
        INFO(demo);
        const std::string text = *readFile(demo).bytes;
        const RecipeRead read = readRecipe(text);
        INFO(read.problem.sentence);
        REQUIRE(read.document);
        CHECK(writeRecipe(*read.document) == text);
        CHECK(readPage(*read.document).problems().empty());
        const Exported svg = exportFigure(*read.document, *findFormat("svg"));
        REQUIRE(svg.bytes);
        CHECK_FALSE(verifyFigure(*svg.bytes));
    }
}

TEST_CASE("the schema allows what is written") {
    const Json root = schema();
    for (const fs::path& demo : demos())
        conforms(Json::parse(*readFile(demo).bytes), root, root, demo.filename().string());
    Document full;
    full.page = {"f(x) = x"};
    full.sheet = {100, 60, 8, 0.01, 600};
    full.sheet.rowHeights = {2};
    full.sheet.columnWidths = {0.5, 3};
    for (const Setting* setting : sheetSettings()) set(full.sheet.settings, *setting, otherValue(*setting));
    Panel& panel = full.panels[0];
    panel.title = "t";
    panel.x = {"x", Limits{0, 1}, ScaleKind::Linear, {}};
    panel.z.limits.high = 3;
    for (const Setting* setting : scaleSettings()) set(panel.x.settings, *setting, otherValue(*setting));
    for (const Setting* setting : colourScaleSettings()) set(panel.colour.settings, *setting, otherValue(*setting));
    for (const Setting* setting : angleSettings()) set(panel.angle, *setting, otherValue(*setting));
    panel.legend = {LegendPlace::BottomLeft, std::array<double, 2>{1, 2}};
    for (const PlotKind* kind : plotKinds()) {
        Plot plot = plotOf("f(x)", kind->name);
        plot.name = "name";
        plot.finer = {{0, 1, 4}};
        for (const Setting* setting : kind->settings) set(plot.settings, *setting, otherValue(*setting));
        CHECK(plot.settings.size() == kind->settings.size());
        panel.plots.push_back(plot);
    }
    for (const NoteKind* kind : noteKinds()) {
        Note note{kind->name, "words", {}, {}};
        for (std::size_t i = 0; i < kind->leastPlaces; ++i) note.at.push_back({"1", "f(2)"});
        for (const Setting* setting : kind->settings) set(note.settings, *setting, otherValue(*setting));
        CHECK(note.settings.size() == kind->settings.size());
        panel.notes.push_back(note);
    }
    panel.cell = Cell{1, 2, 3, 2};
    panel.further = {panel.x};
    panel.plots.back().scale = 1;
    panel.colour.limits = Limits{1, 2};
    panel.equalScales = false;
    panel.view = {10, 20};
    conforms(Json::parse(writeRecipe(full)), root, root, "full");
    CHECK(readRecipe(writeRecipe(full)).document == full);
}

TEST_CASE("the schema lists the same words and bounds as the program") {
    const Json root = schema(), &sheet = root["properties"]["sheet"]["properties"], &defs = root["$defs"];
    CHECK(root["properties"]["coulter"]["enum"].back() == recipeVersion);
    CHECK(sheet["width"]["minimum"] == leastSheet);
    CHECK(sheet["width"]["maximum"] == greatestSheet);
    CHECK(sheet["resolution"]["maximum"] == greatestResolution);
    CHECK(sheet["width"]["default"] == Sheet{}.width);
    CHECK(sheet["height"]["default"] == Sheet{}.height);
    CHECK(sheet["tolerance"]["default"] == Sheet{}.tolerance);
    sameWords(defs["panel"]["properties"]["legend"]["properties"]["place"]["enum"], legendPlaceNames);
    // After a change of a kind: scripts/kind-tables
    const auto plots = plotDefinitions();
    for (const auto& [name, definition] : plots.items()) {
        INFO(name);
        if (name == "sheet settings") {
            for (const auto& [key, setting] : definition.items()) CHECK(sheet[key] == Json::parse(setting.dump()));
            continue;
        }
        CHECK(defs[name] == Json::parse(definition.dump()));
    }
}
