#include "figure/sheet_sizes.h"

#include <catch2/catch.hpp>
#include <set>
#include <string>

using namespace coulter;

TEST_CASE("a sheet has a size by its name, or in millimetres") {
    std::set<std::string> names;
    for (std::size_t i = 0; i < sheetSizes().size(); ++i) {
        const SheetSize& size = sheetSizes()[i];
        CHECK(names.insert(size.name).second);
        Sheet sheet;
        REQUIRE(setSize(sheet, size.name));
        CHECK(sheet.width == size.width);
        CHECK(sheet.height == size.height);
        CHECK(sheet.textSize == size.textSize);
        CHECK(sizeOf(sheet) == i);
        CHECK(sheet.width >= leastSheet);
        CHECK(sheet.height <= greatestSheet);
    }
    Sheet wide;
    wide.textSize = 7;
    REQUIRE(setSize(wide, "123.5x80"));
    CHECK(wide.width == 123.5);
    CHECK(wide.height == 80);
    CHECK(wide.textSize == 7); // letters keep their size
    CHECK(sizeOf(wide) == sheetSizes().size());
}

TEST_CASE("words that are no size leave a sheet as it is") {
    const Sheet before;
    Sheet sheet;
    for (const char* words :
         {"", "x", "120", "120x", "x80", "120x80 mm", "0x80", "120x1e9", "-5x80", "nanx80", "One column"}) {
        INFO(words);
        CHECK_FALSE(setSize(sheet, words));
        CHECK(sheet == before);
    }
}
