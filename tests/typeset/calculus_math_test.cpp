#include "formula/page/page.h"

#include "formula/lines/read_page.h"
#include "typeset/formula_math.h"

#include <algorithm>
#include <catch2/catch.hpp>

using namespace coulter;

namespace {

constexpr double size = 4;

Line read(const std::string& line) {
    const std::vector<std::string> lines{line, "a = 1", "x = 3", "n = 2", "f(t) = t^2", "g(y, t) = y t"};
    Line first = readPage(lines).lines[0];
    INFO(line << (first.problems.empty() ? "" : " → " + describe(first.problems[0])));
    REQUIRE(first.good());
    return first;
}

Box set(const std::string& line) {
    const MathPtr math = lineMath(read(line));
    REQUIRE(math);
    return layoutMath(*math, size);
}

std::string copied(const Box& box) {
    std::string all;
    for (const PlacedGlyph& glyph : box.glyphs) all += glyph.text;
    return all;
}

const PlacedGlyph& glyph(const Box& box, const std::string& text, std::size_t which = 0) {
    auto found = std::ranges::find(box.glyphs, text, &PlacedGlyph::text);
    for (; which > 0 && found != box.glyphs.end(); --which)
        found = std::ranges::find(std::next(found), box.glyphs.end(), text, &PlacedGlyph::text);
    INFO(text << " in " << copied(box));
    REQUIRE(found != box.glyphs.end());
    return *found;
}

} // namespace

TEST_CASE("an integral has its limits beside the sign, and an upright d") {
    const Box box = set("I = int_{0}^{8} k dk");
    const PlacedGlyph &sign = glyph(box, "∫"), &low = glyph(box, "0"), &high = glyph(box, "8"), &d = glyph(box, "d");
    CHECK(low.x > sign.x);
    CHECK(high.y < sign.y);
    CHECK(low.y > high.y);
    CHECK(d.x > glyph(box, "k").x);
    CHECK(sign.size > 0.9 * size);
    CHECK(low.size < size);
}

TEST_CASE("derivatives are set as fractions, or with dashes on the name") {
    const Box fraction = set("D = d^2/dx^2(x^3)");
    CHECK(glyph(fraction, "d", 0).y < glyph(fraction, "d", 1).y);
    CHECK(fraction.rules.size() >= 1);
    const Box dash = set("b = f'(2)");
    CHECK(glyph(dash, "′").x > glyph(dash, "f").x);
    CHECK(copied(set("c = f''(2)")).find("″") != std::string::npos);
    CHECK(copied(set("h = f'''(2)")).find("‴") != std::string::npos);
}

TEST_CASE("indices of functions stand below and above, at the name") {
    const Box legendre = set("p = P_n^{1}(0.5)");
    const PlacedGlyph &name = glyph(legendre, "P"), &below = glyph(legendre, "n"), &above = glyph(legendre, "1");
    CHECK(below.y > name.y);
    CHECK(above.y < name.y);
    CHECK(below.size < name.size);
    CHECK(copied(set("p = F(1, a; 2; 0.5)")).find("1,a;2;0.5") != std::string::npos);
    CHECK(copied(set("p = P_n^{1, a}(0.5)")).find("(1,a)") != std::string::npos);
    const Box power = set("p = J_0^2(x)");
    CHECK(glyph(power, "2").y < glyph(power, "J").y);
}

TEST_CASE("vectors, solutions and answers are shown as they read") {
    CHECK(copied(set("w(t) = (t, 2)")).ends_with("(t,2)"));
    const Line solution = read("(u, v) solves u + v = 3, u - v = 1");
    const std::string text = copied(layoutMath(*lineMath(solution), size));
    CHECK(text.find("(u,v)=(2,1)") != std::string::npos);
    CHECK(text.find("solves") != std::string::npos);
    CHECK(lineTerms(solution).size() == 3); // may be broken before each condition
    CHECK(copied(set("f'(t) = ?")).ends_with("=2t"));
    CHECK(copied(set("(1, x) = ?")).ends_with("(1,3)"));
    CHECK(copied(set("1/3 = ?")).ends_with("0.3333333333"));
    CHECK(copied(set("int_0^1 1/sqrt(1 - k) dk = ?")).size() < 40); // no more digits than the error leaves
}

TEST_CASE("no glyph of the new constructs is missing from the fonts") {
    for (const char* line :
         {"b = int_{-inf}^{inf} exp(-k^2) dk", "b = d/dx(x)", "b = zeta(x) + psi(x) + Gamma(a, x) + gamma(a, x)",
          "b = Pi(a/2, 0.5) + F(1, 0.5)", "b = W_{-1}(-0.2)", "b = C_n^a(0.5) + Ai'(x)", "b = f''(x)"}) {
        INFO(line);
        for (const PlacedGlyph& each : set(line).glyphs) CHECK(each.glyph != 0);
    }
}
