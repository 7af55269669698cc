#include "formula/page/page.h"

#include "formula/lines/read_page.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

Box set(const char* words, Typeface face) {
    return labelBox(words, FontId::Text, {4, face}, readPage(std::vector<std::string>{"x = 1"}).names);
}

FontId fontOf(const Box& box, const std::string& letter) {
    const auto at = std::ranges::find(box.glyphs, letter, &PlacedGlyph::text);
    REQUIRE(at != box.glyphs.end());
    return at->font;
}

} // namespace

TEST_CASE("a sans label has sans letters, in its formulas too; what that font lacks is of the other") {
    const Box box = set(R"(Depth $\int_0^x \beta T_m \mathrm{d}x$ ↦ 5 m²)", Typeface::Sans);
    CHECK(fontOf(box, "D") == FontId::Sans);
    CHECK(fontOf(box, "5") == FontId::Sans);
    CHECK(fontOf(box, "T") == FontId::SansItalic);
    CHECK(fontOf(box, "β") == FontId::SansItalic);
    CHECK(fontOf(box, "0") == FontId::Sans);
    CHECK(fontOf(box, "∫") == FontId::Math);
    CHECK(fontOf(box, "↦") == FontId::Text);
    for (const PlacedGlyph& glyph : box.glyphs) CHECK(glyph.glyph != 0);
}

TEST_CASE("a serif label is what it was before there were others") {
    const Box box = set(R"(Depth $\sum_{k=1}^n a_k$)", Typeface::Serif);
    const Box plain = labelBox(R"(Depth $\sum_{k=1}^n a_k$)", FontId::Text, 4.0, {});
    CHECK(box.width == plain.width);
    for (const PlacedGlyph& glyph : box.glyphs) CHECK(glyph.font < FontId::Sans);
}

TEST_CASE("indices are as much smaller in sans letters, and the size travels with the typeface") {
    const Box box = set("$a_k$", Typeface::Sans);
    REQUIRE(box.glyphs.size() == 2);
    CHECK(box.glyphs[0].size == 4);
    CHECK(box.glyphs[1].size < 3.2);
    const Em half = 0.5 * Em{4, Typeface::Sans};
    CHECK(half.mm == 2);
    CHECK(half.face == Typeface::Sans);
}
