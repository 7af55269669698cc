#include "formula/algebra/unit_inference.h"
#include "formula/base/text.h"
#include "formula/lines/read_page.h"
#include "formula/notation/parser.h"
#include "formula/notation/unit_product.h"
#include "formula/notation/units.h"
#include "formula/page/page.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

std::string product(const std::string& text) { return UnitProduct::of(text).text(); }

UnitMatch matched(const std::string& a, const std::string& b) { return match(UnitProduct::of(a), UnitProduct::of(b)); }

/// The notes about units on the last line of a page.
std::string said(std::vector<std::string> lines) {
    const Page page = readPage(lines);
    std::string text;
    for (const Problem& problem : page.lines.back().problems) {
        CHECK(problem.severity == Problem::Severity::Note);
        text += problem.sentence;
    }
    return text;
}

std::string unitOf(std::vector<std::string> lines, const char* name) { return readPage(lines).unitOf(name); }

const std::vector<std::string> named{"h = 2, unit m",   "d = 30, unit cm", "t = 4, unit s",      "T = 20, unit °C",
                                     "K = 293, unit K", "n = 5",           "x in [0, 3], unit m"};

std::vector<std::string> with(std::initializer_list<const char*> lines) {
    std::vector<std::string> all = named;
    all.insert(all.end(), lines.begin(), lines.end());
    return all;
}

} // namespace

TEST_CASE("units are read as products of names, and written as such") {
    CHECK(product("kg m-3") == "kg m-3");
    CHECK(product("cm/day") == "cm day-1");
    CHECK(product("W/m2 K-1") == "W K-1 m-2");
    CHECK(product("m^2 s") == "m2 s");
    CHECK(product("m.m") == "m2");
    CHECK(product("m/m") == "1");
    CHECK(product("1") == "1");
    CHECK(product("°C") == "°C");
    CHECK(product("1e-3 m") == "(1e-3 m)");
    CHECK(UnitProduct::of("m").times(UnitProduct::of("s-1")).text() == "m s-1");
    CHECK(UnitProduct::of("m2").toThe(0.5).text() == "m");
    CHECK(UnitProduct::of("m").toThe(0.5).text().empty());
    CHECK(UnitProduct::of("m cm-1").mixes());
    CHECK_FALSE(UnitProduct::of("m s-1").mixes());
}

TEST_CASE("units go together when they are of one kind and one scale") {
    CHECK(matched("m", "m") == UnitMatch::Same);
    CHECK(matched("m", "cm") == UnitMatch::OtherScale);
    CHECK(matched("m", "s") == UnitMatch::OtherKind);
    CHECK(matched("N", "kg m s-2") == UnitMatch::Same);
    CHECK(matched("°C", "K") == UnitMatch::OtherScale); // by an offset
    CHECK(matched("J", "kW h") == UnitMatch::OtherScale);
    CHECK(matched("%", "1") == UnitMatch::OtherScale);
    CHECK(match(UnitProduct::of("m").toThe(0.5), UnitProduct::of("cm").toThe(0.5)) == UnitMatch::OtherScale);
    CHECK(match(UnitProduct::of("m").toThe(0.5), UnitProduct::of("s")) == UnitMatch::OtherKind);
}

TEST_CASE("sums, comparisons and pieces of different units are said, at their place") {
    CHECK(said(with({"a = h + t"})).find("adds m and s, which are different kinds") != std::string::npos);
    CHECK(said(with({"a = h - d"})).find("subtracts m and cm, and numbers are not converted") != std::string::npos);
    CHECK(said(with({"a = T + K"})).find("not converted") != std::string::npos);
    CHECK(said(with({"f(x) = { x for x < t; h otherwise }"})).find("compares m and s") != std::string::npos);
    CHECK(said(with({"f(x) = { t for x < h; h otherwise }"})).find("has pieces in s and m") != std::string::npos);
    CHECK(said(with({"a = max(h, t)"})).find("compares") != std::string::npos);
    CHECK(said(with({"a = h + int_0^t h dk"})).find("adds m and m s") != std::string::npos);
    CHECK(said(with({"f(x) = x^2", "a = h + f(h)"})).find("adds m and m2") != std::string::npos);
    CHECK(said(with({"f(x) = x", "a = f(t)"})).find("x is in m on its line, and this is in s") != std::string::npos);
    CHECK(said(with({"a = h t, unit m"})).find("This is in m s, and the line says m.") != std::string::npos);
    CHECK(said(with({"a = d, unit m"})).find("numbers are not converted") != std::string::npos);
    CHECK(said(with({"s = {1, 2}, unit m", "r = s - t"})).find("subtracts m and s") != std::string::npos);
    const Page page = readPage(with({"a = 2 + (h + t)"}));
    REQUIRE(page.lines.back().problems.size() == 1);
    CHECK(page.lines.back().problems[0].first == 10); // h + t
    CHECK(page.lines.back().problems[0].last == 14);
}

TEST_CASE("what may be right is not doubted") {
    for (const char* line : {"a = h + 2",
                             "a = h + 9.81 t^2/2",
                             "a = h + n t",
                             "a = h + d/100",
                             "a = h + 100 h",
                             "a = sin(2 pi t/365)",
                             "a = h + 3 h - h/2",
                             "a = sqrt(h^2 + h^2)",
                             "a = |h| + h",
                             "a = h t/t + h",
                             "a = (h/t)/(h/t^2) + t",
                             "f(x) = x + h [x > 1]",
                             "f(x) = h exp(-x/h)",
                             "a = sum_{k=1}^{3} k h",
                             "a = h + 1e-2 d",
                             "a = 0.3 d, unit m",
                             "a = int_0^h x dx + h^2",
                             "f(t) = t + h",
                             "a = min(h, 2 h)",
                             "a = h^n + h"}) {
        CAPTURE(line);
        CHECK(said(with({line})) == "");
    }
    CHECK(said({"a = 2", "b = a + 3"}) == "");
    // A theory without units over readings that have them.
    CHECK(said({"f(x) = 2 x", "x in [0, 6]", "t = {1, 2}, unit s", "s = {2, 4}, unit m", "r = s - f(t)"}) == "");
}

TEST_CASE("units follow from formulas where a line says none") {
    CHECK(unitOf(with({"v = h/t"}), "v") == "m s-1");
    CHECK(unitOf(with({"v = h/t", "w = v t"}), "w") == "m");
    CHECK(unitOf(with({"A = h^2 + h h"}), "A") == "m2");
    CHECK(unitOf(with({"A = sqrt(h^2)"}), "A") == "m");
    CHECK(unitOf(with({"A = n h"}), "A").empty());          // n may have any
    CHECK(unitOf(with({"A = 9.81 h"}), "A").empty());       // so may 9.81
    CHECK(unitOf(with({"A = h/d"}), "A").empty());          // m cm⁻¹ says nothing to anybody
    CHECK(unitOf(with({"A = h + t"}), "A").empty());        // wrong
    CHECK(unitOf(with({"A = h/h"}), "A").empty());          // a pure number has none
    CHECK(unitOf(with({"f(x) = x^2/t"}), "f") == "m2 s-1"); // by the variable of that name
    CHECK(unitOf(with({"f(x) = x^2/t", "B = f'(h)"}), "B") == "m s-1");
    CHECK(unitOf(with({"B = int_0^h x^2 dx"}), "B") == "m3");
    CHECK(unitOf(with({"s = {1, 2}, unit cm", "r = s - mean(s)"}), "r") == "cm");
    CHECK(unitOf(with({"g(x) = d/dx(x^3)"}), "g") == "m2");
    CHECK(unitOf(with({"y in [0, 1], unit m", "p(x, y) = x y h", "q(x, y) = grad p(x, y)"}), "q") == "m2");
    CHECK(unitOf(with({"f(x) = g(x)", "g(x) = f(x)"}), "f").empty()); // a circle ends
    const std::vector<std::string> lines = with({"v = h/t"});
    CHECK(readPage(lines, {}, false).unitOf("v").empty()); // older recipes
}

TEST_CASE("coefficients of a fit have the units that follow") {
    const Page page = readPage(std::vector<std::string>{"t = {1, 2, 3, 4}, unit h", "s = {2.1, 2.9, 4.2, 5}, unit cm",
                                                        "(a, b, c) fits s = a + b t + c sin(t)"});
    CHECK(page.unitOf("a") == "cm");
    CHECK(page.unitOf("b") == "cm h-1");
    CHECK(page.unitOf("c").empty());
}

TEST_CASE("an expression over a page has its unit, and its problems") {
    const Page page = readPage(with({"f(x) = x^2"}));
    const auto read = [&](const char* text) {
        const std::u32string letters = decodeUtf8(text);
        return parseExpression(tokenize(letters, 0, letters.size()).tokens, page.names).expression;
    };
    CHECK(unitOfExpression(page, read("f(x)/t")) == "m2 s-1");
    CHECK(unitOfExpression(page, read("h/h")) == "1");
    CHECK(unitOfExpression(page, read("n")).empty());
    CHECK(unitProblems(page, read("h - t")).size() == 1);
    CHECK(unitProblems(page, read("h - h")).empty());
}

TEST_CASE("an exponent with a point is remarked upon at its unit, and what is a product is not") {
    const Page page = readPage(std::vector<std::string>{"S = 32, unit mm h-0.5"});
    REQUIRE(page.lines[0].problems.size() == 1);
    const Problem& said = page.lines[0].problems[0];
    CHECK(said.severity == Problem::Severity::Note);
    CHECK(said.sentence == "Exponents of units are whole numbers; in “mm h-0.5” the point is read as a product.");
    CHECK(said.first == 14);
    CHECK(said.last == 21);
    CHECK(page.valueOf("S") == 32); // a remark stops nothing
    for (const char* broken : {"m^0.5", "m0.5", "kg m-1.5", "Pa/s^-2.5"}) CHECK(hasBrokenExponent(broken));
    for (const char* whole : {"m", "m.s-1", "m2.s-1", "2.5 m", "0.1 kg", "kg m-3", "(1.5 m)/s", "m/1.5 s", ""})
        CHECK_FALSE(hasBrokenExponent(whole));
}
