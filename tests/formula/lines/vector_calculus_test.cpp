#include "formula/algebra/vector_calculus.h"
#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"
#include "formula/notation/expr_build.h"
#include "formula/page/page.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace coulter;

namespace {

const std::vector<std::string> lines{"h(x, y) = x^2 y + sin(y)", "v(x, y) = (x y, y - x^2)",
                                     "w(x, y, z) = (y z, x z^2, x y)", "f(x) = x^2", "g(x, y) = div v(x, y) + 1"};

std::vector<double> values(const char* text) {
    const Page page = readPage(lines);
    const Answer found = evaluate(page, text);
    INFO(text << ": " << (found.problems.empty() ? "" : found.problems[0].sentence));
    REQUIRE(found.problems.empty());
    return found.values;
}

std::string problem(const char* text) {
    const Page page = readPage(lines);
    const Answer found = evaluate(page, text);
    REQUIRE_FALSE(found.problems.empty());
    return found.problems[0].sentence;
}

} // namespace

TEST_CASE("gradient, divergence and curl are those of the formulas") {
    CHECK(values("grad h(3, 2)") == std::vector<double>{12, 9 + std::cos(2.0)});
    CHECK(values("grad(h(3, 2))") == values("grad h(3, 2)"));
    CHECK(values("div v(3, 2)") == std::vector<double>{3});
    CHECK(values("rot v(3, 2)") == std::vector<double>{-9});
    CHECK(values("rot w(1, 2, 3)") == std::vector<double>{-5, 0, 6});
    CHECK(values("div w(1, 2, 3)") == std::vector<double>{0});
    CHECK(values("2 grad h(0, 0)") == std::vector<double>{0, 2});
    CHECK(values("|grad h(0, 0)|") == std::vector<double>{1});
    CHECK(values("g(3, 2)") == std::vector<double>{4});
    CHECK(values("d/dx(g(x, 2))") == std::vector<double>{}); // a formula, since x has no value
    const Page page =
        readPage(std::vector<std::string>{"h(x, y) = x^3 y", "s(x, y) = div u(x, y)", "u(x, y) = grad h(x, y)",
                                          "x in [0, 1]", "y in [0, 1]", "s(2, 5) = ?"});
    for (const Line& line : page.lines) CHECK(line.good());
    CHECK(page.lines[5].value == 60.0); // the Laplacian
}

TEST_CASE("what has no gradient, divergence or curl is said") {
    CHECK(problem("grad f(2)").find("two or three variables") != std::string::npos);
    CHECK(problem("div h(1, 2)").find("as many components") != std::string::npos);
    CHECK(problem("rot w(1, 2)").find("takes 3") != std::string::npos);
    CHECK(problem("grad 3").find("function of the page") != std::string::npos);
    CHECK(problem("grad").find("function of the page") == std::string::npos); // nothing follows at all
}
