// Integrals, sums and products with a closed form, which Arb evaluates: nothing claimed about their errors may be
// wrong.
#include "formula/base/text.h"
#include "formula/compile/compile.h"
#include "formula/lines/answer.h"
#include "formula/lines/read_page.h"
#include "formula/notation/expr_build.h"
#include "formula/notation/parser.h"
#include "formula/page/page.h"
#include "program_reference.h"

#include <catch2/catch.hpp>
#include <fmt/format.h>

using namespace coulter;

namespace {

struct Case {
    std::string formula, closed;
};

/// Two doubles round a closed form's value.
std::pair<double, double> referenceOf(const std::string& closed) {
    const ParsedExpression parsed = parseExpression(decodeUtf8(closed), KnownNames{});
    INFO(closed);
    REQUIRE(parsed.expression);
    const auto program = compileStepByStep(Page{}, parsed.expression).program;
    REQUIRE(program);
    const auto bounds = oracle::ProgramReference{*program}.at({});
    REQUIRE(bounds);
    return *bounds;
}

/// That no bound is violated, at least this share is known to ten digits, and so many bounds are proven.
void check(const std::vector<Case>& cases, double share, std::size_t leastProven) {
    std::size_t digits = 0, proven = 0;
    std::string poor, estimated;
    for (const Case& each : cases) {
        INFO(each.formula << " = " << each.closed);
        const Answer found = evaluate(Page{}, each.formula);
        for (const Problem& problem : found.problems) UNSCOPED_INFO(describe(problem));
        REQUIRE(found.values.size() == 1);
        const auto [low, high] = referenceOf(each.closed);
        const double value = found.values[0], error = found.errors[0];
        if (std::isnan(value)) {
            CHECK(found.unsettled);
            poor += "\n" + each.formula + " is undefined";
            continue;
        }
        CHECK(value + error >= low);
        CHECK(value - error <= high);
        CHECK(std::abs(value - low) <= 1e-6 * std::max(1e-3, std::abs(low)));
        proven += found.isEstimated ? 0 : 1;
        if (found.isEstimated) estimated += "\n" + each.formula;
        const bool ten = error <= 1e-10 * std::abs(value) || error <= 1e-13;
        digits += ten ? 1 : 0;
        if (!ten) poor += fmt::format("\n{} is {} ± {:.1e}", each.formula, value, error);
    }
    INFO(digits << " of " << cases.size() << " with ten digits, not:" << poor);
    CHECK(static_cast<double>(digits) >= share * static_cast<double>(cases.size()));
    INFO(proven << " proven, not:" << estimated);
    CHECK(proven >= leastProven);
}

} // namespace

TEST_CASE("integrals with closed forms: bounds hold, and all have ten digits") {
    std::vector<Case> cases{
        {"int_0^inf sin(x)^2/x^2 dx", "pi/2"},
        {"int_{-inf}^inf sin(x)^2/x^2 dx", "pi"},
        {"int_{-1}^1 1/sqrt(1 - x^2) dx", "pi"},
        {"int_0^inf x/(exp(x) - 1) dx", "pi^2/6"},
        {"int_0^inf x^3/(exp(x) - 1) dx", "pi^4/15"},
        {"int_0^inf ln(x) exp(-x) dx", "psi(1)"},
        {"int_0^1 ln(x)/(1 + x) dx", "-pi^2/12"},
        {"int_0^1 ln(1 + x)/x dx", "pi^2/12"},
        {"int_0^10 floor(x) dx", "45"},
        {"int_0^1 |sin(20 pi x)| dx", "2/pi"},
        {"int_0^1 |x - 1/3| dx", "5/18"},
        {"int_0^1 [x < 0.3] dx", "0.3"},
        {"int_0^1 mod(x, 0.1) dx", "0.05"},
        {"int_0^1 max(x, 1 - x) dx", "3/4"},
        {"int_0^40 { 1 for mod(x, 2) < 1; -2 otherwise } dx", "-20"},
        {"int_{-1}^1 1/(x^2 + 1e-8) dx", "2e4 arctan(1e4)"},
        {"int_0^1 exp(-((x - 0.3)/0.001)^2) dx", "sqrt(pi)/1000"},
        {"int_{-inf}^inf exp(-x^2) dx", "sqrt(pi)"},
        {"int_{-inf}^inf 1/(1 + x^2) dx", "pi"},
        {"int_0^inf 1/(1 + x^4) dx", "pi/(2 sqrt(2))"},
        {"int_{-inf}^inf sech(x) dx", "pi"},
        {"int_0^1 int_0^1 [x^2 + y^2 < 1] dx dy", "pi/4"},
        {"int_0^1 int_0^1 x exp(x y) dx dy", "e - 2"},
        {"int_0^1 int_0^y exp(-y^2) dx dy", "(1 - exp(-1))/2"},
        {"int_0^pi int_0^sin(x) y dy dx", "pi/4"},
        {"int_0^2 int_0^1 1/(1 + x + y) dx dy", "6 ln(2) - 3 ln(3)"},
        {"int_0^1 int_(x^2)^x (x + y) dy dx", "3/20"},
        {"int_{-1}^1 int_{-1}^1 [x^2 + y^2 < 1 and y > 0] (1 - x^2 - y^2) dx dy", "pi/4"},
        {"int_0^1 cos(100x) exp(x) dx", "(e (cos(100) + 100 sin(100)) - 1)/10001"},
        {"int_1^inf cos(x)/x dx", "-Ci(1)"},
        {"int_1^inf sin(x)/x dx", "pi/2 - Si(1)"},
        {"int_1^inf sin(x)/x^2 dx", "sin(1) - Ci(1)"},
        {"int_2^inf exp(-x)/x dx", "E_1(2)"},
        {"int_0^inf sin(x) exp(-x/100) dx", "1/(1 + (1/100)^2)"},
        {"int_0^inf sin(x)/sqrt(x) dx", "sqrt(pi/2)"},
        {"int_0^inf cos(x)/sqrt(x) dx", "sqrt(pi/2)"},
        {"int_0^inf ln(x) sin(x)/x dx", "psi(1) pi/2"},
        {"int_{-inf}^0 sin(x)/x dx", "pi/2"},
        {"int_0^2 1/sqrt(|x - 1|) dx", "4"},
        {"int_0^1 1/(sqrt(x) (1 + x)) dx", "pi/2"},
        {"int_0^(pi/2) ln(sin(x)) dx", "-pi/2 ln(2)"},
        {"int_0^1 ln(x)^2 dx", "2"},
        {"int_0^1 ln(x)^2/sqrt(x) dx", "16"},
        {"int_0^1 sqrt(x) ln(x) dx", "-4/9"},
        {"int_0^1 1/(1 + x) dx", "ln(2)"},
        {"int_0^1 sqrt(1 - x^2) dx", "pi/4"},
        {"int_0^5 1/sqrt(5 - x) dx", "2 sqrt(5)"},
        {"int_3^4 (x - 3)^(-0.7) dx", "1/0.3"},
        {"pv int_{-1}^2 1/x dx", "ln(2)"},
        {"pv int_0^3 1/(x - 1) dx", "ln(2)"},
        {"pv int_0^2 x/(x^2 - 1) dx", "ln(3)/2"},
        {"pv int_0^2 1/(x^2 - 1) dx", "-ln(3)/2"},
        {"pv int_{-1}^1 exp(x)/x dx", "Ei(1) + E_1(1)"},
        {"pv int_{-inf}^inf cos(x)/(x - 1) dx", "-pi sin(1)"},
        {"pv int_0^5 exp(-x)/(2 - x) dx", "exp(-2) (Ei(2) + E_1(3))"},
        {"pv int_2^0 1/(x - 1.5) dx", "ln(3)"},
        {"pv int_0^2 tan(x) dx", "-ln(-cos(2))"}, // odd about its pole, whose place is rounded
        {"pv int_0^10 tan(x) dx", "-ln(-cos(10))"},
        {"pv int_0^inf x^2/((1 + x^2) (x^2 - 250000)) dx", "pi/500002"}, // a pole far out
        {"pv int_0^1000 1/(x - 0.001) dx", "ln(999.999/0.001)"},         // and one beside the end
        {"int_1^inf ln(x)/x^2 dx", "1"},
        {"int_1^inf ln(x)^3/x^1.5 dx", "96"}, // the bounds know it, the sum of parts does not settle
        {"int_0^inf sin(x) ln(x)/x dx", "pi ψ(1)/2"},
        {"int_0^2 ln(|x - 1|) dx", "-2"},
        {"int_0^inf sin(x)^3/x dx", "pi/4"},
        {"int_0^inf sin(3x) cos(2x)/x dx", "pi/2"},
        {"int_0^inf sin(x)^4/x^4 dx", "pi/3"},
    };
    for (const double a : {-0.95, -0.9, -0.75, -0.5, -0.25, 0.1, 0.5, 1.5, 3.3})
        cases.push_back({fmt::format("int_0^1 x^({}) dx", a), fmt::format("1/({} + 1)", a)});
    for (const double a : {-0.8, -0.5, 0.0, 0.5, 2.0})
        cases.push_back({fmt::format("int_0^1 x^({}) ln(x) dx", a), fmt::format("-1/({} + 1)^2", a)});
    for (const double w : {0.01, 0.1, 1.0, 3.0, 50.0}) {
        cases.push_back({fmt::format("int_0^inf sin({} x)/x dx", w), "pi/2"});
        cases.push_back({fmt::format("int_0^inf J_0({} x) dx", w), fmt::format("1/{}", w)});
    }
    for (const double w : {0.5, 1.0, 2.0, 5.0}) {
        cases.push_back({fmt::format("int_0^inf cos({} x)/(1 + x^2) dx", w), fmt::format("pi/2 exp(-{})", w)});
        cases.push_back({fmt::format("int_0^inf x sin({} x)/(1 + x^2) dx", w), fmt::format("pi/2 exp(-{})", w)});
    }
    for (const double p : {1.5, 2.0, 3.0, 4.0}) {
        cases.push_back({fmt::format("int_0^inf sin(x^{}) dx", p), fmt::format("Gamma(1 + 1/{0}) sin(pi/(2*{0}))", p)});
        cases.push_back({fmt::format("int_0^inf cos(x^{}) dx", p), fmt::format("Gamma(1 + 1/{0}) cos(pi/(2*{0}))", p)});
    }
    for (const int n : {1, 2, 3}) cases.push_back({fmt::format("int_0^inf J_{}(x)/x dx", n), fmt::format("1/{}", n)});
    for (const double a : {0.1, 0.5, 1.5, 3.2, 5.0})
        cases.push_back({fmt::format("int_0^inf exp(-x) x^({} - 1) dx", a), fmt::format("Gamma({})", a)});
    for (const auto& [p, q] : {std::pair{0.5, 0.5}, {0.2, 0.3}, {0.5, 2.0}, {3.0, 0.1}})
        cases.push_back({fmt::format("int_0^1 x^({} - 1) (1 - x)^({} - 1) dx", p, q), fmt::format("B({}, {})", p, q)});
    CHECK(cases.size() >= 100);
    check(cases, 1, 108);
}

TEST_CASE("sums and products without an end: bounds hold, and all have ten digits") {
    const std::vector<Case> cases{
        {"sum_{n=1}^{inf} 1/n^2", "pi^2/6"},
        {"sum_{n=1}^{inf} 1/n^4", "pi^4/90"},
        {"sum_{n=1}^{inf} 1/n^6", "pi^6/945"},
        {"sum_{n=1}^{inf} 1/n^3", "zeta(3)"},
        {"sum_{n=1}^{inf} 1/n^1.5", "zeta(1.5)"},
        {"sum_{n=1}^{inf} 1/n^1.2", "zeta(1.2)"},
        {"sum_{n=1}^{inf} (-1)^(n + 1)/n", "ln(2)"},
        {"sum_{n=0}^{inf} (-1)^n/(2n + 1)", "pi/4"},
        {"sum_{n=1}^{inf} (-1)^(n + 1)/n^2", "pi^2/12"},
        {"sum_{n=0}^{inf} (-1)^n/(2n + 1)^3", "pi^3/32"},
        {"sum_{n=0}^{inf} (-1)^n/(3n + 1)", "(pi/sqrt(3) + ln(2))/3"},
        {"sum_{n=0}^{inf} 1/n!", "e"},
        {"sum_{n=0}^{inf} 2^n/n!", "exp(2)"},
        {"sum_{n=0}^{inf} 50^n/n!", "exp(50)"},
        {"sum_{n=0}^{inf} 1/2^n", "2"},
        {"sum_{n=1}^{inf} n/2^n", "2"},
        {"sum_{n=1}^{inf} n^2/2^n", "6"},
        {"sum_{n=0}^{inf} (-1)^n/(2n)!", "cos(1)"},
        {"sum_{n=0}^{inf} (-1)^n/(2n + 1)!", "sin(1)"},
        {"sum_{n=1}^{inf} 1/(n (n + 1))", "1"},
        {"sum_{n=1}^{inf} 1/(n (n + 2))", "3/4"},
        {"sum_{n=1}^{inf} 1/(4n^2 - 1)", "1/2"},
        {"sum_{n=1}^{inf} 1/(n^2 + 1)", "(pi coth(pi) - 1)/2"},
        {"sum_{n=1}^{inf} 1/(n^2 + 9)", "(3 pi coth(3 pi) - 1)/18"},
        {"sum_{n=0}^{inf} (-1)^n/(n^2 + 1)", "(1 + pi csch(pi))/2"},
        {"sum_{n=0}^{inf} 1/(2n + 1)^2", "pi^2/8"},
        {"sum_{n=0}^{inf} 1/(n + 0.5)^2", "pi^2/2"},
        {"sum_{n=0}^{inf} 1/((3n + 1) (3n + 2))", "pi/(3 sqrt(3))"},
        {"sum_{n=1}^{inf} 1/(n^2 (n + 1))", "pi^2/6 - 1"},
        {"sum_{n=1}^{inf} 1/(n^2*2^n)", "pi^2/12 - ln(2)^2/2"},
        {"sum_{n=1}^{inf} sin(n)/n", "(pi - 1)/2"},
        {"sum_{n=1}^{inf} sin(0.1n)/n", "(pi - 0.1)/2"},
        {"sum_{n=1}^{inf} (-1)^(n + 1) sin(n)/n", "1/2"},
        {"sum_{n=1}^{inf} cos(n)/n", "-ln(2 sin(0.5))"},
        {"sum_{n=1}^{inf} cos(n)/n^2", "pi^2/6 - pi/2 + 1/4"},
        {"sum_{n=1}^{inf} cos(2n)/n^2", "pi^2/6 - pi + 1"},
        {"sum_{n=1}^{inf} sin(n)/n^3", "pi^2/6 - pi/4 + 1/12"},
        {"sum_{n=1}^{inf} (2 + cos(pi n))/n^2", "pi^2/3 - pi^2/12"},
        {"sum_{n=1}^{inf} 0.5^n/n", "ln(2)"},
        {"sum_{n=1}^{inf} 0.9^n/n", "-ln(1 - 0.9)"},
        {"sum_{n=0}^{inf} 0.999^n", "1/(1 - 0.999)"},
        {"sum_{n=0}^{inf} (-1)^n*2.5^(2n)/(n!)^2", "J_0(5)"},
        {"sum_{n=0}^{inf} (-1)^n*1.5^(2n + 1)/(n! (n + 1)!)", "J_1(3)"},
        {"sum_{n=0}^{inf} 1/(n!)^2", "I_0(2)"},
        {"sum_{n=0}^{inf} (-1)^n*2^(2n + 1)/((2n + 1) (2n + 1)!)", "Si(2)"},
        {"2/sqrt(pi) sum_{n=0}^{inf} (-1)^n/(n! (2n + 1))", "erf(1)"},
        {"sum_{n=0}^{inf} (-1)^n*0.5^(2n + 1)/(2n + 1)", "arctan(0.5)"},
        {"sum_{n=0}^{inf} exp(-n)", "1/(1 - exp(-1))"},
        {"sum_{n=1}^{inf} n exp(-n/10)", "exp(-1/10)/(1 - exp(-1/10))^2"},
        {"sum_{n=0}^{inf} cos(n)/2^n", "(1 - cos(1)/2)/(1 - cos(1) + 1/4)"},
        {"sum_{n=1}^{inf} sin(n)/n!", "exp(cos(1)) sin(sin(1))"},
        {"sum_{n=1}^{inf} ln(1 + 1/n^2)", "ln(sinh(pi)/pi)"},
        {"sum_{n=0}^{inf} arctan(1/(n^2 + n + 1))", "pi/2"},
        {"prod_{n=1}^{inf} (1 + 1/n^2)", "sinh(pi)/pi"},
        {"prod_{n=1}^{inf} (1 - 0.25/n^2)", "2/pi"},
        {"prod_{n=1}^{inf} (1 - 6.25/n^2)", "sin(2.5 pi)/(2.5 pi)"},
        {"prod_{n=1}^{inf} (1 - 420.25/n^2)", "sin(20.5 pi)/(20.5 pi)"},
        {"prod_{n=1}^{inf} (1 - 2550.25/n^2)", "sin(50.5 pi)/(50.5 pi)"},
        {"sum_{n=1}^{inf} [n > 100]/n^2", "pi^2/6 - sum_{n=1}^{100} 1/n^2"},
        {"prod_{n=1}^{inf} cos(1/2^n)", "sin(1)"},
        {"prod_{n=2}^{inf} (1 - 1/n^2)", "1/2"},
        {"prod_{n=1}^{inf} (1 - 4/n^2)", "0"},
        {"prod_{n=0}^{inf} (1 + 0.5^(2^n))", "2"},
        {"prod_{n=1}^{inf} (1 - 4/(pi^2 (n - 1/2)^2))", "cos(2)"},
    };
    CHECK(cases.size() >= 60);
    check(cases, 1, 61);
}

TEST_CASE("what has no sum, no product and no integral is said to have none") {
    for (const char* text : {"sum_{n=1}^{inf} 1/n",        "sum_{n=1}^{inf} 1/sqrt(n)",
                             "sum_{n=0}^{inf} (-1)^n",     "sum_{n=1}^{inf} cos(n)",
                             "sum_{n=1}^{inf} n",          "sum_{n=0}^{inf} 2^n",
                             "sum_{n=0}^{inf} 1",          "sum_{n=2}^{inf} 1/(n ln(n))",
                             "sum_{n=1}^{inf} (-1)^n n",   "sum_{n=1}^{inf} sqrt(n) sin(n)",
                             "prod_{n=1}^{inf} (1 + 1/n)", "prod_{n=1}^{inf} 2",
                             "sum_{n=0}^{inf} 1/(n - 3)",  "sum_{n=0}^{inf} (-30)^n/n!",
                             "int_0^inf cos(x) dx",        "int_0^inf x sin(x) dx",
                             "int_1^inf 1/x dx",           "int_0^1 1/x dx",
                             "int_0^1 1/x^1.5 dx",         "int_0^inf sin(x)/x^2 dx",
                             "int_{-1}^1 1/x dx",          "pv int_{-1}^1 1/x^2 dx",
                             "int_{-1}^2 1/(x - 0.3) dx"}) {
        INFO(text);
        const Answer found = evaluate(Page{}, text);
        REQUIRE(found.problems.empty());
        CHECK(!std::isfinite(found.value()));
        CHECK(found.unsettled);
    }
}

TEST_CASE("series take part in functions, families and derivatives") {
    const std::vector<std::string> lines{"j(x) = sum_{n=0}^{inf} (-1)^n (x/2)^(2n)/(n!)^2",
                                         "z(s) = sum_{n=1}^{inf} 1/n^s", "p(x) = x prod_{n=1}^{inf} (1 - x^2/n^2)"};
    const Page page = readPage(lines);
    REQUIRE(page.problems().empty());
    for (const double x : {0.01, 0.3, 2.4048, 7.0, 12.0}) {
        const std::string at = std::to_string(x);
        CHECK(std::abs(evaluate(page, "j(" + at + ")").value() - evaluate(page, "J_0(" + at + ")").value()) < 1e-12);
        CHECK(std::abs(evaluate(page, "j'(" + at + ")").value() + evaluate(page, "J_1(" + at + ")").value()) < 1e-11);
    }
    CHECK(evaluate(page, "z(2.5)").value() == Approx(evaluate(page, "zeta(2.5)").value()).epsilon(1e-13));
    CHECK(evaluate(page, "p(0.7)").value() == Approx(evaluate(page, "sin(0.7 pi)/pi").value()).epsilon(1e-12));
    CHECK(evaluate(page, "p'(0.7)").value() == Approx(evaluate(page, "cos(0.7 pi)").value()).epsilon(1e-10));
    // In a block, alone, and beside others: the same bits.
    const auto program = compile(page, page.lines[0].body, page.lines[0].parameters).program;
    REQUIRE(program);
    std::vector<double> xs(300), together(300);
    for (std::size_t i = 0; i < xs.size(); ++i) xs[i] = 0.05 * static_cast<double>(i);
    Evaluator block(*program), alone(*program);
    block(xs.data(), together.data(), xs.size());
    for (std::size_t i = 0; i < xs.size(); i += 7) CHECK(alone(xs[i]) == together[i]);
}
