#include "data/tile_file.h"
#include "files/export.h"

#include "data/attach_tables.h"

#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <unistd.h>

using namespace coulter;
namespace fs = std::filesystem;

TEST_CASE("a figure whose numbers cannot be read to their end is written, and says why some are missing") {
    const fs::path folder = fs::temp_directory_path() / ("coulter-lost-" + std::to_string(::getpid()));
    fs::remove_all(folder);
    fs::create_directories(folder / "tiles");
    TiledField field; // more than a page holds
    for (int i = 0; i < 5001; ++i) field.columns.push_back(i);
    for (int i = 0; i < 4001; ++i) field.rows.push_back(i);
    field.variables = {"x", "y"};
    field.whole = "one";
    for (const std::size_t part : {1, 2}) {
        const auto rows = [](std::size_t row, std::span<double> into) {
            for (std::size_t i = 0; i < into.size(); ++i) into[i] = static_cast<double>(row + i);
            return true;
        };
        REQUIRE(writeTile(folder / "tiles" / tileName(part, 2), field, part, 2, rows).empty());
    }
    Document d;
    d.page = {"h(x, y) from \"tiles\"", "x in [0, 300]", "y in [1500, 2500]"};
    d.panels[0].plots = {plotOf("h(x, y)", "heatmap")};
    d.sheet = {60, 45, 8, 0.05, 72};
    attachTables(d, folder);
    const Exported whole = exportFigure(d, *findFormat("png"));
    REQUIRE(whole.bytes);
    CHECK_FALSE(whole.unfinished);
    // Tile 2 is damaged after it was looked into, which its state says.
    Document again = d;
    again.tables = {};
    attachTables(again, folder);
    std::ofstream(folder / "tiles/2-of-2.nc", std::ios::binary) << "CDF";
    const Exported lost = exportFigure(again, *findFormat("png"));
    REQUIRE(lost.bytes);
    REQUIRE(lost.unfinished);
    CHECK(lost.unfinished->sentence.find("without some of its numbers: “2-of-2.nc” has changed while it is used") !=
          std::string::npos);
    fs::remove_all(folder);
}
