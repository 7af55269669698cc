// Lines with tables, fits and searches as they are set.
#include "formula/lines/read_page.h"
#include "formula/page/page.h"
#include "typeset/formula_math.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

/// All words and symbols of a piece of mathematics, one after the other.
std::string text(const MathPtr& math) {
    if (!math) return "";
    std::string all = math->open + (math->kind == MathKind::Fenced ? "" : math->text);
    for (const MathPtr& child : math->children) all += text(child);
    return all + math->close;
}

std::string lineText(const Line& line) {
    std::string all;
    for (const MathPtr& term : lineTerms(line)) all += text(term);
    return all;
}

DataTables readings() {
    DataTable table;
    table.source = "readings.csv";
    const auto column = [](std::vector<double> numbers) {
        return std::make_shared<const std::vector<double>>(std::move(numbers));
    };
    table.columns = {{"t", "s", "", column({1, 2, 3, 4})}, {"s", "m", "", column({2.1, 3.9, 6.2, 7.8})}};
    table.leftOut = {3};
    DataTables tables;
    tables.put(table);
    return tables;
}

} // namespace

TEST_CASE("a table says how many of its rows count") {
    const Page page = readPage(std::vector<std::string>{"(t, s) from \"readings.csv\""}, readings());
    const std::string said = lineText(page.lines[0]);
    CHECK(said.find("from") != std::string::npos);
    CHECK(said.find("“readings.csv”") != std::string::npos);
    CHECK(said.find("3 of 4 rows count") != std::string::npos);
    CHECK(lineMath(page.lines[0]));
}

TEST_CASE("a fit says its coefficients to the digits that their errors leave") {
    const Page page =
        readPage(std::vector<std::string>{"(t, s) from \"readings.csv\"", "b fits s = b t", "(a, c) fits s = a + c t"},
                 readings());
    const Line& one = page.lines[1];
    REQUIRE(one.good());
    CHECK(lineText(one).find("±") != std::string::npos);
    CHECK(lineText(one).find("fits") != std::string::npos);
    CHECK(lineTerms(page.lines[2]).size() == 2);
}

TEST_CASE("a search says its places, and whether they are all") {
    const Page page = readPage(std::vector<std::string>{
        "sin(x) = 0 for x in [1, 10]", "z = zeros of cos(x) for x in [0, 2]", "extrema of x^2 for x in [-1, 1]",
        "x^2 + 1 = 0 for x in [0, 1]", "sin(50 x) = 0 for x in [0, 3]", "|x| - 1e-20 = 0 for x in [-1, 1]",
        "maximum of f(x) for x"});
    CHECK(lineText(page.lines[0]).find("all, proven") != std::string::npos);
    CHECK(lineText(page.lines[0]).find("6.283185") != std::string::npos);
    CHECK(lineText(page.lines[1]).starts_with("z="));
    CHECK(lineText(page.lines[2]).find("minimum") != std::string::npos);
    CHECK(lineText(page.lines[3]).find("none, proven") != std::string::npos);
    CHECK(lineText(page.lines[4]).find("more: all, proven") != std::string::npos); // not fifty of them
    CHECK(lineText(page.lines[5]).find("not all of it settled") != std::string::npos);
    CHECK(!page.lines[6].good());
    lineTerms(page.lines[6]); // nothing to say, and nothing breaks
}

TEST_CASE("formulas of coefficients that are too long for a row are divided before their signs") {
    const Page page = readPage(std::vector<std::string>{
        "r(t) = { 1 for t < pi; 0 otherwise }", "r(t + 2 pi) = r(t)", "(n, a, b) = Fourier coefficients of r(t)",
        "w(t) = { 4 for 6 <= t < 9; 2 for 19 <= t < 21; 0 otherwise }", "w(t + 24) = w(t)",
        "(m, p, q) = Fourier coefficients of w(t)", "u(t) = { exp(-t) for t < 1; 2 otherwise }", "u(t + 3) = u(t)",
        "(k, c, s) = Fourier coefficients of u(t)"});
    REQUIRE(page.problems().empty());
    CHECK(lineTerms(page.lines[2]).size() == 4); // the line, its period, and a formula each
    const std::vector<MathPtr> divided = lineTerms(page.lines[5]);
    REQUIRE(divided.size() == 2 + 2 * 4); // of four waves each, over one denominator
    CHECK(text(divided[2]).find("(") != std::string::npos);
    CHECK(text(divided[3]).starts_with("−"));
    CHECK(text(divided[5]).find("))") != std::string::npos);
    CHECK(lineTerms(page.lines[8]).size() == 2 + 2 * 3); // three fractions each
    CHECK(lineText(page.lines[5]).find("sin") != std::string::npos);
}
