#include "typeset/tex_math.h"

#include "formula/base/text.h"
#include "formula/lines/read_page.h"
#include "formula/page/page.h"
#include "typeset/formula_math.h"
#include "typeset/words.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <random>

using namespace coulter;

namespace {

std::string textOf(const Box& box) {
    std::string text;
    for (const PlacedGlyph& glyph : box.glyphs) text += glyph.text;
    return text;
}

Box set(const std::string& tex) {
    const TexRead read = readTex(tex);
    INFO(tex << ": " << read.problem.sentence);
    REQUIRE(read.math);
    return layoutMath(*read.math, 10, false);
}

/// Every glyph of a box is one that the font has.
bool isWhole(const Box& box) {
    return std::ranges::all_of(box.glyphs, [](const PlacedGlyph& glyph) { return glyph.glyph != 0; });
}

} // namespace

TEST_CASE("mathematics in TeX's spelling is set as it reads") {
    CHECK(textOf(set("\\alpha + \\beta_{ij}^2")) == "α+β2ij");
    CHECK(textOf(set("x \\leq 2 \\cdot \\infty")) == "x≤2⋅∞");
    CHECK(textOf(set("f'(x)")) == "f′(x)");
    CHECK(textOf(set("\\text{if } x")) == "if x");
    CHECK(textOf(set("\\sin\\theta")) == "sinθ");
    CHECK(textOf(set("a - b")) == "a−b");
    for (const char* each :
         {"\\frac{a}{b}", "\\sqrt{x}", "\\sqrt[3]{x}", "\\hat{x}\\bar{y}\\vec{v}\\dot{q}\\ddot{q}\\tilde{a}",
          "\\overline{ab}", "\\mathbf{A}\\mathbf{x}\\mathbf{\\beta}", "\\int_0^\\infty e^{-t}\\,\\mathrm{d}t",
          "\\sum_{n=1}^{N} \\prod_k \\oint", "\\left(\\frac{a}{b}\\right)^2", "\\left\\{ x \\right.",
          "\\begin{pmatrix} 1 & 0 \\\\ 0 & 1 \\end{pmatrix}",
          "\\begin{cases} 0 & x < 1 \\\\ 1 & \\text{else} \\end{cases}", "\\displaystyle\\int_0^1 \\dfrac{1}{2}",
          "\\partial_t u = \\nabla^2 u", "x^{y^{z}}", "\\{1, 2\\}", "50\\%",
          "\\epsilon\\varepsilon\\varphi\\varrho\\varpi\\hbar\\ell"}) {
        INFO(each);
        CHECK(isWhole(set(each)));
    }
}

TEST_CASE("parts stand where print has them") {
    const Box fraction = set("\\frac{a}{b}"), plain = set("a");
    CHECK(fraction.ascent > plain.ascent);
    CHECK(fraction.descent > plain.descent);
    const Box tall = set("\\left(\\frac{a}{\\frac{b}{c}}\\right)"), inner = set("\\frac{a}{\\frac{b}{c}}");
    CHECK(tall.height() > 0.9 * inner.height());
    // An accent stands above its letter, in its middle, and higher over a capital.
    const Box accent = set("\\hat{x}"), high = set("\\hat{X}");
    CHECK(accent.ascent > set("x").ascent);
    CHECK(high.ascent > set("X").ascent);
    CHECK(accent.width == Approx(set("x").width));
    // Columns of a matrix have one middle; cases begin at one place.
    const Box matrix = set("\\begin{matrix} 1 & 2 \\\\ 100 & 3 \\end{matrix}");
    CHECK(matrix.width == Approx(set("100").width + set("2").width + 10));
    CHECK(set("a\\quad b").width == Approx(set("a").width + set("b").width + 10).margin(0.5));
    CHECK(set("\\displaystyle\\sum_n x").height() > set("\\sum_n x").height());
}

TEST_CASE("what cannot be set is said at its characters") {
    const auto problem = [](const std::string& tex) {
        const TexRead read = readTex(tex);
        INFO(tex);
        CHECK_FALSE(read.math);
        return read.problem;
    };
    CHECK(problem("a + \\alhpa").first == 5);
    CHECK(problem("a + \\alhpa").last == 10);
    CHECK(problem("a + \\alhpa").suggestion == "write \\alpha");
    CHECK(problem("x^{2").sentence == "This brace is not closed.");
    CHECK(problem("x^{2").first == 3);
    CHECK(problem("x}").first == 2);
    CHECK(problem("x^2^3").sentence == "There are two superscripts.");
    CHECK(problem("x_").first == 2);
    CHECK(problem("\\left( x").sentence.find("\\right") != std::string::npos);
    CHECK(problem("\\frac{a}").sentence.find("lacks") != std::string::npos);
    CHECK(problem("\\begin{matrix} 1 & 2").sentence.find("\\end{matrix}") != std::string::npos);
    CHECK(problem("\\begin{table} 1 \\end{table}").suggestion.find("pmatrix") != std::string::npos);
    CHECK(problem("a & b").first == 3);
    CHECK(problem("\\").sentence.find("backslash") != std::string::npos);
    CHECK(problem(std::string(5000, '{')).sentence.find("nested") != std::string::npos);
    // Within words the place counts from their beginning.
    const auto inWords = wordsProblem("Größe $x$ und $\\alhpa$", KnownNames{});
    REQUIRE(inWords);
    CHECK(inWords->first == 16);
    CHECK(wordsProblem("a $ b", KnownNames{})->first == 3);
    CHECK_FALSE(wordsProblem("plain, $x$ and $\\frac12$", KnownNames{}));
}

TEST_CASE("any text is set or refused with a place in it") {
    std::mt19937 random(3);
    const std::vector<std::string> parts{"\\frac",
                                         "{",
                                         "}",
                                         "^",
                                         "_",
                                         "\\left",
                                         "(",
                                         "\\right",
                                         ")",
                                         "x",
                                         "&",
                                         "\\\\",
                                         "\\sqrt",
                                         "[",
                                         "]",
                                         "\\hat",
                                         "\\text",
                                         "12",
                                         "\\begin{matrix}",
                                         "\\end{matrix}",
                                         "\\alpha",
                                         "'",
                                         " ",
                                         "\\",
                                         "\\sum",
                                         "−"};
    int good = 0;
    for (int i = 0; i < 20000; ++i) {
        std::string text;
        for (std::size_t n = 1 + random() % 9; n > 0; --n) text += parts[random() % parts.size()];
        const TexRead read = readTex(text);
        if (read.math) {
            ++good;
            layoutMath(*read.math, 3, false);
            continue;
        }
        INFO(text);
        const int length = static_cast<int>(decodeUtf8(text).size());
        REQUIRE_FALSE(read.problem.sentence.empty());
        REQUIRE(read.problem.first >= 1);
        REQUIRE(read.problem.first <= read.problem.last);
        REQUIRE(read.problem.last <= std::max(1, length));
    }
    CHECK(good > 500);
}

TEST_CASE("values of the page stand in words and formulas, with as many digits as wanted") {
    const Page page =
        readPage(std::vector<std::string>{"k_0 = 1.234567, unit m", "n = 3", "f(x) = k_0 x, unit Pa", "x in [0, 1]"});
    CHECK(withValues(page, "well at {k_0:3}") == "well at $1.23$\u2009m");
    CHECK(withValues(page, "$k_0 = {k_0}$") == "$k_0 = 1.23457$\u2009m");
    CHECK(withValues(page, "$k_0 = {k_0:2} + x$") == "$k_0 = 1.2 + x$");
    CHECK(withValues(page, "{f(2):3}, {2 n + 1}") == "$2.47$\u2009Pa, $7$");
    // Indices, arguments of commands and what is no number stay as they are.
    for (const char* same : {"$x_{n}$", "$x^{n}$", "$\\frac{n}{n}$", "$\\sqrt[3]{n}$", "{x}", "{unknown}", "{k_0:0}",
                             "{k_0:x}", "{", "{3}"})
        CHECK(withValues(page, same) == same);
    Page old = page;
    old.names.onlyNotation = true;
    CHECK(withValues(old, "$k_0 = {k_0}$") == "$k_0 = {k_0}$");
    CHECK(withValues(old, "well at {k_0}") == "well at $1.23457$\u2009m");
}
