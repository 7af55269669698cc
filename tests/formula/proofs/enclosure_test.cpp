#include "formula/proofs/interval_evaluator.h"

#include "compiled_formula.h"
#include "program_reference.h"
#include "random_formula.h"

using namespace coulter;

namespace {

Enclosure over(const std::string& formula, double low, double high) {
    const auto program = compiledFormula(formula);
    IntervalEvaluator evaluator(*program);
    const Enclosure x{low, high};
    return evaluator(std::span(&x, 1))[0];
}

} // namespace

TEST_CASE("values at high precision lie inside the enclosures of random formulas") {
    int checked = 0, known = 0, proofs = 0;
    for (unsigned seed = 0; seed < 1500; ++seed) {
        RandomFormula random(seed);
        const std::string formula = random.make(1 + static_cast<int>(seed % 4));
        const auto program = compiledFormula(formula);
        if (!program) continue; // constants outside a domain
        IntervalEvaluator evaluator(*program);
        const oracle::ProgramReference reference{*program};
        for (int i = 0; i < 4; ++i) {
            const double low = random.between(-4, 4), width = std::pow(10, random.between(-8, 0.7));
            const Enclosure x{low, low + width};
            const Enclosure y = evaluator(std::span(&x, 1))[0];
            known += y.known;
            proofs += y.isProof();
            for (int k = 0; k < 6; ++k) {
                const double at = k == 0 ? x.low : k == 1 ? x.high : random.between(x.low, x.high);
                const auto exact = reference.at({at});
                INFO(formula << " over [" << shortestNumber(x.low) << ", " << shortestNumber(x.high) << "] at "
                             << shortestNumber(at));
                if (!exact) {
                    continue;
                }
                ++checked;
                if (!y.known) continue;
                REQUIRE(y.low <= exact->second);
                REQUIRE(y.high >= exact->first);
            }
        }
    }
    CHECK(checked > 10000);
    CHECK(known > 3000);
    CHECK(proofs > 2000);
}

TEST_CASE("each function of one variable lies inside its enclosure, on narrow and on wide intervals") {
    int checked = 0;
    for (const FunctionEntry& entry : catalogue()) {
        const std::string formula = exampleOf(entry);
        const auto program = compiledFormula(formula);
        INFO(formula);
        REQUIRE(program);
        IntervalEvaluator evaluator(*program);
        const oracle::ProgramReference reference{*program};
        RandomFormula random(7);
        for (int i = 0; i < 60; ++i) {
            const double low = random.between(-3, 6), width = std::pow(10, random.between(-10, 0.5));
            const Enclosure x{low, low + width};
            const Enclosure y = evaluator(std::span(&x, 1))[0];
            for (int k = 0; k < 4; ++k) {
                const double at = random.between(x.low, x.high);
                const auto exact = reference.at({at});
                INFO("over [" << shortestNumber(x.low) << ", " << shortestNumber(x.high) << "] at "
                              << shortestNumber(at));
                if (!exact || !y.known) continue;
                REQUIRE(y.low <= exact->second);
                ++checked;
                REQUIRE(y.high >= exact->first);
            }
        }
    }
    CHECK(checked > 4000);
}

TEST_CASE("enclosures are tight where a formula is simple") {
    CHECK(over("x + 1", 1, 2).low == 2);
    CHECK(over("x + 1", 1, 2).high == 3);
    CHECK(over("x^2", -1, 2).low == 0);
    CHECK(over("x^2", -1, 2).high == 4);
    CHECK(over("x - x", 1, 2).high == 0);
    CHECK(over("sin(x)", 1, 2).high == 1);
    CHECK(over("sin(x)", 1, 2).low == Approx(std::sin(1.0)).epsilon(1e-14));
    CHECK(over("1/x", 2, 4).low == 0.25);
    CHECK(over("J_0(x)", 1, 1.001).width() < 0.002);
    CHECK(over("int_0^x k dk", 1, 1.5).low > 0.35);
    CHECK(over("int_0^x k dk", 1, 1.5).high < 1.2);
}

TEST_CASE("what may be undefined or may jump is said") {
    CHECK(over("1/x", 1, 2).isProof());
    CHECK_FALSE(over("1/x", -1, 2).defined);
    CHECK_FALSE(over("tan(x)", 1, 2).continuous);
    CHECK_FALSE(over("sqrt(x)", -1, 2).defined);
    CHECK_FALSE(over("x^2.5", -1, 2).defined);
    CHECK_FALSE(over("x^0.3", -2, -1).defined);
    CHECK_FALSE(over("floor(x)", 0.5, 1.5).continuous);
    CHECK(over("floor(x)", 0.5, 0.75).isProof());
    CHECK_FALSE(over("{ 1 for x < 0; 2 otherwise }", -1, 1).continuous);
    CHECK(over("{ 1 for x < 0; 2 otherwise }", 1, 2).isProof());
    CHECK(over("{ 1 for x < 0; 2 otherwise }", 1, 2).low == 2);
    CHECK_FALSE(over("{ 1 for x < 0 }", 1, 2).defined);
    CHECK_FALSE(over("zeta(x)", -3, -2).known);
    CHECK_FALSE(over("mod(x, 2)", 1, 3).continuous);
    CHECK(over("mod(x, 2)", 2.5, 3.5).isProof());
    CHECK(over("int_0^2 sin(k x) dk", 1, 1.01).isProof());
    CHECK(over("int_0^2 sin(k) dk", 1, 1.01).isProof()); // a number: computed while compiling
}
