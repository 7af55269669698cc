#include "formula/algebra/factors.h"

#include "formula/notation/expr_build.h"
#include "page_of_functions.h"

using namespace coulter;

namespace {

/// “x, (x - 1)*”, a star behind what is repeated.
std::string factors(const std::string& text, const std::vector<FunctionText>& functions = {}) {
    const Page page = pageOfFunctions(functions);
    std::string all;
    for (const Factor& factor : factorsOf(page, expressionOver(page, text, {"x"})))
        all += (all.empty() ? "" : "; ") + spelled(*factor.base) + (factor.isRepeated ? "*" : "");
    return all;
}

} // namespace

TEST_CASE("factors are what a function is zero with") {
    CHECK(factors("x sin(x)") == "x; sin(x)");
    CHECK(factors("(x - 1)^2 (x + 1)") == "x - 1*; x + 1");
    CHECK(factors("x x") == "x*");
    CHECK(factors("-sqrt(x)") == "x");
    CHECK(factors("|sin(x)|") == "sin(x)");
    CHECK(factors("tan(x)") == "sin(x)");
    CHECK(factors("1/x") == "1");
    CHECK(factors("sin(x)/x") == "sin(x)");
    CHECK(factors("(x/2)^3/(x - 1)") == "x*");
    CHECK(factors("x^(-2)") == "1");
    CHECK(factors("x + 1") == "x + 1");
    CHECK(factors("f(x + 1)", {{"f", {"t"}, "t^2 cos(t)"}}) == "x + 1*; cos(x + 1)");
    CHECK(factors("x^x") == "x^x");
}

TEST_CASE("fractions that are added become one") {
    CHECK(factors("1/(x - 1) + 1/(x + 1)").find("/") == std::string::npos);
    CHECK(factors("x - 1/x").find("/") == std::string::npos);
}
