// Proven bounds of principal values, and the reciprocals of programs that they stand on.
#include "compiled_formula.h"
#include "formula/compile/compile.h"
#include "formula/program/program_edit.h"
#include "formula/proofs/proven_principal.h"
#include "program_reference.h"
#include "random_formula.h"

#include <fmt/format.h>
#include <random>

using namespace coulter;

namespace {

std::optional<Bounds> principal(const std::string& integrand, double low, double high) {
    const auto program = compiledFormula(integrand);
    REQUIRE(program);
    ProvenIntegral between(*program);
    return provenPrincipal(*program, between, exactly(low), exactly(high), {});
}

/// That bounds are known, hold what Arb finds, and are this sharp.
void check(const std::string& integrand, double low, double high, const std::string& closed, double sharp) {
    INFO("pv of " << integrand << " from " << low << " to " << high << " = " << closed);
    const auto found = principal(integrand, low, high);
    REQUIRE(found);
    const auto parsed = parseExpression(decodeUtf8(closed), KnownNames{});
    REQUIRE(parsed.expression);
    const auto [least, most] =
        oracle::ProgramReference{*compileStepByStep(Page{}, parsed.expression).program}.at({}).value();
    INFO(found->low << " to " << found->high);
    CHECK(found->low <= most);
    CHECK(found->high >= least);
    CHECK(width(*found) < sharp);
}

} // namespace

TEST_CASE("principal values hold what Arb finds, and are sharp") {
    check("1/x", -1, 2, "ln(2)", 1e-13);
    check("3/(x - 1)^1 - 2", 0, 3, "3 ln(2) - 6", 1e-12);
    check("tan(x)", 0, 2, "-ln(-cos(2))", 1e-12);
    check("cot(x)", -1, 2, "ln(sin(2)/sin(1))", 1e-12);
    check("1/x + cos(x)", -1, 2, "ln(2) + sin(2) + sin(1)", 1e-12);
    check("exp(x)/x", -1, 1, "Ei(1) + E_1(1)", 1e-12);
    check("x^(-1)/2", 2, -1, "-ln(2)/2", 1e-13); // from right to left
    check("1/ln(x)", 0.5, 4, "Ei(ln(4)) - Ei(ln(0.5))", 1e-11);
    check("sin(x)", 0, 1, "1 - cos(1)", 1e-14); // without a pole
    check("1/(x^2 - 1)", 0, HUGE_VAL, "0", 1e-12);
    check("cos(x)/(x - 1)", -HUGE_VAL, HUGE_VAL, "-pi sin(1)", 1e-11);
}

TEST_CASE("principal values over two poles hold their partial fractions") {
    std::mt19937 random(5);
    std::uniform_int_distribution<int> tenths(-30, 30);
    for (int i = 0; i < 40; ++i) {
        const double low = -4, high = 5, c = tenths(random) / 10.0, d = tenths(random) / 10.0,
                     p = tenths(random) / 10.0;
        if (c == d || p == -c || p == -d) continue;
        const auto part = [&](double at, double other) {
            return fmt::format("(({0}) + ({1}))/(({1}) - ({2})) ln((5 - ({1}))/(({1}) + 4))", p, at, other);
        };
        check(fmt::format("(({}) + x)/((x - ({})) (x - ({})))", p, c, d), low, high, part(c, d) + " + " + part(d, c),
              1e-9); // residues of 300 beside each other cancel
    }
}

TEST_CASE("what has no principal value, or none that is known, makes no proof") {
    CHECK(!principal("1/x^2", -1, 1));
    CHECK(!principal("1/x^3", -1, 2)); // not a simple pole
    CHECK(!principal("abs(x)/x^2", -1, 1));
    CHECK(!principal("1/x", 0, 1)); // a pole at the end
    CHECK(!principal("1/x", -1, HUGE_VAL));
    CHECK(!principal("tan(1/x)", -1, 1)); // poles without number
    CHECK(!principal("[x > 0]/x", -1, 1));
    CHECK(!principal("ln(x)/(x - 1)^2", -1, 2)); // undefined on a part
}

TEST_CASE("the reciprocal of a program is one divided by it") {
    RandomFormula formulas(91);
    std::mt19937 random(92);
    std::uniform_real_distribution<double> any(-3, 3);
    int compared = 0;
    for (int i = 0; i < 300; ++i) {
        const std::string formula = formulas.make(1 + i % 4);
        const auto program = compiledFormula(formula);
        if (!program || program->outputs.size() != 1 || !program->integrals.empty()) continue;
        const Program reciprocal = reciprocalOf(*program);
        Evaluator f(*program), r(reciprocal);
        for (int k = 0; k < 5; ++k) {
            const double x = any(random), value = f(x), other = r(x);
            if (!(std::abs(value) > 1e-100 && std::abs(value) < 1e100)) continue;
            INFO(formula << " at " << x);
            CHECK(std::abs(value * other - 1) < 1e-6);
            ++compared;
        }
    }
    CHECK(compared > 300);
    // Where a pole is, it is 0.
    for (const char* formula : {"1/x", "3 + 2/x", "cot(x)", "csc(x)^3", "x^(-2) exp(x)", "sin(1/(1 + x))/x"}) {
        INFO(formula);
        const Program reciprocal = reciprocalOf(*compiledFormula(formula));
        CHECK(Evaluator(reciprocal)(0) == 0);
    }
}
