#include "formula/algebra/derivative.h"

#include "formula/algebra/simplify.h"
#include "formula/base/text.h"
#include "formula/compile/compile.h"
#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/parser.h"
#include "program_reference.h"
#include "random_formula.h"

#include <catch2/catch.hpp>

using namespace coulter;

namespace {

ExprPtr parsed(const std::string& text, const KnownNames& names) {
    const ParsedExpression result = parseExpression(decodeUtf8(text), names);
    INFO(text << (result.expression ? "" : " → " + describe(result.problems.front())));
    REQUIRE(result.expression);
    return result.expression;
}

std::string derived(const std::string& text, std::vector<std::string> lines = {}) {
    const Page page = readPage(lines);
    const Answer answer = evaluate(page, text);
    INFO(text);
    REQUIRE(answer.problems.empty());
    REQUIRE(answer.formula);
    return spelled(*answer.formula);
}

} // namespace

TEST_CASE("derivatives are written as a person would") {
    CHECK(derived("d/dx(5x^2 - 7x + 4)") == "10x - 7");
    CHECK(derived("d/dx(x^3 - sin(2x))") == "3 x^2 - 2 cos(2x)");
    CHECK(derived("d/dx((x^2 + 1)^3)") == "6x (x^2 + 1)^2");
    CHECK(derived("d/dx(ln(2x))") == "1/x");
    CHECK(derived("d/dx(sqrt(1 - x^2))") == "-x/sqrt(1 - x^2)");
    CHECK(derived("d/dx(exp(-x^2/2))") == "-x exp(-x^2/2)");
    CHECK(derived("d/dx(x^x)") == "x^x ln(x) + x^x");
    CHECK(derived("d/dx(2^x)") == "2^x ln(2)");
    CHECK(derived("d/dx(e^(3x))") == "3 e^(3x)");
    CHECK(derived("d/dx(|x|)") == "x/abs(x)");
    CHECK(derived("d/dx(x/2 + 0.3x)") == "0.8");
    CHECK(derived("d/dx(sum_{n=1}^{5} x^n/n)") == "sum_{n=1}^{5} x^(n - 1)");
    CHECK(derived("d/dx({ x^2 for x < 0; sin(x) otherwise })") == "{ 2x for x < 0; cos(x) otherwise }");
    CHECK(derived("d^2/dx^2(arctan(x))") == "-2x/(1 + x^2)^2");
    CHECK(derived("J_0'(x)", {"x in [0, 1]"}) == "-J_{1}(x)");
    CHECK(derived("Ai''(x)", {"x in [0, 1]"}) == "x Ai(x)");
    CHECK(derived("d/dx((cos(x), x^2))") == "(-sin(x), 2x)");
}

TEST_CASE("functions of the page are differentiated by dash and by name") {
    CHECK(derived("f'(x)", {"f(x) = 5x^2 - 7x + 4"}) == "10x - 7");
    CHECK(derived("f''(x)", {"f(x) = 5x^2 - 7x + 4"}) == "10");
    CHECK(derived("g'(x)", {"f(x) = x^2 + 1", "g(x) = f(x)^3"}) == "3 f^{2}(x) f'(x)");
    CHECK(derived("d/dz(T(z, t))", {"T(z, t) = 9 exp(-z/d) sin(t)", "d = 2"}) == "-9 exp(-z/d) sin(t)/d");
    const std::vector<std::string> lines{"f(x) = a x^2", "a = 3", "x in [0, 1]", "h(t) = t x"};
    const Page page = readPage(lines);
    CHECK(evaluate(page, "f'(2)").value() == 12);
    CHECK(evaluate(page, "f''(7)").value() == 6);
    CHECK(derived("d/dx(h(3))", lines) == "3"); // h uses the page's variable
    CHECK(evaluate(page, "sin'(0)").value() == 1);
}

TEST_CASE("integrals follow Leibniz’ rule, products of many factors the product rule") {
    CHECK(derived("d/dt(int_0^t exp(-k t) dk)") == "exp(-t^2) - int_{0}^{t} k exp(-k t) dk");
    CHECK(derived("d/dx(int_x^{x^2} sin(k)/k dk)") == "2 sin(x^2)/x - sin(x)/x");
    const std::vector<std::string> lines{"p(x) = prod_{n=1}^{4} (x - n)"};
    CHECK(evaluate(readPage(lines), "p'(2)").value() == 2); // (2−1)(2−3)(2−4), where a factor vanishes
}

TEST_CASE("what has no derivative says so at its place") {
    const std::vector<std::string> lines{"n in [0, 3]", "f(x, y) = x y"};
    const Page page = readPage(lines);
    const auto problem = [&](const std::string& text) {
        const Answer answer = evaluate(page, text);
        INFO(text);
        REQUIRE(answer.problems.size() == 1);
        return answer.problems[0].sentence;
    };
    CHECK(problem("d/dn(J_n(2))").find("by n has no formula") != std::string::npos);
    CHECK(problem("zeta'(2)").find("has no formula") != std::string::npos);
    CHECK(problem("f'(2, 3)").find("several parameters") != std::string::npos);
    CHECK(problem("d^9/dn^9(n)").find("1 to 8") != std::string::npos);
    CHECK(problem("d^2/dn^3(n)").find("differ") != std::string::npos);
}

TEST_CASE("derivatives of random formulas agree with differences in high precision") {
    KnownNames names;
    names.values.insert("x");
    const std::vector<std::string> inputs{"x"};
    int compared = 0;
    for (unsigned seed = 0; seed < 1200; ++seed) {
        RandomFormula random(seed + 50'000);
        const std::string formula = random.make(1 + static_cast<int>(seed % 3));
        const ExprPtr expression = parsed(formula, names);
        const Derived slope = derivative(Page{}, expression, "x");
        INFO(formula);
        if (!slope.expression) { // ζ, or K(k) through an order
            CHECK(slope.problems.front().sentence.find("has no formula") != std::string::npos);
            continue;
        }
        const auto f = compile(Page{}, expression, inputs).program,
                   d = compile(Page{}, slope.expression, inputs).program;
        if (!f) continue;
        INFO("derivative " << spelled(*slope.expression));
        REQUIRE(d);
        const oracle::ProgramReference reference{*f}, own{*d};
        for (int i = 0; i < 4; ++i) {
            const double x = random.between(-3, 3);
            const auto expected = reference.slope({x});
            const auto exact = own.at({x});
            if (!expected || !std::isfinite(*expected) || std::abs(*expected) > 1e12) continue;
            INFO("at " << shortestNumber(x));
            if (!exact) continue; // a border of pieces, or beyond the reference
            ++compared;
            REQUIRE(exact->first == Approx(*expected).epsilon(1e-11).margin(1e-11));
        }
    }
    CHECK(compared > 1500);
}

TEST_CASE("a power of a function is not written where it would be read as an index") {
    KnownNames names;
    names.values.insert("x");
    CHECK(spelled(*simplified(parsed("(L_{2}(x))^2", names))) == "(L_{2}(x))^2");
    CHECK(spelled(*simplified(parsed("(J_{2}(x))^2", names))) == "J_{2}^{2}(x)");
    CHECK(spelled(*simplified(parsed("(sin(x))^2", names))) == "sin^{2}(x)");
}

TEST_CASE("what is written out reads back as the same formula") {
    KnownNames names;
    names.values.insert("x");
    const std::vector<std::string> inputs{"x"};
    for (unsigned seed = 0; seed < 400; ++seed) {
        RandomFormula random(seed + 90'000);
        const ExprPtr first = parsed(random.make(1 + static_cast<int>(seed % 4)), names);
        const std::string text = spelled(*first);
        INFO(text);
        const ExprPtr second = parsed(text, names);
        CHECK(spelled(*second) == text);
        const ExprPtr simple = simplified(first);
        const std::string shorter = spelled(*simple);
        INFO(shorter);
        const auto a = compile(Page{}, first, inputs).program,
                   b = compile(Page{}, parsed(shorter, names), inputs).program;
        if (!a || !b) continue;
        for (int i = 0; i < 3; ++i) {
            const double x = random.between(-3, 3);
            const auto before = oracle::ProgramReference{*a}.at({x}), after = oracle::ProgramReference{*b}.at({x});
            if (!before || !after || std::abs(before->first) > 1e12) continue;
            INFO("at " << shortestNumber(x));
            CHECK(after->first == Approx(before->first).epsilon(1e-9).margin(1e-9));
        }
    }
}
