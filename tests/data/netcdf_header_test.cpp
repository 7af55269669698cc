// Headers of netCDF's classic formats: what the library would believe is looked at before.
#include "data/netcdf_header.h"
#include "data/read_file.h"
#include "made_netcdf.h"

#include <netcdf.h>

using namespace coulter;

namespace {

constexpr int formats[] = {0, NC_64BIT_OFFSET, NC_64BIT_DATA};

/// Two variables that grow by records, or one, and a fixed one.
std::filesystem::path withRecords(int format, std::size_t records, bool isAlone) {
    made::Netcdf file("records.nc", format);
    const int t = file.dimension("t", NC_UNLIMITED), x = file.dimension("x", 3);
    const int h = file.variable("h", NC_SHORT, {t, x}), along = file.variable("x", NC_DOUBLE, {x});
    const int second = isAlone ? -1 : file.variable("t", NC_DOUBLE, {t});
    file.begin();
    file.values(along, {0, 1, 2});
    if (records > 0) {
        file.part(h, {0, 0}, {records, 3}, std::vector<double>(records * 3, 7));
        if (second >= 0) file.part(second, {0}, {records}, std::vector<double>(records, 1));
    }
    file.close();
    return file.path;
}

} // namespace

TEST_CASE("headers of whole files are sound, whatever grows by records") {
    for (const int format : formats) {
        for (const std::size_t records : {0, 1, 2, 5}) {
            for (const bool isAlone : {true, false}) CHECK(hasSoundHeader(withRecords(format, records, isAlone)));
        }
    }
}

TEST_CASE("a file without a record yet has no numbers, and says so") {
    for (const int format : formats) {
        const auto path = withRecords(format, 0, false);
        CHECK(readDataFile(path, {}, "h").problem.sentence == "“h” has no numbers: there are no places along “t”.");
    }
}

TEST_CASE("a file that ends before its numbers do is refused, not filled with noughts") {
    for (const int format : formats) {
        for (const bool isAlone : {true, false}) {
            const auto path = withRecords(format, 4, isAlone);
            const std::string whole = made::bytesOf(path);
            made::write(path, whole.substr(0, whole.size() - 8));
            CHECK_FALSE(hasSoundHeader(path));
            CHECK(readDataFile(path).problem.sentence ==
                  "The file is damaged, or ends too early: what it announces at its beginning is not there.");
        }
    }
}

TEST_CASE("no byte of a header that is another one stops the program") {
    for (const int format : formats) {
        const auto path = withRecords(format, 2, false);
        const std::string whole = made::bytesOf(path);
        std::size_t refused = 0;
        for (std::size_t at = 4; at < whole.size() - 60; ++at) {
            for (const int value : {0x00, 0x01, 0x7f, 0x80, 0xff}) {
                std::string bytes = whole;
                bytes[at] = static_cast<char>(value);
                made::write(path, bytes);
                const TableRead read = readDataFile(path, {}, "h");
                CHECK(read.table.has_value() == read.problem.sentence.empty());
                refused += !read.table;
            }
        }
        CHECK(refused > 100);
    }
}

TEST_CASE("a length whose bytes overflow is refused before the library divides by nought") {
    made::Netcdf file("wide.nc", NC_64BIT_DATA);
    const int y = file.dimension("abc", 3), x = file.dimension("xyz", 5);
    const int f = file.variable("f", NC_DOUBLE, {y, x});
    file.begin();
    file.values(f, std::vector<double>(15, 1));
    file.close();
    std::string bytes = made::bytesOf(file.path);
    const std::size_t length = bytes.find("xyz") + 4; // padded to four
    REQUIRE(bytes[length + 7] == 5);
    bytes[length] = static_cast<char>(0x80);
    bytes[length + 7] = 0;
    made::write(file.path, bytes);
    CHECK_FALSE(hasSoundHeader(file.path));
}

TEST_CASE("a netCDF-4 file whose heap is damaged is refused, and the program lives on") {
    made::Netcdf file("heap.nc", NC_NETCDF4);
    const int y = file.dimension("y", 4), x = file.dimension("x", 3);
    const int along = file.variable("x", NC_DOUBLE, {x}), f = file.variable("f", NC_DOUBLE, {y, x});
    file.begin();
    file.values(along, {0, 1, 2});
    file.values(f, std::vector<double>(12, 1));
    file.close();
    CHECK(readDataFile(file.path).table);
    std::string bytes = made::bytesOf(file.path);
    const std::size_t heap = bytes.find("GCOL");
    REQUIRE(heap != std::string::npos);
    // The first object's size, behind the heap's head of 16 bytes and 8 of its own.
    for (std::size_t i = 0; i < 5; ++i) bytes[heap + 16 + 8 + i] = '\x7f';
    made::write(file.path, bytes);
    const TableRead read = readDataFile(file.path);
    CHECK_FALSE(read.table);
    CHECK(read.problem.sentence.find("damaged") != std::string::npos);
}
