// Algebra on formulas, without a number being computed and without a page being read.
#include "formula/algebra/derivative.h"
#include "formula/algebra/exact_form.h"
#include "formula/algebra/exact_value.h"
#include "formula/algebra/simplify.h"
#include "formula/algebra/vector_calculus.h"
#include "formula/notation/expr_build.h"
#include "page_of_functions.h"

#include <random>

using namespace coulter;

namespace {

std::string derived(const std::string& text, int order = 1) {
    const Derived found = derivative({}, expressionOver({}, text, {"x"}), "x", order);
    REQUIRE(found.expression);
    return spelled(*found.expression);
}

} // namespace

TEST_CASE("derivatives are those of the textbooks") {
    CHECK(derived("x^3") == "3 x^2");
    CHECK(derived("sin(2x)") == "2 cos(2x)");
    CHECK(derived("x^4", 4) == "24");
    CHECK(derived("5") == "0");
}

TEST_CASE("exact numbers obey the rules of a field") {
    std::mt19937 random(3);
    const auto whole = [&] { return ExactValue(ExactValue::Fraction(static_cast<int>(random() % 19) - 9)); };
    const auto root = [&] { return *ExactValue(ExactValue::Fraction(1 + random() % 12)).squareRoot(); };
    for (int i = 0; i < 300; ++i) {
        const ExactValue a = whole() * root(), b = whole() * ExactValue::pi(), c = whole() + root();
        CHECK(a * (b + c) == a * b + a * c);
        CHECK((a + b) + -b == a);
        CHECK((a * b).number() == Approx(a.number() * b.number()));
        if (const auto inverse = a.inverse()) CHECK((a * *inverse).text() == "1");
    }
}

TEST_CASE("exact forms follow functions of a page") {
    const Page page = pageOfFunctions({{"f", {"t"}, "sin(π t)"}});
    CHECK(exactText(page, expressionOver(page, "f(1/3)")) == "√3/2");
    CHECK(exactText(page, expressionOver(page, "erf(1)")).empty());
}

TEST_CASE("divergence and curl want as many components as variables, by the formula's form") {
    const Page page = pageOfFunctions({{"u", {"x", "y"}, "2 (x y, 1) - (y, x)"},
                                       {"h", {"x", "y"}, "x y"},
                                       {"v", {"x", "y"}, "h(x, y) u(x, y)"},
                                       {"w", {"x", "y"}, "(x, y, 0)"}});
    const auto expanded = [&](const char* text) {
        return expandedVectors(page, *expressionOver(page, text, {"x", "y"}));
    };
    CHECK(expanded("div u(x, y)").expression);
    CHECK(expanded("rot v(x, y)").expression);
    CHECK(expanded("grad h(x, y)").expression);
    CHECK(expanded("div h(x, y)").problem.suggestion == "write grad h(…)");
    CHECK(expanded("div w(x, y)").problem.sentence.find("has 3, and 2 variables") != std::string::npos);
}
