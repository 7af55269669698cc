#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"
#include "formula/notation/parser.h"
#include "formula/page/page.h"
#include "typeset/formula_math.h"
#include "typeset/math_glyphs.h"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

constexpr double size = 4;

const std::vector<std::string> lines{"a = 1", "b = 2", "x = 3", "omega = 4", "x_0 = 5", "T_m = 6", "f(x) = x"};

Box set(const std::string& text, bool display = true) {
    const Page page = readPage(lines);
    const auto parsed = parseExpression(std::u32string(text.begin(), text.end()), page.names);
    INFO(text);
    REQUIRE(parsed.expression);
    return layoutMath(*formulaMath(*parsed.expression), size, display);
}

std::string copied(const Box& box) {
    std::string all;
    for (const PlacedGlyph& glyph : box.glyphs) all += glyph.text;
    return all;
}

const PlacedGlyph& glyph(const Box& box, const std::string& text) {
    const auto found = std::ranges::find(box.glyphs, text, &PlacedGlyph::text);
    REQUIRE(found != box.glyphs.end());
    return *found;
}

} // namespace

TEST_CASE("no letter of the notation is missing from the fonts") {
    for (const char* text : {"alpha beta", "a + b - a*2/b", "sqrt(x)", "cbrt(x)", "|x|", "floor(x)", "ceil(x)", "x!",
                             "pi e inf", "sin^2(x)", "log_{2}(x)", "1.5e-7", "5%", "min(a, b)"}) {
        const std::vector<std::string> greek{"alpha = 1", "beta = 2", "a = 1", "b = 1", "x = 1"};
        const Page page = readPage(greek);
        const std::string plain = text;
        const auto parsed = parseExpression(std::u32string(plain.begin(), plain.end()), page.names);
        INFO(text);
        REQUIRE(parsed.expression);
        for (const PlacedGlyph& each : layoutMath(*formulaMath(*parsed.expression), size).glyphs)
            CHECK(each.glyph != 0);
    }
    for (const char* unit : {"°C", "kg m-3", "cm/day", "m2 d-1", "µm"}) {
        for (const PlacedGlyph& each : layoutMath(*unitMath(unit), size).glyphs) CHECK(each.glyph != 0);
    }
    for (const PlacedGlyph& each :
         labelBox("Temperature / °C, kg m⁻³, cm² – “x” × 10⁵ ½ é ß −", FontId::Text, size, {}).glyphs)
        CHECK(each.glyph != 0);
}

TEST_CASE("a fraction stands on the axis, numerator above, denominator below, centred") {
    const Box box = set("a/(b + x)");
    REQUIRE(box.rules.size() == 1);
    const PlacedRule& bar = box.rules[0];
    const double axis = mathConstant(HB_OT_MATH_CONSTANT_AXIS_HEIGHT) * size;
    CHECK(-(bar.y + bar.height / 2) == Approx(axis).epsilon(1e-9));
    CHECK(glyph(box, "a").y < bar.y);
    CHECK(glyph(box, "b").y > bar.y);
    CHECK(copied(box) == "ab+x"); // the brackets of the denominator are not printed
    const Box numerator = set("a");
    CHECK(glyph(box, "a").x + numerator.width / 2 == Approx(bar.x + bar.width / 2).epsilon(0.02));
}

TEST_CASE("indices are smaller, raised or lowered, on the same letter") {
    const Box box = set("x_0^2");
    CHECK(glyph(box, "2").y < 0);
    CHECK(glyph(box, "0").y > 0);
    CHECK(glyph(box, "2").size < size);
    CHECK(std::abs(glyph(box, "2").x - glyph(box, "0").x) < 0.2 * size);
    const Box nested = set("a^x^2");
    CHECK(glyph(nested, "2").size < glyph(nested, "x").size);
    CHECK(glyph(nested, "2").y < glyph(nested, "x").y);
}

TEST_CASE("delimiters and roots grow with what they hold") {
    const Box flat = set("(a + b) x"), tall = set("(a/b + 1) x");
    const auto height = [](const Box& box) {
        Box open = mathGlyphBox(glyph(box, "(").glyph, glyph(box, "(").size, "(", Ink::Plain);
        return open.height();
    };
    CHECK(height(tall) > 1.5 * height(flat));
    const Box root = set("sqrt(a/b)");
    REQUIRE(root.rules.size() == 2);
    CHECK(root.ascent > set("a/b").ascent);
    const Box sign = grownGlyph(U'{', 60, size, "{", Ink::Plain); // far beyond the largest variant: assembled of parts
    CHECK(sign.height() >= 60);
    CHECK(sign.glyphs.size() > 2);
}

TEST_CASE("large operators have their limits above and below on a line of their own, beside in text") {
    const MathPtr sum = mathLarge(
        "∑", mathRow({mathItalic("n"), mathSymbol("=", MathClass::Relation), mathDigits("1")}), mathItalic("N"));
    const Box display = layoutMath(*sum, size, true), text = layoutMath(*sum, size, false);
    CHECK(display.height() > 1.5 * text.height());
    CHECK(glyph(display, "N").y < glyph(display, "∑").y);
    CHECK(glyph(display, "n").y > glyph(display, "∑").y);
    CHECK(glyph(text, "N").x > glyph(text, "∑").x);
    const Box integral = layoutMath(*mathLarge("∫", mathDigits("0"), mathDigits("1")), size, true);
    CHECK(glyph(integral, "1").x > glyph(integral, "∫").x);
}

TEST_CASE("print differs from spelling as in a paper") {
    CHECK(copied(set("2*x")) == "2x");
    CHECK(copied(set("2*3")) == "2·3");
    CHECK(copied(set("-a/b")) == "−ab");
    CHECK(copied(set("exp(x)")) == "exp(x)");
    CHECK(copied(set("omega x")) == "ωx");
    CHECK(copied(set("abs(x)")) == "|x|");
    CHECK(glyph(set("2.5e-7 x"), "×").glyph != 0);
    CHECK(copied(set("1e5")) == "105"); // a bare power of ten needs no mantissa
}

TEST_CASE("every glyph lies within its box, for many formulas") {
    for (const char* text : {"a", "sqrt(a/b + x^2)", "sin^2(omega x)/cos(x)^3", "a/(b/(x/(a + 1)))", "|a/b|", "x_0!",
                             "2^2^2^2", "f(f(a/b))", "cbrt(x)/floor(a/b)"}) {
        const Box box = set(text);
        INFO(text);
        for (const PlacedGlyph& each : box.glyphs) {
            const Box one = each.font == FontId::Math ? mathGlyphBox(each.glyph, each.size, "", Ink::Plain) : Box{};
            CHECK(each.x >= -0.05 * size);
            CHECK(each.x + one.width <= box.width + 0.3 * size);
            CHECK(-each.y + one.ascent <= box.ascent + 0.02 * size);
            CHECK(each.y + one.descent <= box.descent + 0.02 * size);
        }
    }
}

TEST_CASE("labels mix text and formulas, and leave what cannot be read as it is") {
    const Page page = readPage(lines);
    CHECK(copied(labelBox("Depth $x_0$ in m", FontId::Text, size, page.names)) == "Depth x0 in m");
    CHECK(copied(labelBox("price $ 5", FontId::Text, size, page.names)) ==
          "price 5" + std::string()); // an unpaired sign starts a formula
    CHECK(copied(labelBox("$f$ and $f(x)$", FontId::Text, size, page.names)) == "f and f(x)");
    CHECK(copied(labelBox("$((($", FontId::Text, size, page.names)) == "(((");
}

TEST_CASE("lines of a page are printed with what can be dragged and what was computed") {
    const std::vector<std::string> page{"a = -9.50, unit m, from -20 to 0", "f(x) = a x",
                                        "x in [0, 1), count 10, unit s", "f(2) = ?"};
    const Page read = readPage(page);
    const Box quantity = layoutMath(*lineMath(read.lines[0]), size);
    const Extent number = extentOf(quantity, Ink::Number);
    CHECK(number.right - number.left > size);
    CHECK(copied(quantity) == "a=−9.50m");
    CHECK(copied(layoutMath(*lineMath(read.lines[1]), size)) == "f(x)=ax");
    CHECK(copied(layoutMath(*lineMath(read.lines[2]), size)) == "x∈[0,1)s,count10");
    const Box question = layoutMath(*lineMath(read.lines[3]), size);
    CHECK(copied(question) == "f(2)=−19m");
    CHECK(extentOf(question, Ink::Answer).right > 0);
}

TEST_CASE("pieces, conditions, sums and masks are printed with their signs") {
    CHECK(copied(set("{ 0 for x < 1; a for 1 <= x <= 2; b otherwise }")) == "{0forx<1afor1≤x≤2botherwise");
    CHECK(copied(set("[a < x and not x = b]")) == "[a<xandnotx=b]");
    CHECK(copied(set("sum_{n=1}^{5} a/n")).find("∑") != std::string::npos);
    const Box pieces = set("{ 0 for x < 1; a for 1 <= x <= 2; b otherwise }");
    CHECK(pieces.height() > 3 * size);
    CHECK(glyph(pieces, "0").y < glyph(pieces, "b").y);
    CHECK(glyph(pieces, "0").x == Approx(glyph(pieces, "a").x).margin(0.1));
    const Box sum = set("sum_{n=1}^{5} n");
    CHECK(glyph(sum, "5").y < glyph(sum, "∑").y);
    CHECK(glyph(sum, "1").y > glyph(sum, "∑").y);
    const std::vector<std::string> page{"r(t) = t", "r(t + 6) = r(t)"};
    CHECK(copied(layoutMath(*lineMath(readPage(page).lines[1]), size)) == "r(t+6)=r(t)");
}
