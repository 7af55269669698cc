#include "figure/sheet_looks.h"
#include "figure/sheet_settings.h"

#include <catch2/catch.hpp>
#include <set>

using namespace coulter;

TEST_CASE("a sheet has a look by its name, and what is no look stays") {
    std::set<std::string> names;
    for (std::size_t i = 0; i < sheetLooks().size(); ++i) {
        const SheetLook& look = sheetLooks()[i];
        INFO(look.name);
        CHECK(names.insert(look.name).second);
        CHECK(sheetLookNamed(look.name) == &look);
        Sheet sheet;
        sheet.width = 111;
        set(sheet.settings, sheetTitleSetting, std::string("a title"));
        set(sheet.settings, inkSetting, Colour{1, 2, 3}); // of the look before
        setLook(sheet, look);
        CHECK(whichLook(sheet) == i);
        CHECK(text(sheet.settings, sheetTitleSetting) == "a title");
        CHECK(sheet.width == look.width.value_or(111));
        CHECK(sheet.textSize == look.textSize);
        CHECK(lookOf(sheet).settings == look.settings);
        set(sheet.settings, inkSetting, Colour{1, 2, 3});
        CHECK(whichLook(sheet) == sheetLooks().size()); // its own
    }
    CHECK(whichLook(Sheet{}) == 0);
    CHECK(sheetLookNamed("none of them") == nullptr);
}

TEST_CASE("a look that was taken from a sheet makes another one look alike") {
    Sheet one;
    one.textSize = 11.5;
    set(one.settings, typefaceSetting, std::string("sans"));
    set(one.settings, paperColourSetting, Colour{0x10, 0x20, 0x30});
    set(one.settings, gapSetting, 5.0); // not of its look
    Sheet other;
    set(other.settings, linesFactorSetting, 3.0);
    setLook(other, lookOf(one));
    CHECK(other.textSize == 11.5);
    CHECK(text(other.settings, typefaceSetting) == "sans");
    CHECK(colour(other.settings, paperColourSetting) == Colour{0x10, 0x20, 0x30});
    CHECK(number(other.settings, linesFactorSetting) == 1);
    CHECK(number(other.settings, gapSetting) == 0);
}
