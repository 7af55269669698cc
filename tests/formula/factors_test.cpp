#include "formula/factors.h"

#include "formula/expr_build.h"
#include "formula/parser.h"
#include "formula/text.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

/// “x, (x - 1)*”, a star behind what is repeated.
std::string factors(const std::string& text, std::vector<std::string> lines = {}) {
    const Page page = readPage(lines);
    KnownNames names = page.names;
    names.values.insert("x");
    const ParsedExpression parsed = parseExpression(decodeUtf8(text), names);
    REQUIRE(parsed.expression);
    std::string all;
    for (const Factor& factor : factorsOf(page, parsed.expression))
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
    CHECK(factors("f(x + 1)", {"f(t) = t^2 cos(t)"}) == "x + 1*; cos(x + 1)");
    CHECK(factors("x^x") == "x^x");
}

TEST_CASE("fractions that are added become one") {
    CHECK(factors("1/(x - 1) + 1/(x + 1)").find("/") == std::string::npos);
    CHECK(factors("x - 1/x").find("/") == std::string::npos);
}
