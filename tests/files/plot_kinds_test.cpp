#include "../plots/other_value.h"
#include "composition/draw_figure.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/recipe.h"
#include "formula/lines/read_page.h"
#include "plots/table.h"

#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

const std::vector<std::string> page{"f(x) = sin(x) + 0.3 x",
                                    "c(t) = (cos(t), sin(t))",
                                    "g(x, y) = x y",
                                    "x in [-3, 3]",
                                    "y in [-2, 2]",
                                    "t in [0, 5]",
                                    "d = {-2, -1.5, -1.2, -0.4, 0, 0.1, 0.5, 0.6, 1.1, 1.3, 1.8, 2.5}",
                                    "s(t) = (cos(t), sin(t), t)",
                                    "n in [-3, 3], count 13",
                                    "e(x, y) = (y, x)"};

/// The first of these that a kind fits.
std::string fitting(const PlotKind& kind) {
    const Page read = readPage(page);
    for (const char* of : {"f(x)", "c(t)", "g(x, y)", "d"}) {
        const std::vector<const PlotKind*> kinds = kindsThatFit(read, plotOf(of, "line"));
        if (std::ranges::find(kinds, &kind) != kinds.end() && std::string(kind.name) != "line" &&
            kind.runs != Runs::Over)
            return std::string(of) == "f(x)" && kind.takesColumns ? "f(n)" : of; // value by value
        if (std::string(kind.name) == "line") return "f(x)";
        if (kind.fits({2, 2, false, false}) && !kind.fits({2, 1, false, false})) return "e(x, y)";
        if (kind.runs == Runs::Over) return "g(x, y)";
    }
    FAIL("nothing fits the kind");
    return "";
}

Document documentOf(const PlotKind& kind) {
    Document document;
    document.page = page;
    document.sheet = {90, 68, 8, 0.05, 120}; // quickly drawn
    document.panels[0].plots = {plotOf(fitting(kind), kind.name)};
    return document;
}

/// A document in which a setting shows.
Document showing(const PlotKind& kind, const Setting& setting) {
    Document document = documentOf(kind);
    if (std::string(kind.name) != "tangent") document.page[0] = "f(x) = floor(x) + 0.3 x"; // jumps need one
    const std::string key = setting.key, name = kind.name;
    Plot& plot = document.panels[0].plots[0];
    const auto also = [&](const char* other, SettingValue value) {
        for (const Setting* each : kind.settings) {
            if (std::string(each->key) == other) set(plot.settings, *each, std::move(value));
        }
    };
    if (key == "asymptotes") plot.of = "tan(x)";
    if (key == "projections" || key == "drop lines") plot.of = "s(t)";
    if (key == "every" && name == "stems") plot.of = "f(x)";
    if (key == "several") plot.of = "(d, 2d)";
    if (key == "size" || key == "filling" || key == "every" || key == "step" || key == "drop lines")
        also("shape", std::string("square"));
    if (key == "width" && name == "error bars") also("shape", std::string("ring"));
    if (key == "width" && name == "points") also("joined", std::string("closed"));
    if ((key == "pattern" || key == "dashes") && name == "points") also("joined", std::string("closed"));
    if (key == "inside" && name == "points") also("joined", std::string("closed"));
    if (key == "as" || key == "cap" || key == "bar width") also("error up", std::string("1/4"));
    if (key == "width" && name == "markers") also("shape", std::string("ring"));
    if (key == "members by") plot.of += " + a for a in {0, 1}";
    if (name == "surface") {
        if (key.starts_with("level")) also("contours", std::string("on both"));
        if (key == "line count") also("lines", 0.3);
        if (key == "colour") also("colours", std::string("one"));
        document.page[0] = "f(x) = x";
    }
    if (name == "contours" && key == "colour") also("labels", std::string("none"));
    if (name == "arrows" && key == "stand") document.page[3] = "x in [-3, 3], count 5";
    if (name == "arrows" && key == "apart") also("mm per unit", 2.5);
    if (key == "numbers") {
        for (const char* line : {"P = {-2, 2, 2, -2}", "R = {-1, -1, 1, 1}", "V = {1, 2, 3, 4}", "i = {1, 1}",
                                 "j = {2, 3}", "l = {3, 4}", "m(x, y) interpolates (P, R, V) on (i, j, l)"})
            document.page.push_back(line);
        plot.of = "m(x, y)";
    }
    if (key == "dot size") also("dot every", 0.5);
    if (key == "parts") also("estimate", std::string("trapezoids"));
    if (key == "colour below") also("to", std::string("1"));
    return document;
}

fs::path source() { return std::getenv("COULTER_SOURCE"); }

} // namespace

TEST_CASE("every kind of plot draws its own items, has a table and says whether it has a swatch") {
    for (const PlotKind* kind : plotKinds()) {
        INFO(kind->name);
        CHECK(findPlotKind(kind->name) == kind);
        const Figure figure = drawFigure(documentOf(*kind));
        REQUIRE(figure.panels[0].problems[0].empty());
        REQUIRE(figure.panels[0].drawn.size() == 1);
        REQUIRE(figure.owned.size() == 1);
        CHECK(figure.owned[0].path == ItemPath{ItemKind::Plot, 0, 0, 0});
        CHECK(figure.owned[0].last > figure.owned[0].first);
        const SampleTable table = tableOf(figure.panels[0].drawn[0]);
        CHECK(table.rows > (std::string(kind->name) == "tangent" || std::string(kind->name) == "histogram" ? 0 : 10));
        CHECK(tableCsv(table).find("\n") != std::string::npos);

        Document named = documentOf(*kind);
        named.panels[0].plots[0].name = "a name";
        named.panels[0].legend.place = LegendPlace::TopLeft;
        const Figure withLegend = drawFigure(named);
        CHECK(withLegend.panels[0].layout.legend.entries.size() == (kind->swatch ? 1 : 0));
        if (kind->swatch) CHECK(withLegend.scene.items.size() >= figure.scene.items.size() + 2);
    }
}

TEST_CASE("every setting of every kind changes the recipe, and all but names of variables change the figure") {
    for (const PlotKind* kind : plotKinds()) {
        const Document usual = documentOf(*kind);
        const std::string before = *exportFigure(usual, *findFormat("svg")).bytes;
        const auto picture = [](const std::string& svg) { return svg.substr(svg.find("</metadata>")); };
        for (const Setting* setting : kind->settings) {
            INFO(kind->name << ", " << setting->key);
            Document changed = usual;
            SettingValue value = otherValue(*setting);
            if (setting->type == SettingType::Variable) value = std::string("y");
            if (std::string(setting->key) == "dashes") value = std::string("{3, 1}");
            set(changed.panels[0].plots[0].settings, *setting, value);
            REQUIRE(changed != usual);
            const RecipeRead read = readRecipe(writeRecipe(changed));
            REQUIRE(read.document);
            CHECK(*read.document == changed);
            set(changed.panels[0].plots[0].settings, *setting, std::nullopt);
            CHECK(changed == usual);
            Document seen = showing(*kind, *setting);
            const std::string plain = *exportFigure(seen, *findFormat("svg")).bytes;
            set(seen.panels[0].plots[0].settings, *setting, value);
            const Exported drawn = exportFigure(seen, *findFormat("svg"));
            INFO(drawn.problem.sentence);
            REQUIRE(drawn.bytes);
            CHECK(picture(*drawn.bytes) != picture(plain));
        }
    }
}

TEST_CASE("every kind refuses keys of other kinds and says its own") {
    for (const PlotKind* kind : plotKinds()) {
        for (const PlotKind* other : plotKinds()) {
            for (const Setting* setting : other->settings) {
                const auto isOwn = [&](const Setting* each) { return std::string(each->key) == setting->key; };
                if (std::ranges::any_of(kind->settings, isOwn)) continue;
                INFO(kind->name << " with " << setting->key);
                const std::string key = "\"" + std::string(setting->key) + "\": true";
                const RecipeRead read =
                    readRecipe("{\"coulter\": 1, \"panels\": [{\"plots\": [{\"kind\": \"" + std::string(kind->name) +
                               "\", \"of\": \"x\", " + (setting->isStyle ? "\"style\": {" + key + "}" : key) + "}]}]}");
                CHECK_FALSE(read.document);
                CHECK(read.problem.sentence.find("is not a key") != std::string::npos);
                CHECK(read.problem.suggestion.starts_with("known are: "));
            }
        }
    }
}

TEST_CASE("changing the kind there and back keeps what both have") {
    for (const PlotKind* kind : plotKinds()) {
        for (const PlotKind* other : plotKinds()) {
            Plot plot = plotOf("f(x)", kind->name);
            plot.name = "kept";
            for (const Setting* setting : kind->settings) set(plot.settings, *setting, otherValue(*setting));
            const Plot there = inKind(plot, *other);
            CHECK(there.kind == other->name);
            CHECK(there.name == plot.name);
            for (const auto& [key, value] : there.settings) CHECK(plot.settings.at(key) == value);
            for (const Setting* setting : other->settings) {
                const auto had = plot.settings.find(setting->key);
                if (had == plot.settings.end()) continue;
                // What the other kind knows too, unless it is what is usual there.
                const std::string* word = std::get_if<std::string>(&had->second);
                const bool known = setting->type != SettingType::Word ||
                                   std::ranges::find(setting->words, *word) != setting->words.end();
                CHECK(there.settings.contains(setting->key) == (known && had->second != setting->usual));
            }
        }
    }
}

TEST_CASE("every kind stands in the manual and in a demo") {
    const std::string manual = *readFile(source() / "docs/plots.md").bytes;
    std::string demos;
    for (const auto& entry : fs::recursive_directory_iterator(source() / "demos")) {
        if (entry.path().extension() == ".coulter") demos += *readFile(entry.path()).bytes;
    }
    for (const PlotKind* kind : plotKinds()) {
        INFO(kind->name);
        CHECK(manual.find("| `" + std::string(kind->name) + "` | " + kind->meaning) != std::string::npos);
        CHECK(demos.find("\"kind\": \"" + std::string(kind->name) + "\"") != std::string::npos);
        std::string picture = kind->name;
        std::ranges::replace(picture, ' ', '-');
        CHECK(manual.find("(pictures/" + picture + ".png)") != std::string::npos);
        CHECK(fs::exists(source() / "docs/pictures" / (picture + ".png")));
        for (const Setting* setting : kind->settings)
            CHECK(manual.find("`" + std::string(setting->key) + "`") != std::string::npos);
    }
}
