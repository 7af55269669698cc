#include "made_files.h"

#include "data/read_file.h"

#include <catch2/catch.hpp>
#include <random>

using namespace coulter;

namespace {

/// The number of a grid's column and row, the row counted upwards.
double at(const DataTable& table, std::size_t column, std::size_t row, std::size_t page = 0) {
    const std::size_t width = table.axes[0].places->size(), height = table.axes[1].places->size();
    return (*table.columns[0].numbers)[(page * height + row) * width + column];
}

/// Bytes changed at random and ends cut off: a sentence, or numbers of the size that is said.
void damage(const std::string& name, const std::string& whole, int times) {
    std::mt19937 random(7);
    const auto path = made::pathOf(name);
    for (int i = 0; i < times; ++i) {
        std::string bytes = whole;
        if (i % 3 == 0) bytes.resize(random() % bytes.size());
        for (int k = 0; k < 1 + i % 5 && !bytes.empty(); ++k)
            bytes[random() % std::min<std::size_t>(bytes.size(), i % 2 == 0 ? 200 : bytes.size())] =
                static_cast<char>(random());
        made::write(path, bytes);
        const TableRead read = readDataFile(path);
        if (!read.table) {
            CHECK_FALSE(read.problem.sentence.empty());
            continue;
        }
        for (const DataColumn& column : read.table->columns) {
            std::size_t count = 1;
            for (const DataAxis& axis : read.table->axes) count *= axis.places->size();
            if (!read.table->axes.empty()) CHECK(column.numbers->size() == count);
        }
    }
}

} // namespace

TEST_CASE("a PNG in shades of grey gives its numbers, neither scaled nor corrected, with its rows upwards") {
    const auto path = made::pathOf("grey.png");
    SECTION("8 bits") {
        made::png(path, 3, {{1, 2, 3}, {4, 5, 255}}, 8, PNG_COLOR_TYPE_GRAY);
        const TableRead read = readDataFile(path);
        REQUIRE(read.table);
        CHECK(read.encoding == "PNG, 8 bits");
        REQUIRE(read.table->axes.size() == 2);
        CHECK(read.table->axes[0].isCounted);
        CHECK(*read.table->axes[0].places == std::vector<double>{0.5, 1.5, 2.5});
        CHECK(*read.table->columns[0].numbers == std::vector<double>{4, 5, 255, 1, 2, 3});
    }
    SECTION("16 bits, and 20 dots for each mm") {
        made::png(path, 2, {{0x12, 0x34, 0xff, 0xff}}, 16, PNG_COLOR_TYPE_GRAY, 20'000);
        const TableRead read = readDataFile(path);
        REQUIRE(read.table);
        CHECK(*read.table->columns[0].numbers == std::vector<double>{0x1234, 65535});
        CHECK(read.table->axes[0].unit == "mm");
        CHECK(*read.table->axes[0].places == std::vector<double>{0.025, 0.07500000000000001});
    }
    SECTION("2 bits, interlaced") {
        made::png(path, 4, {{0b00011011}, {0b11100100}}, 2, PNG_COLOR_TYPE_GRAY, 0, true);
        const TableRead read = readDataFile(path);
        REQUIRE(read.table);
        CHECK(*read.table->columns[0].numbers == std::vector<double>{3, 2, 1, 0, 0, 1, 2, 3});
    }
    SECTION("with an opacity, which is no number that was measured") {
        made::png(path, 2, {{7, 255, 9, 0}}, 8, PNG_COLOR_TYPE_GRAY_ALPHA);
        const TableRead read = readDataFile(path);
        REQUIRE(read.table);
        CHECK(*read.table->columns[0].numbers == std::vector<double>{7, 9});
    }
}

TEST_CASE("a PNG in colours is asked for a channel, unless they are all equal") {
    const auto path = made::pathOf("colours.png");
    made::png(path, 2, {{1, 2, 3, 4, 5, 6}}, 8, PNG_COLOR_TYPE_RGB);
    const TableRead read = readDataFile(path);
    CHECK_FALSE(read.table);
    CHECK(read.problem.sentence.find("red, green, blue") != std::string::npos);
    CHECK(read.variables == std::vector<std::string>{"red", "green", "blue"});
    const TableRead green = readDataFile(path, {}, "green");
    REQUIRE(green.table);
    CHECK(*green.table->columns[0].numbers == std::vector<double>{2, 5});
    CHECK(readDataFile(path, {}, "violet").problem.sentence.find("no channel “violet”") != std::string::npos);
    made::png(path, 2, {{8, 8, 8, 9, 9, 9}}, 8, PNG_COLOR_TYPE_RGB);
    REQUIRE(readDataFile(path).table);
}

TEST_CASE("a TIFF gives its numbers in all the ways that they are stored") {
    const auto path = made::pathOf("a.tif");
    const auto value = [](std::size_t, std::uint32_t x, std::uint32_t y, std::size_t k) {
        return 10.0 * y + x + 3 + 40.0 * static_cast<double>(k);
    };
    std::vector<made::Page> ways(13);
    ways[1].bits = 8;
    ways[2] = {.bits = 32, .format = SAMPLEFORMAT_IEEEFP};
    ways[3] = {.bits = 64, .format = SAMPLEFORMAT_IEEEFP};
    ways[4] = {.bits = 32};
    ways[5] = {.bits = 16, .format = SAMPLEFORMAT_INT};
    ways[6].compression = COMPRESSION_LZW;
    ways[7].compression = COMPRESSION_ADOBE_DEFLATE;
    ways[8] = {.width = 37, .height = 21, .tile = 16, .bits = 32, .format = SAMPLEFORMAT_IEEEFP};
    ways[9].mode = "wb8"; // of more than four gigabytes, if need be
    ways[10].mode = "wb"; // the other order of bytes
    ways[11].perCentimetre = 200;
    ways[12].compression = COMPRESSION_PACKBITS;
    for (std::size_t i = 0; i < ways.size(); ++i) {
        INFO(i);
        made::tiff(path, {ways[i]}, value);
        const TableRead read = readDataFile(path);
        REQUIRE(read.table);
        const std::uint32_t width = ways[i].width, height = ways[i].height;
        REQUIRE(read.table->axes[0].places->size() == width);
        REQUIRE(read.table->axes[1].places->size() == height);
        for (std::uint32_t y = 0; y < height; ++y) {
            for (std::uint32_t x = 0; x < width; ++x) CHECK(at(*read.table, x, height - 1 - y) == value(0, x, y, 0));
        }
        CHECK(read.table->axes[0].isCounted == (ways[i].perCentimetre == 0));
    }
    CHECK(made::bytesOf(path).size() > 100);
}

TEST_CASE("channels, pages and turned pictures of a TIFF") {
    const auto path = made::pathOf("b.tif");
    const auto value = [](std::size_t page, std::uint32_t x, std::uint32_t y, std::size_t k) {
        return 100.0 * static_cast<double>(page) + 10.0 * y + x + 40.0 * static_cast<double>(k);
    };
    SECTION("three channels, together and apart") {
        for (const std::uint16_t planes : {PLANARCONFIG_CONTIG, PLANARCONFIG_SEPARATE}) {
            for (const std::uint32_t tile : {0U, 16U}) {
                made::tiff(path, {{.tile = tile, .samples = 3, .planes = planes, .photometric = PHOTOMETRIC_RGB}},
                           value);
                CHECK_FALSE(readDataFile(path).table);
                const TableRead blue = readDataFile(path, {}, "blue");
                REQUIRE(blue.table);
                CHECK(at(*blue.table, 2, 4) == 82);
                CHECK(at(*blue.table, 0, 0) == 120);
            }
        }
    }
    SECTION("pages are a third direction") {
        made::tiff(path, {{}, {}, {}}, value);
        const TableRead read = readDataFile(path);
        REQUIRE(read.table);
        REQUIRE(read.table->axes.size() == 3);
        CHECK(read.table->axes[2].places->size() == 3);
        CHECK(at(*read.table, 1, 4, 2) == 201);
        made::tiff(path, {{}, {.width = 6}}, value);
        CHECK(readDataFile(path).problem.sentence.find("differ in size") != std::string::npos);
    }
    SECTION("rows upwards, and from right to left") {
        made::tiff(path, {{.orientation = ORIENTATION_BOTLEFT}}, value);
        CHECK(at(*readDataFile(path).table, 1, 0) == 1);
        made::tiff(path, {{.orientation = ORIENTATION_TOPRIGHT}}, value);
        CHECK(at(*readDataFile(path).table, 6, 4) == 0);
        made::tiff(path, {{}}, value);
        const DataTable standing = *readDataFile(path).table;
        const std::size_t width = standing.axes[0].places->size(), height = standing.axes[1].places->size();
        // Where the first row and the first column of the file lie; rows of a table run upwards.
        const auto lying = [&](std::uint16_t orientation, bool fromRight, bool fromBottom) {
            made::tiff(path, {{.orientation = orientation}}, value);
            const DataTable table = *readDataFile(path).table;
            REQUIRE(table.axes[0].places->size() == height);
            REQUIRE(table.axes[1].places->size() == width);
            for (std::size_t row = 0; row < height; ++row) {
                for (std::size_t column = 0; column < width; ++column)
                    CHECK(at(table, fromRight ? height - 1 - row : row, fromBottom ? column : width - 1 - column) ==
                          at(standing, column, height - 1 - row));
            }
        };
        lying(ORIENTATION_LEFTTOP, false, false);
        lying(ORIENTATION_RIGHTTOP, true, false);
        lying(ORIENTATION_RIGHTBOT, true, true);
        lying(ORIENTATION_LEFTBOT, false, true);
    }
    SECTION("what no page holds, and what is no number") {
        made::tiff(path, {{.width = 5000, .height = 5000, .rowsPerStrip = 5000, .bits = 8}},
                   [](auto, auto, auto, auto) { return 0.0; });
        CHECK(readDataFile(path).problem.sentence.find("5000 × 5000") != std::string::npos);
        made::tiff(path, {{.bits = 32, .format = SAMPLEFORMAT_COMPLEXIEEEFP}}, value);
        CHECK(readDataFile(path).problem.sentence.find("not read") != std::string::npos);
    }
}

TEST_CASE("damaged pictures are refused in a sentence, or read as far as they say") {
    made::png(made::pathOf("whole.png"), 30, std::vector(20, std::vector<png_byte>(30, 77)), 8, PNG_COLOR_TYPE_GRAY);
    damage("damaged.png", made::bytesOf(made::pathOf("whole.png")), 400);
    const auto value = [](std::size_t, std::uint32_t x, std::uint32_t y, std::size_t) { return 1.0 * x + y; };
    for (const std::uint32_t tile : {0U, 16U}) {
        made::tiff(made::pathOf("whole.tif"),
                   {{.width = 40, .height = 30, .tile = tile, .compression = COMPRESSION_LZW}}, value);
        damage("damaged.tif", made::bytesOf(made::pathOf("whole.tif")), 400);
    }
}
