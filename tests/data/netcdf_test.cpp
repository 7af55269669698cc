#include "made_netcdf.h"

#include "data/read_file.h"
#include "special/leaks_of_libraries.h"

#include <catch2/catch.hpp>
#include <random>

using namespace coulter;

namespace {

std::vector<double> counted(std::size_t n) {
    std::vector<double> numbers(n);
    for (std::size_t i = 0; i < n; ++i) numbers[i] = static_cast<double>(i);
    return numbers;
}

} // namespace

TEST_CASE("a netCDF field comes with its coordinates, units and words, the last dimension first") {
    for (const int mode : {0, NC_64BIT_OFFSET, NC_NETCDF4}) {
        made::Netcdf file("field.nc", mode);
        const int t = file.dimension("time", 2), y = file.dimension("depth", 3), x = file.dimension("x", 4);
        const int time = file.variable("time", NC_DOUBLE, {t}), depth = file.variable("depth", NC_FLOAT, {y}),
                  head = file.variable("head", NC_SHORT, {t, y, x});
        file.text(time, "units", "days since 2026-03-01");
        file.text(depth, "units", "cm");
        file.text(depth, "long_name", "depth below ground");
        file.text(head, "units", "m");
        file.text(head, "standard_name", "hydraulic_head");
        file.number(head, "_FillValue", NC_SHORT, 5);
        file.number(head, "scale_factor", NC_DOUBLE, 0.5);
        file.number(head, "add_offset", NC_DOUBLE, 100);
        file.begin();
        file.values(time, {0, 7});
        file.values(depth, {30, 20, 10}); // downwards
        file.values(head, counted(24));
        file.close();
        const TableRead read = readDataFile(file.path);
        REQUIRE(read.table);
        CHECK(read.table->digest.text().size() == 64);
        const std::vector<DataAxis>& axes = read.table->axes;
        REQUIRE(axes.size() == 3);
        CHECK(axes[0].name == "x");
        CHECK(axes[0].isCounted); // it has no coordinate
        CHECK(axes[1].name == "depth");
        CHECK(axes[1].unit == "cm");
        CHECK(axes[1].meaning == "depth below ground");
        CHECK(*axes[1].places == std::vector<double>{10, 20, 30});
        CHECK(axes[2].unit == "days");
        CHECK(axes[2].meaning == "since 2026-03-01");
        CHECK(*axes[2].places == std::vector<double>{0, 7});
        const DataColumn& column = read.table->columns[0];
        CHECK(column.unit == "m");
        CHECK(column.meaning == "hydraulic head");
        const std::vector<double>& numbers = *column.numbers;
        REQUIRE(numbers.size() == 24);
        CHECK(numbers[0] == 100 + 0.5 * 8); // depth 10 is the last row of the file
        CHECK(std::isnan(numbers[4 + 1]));  // 5 is a missing value
        CHECK(numbers[12 + 8 + 3] == 100 + 0.5 * 15);
    }
}

TEST_CASE("one of several fields is named; along one dimension there are columns") {
    made::Netcdf file("several.nc", 0);
    const int y = file.dimension("y", 2), x = file.dimension("x", 3), one = file.dimension("surface", 1),
              n = file.dimension("n", 4);
    const int a = file.variable("a", NC_INT, {y, x}), b = file.variable("b", NC_DOUBLE, {one, y, x}),
              s = file.variable("s", NC_DOUBLE, {n}), word = file.variable("word", NC_CHAR, {n});
    file.number(b, "valid_max", NC_DOUBLE, 4);
    file.begin();
    file.values(a, counted(6));
    file.values(b, counted(6));
    file.values(s, {1, 4, 9, 16});
    (void)word;
    file.close();
    const TableRead read = readDataFile(file.path);
    CHECK_FALSE(read.table);
    CHECK(read.problem.sentence.find("a, b") != std::string::npos);
    CHECK(read.problem.suggestion.find(", variable \"a\"") != std::string::npos);
    const TableRead second = readDataFile(file.path, {}, "b");
    REQUIRE(second.table);
    CHECK(second.table->axes.size() == 2); // a direction of one place is left aside
    CHECK(std::isnan((*second.table->columns[0].numbers)[5]));
    CHECK(readDataFile(file.path, {}, "c").problem.sentence.find("no variable “c”") != std::string::npos);
    const TableRead series = readDataFile(file.path, {}, "s");
    REQUIRE(series.table);
    CHECK(series.table->axes.size() == 1);

    made::Netcdf columns("columns.nc", NC_NETCDF4);
    const int t = columns.dimension("t", 3);
    const int h = columns.variable("h", NC_DOUBLE, {t}), place = columns.variable("t", NC_DOUBLE, {t});
    columns.begin();
    columns.values(h, {5, NC_FILL_DOUBLE, 7});
    columns.values(place, {0.1, 0.2, 0.3});
    columns.close();
    const TableRead table = readDataFile(columns.path);
    REQUIRE(table.table);
    CHECK(table.table->axes.empty());
    REQUIRE(table.table->columns.size() == 2);
    CHECK(table.table->columns[0].name == "t"); // the coordinate first
    CHECK(std::isnan((*table.table->columns[1].numbers)[1]));
}

TEST_CASE("a netCDF file that cannot be read is refused in a sentence") {
    made::Netcdf large("large.nc", NC_NETCDF4);
    const int y = large.dimension("y", 100'000'000), x = large.dimension("x", 2);
    large.variable("a", NC_DOUBLE, {y, x});
    large.variable("b", NC_DOUBLE, {y});
    large.begin();
    large.close();
    CHECK(readDataFile(large.path, {}, "a").problem.sentence.find("places along “y”") != std::string::npos);
    CHECK(readDataFile(large.path, {}, "b").problem.sentence.find("a page holds") != std::string::npos);

    made::Netcdf uneven("uneven.nc", 0);
    const int v = uneven.dimension("v", 3), u = uneven.dimension("u", 2);
    const int places = uneven.variable("v", NC_DOUBLE, {v}), f = uneven.variable("f", NC_DOUBLE, {v, u});
    uneven.begin();
    uneven.values(places, {1, 3, 2});
    uneven.values(f, counted(6));
    uneven.close();
    CHECK(readDataFile(uneven.path).problem.sentence.find("neither ascend nor descend") != std::string::npos);

    made::Netcdf four("four.nc", 0);
    std::vector<int> dims;
    for (const char* name : {"a", "b", "c", "d"}) dims.push_back(four.dimension(name, 2));
    const int deep = four.variable("deep", NC_DOUBLE, dims);
    four.begin();
    four.values(deep, counted(16));
    four.close();
    CHECK(readDataFile(four.path).problem.sentence.find("4 directions") != std::string::npos);
    CHECK(readDataFile(made::pathOf("none.nc")).problem.sentence == "There is no such file here.");
}

TEST_CASE("damaged netCDF files are refused in a sentence, or read as far as they say") {
    for (const int mode : {0, NC_NETCDF4}) {
        made::Netcdf file("whole.nc", mode);
        const int y = file.dimension("y", 20), x = file.dimension("x", 30);
        const int along = file.variable("x", NC_DOUBLE, {x}), f = file.variable("f", NC_DOUBLE, {y, x});
        file.text(f, "units", "m");
        file.begin();
        file.values(along, counted(30));
        file.values(f, counted(600));
        file.close();
        const std::string whole = made::bytesOf(file.path);
        std::mt19937 random(11);
        const auto path = made::pathOf("damaged.nc");
        for (int i = 0; i < 300; ++i) {
            std::string bytes = whole;
            if (i % 3 == 0) bytes.resize(8 + random() % (bytes.size() - 8));
            for (int k = 0; k < 1 + i % 4; ++k) {
                const std::size_t reach = i % 2 == 0 ? std::min<std::size_t>(bytes.size(), 600) : bytes.size();
                bytes[8 + random() % (reach - 8 > 0 ? reach - 8 : 1)] = static_cast<char>(random());
            }
            made::write(path, bytes);
            const TableRead read = readDataFile(path);
            if (!read.table) CHECK_FALSE(read.problem.sentence.empty());
        }
    }
}
