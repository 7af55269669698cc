#include "composition/draw_figure.h"
#include "drawing/cairo_painter.h"
#include "figure/panel_grid.h"
#include "figure/scale_settings.h"
#include "figure/sheet_settings.h"
#include "files/export.h"
#include "files/file_access.h"
#include "files/recipe.h"
#include "files/samples_report.h"
#include "formula/compile/compile.h"
#include "formula/lines/plotted.h"
#include "formula/lines/read_page.h"
#include "plots/table.h"

#include <catch2/catch.hpp>
#include <clocale>
#include <cmath>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>
#include <png.h>
#include <random>
#include <sstream>
#include <sys/stat.h>
#include <tbb/global_control.h>
#include <unistd.h>

using namespace coulter;
namespace fs = std::filesystem;

namespace {

Document example() {
    Document d;
    d.page = {"# A note with “quotes” & <signs>",
              "T(z, t) = A exp(-z/d) cos(t - z/d), unit °C",
              "A = 2.5, from 0 to 5",
              "d = 1.5, unit m",
              "t in [0, 7)",
              "z in [0, 3], unit m"};
    d.sheet.width = 80;
    d.sheet.height = 55;
    d.sheet.resolution = 120;
    Panel& panel = d.panels[0];
    panel.title = "Waves & <depth>";
    panel.x.label = "time $t$";
    panel.y.limits = Limits{-3, 3.25};
    set(panel.y.settings, gridSetting, true);
    panel.legend.place = LegendPlace::BottomRight;
    Plot plot;
    plot.of = "T(z, t) for z in {0, 1, 2}";
    plot.settings = {{"colour", Colour{10, 20, 30}}, {"width", 0.55}, {"pattern", std::string("dash-dotted")}};
    panel.plots = {plot};
    plot.name = "by hand";
    plot.of = "T(0.5, t)";
    plot.settings.clear();
    panel.plots.push_back(plot);
    return d;
}

struct Folder {
    fs::path path;
    Folder() {
        std::string name = (fs::temp_directory_path() / "coulter-test-XXXXXX").string();
        path = ::mkdtemp(name.data());
    }
    ~Folder() {
        std::error_code ignored;
        fs::permissions(path, fs::perms::owner_all, ignored);
        fs::remove_all(path, ignored);
    }
};

std::string bytesOf(std::string_view format, const Document& document) {
    const Exported exported = exportFigure(document, *findFormat(format));
    INFO(exported.problem.sentence);
    REQUIRE(exported.bytes);
    return *exported.bytes;
}

} // namespace

namespace {

Drawn drawnOf(Source source, Samples samples) {
    Drawn drawn;
    drawn.parts.push_back(
        {std::make_shared<const Source>(std::move(source)), std::make_shared<const Samples>(std::move(samples))});
    return drawn;
}

std::string csvOf(Source source, Samples samples) {
    const Drawn drawn = drawnOf(std::move(source), std::move(samples)); // a table needs what it is of
    return tableCsv(tableOf(drawn));
}

/// A curve y = f(x), for what only asks which it is.
Curve functionCurve() {
    Curve curve;
    const std::vector<std::string> lines{"x in [0, 1]"};
    const Page page = readPage(lines);
    curve.variable = "x";
    curve.program = compile(page, readPlotted(page, "x").expression, std::span(&curve.variable, 1)).program;
    return curve;
}

} // namespace

TEST_CASE("a recipe reads back as it was written, and writes the same text again") {
    const Document d = example();
    const std::string text = writeRecipe(d);
    const RecipeRead read = readRecipe(text);
    INFO(read.problem.sentence);
    REQUIRE(read.document);
    CHECK(*read.document == d);
    CHECK(writeRecipe(*read.document) == text);
    CHECK(readRecipe(writeRecipe(Document{})).document == Document{});
    // One formula line on each line, so that a change of one shows as a change of one.
    CHECK(text.find("\n    \"A = 2.5, from 0 to 5\",\n") != std::string::npos);
}

TEST_CASE("files are called by their title as it is printed, and in older formats as it is typed") {
    Document d = example();
    d.page.push_back("n_0 = 4, unit m");
    d.panels[0].title = "Front at {n_0}";
    const auto title = [&] {
        const std::string svg = bytesOf("svg", d);
        const std::size_t at = svg.find("<title>") + 7;
        return svg.substr(at, svg.find("</title>") - at);
    };
    CHECK(title() == "Front at 4\u2009m");
    d.format = 7;
    CHECK(title() == "Front at {n_0}");
}

TEST_CASE("the recipe's text is as it always was") {
    Document d;
    d.page = {"f(x) = x", "x in [0, 1]"};
    d.panels[0].plots.push_back(plotOf("f(x)"));
    CHECK(writeRecipe(d) == R"~({
  "coulter": 9,
  "page": [
    "f(x) = x",
    "x in [0, 1]"
  ],
  "sheet": {
    "width": 150.0,
    "height": 95.0
  },
  "panels": [
    {
      "plots": [
        {
          "kind": "line",
          "of": "f(x)"
        }
      ]
    }
  ]
}
)~");
}

TEST_CASE("what does not belong in a recipe is refused with its path") {
    const std::pair<const char*, const char*> cases[] = {
        {R"({"coulter": 1, "colour": 3})", "colour is not a key"},
        {R"({"coulter": 1, "panels": [{"plots": [{"kind": "line", "of": "x", "style": {"width": "wide"}}]}]})",
         "panels[0].plots[0].style.width must be a number"},
        {R"({"coulter": 1, "panels": [{"plots": [{"kind": "line", "of": "x", "style": {"colour": "red"}}]}]})",
         "panels[0].plots[0].style.colour is not a colour"},
        {R"({"coulter": 1, "panels": [{"plots": [{"kind": "pie", "of": "x"}]}]})", "panels[0].plots[0].kind is “pie”"},
        {R"({"coulter": 1, "panels": [{"plots": [{"kind": "line"}]}]})", "panels[0].plots[0].of is missing"},
        {R"({"coulter": 1, "panels": [{"x": {"limits": [3, 1]}}]})", "panels[0].x.limits must be"},
        {R"({"coulter": 1, "panels": [{"x": {"limits": [3]}}]})", "panels[0].x.limits must be two numbers"},
        {R"({"coulter": 1, "panels": []})", "panels is empty"},
        {R"({"coulter": 1, "page": [1]})", "page[0] must be text"},
        {R"({"coulter": 1, "page": "x"})", "page must be a list"},
        {R"({"coulter": 1, "sheet": {"width": 1e9}})", "sheet.width must be a number from 20 to 2000"},
        {R"({"coulter": 1, "sheet": {"width": 30, "width": 40}})", "width stands twice"},
        {R"({"coulter": 99})", "format 99"},
        {R"({"page": []})", "not one of Coulter's"},
        {R"([1, 2])", "must be an object"},
        {"{\n  \"coulter\": 1,\n  \"page\": [\n", "damaged at line 4"},
        {"{\"coulter\": 1, oops}", "damaged at line 1, column 16"},
        {"", "damaged"},
    };
    for (const auto& [text, part] : cases) {
        const RecipeRead read = readRecipe(text);
        INFO(text << " → " << read.problem.sentence);
        CHECK_FALSE(read.document);
        CHECK(read.problem.sentence.find(part) != std::string::npos);
    }
}

TEST_CASE("a recipe cut off or changed anywhere is read or refused, never a crash") {
    const std::string text = writeRecipe(example());
    for (std::size_t length = 0; length + 2 < text.size(); length += 3)
        CHECK_FALSE(readRecipe(text.substr(0, length)).document);
    std::mt19937 random(9);
    for (int i = 0; i < 3000; ++i) {
        std::string changed = text;
        for (int k = 0; k < 3; ++k) changed[random() % changed.size()] = static_cast<char>(random() % 256);
        const RecipeRead read = readRecipe(changed);
        CHECK((read.document || !read.problem.sentence.empty()));
    }
    CHECK_FALSE(readRecipe(std::string(100'000, '[')).document);
}

namespace {

void sameBytes(const Document& d) {
    const fs::path before = fs::current_path();
    for (const ExportFormat& each : exportFormats()) {
        const std::string format(each.name);
        INFO(format);
        const std::string first = bytesOf(format, d);
        CHECK(bytesOf(format, d) == first);
        {
            const tbb::global_control one(tbb::global_control::max_allowed_parallelism, 1);
            CHECK(bytesOf(format, d) == first);
        }
        ::setenv("TZ", "Pacific/Auckland", 1);
        REQUIRE(std::setlocale(LC_ALL, "de_DE.UTF-8"));
        REQUIRE(std::string(std::localeconv()->decimal_point) == ",");
        fs::current_path("/");
        CHECK(bytesOf(format, d) == first);
        fs::current_path(before);
        std::setlocale(LC_ALL, "C");
        ::unsetenv("TZ");
        Document other = d;
        other.sheet.textSize = 10;
        CHECK(bytesOf(format, other) != first);
    }
}

} // namespace

TEST_CASE("equal recipes give equal bytes, whatever the locale, time zone, folder and number of threads") {
    // A locale with a decimal comma, made for this test: the machine may have none.
    const Folder locales;
    const std::string make = "localedef -i de_DE -f UTF-8 " + (locales.path / "de_DE.UTF-8").string();
    REQUIRE(std::system(make.c_str()) == 0);
    ::setenv("LOCPATH", locales.path.c_str(), 1);
    const auto fieldDocument = [] {
        Document d;
        d.page = {"g(x, y) = sin(3x) cos(2y) + sqrt(x)", "x in [-1, 3]", "y in [0, 3]"};
        d.panels[0].plots = {plotOf("g(x, y)", "heatmap")};
        d.sheet.width = 60;
        d.sheet.height = 50;
        d.sheet.resolution = 150;
        return d;
    };
    for (const Document& d : {example(), fieldDocument()}) sameBytes(d);
    ::unsetenv("LOCPATH");
}

TEST_CASE("the recipe travels inside the figure and rebuilds it byte for byte") {
    for (const ExportFormat& format : exportFormats()) {
        INFO(format.name);
        const std::string bytes = bytesOf(std::string(format.name).c_str(), example());
        const RecipeFound found = findRecipe(bytes);
        REQUIRE(found.recipe);
        CHECK(found.format == &format);
        CHECK(*found.recipe == writeRecipe(example()));
        CHECK_FALSE(verifyFigure(bytes));
    }
}

TEST_CASE("a figure that was changed, cut off or never ours is found out") {
    for (const ExportFormat& format : exportFormats()) {
        INFO(format.name);
        const std::string bytes = bytesOf(std::string(format.name).c_str(), example());
        std::string changed = bytes;
        changed[changed.size() - 30] ^= 1;
        CHECK(verifyFigure(changed));
        for (const double part : {0.1, 0.5, 0.95})
            CHECK(verifyFigure(bytes.substr(0, static_cast<std::size_t>(part * static_cast<double>(bytes.size())))));
        std::mt19937 random(4);
        for (int i = 0; i < 60; ++i) {
            std::string wrong = bytes;
            for (int k = 0; k < 20; ++k) wrong[random() % wrong.size()] = static_cast<char>(random());
            findRecipe(wrong);
        }
    }
    CHECK(verifyFigure("%PDF-1.4 nothing")->sentence.find("no recipe") != std::string::npos);
    CHECK(verifyFigure("<svg></svg>")->sentence.find("no recipe") != std::string::npos);
    CHECK(verifyFigure("hello")->sentence.find("neither") != std::string::npos);
    CHECK(verifyFigure(writeRecipe(example()))->sentence.find("not a figure") != std::string::npos);
}

TEST_CASE("a figure with something missing is not written") {
    Document d = example();
    d.page[3] = "d = 1.5 +, unit m";
    const Exported broken = exportFigure(d, *findFormat("pdf"));
    CHECK_FALSE(broken.bytes);
    CHECK(broken.problem.line == 3);
    d = example();
    d.panels[0].plots[0].of = "V(t)";
    CHECK(exportFigure(d, *findFormat("pdf")).problem.sentence.find("“V(t)” cannot be drawn") != std::string::npos);
    d = example();
    d.sheet.width = d.sheet.height = 2000;
    d.sheet.resolution = 2400;
    CHECK(exportFigure(d, *findFormat("png")).problem.sentence.find("million dots") != std::string::npos);
}

TEST_CASE("a bitmap has its resolution and its size") {
    const std::string png = bytesOf("png", example());
    const auto big = [&](std::size_t at) {
        std::uint32_t value = 0;
        for (std::size_t i = 0; i < 4; ++i) value = value << 8 | static_cast<unsigned char>(png[at + i]);
        return value;
    };
    CHECK(big(16) == 378); // 80 mm at 120 dots per inch
    CHECK(big(20) == 260);
    const auto physical = png.find("pHYs");
    REQUIRE(physical != std::string::npos);
    CHECK(big(physical + 4) == 4724);
}

TEST_CASE("a bitmap wider than any surface is painted in parts, and shows what it should") {
    Document d = example();
    d.sheet.width = 1700;
    d.sheet.height = 25;
    d.sheet.resolution = 500;
    const Figure figure = drawFigure(d);
    const Raster large = paintRaster(figure.scene, d.sheet.resolution / 25.4), small = paintRaster(figure.scene, 2);
    REQUIRE(large.width == 33465);
    // As many dark dots in each tenth of the width as the small picture lets one expect.
    const auto dark = [](const Raster& raster, int part) {
        double count = 0;
        for (int y = 0; y < raster.height; ++y) {
            for (int x = raster.width * part / 10; x < raster.width * (part + 1) / 10; ++x)
                count += 255 - (raster.pixels[static_cast<std::size_t>(y) * static_cast<std::size_t>(raster.width) +
                                              static_cast<std::size_t>(x)] >>
                                    8 &
                                0xff);
        }
        return count / raster.width / raster.height;
    };
    for (int part = 0; part < 10; ++part)
        CHECK(dark(large, part) == Approx(dark(small, part)).epsilon(0.1).margin(0.02));
    CHECK(dark(large, 9) > 0);
}

TEST_CASE("saving replaces a file as a whole or leaves it as it was") {
    const Folder folder;
    const fs::path target = folder.path / "a.coulter";
    CHECK_FALSE(writeFile(target, "one"));
    ::chmod(target.c_str(), 0640);
    CHECK_FALSE(writeFile(target, "two"));
    CHECK(readFile(target).bytes == "two");
    struct stat about {};
    ::stat(target.c_str(), &about);
    CHECK((about.st_mode & 0777) == 0640);
    fs::create_symlink(target, folder.path / "link");
    CHECK_FALSE(writeFile(folder.path / "link", "three"));
    CHECK(fs::is_symlink(folder.path / "link"));
    CHECK(readFile(target).bytes == "three");
    CHECK(std::distance(fs::directory_iterator(folder.path), fs::directory_iterator()) ==
          2); // nothing is left beside it
}

TEST_CASE("a place that cannot be written is one sentence with a way out") {
    const Folder folder;
    const auto missing = writeFile(folder.path / "no" / "a.pdf", "x");
    REQUIRE(missing);
    CHECK(missing->sentence.find("No such file") != std::string::npos);
    CHECK_FALSE(missing->suggestion.empty());
    CHECK(writeFile(folder.path, "x")->sentence.find("directory") != std::string::npos);
    CHECK(writeFile("/dev/full", "x")->suggestion.find("space") != std::string::npos);
    CHECK_FALSE(readFile(folder.path / "none").bytes);
    CHECK_FALSE(readFile(folder.path).bytes);
}

TEST_CASE("a report says what is proven and where the gaps are, as JSON") {
    CurveSamples samples;
    samples.stretches = {{{0, 1, 2},
                          {0, 1, 2},
                          {0, 0, 0},
                          {PointState::Estimated, PointState::Estimated, PointState::Pole},
                          {true, false}}};
    samples.gaps = {{2, 2, GapKind::Pole}};
    samples.evaluations = 77;
    samples.certificate = {20, 10, 0.015, 99};
    const auto report = nlohmann::json::parse(samplesReport(samples, 0.02));
    CHECK(report["points"] == 3);
    CHECK(report["evaluations"] == 77);
    CHECK(report["evaluations over intervals"] == 99);
    CHECK(report["proven share"] == 0.5);
    CHECK(report["largest bound"] == 0.015);
    CHECK(report["stretches"][0]["chords"] == 2);
    CHECK(report["stretches"][0]["proven chords"] == 1);
    CHECK(report["gaps"][0]["kind"] == "pole");
    CHECK(report["gaps"][0]["from"] == 2);
    CHECK(csvOf(functionCurve(), samples).find("1,0,0,proven\n1,1,0,estimated\n1,2,0,pole\n") != std::string::npos);
}

TEST_CASE("samples are written as CSV that reads back") {
    CurveSamples samples;
    samples.stretches = {{{0, 0.1}, {0, 0.1}, {1, 1.0 / 3}, {PointState::Estimated, PointState::Jump}, {}},
                         {{0.2}, {0.2}, {-2e-7}, {PointState::Filled}, {}}};
    CHECK(csvOf(functionCurve(), samples) ==
          "stretch,x,y,state\n1,0,1,estimated\n1,0.1,0.3333333333333333,jump\n2,0.2,-2e-07,filled\n");
}

TEST_CASE("fields are written as CSV and reported as JSON") {
    FieldSamples grid;
    grid.columns = {0, 1};
    grid.rows = {2};
    grid.values = {{0.5, std::nan("")}};
    Field field;
    field.variables = {"a", "b"};
    CHECK(csvOf(field, grid) == "x,y,z\n0,2,0.5\n1,2,\n");
    const Drawn asGrid = drawnOf(field, grid);
    CHECK(tableOf(asGrid).names == std::vector<std::string>{"a", "b", "value"});
    auto report = nlohmann::json::parse(samplesReport(grid, 0.02));
    CHECK(report["points"] == 2);
    CHECK(report["columns"]["count"] == 2);
    CHECK(report["rows"]["from"] == 2);
    CHECK(report["undefined points"] == 1);
    FieldSamples mesh;
    mesh.x = {0, 1, 0};
    mesh.y = {0, 0, 1};
    mesh.values = {{1, 2, 3}, {4, 5, 6}};
    mesh.triangles = {{0, 1, 2}};
    CHECK(csvOf(field, mesh) == "x,y,u,v\n0,0,1,4\n1,0,2,5\n0,1,3,6\n");
    report = nlohmann::json::parse(samplesReport(mesh, 0.02));
    CHECK(report["triangles"] == 1);
    CHECK(report["tolerance"] == 0.02);
}

TEST_CASE("recipes with impossible scales, stretches and views are refused with their place") {
    const auto refused = [](const std::string& panel) {
        const RecipeRead read = readRecipe("{\"coulter\": 1, \"panels\": [" + panel + "]}");
        CHECK_FALSE(read.document);
        return describe(read.problem);
    };
    CHECK(refused(R"({"x": {"scale": "logarithmic", "limits": [0, 1]}})").find("must be positive") !=
          std::string::npos);
    CHECK(refused(R"({"y": {"scale": "cubic"}})").find("panels[0].y") != std::string::npos);
    CHECK(refused(R"({"view": {"azimuth": 1000}})").find("azimuth") != std::string::npos);
    CHECK(refused(R"({"plots": [{"of": "x", "finer": [{"from": 2, "to": 1}]}]})").find("finer[0]") !=
          std::string::npos);
    CHECK(refused(R"({"plots": [{"of": "x", "finer": [{"from": 1, "to": 2, "times": 1000}]}]})").find("times") !=
          std::string::npos);
    CHECK(refused(R"({"plots": [{"of": "x", "kind": "pie"}]})").find("kind") != std::string::npos);
}

TEST_CASE("single values of a recipe are set by their paths, and refused as in a recipe") {
    Document document;
    document.page = {"f(x, y) = x y", "x in [0, 1]", "y in [0, 1]"};
    document.panels[0].plots = {plotOf("f(x, y)", "surface")};
    const auto set = [&](const char* path, const char* value) { return withValueAt(document, path, value); };
    CHECK(set("view.azimuth", "40").document->panels[0].view.azimuth == 40);
    CHECK(set("panels[0].view.elevation", "-5").document->panels[0].view.elevation == -5);
    CHECK(set("sheet.width", "80").document->sheet.width == 80);
    CHECK(set("title", "a hill").document->panels[0].title == "a hill");
    CHECK(set("plots[0].kind", "heatmap").document->panels[0].plots[0].kind == "heatmap");
    CHECK(set("colour.map", "fen").document->panels[0].colour.settings.contains("map"));
    for (const auto& [path, value] : {std::pair{"view.azimuth", "far"},
                                      {"view.elevation", "100"},
                                      {"panels[3].title", "x"},
                                      {"view..azimuth", "1"},
                                      {"nothing.here", "1"},
                                      {"plots[0].kind.name", "1"},
                                      {"", "1"}}) {
        CAPTURE(path, value);
        const RecipeRead refused = set(path, value);
        CHECK_FALSE(refused.document);
        CHECK_FALSE(refused.problem.sentence.empty());
    }
}

TEST_CASE("recipes of several panels and scales are read as they are written") {
    Document d;
    d.page = {"f(x) = x", "x in [0, 1]"};
    d.panels = {Panel{}, Panel{}, Panel{}};
    d.panels[0].cell = Cell{0, 0, 2, 1};
    d.panels[1].cell = Cell{0, 1};
    d.panels[2].cell = Cell{1, 1};
    d.sheet.columnWidths = {1, 2.5};
    set(d.sheet.settings, sharedAcrossSetting, std::string("columns"));
    d.panels[1].further = {Axis{}, Axis{}};
    d.panels[1].further[1].label = "Pressure";
    d.panels[1].plots = {plotOf("f(x)")};
    d.panels[1].plots[0].scale = 2;
    const RecipeRead read = readRecipe(writeRecipe(d));
    REQUIRE(read.document);
    CHECK(*read.document == d);
}

TEST_CASE("panels without a place of their own and scales that are not there are refused with their place") {
    const auto refusal = [](const std::string& panels, const std::string& sheet = "{}") {
        const RecipeRead read =
            readRecipe(R"({"coulter": 2, "page": [], "sheet": )" + sheet + R"(, "panels": )" + panels + "}");
        CHECK_FALSE(read.document);
        return read.problem.sentence;
    };
    CHECK(refusal(R"([{"cell": {"row": 1, "column": 1, "rows": 2}}, {"cell": {"row": 2, "column": 1}}])") ==
          "In the recipe, panels[1] lies over panels[0].");
    CHECK(refusal(R"([{"cell": {"row": 0, "column": 1}}])").find("panels[0].cell.row") != std::string::npos);
    CHECK(refusal(R"([{"cell": {"row": 1.5, "column": 1}}])").find("whole number") != std::string::npos);
    CHECK(refusal(R"([{"plots": [{"kind": "line", "of": "x", "scale": 1}]}])").find("0 further scales") !=
          std::string::npos);
    CHECK(refusal(R"([{}])", R"({"row heights": [0]})").find("sheet.row heights[0]") != std::string::npos);
    CHECK(refusal("[]").find("a panel at least") != std::string::npos);
    std::string many = "[{}";
    for (int i = 0; i < mostPanels; ++i) many += ",{}";
    CHECK(refusal(many + "]").find("panels") != std::string::npos);
}

namespace {

/// The dots of a PNG file, three bytes each.
std::vector<unsigned char> dotsOfPng(const std::string& bytes) {
    png_image image{};
    image.version = PNG_IMAGE_VERSION;
    REQUIRE(png_image_begin_read_from_memory(&image, bytes.data(), bytes.size()));
    image.format = PNG_FORMAT_RGB;
    std::vector<unsigned char> dots(PNG_IMAGE_SIZE(image));
    REQUIRE(png_image_finish_read(&image, nullptr, dots.data(), 0, nullptr));
    return dots;
}

} // namespace

TEST_CASE("without paper what lies behind a figure shows through, and on white it looks as with it") {
    Document d;
    d.page = {"f(x) = sin(x)", "x in [0, 9]", "h(x, y) = sin(x y)", "y in [0, 3]"};
    d.panels[0].plots = {plotOf("h(x, y)", "heatmap"), plotOf("f(x)")};
    d.sheet.resolution = 100;
    const std::vector<unsigned char> white = dotsOfPng(*exportFigure(d, *findFormat("png")).bytes);
    d.sheet.settings["paper"] = std::string("none");
    const Exported figure = exportFigure(d, *findFormat("png"));
    REQUIRE(figure.bytes);
    CHECK_FALSE(verifyFigure(*figure.bytes));
    png_image image{};
    image.version = PNG_IMAGE_VERSION;
    REQUIRE(png_image_begin_read_from_memory(&image, figure.bytes->data(), figure.bytes->size()));
    image.format = PNG_FORMAT_RGBA;
    std::vector<unsigned char> clear(PNG_IMAGE_SIZE(image));
    REQUIRE(png_image_finish_read(&image, nullptr, clear.data(), 0, nullptr));
    CHECK(clear[3] == 0); // the corner
    std::size_t opaque = 0, half = 0;
    int worst = 0;
    for (std::size_t i = 0; i < clear.size() / 4; ++i) {
        const int opacity = clear[4 * i + 3];
        opaque += opacity == 255;
        half += opacity > 0 && opacity < 255;
        for (std::size_t k = 0; k < 3; ++k) {
            const int onWhite = (clear[4 * i + k] * opacity + 255 * (255 - opacity) + 127) / 255;
            worst = std::max(worst, std::abs(onWhite - white[3 * i + k]));
        }
    }
    CHECK(opaque > 10'000);
    CHECK(half > 100);
    CHECK(worst <= 2);
    const std::string svg = *exportFigure(d, *findFormat("svg")).bytes;
    CHECK(svg.find("fill=\"#ffffff\"/>\n") == std::string::npos);
}

TEST_CASE("bitmaps of the newest format show the same dots in fewer bytes") {
    Document few;
    few.page = {"f(x) = sin(x)", "x in [0, 9]", "h(x, y) = sin(x y)", "y in [0, 3]"};
    few.panels[0].plots = {plotOf("f(x)")};
    few.sheet.resolution = 100;
    Document many = few;
    many.panels[0].plots = {plotOf("h(x, y)", "heatmap")};
    many.panels[0].plots[0].settings["fill"] = std::string("cells"); // whose dots are the same in all formats
    for (Document d : {few, many}) {
        d.format = 2;
        const Exported before = exportFigure(d, *findFormat("png"));
        d.format = newestFormat;
        const Exported after = exportFigure(d, *findFormat("png"));
        REQUIRE((before.bytes && after.bytes));
        CHECK((dotsOfPng(*before.bytes) == dotsOfPng(*after.bytes))); // in brackets: too long to be shown
        CHECK(after.bytes->size() < before.bytes->size());
    }
}

TEST_CASE("an EPS file has its size, no date, and lines that any reader takes") {
    Document d;
    d.page = {"f(x) = sin(x)", "x in [0, 9]"};
    d.panels[0].plots = {plotOf("f(x)")};
    d.panels[0].title = std::string(2000, 'w');
    d.sheet.width = 100;
    d.sheet.height = 100;
    const Exported eps = exportFigure(d, *findFormat("eps"));
    REQUIRE(eps.bytes);
    CHECK(eps.bytes->starts_with("%!PS-Adobe-3.0 EPSF-3.0"));
    CHECK(eps.bytes->find("CreationDate") == std::string::npos);
    // 100 mm are 283.465 points, whatever is drawn on them.
    const auto box = eps.bytes->find("%%HiResBoundingBox:");
    REQUIRE(box != std::string::npos);
    CHECK(eps.bytes->find("%%BoundingBox: 0 0 284 284\n") != std::string::npos);
    std::istringstream numbers(eps.bytes->substr(eps.bytes->find(':', box) + 1, 80));
    double left = -1, bottom = -1, right = 0, top = 0;
    numbers >> left >> bottom >> right >> top;
    CHECK(left == 0);
    CHECK(bottom == 0);
    CHECK(right == Approx(283.465));
    CHECK(top == Approx(283.465));
    std::size_t longest = 0, begin = 0;
    const auto head = eps.bytes->find("%%EndComments");
    for (std::size_t end = eps.bytes->find('\n'); end < head; end = eps.bytes->find('\n', begin)) {
        longest = std::max(longest, end - begin);
        begin = end + 1;
    }
    CHECK(longest <= 255);
}

TEST_CASE("a figure that does not rebuild says what differs, and where") {
    Document d;
    d.page = {"f(x) = x", "x in [0, 9]"};
    d.panels[0].plots = {plotOf("f(x)")};
    d.panels[0].title = "A title";
    d.sheet.resolution = 100;
    const std::string recipe = writeRecipe(d);
    const auto verdict = [&](const Document& drawn, const char* format) {
        const std::string bytes = findFormat(format)->write(drawFigure(drawn), recipe);
        const auto problem = verifyFigure(bytes);
        return problem ? problem->sentence : std::string();
    };
    CHECK(verdict(d, "png").empty());
    Document coloured = d;
    coloured.panels[0].plots[0].settings["colour"] = Colour{200, 0, 0};
    CHECK(verdict(coloured, "png").find("about the plot “f(x)”") != std::string::npos);
    Document titled = d;
    titled.panels[0].title = "A tiile";
    CHECK(verdict(titled, "png").find("about the title") != std::string::npos);
    CHECK(verdict(titled, "png").find("mm across and") != std::string::npos);
    CHECK(verdict(coloured, "svg").find("It differs first in line") != std::string::npos);
    CHECK(verdict(coloured, "eps").find("It differs first in line") != std::string::npos);
    CHECK(verdict(coloured, "pdf").find("It differs first at byte") != std::string::npos);
    Document larger = d;
    larger.sheet.resolution = 120;
    CHECK(verdict(larger, "png").find("dots, and its recipe gives") != std::string::npos);
}
