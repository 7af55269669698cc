#include "formula/page/free_names.h"
#include "formula/page/line_parser.h"
#include "page_of_functions.h"

using namespace coulter;

TEST_CASE("a line's kind is told before its formulas are read") {
    const std::pair<const char*, LineKind> lines[] = {
        {"", LineKind::Blank},
        {"# Damping depth.", LineKind::Prose},
        {"q_0 = 1.5, from 0 to 6", LineKind::Quantity},
        {"T(z, t) = z sin(t)", LineKind::Function},
        {"x in [-8, 12], unit m", LineKind::Variable},
        {"r(t + 6) = r(t)", LineKind::Period},
        {"f(2) = ?", LineKind::Question},
        {"(a, b) solves 2a + b = 5, a - 4b = 1", LineKind::Solution},
        {"X ~ N(2, 0.5^2), count 500", LineKind::Random},
        {"(t, s) from \"readings.csv\"", LineKind::Table},
        {"(a, b) fits s = a + b t", LineKind::Fit},
    };
    for (const auto& [text, kind] : lines) {
        INFO(text);
        CHECK(outlineLine(text).line.kind == kind);
    }
}

TEST_CASE("the second reading puts formulas in their places, with their names known") {
    KnownNames names;
    names.values = {"A", "x"};
    const Line variable = readLine(outlineLine("x in [0, 2A], count 101"), names);
    REQUIRE(variable.high);
    CHECK(variable.high->kind == ExprKind::Multiply);
    CHECK(variable.count->number == 101);
    const Line wrong = readLine(outlineLine("q = B + 1"), names);
    REQUIRE(wrong.problems.size() == 1);
    CHECK(wrong.problems[0].first == 5);
}

TEST_CASE("free names are followed through functions, and end at what runs") {
    Page page = pageOfFunctions({{"f", {"t"}, "t^2"}, {"g", {"t"}, "f(t) + t"}});
    Line variable;
    variable.kind = LineKind::Variable;
    variable.name = "x";
    page.defined["x"] = page.lines.size();
    page.lines.push_back(variable);
    using Names = std::vector<std::string>;
    CHECK(freeVariables(page, expressionOver(page, "g(x) + 1", {"x"})) == Names{"x"});
    CHECK(freeVariables(page, expressionOver(page, "sum_{x=1}^3 f(x)", {"x"})).empty());
    CHECK(freeVariables(page, expressionOver(page, "g(2)")).empty());
}

TEST_CASE("a page finds good lines of the kind that is asked for, and no others") {
    Page page = pageOfFunctions({{"f", {"t"}, "t^2"}});
    CHECK(page.find("f", LineKind::Function));
    CHECK_FALSE(page.find("f", LineKind::Quantity));
    CHECK_FALSE(page.find("h", LineKind::Function));
    page.lines[0].problems.push_back(saying("wrong"));
    CHECK_FALSE(page.find("f", LineKind::Function));
    REQUIRE(page.problems().size() == 1);
    CHECK(page.problems()[0].line == 0);
}
