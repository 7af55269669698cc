// Tables in recipes: kept to the last bit, refused when damaged.
#include "data/attach_tables.h"
#include "files/export.h"
#include "files/recipe.h"
#include "formula/lines/read_page.h"

#include <catch2/catch.hpp>
#include <cmath>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <random>

using namespace coulter;

namespace {

Column column(std::vector<double> numbers) { return std::make_shared<const std::vector<double>>(std::move(numbers)); }

Document withReadings() {
    Document document;
    document.page = {"(t, s) from \"readings.csv\"", "f(x) = 2x", "x in [0, 4], unit s"};
    DataTable table;
    table.source = "readings.csv";
    table.digest = std::string(64, 'a');
    table.columns = {{"t", "s", "time", column({1, 2, 3})}, {"s", "m", "", column({0.1, std::nan(""), 1e-300})}};
    table.leftOut = {1};
    document.tables.put(table);
    document.panels[0].plots = {plotOf("(t, s - f(t))", "points")};
    return document;
}

std::string problemOf(const std::string& tables) {
    const RecipeRead read = readRecipe(R"({"coulter": 3, "page": [], "tables": )" + tables + "}");
    CHECK(!read.document);
    return read.problem.sentence;
}

} // namespace

TEST_CASE("a recipe keeps its tables, one row on each line, and reads them back to the last bit") {
    const Document document = withReadings();
    const std::string text = writeRecipe(document);
    CHECK(text.find("        [1, 0.1],\n        [2, null],\n        [3, 1e-300]\n") != std::string::npos);
    CHECK(text.find("\"left out\": [2]") != std::string::npos);
    const RecipeRead read = readRecipe(text);
    INFO(read.problem.sentence);
    REQUIRE(read.document);
    CHECK(*read.document == document);
    CHECK(writeRecipe(*read.document) == text);
    Document other = document;
    DataTable changed = *document.tables.find("readings.csv");
    changed.columns[1].numbers = column({0.1, std::nan(""), std::nextafter(1e-300, 1)});
    other.tables.put(changed);
    CHECK(!(other == document));
    // What the page does not name is not written.
    Document without = document;
    without.page.erase(without.page.begin());
    CHECK(writeRecipe(without).find("tables") == std::string::npos);
}

TEST_CASE("random tables survive their recipe") {
    std::mt19937_64 random(21);
    for (int round = 0; round < 50; ++round) {
        Document document;
        document.page = {"a from \"x\""};
        DataTable table;
        table.source = "x";
        std::vector<double> numbers;
        for (std::size_t i = random() % 50 + 1; i > 0; --i) {
            double value = 0;
            const std::uint64_t bits = random();
            std::memcpy(&value, &bits, sizeof value);
            numbers.push_back(std::isfinite(value) ? value : std::nan(""));
        }
        numbers.insert(numbers.end(), {-0.0, 0.0, 0x1p63, 0x1p64, 1e22, 5e-324});
        table.columns = {{"“\"\\", "", "\t", column(numbers)}};
        document.tables.put(table);
        const RecipeRead read = readRecipe(writeRecipe(document));
        REQUIRE(read.document);
        CHECK(*read.document == document);
    }
}

TEST_CASE("a figure with data rebuilds from itself alone") {
    const Document document = withReadings();
    for (const char* name : {"svg", "pdf", "png", "eps"}) {
        const Exported figure = exportFigure(document, *findFormat(name));
        INFO(figure.problem.sentence);
        REQUIRE(figure.bytes);
        CHECK(!verifyFigure(*figure.bytes));
    }
}

TEST_CASE("a large table stays beside its recipe, and is known by its digest") {
    namespace fs = std::filesystem;
    const fs::path folder = fs::temp_directory_path() / ("coulter-beside-" + std::to_string(std::random_device()()));
    fs::create_directories(folder);
    {
        std::ofstream file(folder / "large.csv");
        file << "t,s\n";
        for (int i = 0; i < 100'000; ++i) file << i << ',' << 0.001234567 * i << '\n';
    }
    Document document;
    document.page = {"(t, s) from \"large.csv\""};
    document.panels[0].plots = {plotOf("(t, s)", "points")};
    attachTables(document, folder);
    const std::string text = writeRecipe(document);
    CHECK(text.size() < 2000);
    const Exported figure = exportFigure(document, *findFormat("svg"));
    REQUIRE(figure.bytes);
    ExportOptions beside;
    beside.folder = folder;
    CHECK(!verifyFigure(*figure.bytes, {}, beside));
    CHECK(verifyFigure(*figure.bytes)); // its numbers are not here
    std::ofstream(folder / "large.csv", std::ios::app) << "1,1\n";
    const auto problem = verifyFigure(*figure.bytes, {}, beside);
    REQUIRE(problem);
    CHECK(problem->sentence.find("changed since") != std::string::npos);
    fs::remove_all(folder);
}

TEST_CASE("a value that is set by its path leaves the data as they are") {
    Document document = withReadings();
    DataTable beside = *document.tables.find("readings.csv");
    beside.isBeside = true;
    document.tables.put(beside);
    const RecipeRead changed = withValueAt(document, "sheet.width", "80");
    REQUIRE(changed.document);
    CHECK(changed.document->sheet.width == 80);
    CHECK(changed.document->tables == document.tables);
}

TEST_CASE("damaged tables are refused with their path") {
    CHECK(problemOf("[{}]").find("tables[0].name") != std::string::npos);
    CHECK(problemOf(R"([{"name": "x"}])").find("beside") != std::string::npos);
    CHECK(problemOf(R"([{"name": "x", "columns": [{"name": "a"}], "rows": [[1, 2]]}])").find("rows[0]") !=
          std::string::npos);
    CHECK(problemOf(R"([{"name": "x", "columns": [{"name": "a"}], "rows": [["1"]]}])").find("rows[0]") !=
          std::string::npos);
    CHECK(
        problemOf(R"([{"name": "x", "columns": [{"name": "a", "unit": "furlongish"}], "rows": []}])").find("no unit") !=
        std::string::npos);
    CHECK(
        problemOf(R"([{"name": "x", "columns": [{"name": "a"}], "rows": [[1]], "left out": [2]}])").find("left out") !=
        std::string::npos);
    CHECK(problemOf(R"([{"name": "x", "beside": true}, {"name": "x", "beside": true}])").find("another one") !=
          std::string::npos);
    CHECK(problemOf(R"([{"name": "x", "beside": true, "more": 1}])").find("more") != std::string::npos);
    CHECK(problemOf(R"({"name": "x"})").size() > 0);
}

TEST_CASE("grids and meshes are kept in the recipe, to the last bit") {
    const auto column = [](std::vector<double> numbers) {
        return std::make_shared<const std::vector<double>>(std::move(numbers));
    };
    Document document;
    document.page = {"p(x, y) from \"a.tif\"", "w(x, y, t) interpolates \"b.nc\", variable \"w\"",
                     "h(x, y) interpolates \"c.vtu\""};
    DataTable picture, field, mesh;
    picture.source = "a.tif";
    picture.digest = "00ff";
    picture.columns = {{"", "", "", column({1, 2, 3, 4, -0.0, std::nan("")})}};
    picture.axes = {{"", "", "", column({0.5, 1.5, 2.5}), true}, {"", "", "", column({0.5, 1.5}), true}};
    field.source = tableKey("b.nc", "w");
    field.columns = {{"w", "m3 m-3", "water", column({1, 2, 3, 4, 5, 6, 7, 8})}};
    field.axes = {{"x", "cm", "", column({0.1, 0.7}), false},
                  {"z", "cm", "depth", column({1, 2}), false},
                  {"time", "h", "", column({0, 1e-3}), false}};
    mesh.source = "c.vtu";
    mesh.columns = {{"head", "", "", column({1, 2, 3, 1.0 / 3})}};
    mesh.mesh = std::make_shared<const DataMesh>(
        DataMesh{{column({0, 1, 1, 0}), column({0, 0, 1, 1})},
                 "m",
                 {column({0, 0}), column({1, 2}), column({2, 3}), column({std::nan(""), std::nan("")})}});
    for (const DataTable& table : {picture, field, mesh}) document.tables.put(table);
    const RecipeRead read = readRecipe(writeRecipe(document));
    INFO(read.problem.sentence);
    REQUIRE(read.document);
    CHECK(*read.document->tables.find("a.tif") == picture);
    CHECK(*read.document->tables.find(tableKey("b.nc", "w")) == field);
    CHECK(*read.document->tables.find("c.vtu") == mesh);
    CHECK(writeRecipe(*read.document) == writeRecipe(document));
    CHECK(readPage(*read.document).problems().empty());
}

TEST_CASE("damaged grids and meshes are refused with their path") {
    const auto saidOf = [](const std::string& tables) {
        return readRecipe(R"({"coulter": 5, "page": [], "tables": )" + tables + "}").problem.sentence;
    };
    const auto grid = [&](const std::string& axes, const std::string& rows) {
        return saidOf("[{\"name\": \"x\", \"axes\": " + axes + ", \"columns\": [{\"name\": \"a\"}], \"rows\": " + rows +
                      "}]");
    };
    const std::string two = R"([{"name": "x", "count": 2}, {"name": "y", "places": [1, 3]}])";
    CHECK(grid(two, "[[1, 2], [3, 4]]").empty());
    CHECK(grid(two, "[[1, 2]]").find("every combination") != std::string::npos);
    CHECK(grid(two, "[[1, 2, 3], [3, 4, 5]]").find("rows[0]") != std::string::npos);
    CHECK(grid(R"([{"name": "x", "count": 0}])", "[[1]]").find("axes[0].count") != std::string::npos);
    CHECK(grid(R"([{"name": "x", "count": 1.5}])", "[[1]]").find("whole number") != std::string::npos);
    CHECK(grid(R"([{"name": "x", "count": 1e9}])", "[[1]]").find("axes[0].count") != std::string::npos);
    CHECK(grid(R"([{"name": "x", "places": [2, 1]}])", "[[1, 2]]").find("ascend") != std::string::npos);
    CHECK(grid(R"([{"name": "x"}])", "[[1]]").find("neither") != std::string::npos);
    CHECK(grid(R"([{"name": "x", "count": 1, "unit": "furlongish"}])", "[[1]]").find("no unit") != std::string::npos);
    const auto mesh = [&](const std::string& inside, const std::string& rows) {
        return saidOf("[{\"name\": \"x\", \"mesh\": {" + inside +
                      "}, \"columns\": [{\"name\": \"a\"}], \"rows\": " + rows + "}]");
    };
    const std::string nodes = R"("nodes": [[0, 0], [1, 0], [0, 1]], )";
    CHECK(mesh(nodes + R"("elements": [[0, 1, 2]])", "[[1], [2], [3]]").empty());
    CHECK(mesh(nodes + R"("elements": [[0, 1, 2]])", "[[1]]").empty());
    CHECK(mesh(nodes + R"("elements": [[0, 1, 2]])", "[[1], [2]]").find("each node") != std::string::npos);
    CHECK(mesh(nodes + R"("elements": [[0, 1]])", "[[1]]").find("elements[0]") != std::string::npos);
    CHECK(mesh(nodes + R"("elements": [])", "[[1]]").find("elements") != std::string::npos);
    CHECK(mesh(R"("elements": [[0, 1, 2]])", "[[1]]").find("nodes") != std::string::npos);
    CHECK(mesh(R"("nodes": [[0, "1"]], "elements": [[0, 1, 2]])", "[[1]]").find("nodes[0]") != std::string::npos);
}
