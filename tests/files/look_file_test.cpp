#include "composition/draw_figure.h"
#include "composition/figure.h"
#include "data/attach_tables.h"
#include "drawing/cairo_painter.h"
#include "figure/sheet_settings.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/look_file.h"
#include "files/recipe.h"
#include "notes/document_look.h"
#include "plots/plot_kind.h"

#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <unistd.h>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

std::vector<fs::path> demos() {
    std::vector<fs::path> found;
    for (const auto& entry : fs::recursive_directory_iterator(fs::path(std::getenv("COULTER_SOURCE")) / "demos")) {
        if (entry.path().extension() == ".coulter") found.push_back(entry.path());
    }
    return found;
}

/// A demo with a look; the paper is no larger than it was, so that letters must be put with care.
Document withLook(const fs::path& path, const char* name) {
    RecipeRead read = readRecipe(*readFile(path).bytes);
    REQUIRE(read.document);
    attachTables(*read.document, path.parent_path());
    SheetLook look = *sheetLookNamed(name);
    look.width.reset();
    look.height.reset();
    look.textSize = read.document->sheet.textSize;
    setLook(read.document->sheet, look);
    return *read.document;
}

} // namespace

TEST_CASE("a look that was saved is read again, those that are offered and one with a size") {
    for (const SheetLook& look : sheetLooks()) {
        const LookRead read = readLook(writeLook(look));
        INFO(look.name << ": " << read.problem.sentence);
        REQUIRE(read.look);
        CHECK(read.look->textSize == look.textSize);
        CHECK(read.look->settings == look.settings);
        CHECK(read.look->width == look.width);
        CHECK(read.look->height == look.height);
    }
}

TEST_CASE("what is no look is refused in a sentence that says where") {
    const auto sentence = [](const std::string& text) {
        const LookRead read = readLook(text);
        CHECK_FALSE(read.look);
        return read.problem.sentence;
    };
    CHECK(sentence("") == "The look is not one of Coulter's: it does not start with the key “coulter look” and a "
                          "format number.");
    CHECK(sentence("[1, 2]") == sentence(""));
    CHECK(sentence(R"({"coulter look": 2})") == "The look has format 2; this program reads formats up to 1.");
    CHECK(sentence(R"({"coulter look": 1, "ink": "black"})") == "In the look, ink is not a colour.");
    CHECK(sentence(R"({"coulter look": 1, "text size": 1000})") ==
          "In the look, text size must be a number from 2 to 100.");
    CHECK(sentence(R"({"coulter look": 1, "gap": 3})") == "In the look, gap is not a key that is known here.");
    CHECK(sentence(R"({"coulter look": 1, "typeface": "gothic"})").find("“gothic”") != std::string::npos);
    const std::string whole = writeLook(*sheetLookNamed("dark slide"));
    for (std::size_t length = 0; length + 2 < whole.size(); ++length)
        CHECK_FALSE(sentence(whole.substr(0, length)).empty());
}

TEST_CASE("a look is found by its name, in its file, and in a figure that has it") {
    const fs::path folder = fs::temp_directory_path() / ("coulter-looks-" + std::to_string(::getpid()));
    fs::create_directories(folder);
    Document document;
    document.page = {"f(x) = x", "x in [0, 1]"};
    document.panels[0].plots = {plotOf("f(x)")};
    setLook(document.sheet, *sheetLookNamed("dark slide"));
    const Exported exported = exportFigure(document, *findFormat("svg"));
    REQUIRE(exported.bytes);
    writeFile(folder / "figure.svg", *exported.bytes);
    writeFile(folder / "one.coulter-look", writeLook(lookOf(document.sheet)));
    const LookRead named = findLook("dark slide"), inFile = findLook((folder / "one.coulter-look").string()),
                   inFigure = findLook((folder / "figure.svg").string()), none = findLook("no such look");
    REQUIRE((named.look && inFile.look && inFigure.look));
    CHECK(named.look->settings == inFile.look->settings);
    CHECK(named.look->settings == inFigure.look->settings);
    CHECK(inFigure.look->textSize == 18);
    CHECK_FALSE(none.look);
    CHECK(none.problem.suggestion.find("dark slide") != std::string::npos);
    CHECK(exported.bytes->find("fill=\"#16202a\"/>") != std::string::npos); // its paper
    fs::remove_all(folder);
}

TEST_CASE("every demo on dark paper has no ink and no paper of the usual look, and no letter of another typeface") {
    for (const fs::path& path : demos()) {
        INFO(path);
        const Document document = withLook(path, "dark slide");
        Effort effort = effortOf(document.sheet);
        effort.proofs = false;
        const Figure figure = drawFigure(document, effort);
        CHECK(figure.scene.paper == Colour{0x16, 0x20, 0x2a});
        std::size_t sans = 0, serif = 0, usual = 0;
        for (const SceneItem& item : figure.scene.items) {
            std::visit(
                [&](const auto& what) {
                    if constexpr (requires { what.colour; }) usual += what.colour.role != ColourRole::Own;
                },
                item);
            const auto* glyphs = std::get_if<GlyphItem>(&item);
            if (!glyphs) continue;
            for (const PlacedGlyph& glyph : glyphs->glyphs) {
                const bool isLetter = glyph.text.size() == 1 && std::isalnum(static_cast<unsigned char>(glyph.text[0]));
                sans += glyph.font >= FontId::Sans;
                serif += glyph.font < FontId::Sans && isLetter;
            }
        }
        CHECK(usual == 0);
        CHECK(sans > 0);
        CHECK(serif == 0);
    }
}

TEST_CASE("a surface of lines that are hidden rightly has the sheet's paper within it") {
    Document document;
    document.page = {"f(x, y) = cos(x)*cos(y)", "x in [-2, 2]", "y in [-2, 2]"};
    Plot plot = plotOf("f(x, y)", "surface");
    plot.settings["shown"] = std::string("mesh");
    document.panels[0].plots = {plot};
    document.sheet.resolution = 100;
    setLook(document.sheet, *sheetLookNamed("dark slide"));
    const Figure figure = drawFigure(document);
    std::size_t white = 0, paper = 0;
    for (const std::uint32_t dot : paintRaster(figure.scene, 4).pixels) {
        white += (dot & 0xffffffU) == 0xffffffU;
        paper += (dot & 0xffffffU) == 0x16202aU;
    }
    CHECK(white == 0);
    CHECK(paper > 10'000);
}

TEST_CASE("marks and heads grow with the lines of a look, and nothing else of a plot does") {
    Document document;
    document.page = {"f(x) = x", "x in [0, 1], count 3"};
    Plot plot = plotOf("f(x)", "markers");
    plot.settings["size"] = 2.0;
    document.panels[0].plots = {plot};
    const auto drawn = [&] { return drawFigure(document).panels[0].drawn[0]; };
    const auto extent = [&] { // of the first mark
        const Figure figure = drawFigure(document);
        for (const SceneItem& item : figure.scene.items) {
            const auto* fill = std::get_if<FillItem>(&item);
            if (!fill || fill->evenOdd) continue;
            const auto [low, high] = std::ranges::minmax(fill->polygons[0], {}, &Point::x);
            return high.x - low.x;
        }
        return 0.0;
    };
    CHECK(extent() == Approx(2).epsilon(0.01));
    document.sheet.settings["line widths"] = 2.0;
    CHECK(std::get<double>(drawn().settings["size"]) == 4);
    CHECK(extent() == Approx(4).epsilon(0.01));
    CHECK(std::get<double>(document.panels[0].plots[0].settings["size"]) == 2); // the recipe's own stays
}

TEST_CASE("letters of a note that have a size of their own keep it beside all others in another look") {
    Document document;
    Note own, other;
    own.settings["letters"] = 7.0;
    document.panels[0].notes = {own, other};
    setLook(document, *sheetLookNamed("slide"));
    CHECK(std::get<double>(document.panels[0].notes[0].settings["letters"]) == 14);
    CHECK(document.panels[0].notes[1].settings.empty());
    setLook(document, *sheetLookNamed("plain"));
    CHECK(std::get<double>(document.panels[0].notes[0].settings["letters"]) == 7);
}
