#include "drawing/colour_vision.h"
#include "drawing/oklab.h"
#include "drawing/sheet_ink.h"
#include "figure/sheet_looks.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

double distance(Colour a, Colour b) {
    const OkLab p = toOkLab(a), q = toOkLab(b);
    return std::hypot(p.lightness - q.lightness, p.a - q.a, p.b - q.b);
}

double linear(std::uint8_t value) {
    const double v = value / 255.0;
    return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
}

/// W3C, "Web Content Accessibility Guidelines" 2.1: contrast ratio.
double contrast(Colour a, Colour b) {
    const auto luminance = [](Colour c) {
        return 0.2126 * linear(c.red) + 0.7152 * linear(c.green) + 0.0722 * linear(c.blue);
    };
    const double p = luminance(a), q = luminance(b);
    return (std::max(p, q) + 0.05) / (std::min(p, q) + 0.05);
}

SheetInk inkNamed(const char* name) {
    Sheet sheet;
    setLook(sheet, *sheetLookNamed(name));
    return inkOf(sheet);
}

} // namespace

TEST_CASE("letters and the colours of plots are read well on the paper of every look") {
    for (const SheetLook& look : sheetLooks()) {
        INFO(look.name);
        const SheetInk ink = inkNamed(look.name.c_str());
        const Colour paper = ink.of(paperColour);
        CHECK(contrast(ink.of(inkColour), paper) > 7);
        CHECK(contrast(ink.of(gridColour), paper) > 1.15);
        CHECK(contrast(ink.of(gridColour), paper) < 2);
        for (std::size_t i = 0; i < plotColourCount; ++i) {
            INFO("plot " << i);
            CHECK(contrast(ink.of(plotColour(i)), paper) > 2);
            for (std::size_t k = 0; k < i; ++k) {
                const Colour a = ink.of(plotColour(i)), b = ink.of(plotColour(k));
                CHECK(distance(a, b) > 0.08);
                for (const ColourVision each : allDeficiencies)
                    CHECK(distance(asSeen(a, each), asSeen(b, each)) > 0.04);
            }
        }
        for (std::size_t i = 1; i < 8; ++i) { // the order of a family is that of lightness
            const double before = toOkLab(ink.of(caseColour(i - 1, 8))).lightness,
                         next = toOkLab(ink.of(caseColour(i, 8))).lightness;
            CHECK((ink.isDark() ? next - before : before - next) > 0.03);
        }
    }
    CHECK(inkNamed("dark slide").isDark());
    CHECK_FALSE(inkNamed("slide").isDark());
}

TEST_CASE("a look changes what nobody chose, and nothing else") {
    const SheetInk dark = inkNamed("dark slide");
    for (const Colour own : {Colour{0, 0, 0}, Colour{0xff, 0xff, 0xff}, Colour{0x1f, 0x1d, 0x1a}}) {
        CHECK(dark.of(own) == own);
        CHECK(dark.of(dark.of(own)) == own);
    }
    const Colour plot = dark.of(plotColour(0));
    CHECK_FALSE(plot == plotColour(0));
    CHECK(dark.of(plot) == plot); // once is enough
    const SheetInk usual;
    for (const Colour each : {inkColour, gridColour, paperColour, plotColour(3), caseColour(2, 5)})
        CHECK(usual.of(each) == each);
}

TEST_CASE("the lines of a scene become as wide as the look says, with their dashes; its areas and places stay") {
    Scene scene;
    scene.items.emplace_back(StrokeItem{{{{1, 2}, {3, 4}}}, plotColour(1), 0.4, {2, 1}, true});
    scene.items.emplace_back(FillItem{{{{1, 2}, {3, 4}, {5, 2}}}, Colour{1, 2, 3}});
    const Scene before = scene;
    applyInk(SheetInk{}, scene);
    CHECK(std::get<StrokeItem>(scene.items[0]).width == 0.4);
    CHECK(scene.paper == paperColour);
    SheetInk wide;
    wide.lines = 2;
    applyInk(wide, scene);
    const auto& stroke = std::get<StrokeItem>(scene.items[0]);
    CHECK(stroke.width == 0.8);
    CHECK(stroke.dashes == std::vector<double>{4, 2});
    CHECK(stroke.lines[0][1].x == 3);
    CHECK(std::get<FillItem>(scene.items[1]).colour == Colour{1, 2, 3});
}
